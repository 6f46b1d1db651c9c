import { useMemo, useRef, useState } from 'react';
import { shownNumber } from '../../../core/base/notation';
import { evenFigures, isTabular, unevenFigures } from '../../../core/fitting/figures';
import {
  controlStrings,
  controlsOf,
  formLines,
  formsOf,
  glyphsOfLine,
  spellingOf,
  withGlyphAt,
  wordsWith,
} from '../../../core/fitting/lines';
import { addTracking, setSides, sidesOf } from '../../../core/fitting/sides';
import { plural } from '../../../core/project/edit';
import { setFitLines } from '../../../core/project/edits';
import { findGlyphs } from '../../../core/project/findGlyphs';
import type { Glyph, GlyphId } from '../../../core/project/model';
import { placeInWords } from '../../../core/project/places';
import { drawingOf } from '../../../core/project/queries';
import { waypointId } from '../../../core/project/waypoints';
import { run, useBench } from '../../state/bench';
import { useCaseBench } from '../../state/chosen';
import { closeDialog, openDialog, useDialog } from '../../state/dialogs';
import { runFar } from '../../state/far';
import { BesideSection } from '../../ui/BesideNumbers';
import { Slide } from '../../ui/controls';
import { Details } from '../../ui/Details';
import { GlyphShape } from '../../ui/GlyphShape';
import { draggedAs } from '../../ui/glyphDrag';
import { Button, CheckRow, Choice, NumberField, Section, TextField } from '../../ui/parts';
import { BesideLines } from './BesideLines';
import { CopySides } from './CopySides';
import { FitCanvas } from './FitCanvas';
import { FitProposalDialog } from './FitProposalDialog';
import { FollowSection } from './FollowSection';
import { KINDS, type LineKind, setKind, setSize, useFitBench } from './fitBench';
import type { FitLine } from './fitLines';
import { Reasons } from './Reasons';

/** Side bearings in lines at reading size: edges are dragged, stepped by keys or typed. Kerning is off here. */
export default function Fit() {
  const project = useBench((s) => s.project)!;
  const id = useBench((s) => s.glyph);
  const { kind, size } = useFitBench();
  const proposing = useDialog('fit-proposal');
  const glyph = id ? project.glyphs[id] : undefined;
  const { masters } = project;
  const master = useBench((s) => s.master);
  const [together, setTogether] = useState(false);
  const { words, galley } = project.texts;
  const hasForms = glyph !== undefined && formsOf(project, glyph).length > 1;
  // A letter of the lines that has no other forms is fitted among those that are shown.
  const lastFormed = useRef<GlyphId>(undefined);
  if (hasForms) lastFormed.current = glyph.id;
  const formed = lastFormed.current === undefined ? undefined : project.glyphs[lastFormed.current];
  const lines = useMemo(() => {
    if (kind === 'masters') return [glyph ? controlStrings(project, glyph)[2]! : galley];
    if (kind === 'forms') return formed ? formLines(project, formed) : [galley];
    if (kind === 'own') return words.length > 0 ? words : [galley];
    return glyph ? [...controlStrings(project, glyph), wordsWith(glyph).join(' ') || galley, galley] : [galley];
  }, [kind, project, glyph, formed, words, galley]);
  const kinds = KINDS.filter(
    ({ value }) => (value !== 'masters' || masters.length > 1) && (value !== 'forms' || hasForms || kind === 'forms'),
  );
  const watched = useBench((s) => s.watched);
  const rows = useMemo(() => {
    const slot = kind === 'own' ? glyph : undefined;
    const own: FitLine[] =
      kind === 'masters'
        ? masters.map((m) => ({ text: lines[0]!, master: m.id }))
        : lines.map((text) => ({ text, master, slot }));
    // The place that is kept in sight, to be looked at only, below the line that it is compared with.
    return watched ? own.toSpliced(1, 0, { text: lines[0]!, master: waypointId(watched), slot, looked: true }) : own;
  }, [kind, lines, masters, master, glyph, watched]);
  /** A glyph dropped into a line; a control string becomes a line of one's own first. */
  const putIn = (line: number, index: number, dropped: GlyphId) => {
    const g = project.glyphs[dropped];
    if (!g) return;
    const into = rows.slice(0, line).filter((r) => !r.looked).length;
    if (rows[line]?.looked) return;
    const next = lines.map((l, i) =>
      i === into ? withGlyphAt(project, l, index, g, kind === 'own' ? glyph : undefined) : l,
    );
    run((p) => setFitLines(p, { lines: next }));
    setKind('own');
  };
  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex flex-wrap items-center gap-3 px-5 pt-3 pb-1">
          <Choice label="Lines" value={kind} options={kinds} onChange={setKind} />
          <span className="flex items-center gap-2 text-quiet">
            Size
            <Slide label="Size" min={40} max={220} value={size} onChange={setSize} />
            <span className="w-12">{size} px</span>
          </span>
          <Button
            title="Sides for all glyphs from those you have set, looked at before they are taken"
            onClick={() => openDialog('fit-proposal')}
          >
            Propose…
          </Button>
          {kind === 'masters' && (
            <span data-testid="fit-together">
              <CheckRow label="change all together" checked={together} onChange={setTogether} />
            </span>
          )}
          <span className="ml-auto text-quiet">kerning and features off</span>
        </div>
        {kind === 'beside' ? (
          <BesideLines lines={lines} size={size} />
        ) : (
          <FitCanvas lines={rows} size={size} putIn={putIn} together={kind === 'masters' && together} />
        )}
      </div>
      <FitDetails kind={kind} lines={lines} />
      <FitProposalDialog open={proposing} onClose={closeDialog} />
    </div>
  );
}

