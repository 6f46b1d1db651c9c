import { useMemo, useState } from 'react';
import { controlStrings, glyphsOfLine, spellingOf } from '../../../core/fitting/lines';
import { addTracking, setSides, sidesOf } from '../../../core/fitting/sides';
import { setFitLines } from '../../../core/project/edits';
import { drawingOf } from '../../../core/project/queries';
import { run, useBench } from '../../state/bench';
import { Button, Choice, NumberField, Section, TextField } from '../../ui/parts';
import { Details } from '../Details';
import { FitCanvas } from './FitCanvas';

type LineKind = 'control' | 'own';
const KINDS: readonly { value: LineKind; text: string; hint: string }[] = [
  { value: 'control', text: 'Control strings', hint: 'The selected glyph among straights and rounds of its kind' },
  { value: 'own', text: 'My lines', hint: 'Lines of your own, one below the other' },
];

/** Side bearings in lines at reading size: edges are dragged, stepped by keys or typed. Kerning is off here. */
export default function Fit() {
  const project = useBench((s) => s.project)!;
  const id = useBench((s) => s.glyph);
  const [kind, setKind] = useState<LineKind>('control');
  const [size, setSize] = useState(108);
  const glyph = id ? project.glyphs[id] : undefined;
  const { words, galley } = project.texts;
  const lines = useMemo(() => {
    if (kind === 'own') return words.length > 0 ? words : [galley];
    return glyph ? [...controlStrings(glyph), galley] : [galley];
  }, [kind, glyph, words, galley]);
  return (
    <div className="flex h-full">
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex flex-wrap items-center gap-3 px-5 pt-3 pb-1">
          <Choice label="Lines" value={kind} options={KINDS} onChange={setKind} />
          <label className="flex items-center gap-2 text-quiet">
            Size
            <input type="range" min={40} max={220} value={size} className="w-28" onChange={(e) => setSize(Number(e.target.value))} />
            <span className="w-12">{size} px</span>
          </label>
          <span className="ml-auto text-quiet">kerning and features off</span>
        </div>
        <FitCanvas lines={lines} size={size} />
      </div>
      <FitDetails kind={kind} lines={lines} />
    </div>
  );
}

function FitDetails({ kind, lines }: { kind: LineKind; lines: readonly string[] }) {
  const project = useBench((s) => s.project)!;
  const master = useBench((s) => s.master);
  const id = useBench((s) => s.glyph);
  const [tracking, setTracking] = useState(0);
  const [text, setText] = useState<string | undefined>();
  const [insert, setInsert] = useState('');
  const glyph = id ? project.glyphs[id] : undefined;
  const missing = [...new Set(lines.flatMap((l) => glyphsOfLine(project, l).missing))].filter((c) => c.trim() !== '');
  const inLine = [...new Set(lines.flatMap((l) => glyphsOfLine(project, l).glyphs))];
  const own = text ?? project.texts.words.join('\n');
  const writeLines = (value: string) => {
    setText(value);
    run((p) => setFitLines(p, { lines: value.split('\n').filter((l) => l.trim() !== '') }), 'fit-lines');
  };
  if (!glyph) return <Details heading="No glyph selected" sub="Click one in a line" />;
  const at = { glyph: glyph.id, master };
  const sides = sidesOf(project, glyph, master);
  const drawn = 'left' in sides;
  return (
    <Details heading={glyph.name} sub={`advance ${Math.round(drawingOf(glyph, master).advance * 10) / 10}`}>
      <Section title="Sides">
        <div className="grid gap-1.5">
          {drawn && <NumberField label="Left" value={sides.left} onChange={(left) => run((p) => setSides(p, { at, left }))} />}
          {drawn && <NumberField label="Right" value={sides.right} onChange={(right) => run((p) => setSides(p, { at, right }))} />}
          <NumberField label="Advance" value={sides.advance} onChange={(advance) => run((p) => setSides(p, { at, advance }))} />
          {!drawn && <p className="text-quiet">Nothing is drawn yet, so there is an advance width only.</p>}
        </div>
      </Section>
      <Section title="Space everything in these lines">
        <div className="grid gap-1.5">
          <NumberField label="To both sides add" value={tracking} onChange={setTracking} />
          <Button disabled={tracking === 0 || inLine.length === 0} onClick={() => run((p) => addTracking(p, { glyphs: inLine, master, value: tracking }))}>
            Add to {inLine.length} glyphs
          </Button>
        </div>
      </Section>
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
          <form
            className="flex gap-1.5"
            onSubmit={(e) => {
              e.preventDefault();
              const found = Object.values(project.glyphs).find((g) => g.name === insert.trim());
              if (!found) return;
              writeLines(`${own}${spellingOf(found)}`);
              setInsert('');
            }}
          >
            <TextField aria-label="Glyph to put in by name" list="glyph-names" placeholder="glyph by name" value={insert} onChange={(e) => setInsert(e.target.value)} />
            <datalist id="glyph-names">
              {insert.length > 0 &&
                Object.values(project.glyphs)
                  .filter((g) => g.name.startsWith(insert))
                  .slice(0, 12)
                  .map((g) => <option key={g.id} value={g.name} />)}
            </datalist>
            <Button type="submit">Put in</Button>
          </form>
        </Section>
      )}
      {missing.length > 0 && <p className="text-[13px] text-marigold">▲ Not in the project: {missing.join(' ')}</p>}
    </Details>
  );
}
