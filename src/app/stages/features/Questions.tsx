import { placeAnchors } from '../../../core/composing/edits';
import { declareSystems } from '../../../core/features/edits';
import { idsOf, type Question } from '../../../core/features/questions';
import { glyphNamed } from '../../../core/project/queries';
import { run, useBench } from '../../state/bench';
import { useDrawn } from '../../state/drawn';
import { runFar } from '../../state/far';
import { GlyphShape } from '../../ui/GlyphShape';
import { Button } from '../../ui/parts';

/** Letters of a question are drawn up to so many. */
const MOST_DRAWN = 24;
/** Questions of a section are shown up to so many. */
const MOST = 6;
const SIZE = 26;

/** What may not be meant in rules: in words, with its letters, and what would mend it. */
export function Questions({ questions }: { questions: readonly Question[] }) {
  if (questions.length === 0) return null;
  return (
    <ul aria-label="Asked of the rules" className="mt-1 grid gap-1.5 text-[13px]">
      {questions.slice(0, MOST).map((q) => (
        <li key={q.reason}>
          <p>
            <span aria-hidden className="mr-1 font-semibold text-marigold">
              ?
            </span>
            {q.reason}
          </p>
          <Letters names={q.glyphs} />
          {q.mend && <Mend question={q} mend={q.mend} />}
        </li>
      ))}
      {questions.length > MOST && <li className="text-quiet">and {questions.length - MOST} more like these.</li>}
    </ul>
  );
}

function Letters({ names }: { names: readonly string[] }) {
  const project = useDrawn();
  const master = useBench((s) => s.master);
  if (names.length === 0) return null;
  return (
    <p className="mt-0.5 flex flex-wrap items-center">
      {names.slice(0, MOST_DRAWN).map((name) => {
        const glyph = glyphNamed(project, name);
        return glyph ? (
          <span key={name} title={name} className="text-ink">
            <GlyphShape project={project} glyph={glyph} master={master} size={SIZE} />
            <span className="sr-only">{name} </span>
          </span>
        ) : null;
      })}
      {names.length > MOST_DRAWN && <span className="text-quiet">and {names.length - MOST_DRAWN} more</span>}
    </p>
  );
}

function Mend({ question, mend }: { question: Question; mend: NonNullable<Question['mend']> }) {
  if (mend.kind === 'carets')
    return (
      <Button
        className="mt-1"
        title="Between the letters, by their widths, in every master"
        onClick={() =>
          void runFar(
            placeAnchors,
            { glyphs: idsOf(useBench.getState().settled!, question.glyphs) },
            { glyphs: question.glyphs.length },
          )
        }
      >
        Set the carets
      </Button>
    );
  return (
    <Button
      className="mt-1"
      title={mend.systems.map(([s, l]) => `languagesystem ${s} ${l};`).join(' ')}
      onClick={() => run((p) => declareSystems(p, { systems: mend.systems.map(([s, l]) => [s, l]) }))}
    >
      Declare {mend.systems.length === 1 ? 'it' : 'them'}
    </Button>
  );
}
