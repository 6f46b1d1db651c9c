import { useMemo } from 'react';
import { codePointForm } from '../../../core/base/notation';
import { widenForMarks } from '../../../core/composing/apart';
import type { ComposedCell } from '../../../core/composing/view';
import { plural } from '../../../core/project/edit';
import { nameForCodePoint } from '../../../core/project/glyphNames';
import type { Glyph, Project } from '../../../core/project/model';
import { glyphForCodePoint, masterOf } from '../../../core/project/queries';
import { hands } from '../../keys/hands';
import { say, useBench } from '../../state/bench';
import { runFarAndSay } from '../../state/far';
import { goToStage } from '../../state/navigation';
import { Details } from '../../ui/Details';
import { GlyphShape } from '../../ui/GlyphShape';
import { Button, Section } from '../../ui/parts';
import { Shape, STATES } from './Cell';
import { RecipeForm } from './RecipeForm';

type Props = {
  cells: readonly ComposedCell[];
  ids: readonly string[];
  onBuild: (cells: readonly ComposedCell[]) => boolean;
  onOpen: (cell: ComposedCell) => boolean;
  onAnew: () => boolean;
  onApart: () => boolean;
};

/** What a letter is put together from, why it cannot be, how it looks by its recipe, and what can be done. */
export function ComposeDetails(props: Props) {
  const { cells } = props;
  if (cells.length === 0)
    return (
      <Details heading="Compose" sub="Letters from bases and marks">
        <p className="mb-2 text-quiet">
          A letter is put together from its base and marks, in every master: each mark where its anchor meets the same
          one of the letter. Anchors that lack are placed by the shapes; move them in Draw, under Parts, and the letters
          follow.
        </p>
        <p className="mb-4 text-quiet">
          Click a letter to see what it is made of; arrows walk, Shift or Ctrl choose more, Enter builds.
        </p>
        <Section title="A recipe of your own">
          <RecipeForm key="new" />
        </Section>
      </Details>
    );
  return cells.length === 1 ? <One {...props} cell={cells[0]!} /> : <Many {...props} />;
}

function One({ cell, ids, onBuild, onOpen, onAnew, onApart }: Props & { cell: ComposedCell }) {
  const name = cell.name || (cell.code >= 0 ? nameForCodePoint(cell.code) : '');
  const isThere = cell.state === 'built' || cell.state === 'hand';
  return (
    <Details
      heading={name}
      sub={cell.code >= 0 ? `${String.fromCodePoint(cell.code)} · ${codePointForm(cell.code)}` : 'without a code point'}
    >
      <p className={`mb-3 ${cell.state === 'not' ? 'text-brick' : 'text-quiet'}`}>
        It {STATES[cell.state].one}.{cell.why ? ` ${cell.why}` : ''}
      </p>
      {isThere && cell.differs && cell.preview && <BeforeAndAfter cell={cell} id={ids[0]} onAnew={onAnew} />}
      {cell.out && <StandsOut cell={cell} ids={ids} />}
      <div className="mb-4 flex flex-wrap gap-2">
        {cell.state === 'can' && (
          <Button kind="primary" onClick={() => onBuild([cell])}>
            Build it
          </Button>
        )}
        {ids.length > 0 && <Button onClick={() => onOpen(cell)}>Draw it</Button>}
        {cell.state === 'built' && (
          <Button title="Its parts become outlines of its own, in all masters" onClick={onApart}>
            Take apart
          </Button>
        )}
      </div>
      <Section title="Recipe">
        <RecipeForm key={`${name} ${cell.state}`} name={name} {...(cell.code >= 0 && { code: cell.code })} />
      </Section>
    </Details>
  );
}

