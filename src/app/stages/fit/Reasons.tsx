import { shownNumber } from '../../../core/base/notation';
import { START_SHARE, startingSides, stemAndCounter } from '../../../core/fitting/counter';
import { controlsOf } from '../../../core/fitting/lines';
import { type Measure, measureFor, whiteOnSide } from '../../../core/fitting/optical';
import { setSides } from '../../../core/fitting/sides';
import { changeSettings } from '../../../core/project/edits';
import type { Glyph } from '../../../core/project/model';
import { masterOf } from '../../../core/project/queries';
import { run, useBench } from '../../state/bench';
import { characterOf } from '../../ui/GlyphShape';
import { NumberField, Section } from '../../ui/parts';

/** What the pairs of two controls are called, by their letters: nn, no, oo. */
function pairNames(straight: Glyph, round: Glyph): string {
  const [s, r] = [straight, round].map((g) => characterOf(g) || g.name.replace(/\..*$/, ''));
  return `White ${s}${s}, ${s}${r}, ${r}${r}`;
}

/** White between straight and straight, straight and round, round and round. */
const pairsOf = ({ straight, round }: Measure): number[] => [
  2 * straight.white,
  straight.white + round.white,
  2 * round.white,
];

/** The numbers behind the eye: stem, counter, and the white on each side against what the controls leave. */
export function Reasons({ glyph }: { glyph: Glyph }) {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const master = masterOf(project, masterId)!;
  const { stem, counter } = stemAndCounter(project, glyph, master);
  const measure = measureFor(project, glyph, master);
  const controls = controlsOf(project, glyph);
  const start = startingSides(project, glyph, master);
  const share = project.settings.startShare ?? START_SHARE;
  const rows = [
    stem !== undefined && ['Stem', shownNumber(stem, 0)],
    counter !== undefined && ['Counter', shownNumber(counter, 0)],
    ...(['left', 'right'] as const).map((side) => {
      const white = measure && whiteOnSide(project, glyph, master, side, measure);
      return white && [`White ${side}; controls’`, `${shownNumber(white.now, 0)}; ${shownNumber(white.wanted, 0)}`];
    }),
    controls &&
      measure && [
        pairNames(controls.straight, controls.round),
        pairsOf(measure)
          .map((v) => shownNumber(v, 0))
          .join('; '),
      ],
  ].filter((r): r is string[] => Boolean(r));
  return (
    <Section title="Why">
      <dl
        className="mb-1.5 grid grid-cols-[1fr_auto] gap-x-2 gap-y-0.5"
        title="White is the side bearing with what a round, open or diagonal side adds to it for the eye"
      >
        {rows.map(([what, value]) => (
          <div key={what} className="contents">
            <dt className="text-quiet">{what}</dt>
            <dd className="text-right">{value}</dd>
          </div>
        ))}
      </dl>
      {start && (
        <div title="The dashed lines: half a counter on each side for most faces without serifs, more with them; less for round sides">
          <NumberField
            label="Start at % of counter"
            value={share * 100}
            onChange={(v) => run((p) => changeSettings(p, { startShare: v / 100 }))}
          />
          <button
            type="button"
            className="mt-1 text-[13px] text-kelp disabled:text-quiet"
            onClick={() => run((p) => setSides(p, { at: { glyph: glyph.id, master: masterId }, ...start }))}
          >
            Start with {shownNumber(start.left, 0)} and {shownNumber(start.right, 0)}
          </button>
        </div>
      )}
    </Section>
  );
}