function FitDetails({ kind, lines }: { kind: LineKind; lines: readonly string[] }) {
  const project = useBench((s) => s.project)!;
  const master = useBench((s) => s.master);
  const id = useBench((s) => s.glyph);
  const [text, setText] = useState<{ shown: string; lines: readonly string[] } | undefined>();
  const [insert, setInsert] = useState('');
  const glyph = id ? project.glyphs[id] : undefined;
  const slot = kind === 'own' ? glyph : undefined;
  const missing = [...new Set(lines.flatMap((l) => glyphsOfLine(project, l, slot).missing))].filter(
    (c) => c.trim() !== '',
  );
  const inLine = [...new Set(lines.flatMap((l) => glyphsOfLine(project, l, slot).glyphs))];
  // Control letters stand there to judge by; only lines of one's own are spaced as they are.
  const controls = glyph && kind !== 'own' ? controlsOf(project, glyph) : undefined;
  const spaced = inLine.filter((g) => g === id || (g !== controls?.straight.id && g !== controls?.round.id));
  // What is being typed is shown as typed (empty lines too) while it still stands for the stored lines.
  const own = text && text.lines === project.texts.words ? text.shown : project.texts.words.join('\n');
  const offered = findGlyphs(project, insert).slice(0, 12);
  const writeLines = (value: string) => {
    run((p) => setFitLines(p, { lines: value.split('\n').filter((l) => l.trim() !== '') }), 'fit-lines');
    setText({ shown: value, lines: useBench.getState().project!.texts.words });
  };
  if (!glyph) return <Details heading="No glyph selected" sub="Click one in a line" />;
  const at = { glyph: glyph.id, master };
  const sides = sidesOf(project, glyph, master);
  const drawn = 'left' in sides;
  return (
    <Details heading={glyph.name} sub={`advance ${Math.round(drawingOf(glyph, master).advance * 10) / 10}`}>
      <Section title="Sides">
        <div className="grid gap-1.5">
          {drawn && (
            <NumberField label="Left" value={sides.left} onChange={(left) => run((p) => setSides(p, { at, left }))} />
          )}
          {drawn && (
            <NumberField
              label="Right"
              value={sides.right}
              onChange={(right) => run((p) => setSides(p, { at, right }))}
            />
          )}
          <NumberField
            label="Advance"
            value={sides.advance}
            onChange={(advance) => run((p) => setSides(p, { at, advance }))}
          />
          <SidesInSight glyph={glyph} />
          {drawn && <CopySides glyph={glyph} />}
          {!drawn && <p className="text-quiet">Nothing is drawn yet, so there is an advance width only.</p>}
        </div>
      </Section>
      <FigureWidths glyph={glyph} />
      {drawn && <Reasons glyph={glyph} />}
      <BesideSection glyph={glyph} />
      {drawn && <FollowSection glyph={glyph} />}
      <TrackingSection glyph={glyph} inLine={spaced} />
      {kind === 'own' && (
        <Section title="My lines">
          <textarea
            aria-label="Lines to fit in"
            rows={5}
            spellCheck={false}
            value={own}
            placeholder={project.texts.galley}
            onChange={(e) => writeLines(e.target.value)}
            className="mb-1.5 w-full resize-y rounded-lg border border-line bg-paper px-2 py-1.5 placeholder:text-quiet"
          />
          <p className="mb-1.5 text-[12.5px] text-quiet">
            _ stands for the selected glyph, /name for one without a character.
          </p>
          <TextField
            aria-label="Find a glyph to put in"
            placeholder="find a glyph to put in"
            value={insert}
            onChange={(e) => setInsert(e.target.value)}
          />
          <div className="mt-1.5 flex flex-wrap gap-1">
            {offered.map((g) => (
              <button
                key={g.id}
                type="button"
                {...draggedAs(g.id)}
                title={`${g.name}: drag it into a line, or click to put it at the end`}
                aria-label={`Put in ${g.name}`}
                onClick={() => writeLines(`${own}${spellingOf(g)}`)}
                className="rounded-md border border-line bg-paper hover:border-kelp"
              >
                <GlyphShape project={project} glyph={g} master={master} size={34} />
              </button>
            ))}
          </div>
        </Section>
      )}
      {missing.length > 0 && <p className="text-[13px] text-marigold">▲ Not in the project: {missing.join(' ')}</p>}
    </Details>
  );
}