/** A letter as it is drawn beside what its recipe would make of it. */
function BeforeAndAfter({ cell, id, onAnew }: { cell: ComposedCell; id: string | undefined; onAnew: () => boolean }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const glyph = id === undefined ? undefined : project.glyphs[id];
  const reach = useMemo(() => {
    const { zones } = masterOf(project, master)!;
    return { top: zones.capHeight.position + project.unitsPerEm * 0.35, bottom: zones.descender.position };
  }, [project, master]);
  if (!glyph || !cell.preview) return null;
  return (
    <div className="mb-4">
      <div className="flex gap-2">
        <figure className="flex-1 rounded-lg border border-line bg-paper p-1 text-center">
          <GlyphShape project={project} glyph={glyph} master={master} size={100} reach={reach} />
          <figcaption className="text-[12px] text-quiet">as it is</figcaption>
        </figure>
        <figure className="flex-1 rounded-lg border border-dashed border-kelp bg-paper p-1 text-center">
          <Shape preview={cell.preview} reach={reach} size={100} />
          <figcaption className="text-[12px] text-quiet">by its recipe</figcaption>
        </figure>
      </div>
      <Button
        className="mt-2 w-full"
        title="In all masters, in place of what is drawn; Undo brings that back"
        onClick={onAnew}
      >
        Make it anew by the recipe
      </Button>
    </div>
  );
}

/** Goes to the pair of a letter and a tall one at the side where its marks stand out. */
function kernBeside(project: Project, glyph: Glyph, side: 'left' | 'right'): void {
  const tall = [...(side === 'left' ? 'flT' : 'lbT')]
    .map((c) => glyphForCodePoint(project, c.codePointAt(0)!))
    .find((g) => g !== undefined);
  if (!tall) {
    say('There is no tall letter to set beside it yet.');
    return;
  }
  goToStage('kern');
  const pair = side === 'left' ? { first: tall.id, second: glyph.id } : { first: glyph.id, second: tall.id };
  // The stage lays its deeds out when it has been drawn.
  setTimeout(() => hands.kern?.show(pair), 400);
}

/** Marks that stand out of a letter, and the two ways to deal with that. */
function StandsOut({ cell, ids }: { cell: ComposedCell; ids: readonly string[] }) {
  const project = useBench((s) => s.settled)!;
  const { left, right } = cell.out!;
  const sides = [left > 0 && `${left} to the left`, right > 0 && `${right} to the right`].filter(Boolean).join(', ');
  const glyph = ids[0] === undefined ? undefined : project.glyphs[ids[0]];
  return (
    <div className="mb-4">
      <p className="mb-1.5">▲ Its marks stand out of it: {sides}. Next to tall letters they may touch.</p>
      {glyph && cell.state !== 'can' && (
        <div className="flex flex-wrap gap-2">
          <Button
            title="By what stands out in each master"
            onClick={() => {
              void runFarAndSay(widenForMarks, { glyphs: [...ids] }, { glyphs: ids.length });
            }}
          >
            Widen it
          </Button>
          <Button
            title="Opens the pair with a tall letter in Kern"
            onClick={() => kernBeside(project, glyph, left > 0 ? 'left' : 'right')}
          >
            Kern it…
          </Button>
        </div>
      )}
    </div>
  );
}

function Many({ cells, ids, onBuild, onAnew, onApart }: Props) {
  const can = cells.filter((c) => c.state === 'can');
  const out = cells.filter((c) => c.out && c.state !== 'can');
  const there = cells.filter((c) => c.state === 'built' || c.state === 'hand');
  const differ = there.filter((c) => c.differs);
  const project = useBench((s) => s.settled)!;
  const outIds = ids.filter((id) => out.some((c) => c.name === project.glyphs[id]?.name));
  return (
    <Details heading={plural(cells.length, 'letter')} sub={cells.slice(0, 24).map(shownAs).join(' ')}>
      <div className="flex flex-col items-stretch gap-2">
        {can.length > 0 && (
          <Button kind="primary" onClick={() => onBuild(can)}>
            Build {can.length}
          </Button>
        )}
        {there.length > 0 && (
          <Button title="In all masters, in place of what is drawn, by hand too" onClick={onAnew}>
            Make {there.length} anew by their recipes{differ.length > 0 ? ` (${differ.length} differ)` : ''}
          </Button>
        )}
        {cells.some((c) => c.state === 'built') && <Button onClick={onApart}>Take apart to outlines</Button>}
        {outIds.length > 0 && (
          <Button
            onClick={() => {
              void runFarAndSay(widenForMarks, { glyphs: outIds }, { glyphs: outIds.length });
            }}
          >
            Widen {outIds.length} whose marks stand out
          </Button>
        )}
      </div>
    </Details>
  );
}

const shownAs = (c: ComposedCell): string => (c.code >= 0 ? String.fromCodePoint(c.code) : c.name);