/** The sides at the place that is kept in sight. */
function SidesInSight({ glyph }: { glyph: Glyph }) {
  const project = useBench((s) => s.project)!;
  const watched = useBench((s) => s.watched);
  if (!watched) return null;
  const sides = sidesOf(project, glyph, waypointId(watched));
  const told = [
    ...('left' in sides ? [`left ${shownNumber(sides.left)}`, `right ${shownNumber(sides.right)}`] : []),
    `advance ${shownNumber(sides.advance)}`,
  ];
  return (
    <p className="text-[12.5px] text-quiet" data-testid="sides-in-sight">
      At {placeInWords(project.axes, watched)}: {told.join(', ')}
    </p>
  );
}

/** Adds an even value to the letter at hand, to those chosen in the Case, or to those of the lines; never to control letters. */
function TrackingSection({ glyph, inLine }: { glyph: Glyph; inLine: readonly GlyphId[] }) {
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const chosen = [...useCaseBench((s) => s.chosen)].filter((id) => project.glyphs[id]);
  const [value, setValue] = useState(0);
  const [to, setTo] = useState<'this' | 'chosen' | 'lines'>('lines');
  const sets = {
    this: { text: glyph.name, ids: [glyph.id] },
    chosen: { text: `${chosen.length} chosen`, ids: chosen },
    lines: { text: 'These lines', ids: inLine },
  };
  const kinds = (['this', ...(chosen.length > 1 ? (['chosen'] as const) : []), 'lines'] as const).map((k) => ({
    value: k,
    text: sets[k].text,
  }));
  const { ids } = sets[to === 'chosen' && chosen.length < 2 ? 'lines' : to];
  return (
    <Section title="Space evenly">
      <div className="grid gap-1.5">
        <Choice label="Space evenly" value={to} options={kinds} onChange={setTo} />
        <NumberField label="To both sides add" value={value} onChange={setValue} />
        <Button
          disabled={value === 0 || ids.length === 0}
          title="Composites as wide as their base go along with it, once"
          onClick={() => void runFar(addTracking, { glyphs: ids, master, value }, { glyphs: ids.length })}
        >
          Add to {ids.length === 1 ? project.glyphs[ids[0]!]!.name : plural(ids.length, 'glyph')}
        </Button>
      </div>
    </Section>
  );
}

/** Says which figures are not as wide as the others, in every master, and mends it. */
function FigureWidths({ glyph }: { glyph: Glyph }) {
  const project = useBench((s) => s.settled)!;
  if (!isTabular(glyph.name)) return null;
  const odd = project.masters.flatMap((m) => {
    const uneven = unevenFigures(project, m.id);
    return uneven
      ? `${uneven.odd.map((id) => project.glyphs[id]!.name).join(', ')} not ${uneven.width} in ${m.name}`
      : [];
  });
  if (odd.length === 0) return null;
  return (
    <div className="mb-4 rounded-lg bg-marigold-tint p-2 text-[13px]">
      <p className="mb-1">▲ Figures for tables share one width: {odd.join('; ')}.</p>
      <button type="button" className="font-semibold text-kelp" onClick={() => run((p) => evenFigures(p, {}))}>
        Give them the width of the others
      </button>
    </div>
  );
}
