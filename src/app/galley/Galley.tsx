import { ChevronDown, ChevronUp, Contrast } from 'lucide-react';
import { type MouseEvent, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { setGalleyText } from '../../core/project/edits';
import type { SetLine } from '../../workers/compile';
import { currentInks, useCanvas } from '../canvas/useCanvas';
import { chooseGlyph, run, useBench } from '../state/bench';
import { requestLines } from '../state/liveFont';
import type { StageKey } from '../state/stages';
import { Check, Slide } from '../ui/controls';
import { IconButton } from '../ui/parts';
import { path2d } from '../ui/path2d';

const WATERFALL = [12, 16, 20, 26, 36, 50, 72];
const MARGIN = 20;

type Row = { size: number; baseline: number };

/** Rows of the galley: one line, or the same line at falling sizes. `ascent` and `descent` are shares of the em. */
function rowsFor(grown: boolean, size: number, ascent: number, descent: number): { rows: Row[]; height: number } {
  const sizes = grown ? WATERFALL : [size];
  let y = grown ? 10 : 2;
  const rows = sizes.map((s) => {
    const row = { size: s, baseline: y + s * ascent };
    y += s * (ascent + descent) + (grown ? 8 : 0);
    return row;
  });
  return { rows, height: Math.ceil(y + (grown ? 10 : 6)) };
}

/** The designer's own text in the font as it would be cast this instant: compiled in a worker, shaped by HarfBuzz. */
export function Galley({ stage }: { stage: StageKey }) {
  const navigate = useNavigate();
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const glyph = useBench((s) => s.glyph);
  const [line, setLine] = useState<SetLine | undefined>();
  const [revision, setRevision] = useState(0);
  const [fault, setFault] = useState<string | undefined>();
  const [size, setSize] = useState(60);
  const [grown, setGrown] = useState(false);
  const [swapped, setSwapped] = useState(false);
  const [kernings, setKernings] = useState({ fit: false, others: true });
  // Fitting is judged without kerning.
  const where = stage === 'fit' ? 'fit' : 'others';
  const kerning = kernings[where];
  const scroll = useRef(0);
  const text = project.texts.galley;
  const em = project.unitsPerEm;

  // Asked for at every change of the document, a gesture's too, without drawing the band anew until the line has come.
  useEffect(() => {
    const show = (lines: SetLine[], reason: string | undefined) => {
      setLine(lines[0]);
      setRevision((n) => n + 1);
      setFault(reason);
    };
    const ask = () => requestLines('galley', { texts: [text], features: kerning ? [] : ['kern=0'], show });
    ask();
    return useBench.subscribe((now, then) => {
      if (now.project && (now.project !== then.project || now.master !== then.master)) ask();
    });
  }, [text, kerning]);

  const zones = project.masters.find((m) => m.id === master)!.zones;
  const ascent = Math.max(zones.ascender.position, zones.capHeight.position) / em + 0.14;
  const descent = -zones.descender.position / em + 0.04;
  const { rows, height } = useMemo(() => rowsFor(grown, size, ascent, descent), [grown, size, ascent, descent]);

  const { ref, invalidate } = useCanvas(({ context }) => {
    if (!line) return;
    const inks = currentInks();
    for (const row of rows) {
      const scale = row.size / em;
      for (const g of line.glyphs) {
        const data = line.paths[g.gid];
        if (!data) continue;
        context.save();
        context.translate(MARGIN + g.x * scale - scroll.current, row.baseline - g.y * scale);
        context.scale(scale, -scale);
        context.fillStyle = swapped ? inks.panel : inks.ink;
        context.fill(path2d(data));
        context.restore();
      }
    }
    const current = glyph && !grown ? line.glyphs.filter((g) => g.id === glyph) : [];
    const scale = size / em;
    context.fillStyle = inks.kelp;
    for (const g of current)
      context.fillRect(MARGIN + g.x * scale - scroll.current, height - 3, Math.max(3, g.advance * scale), 2);
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the canvas shows all of these.
  useEffect(invalidate, [line, rows, swapped, glyph, invalidate]);

  // The wheel moves text that is longer than the band.
  useEffect(() => {
    const canvas = ref.current;
    if (!canvas) return;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const longest = ((line?.width ?? 0) * rows[rows.length - 1]!.size) / em + 2 * MARGIN;
      scroll.current = Math.max(0, Math.min(longest - canvas.clientWidth, scroll.current + e.deltaX + e.deltaY));
      invalidate();
    };
    canvas.addEventListener('wheel', wheel, { passive: false });
    return () => canvas.removeEventListener('wheel', wheel);
  }, [line, rows, em, invalidate, ref]);

  const goTo = (e: MouseEvent<HTMLCanvasElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const row = rows.find((r) => e.clientY - box.top <= r.baseline + r.size * descent) ?? rows[rows.length - 1]!;
    const x = ((e.clientX - box.left - MARGIN + scroll.current) * em) / row.size;
    const hit = line?.glyphs.find((g) => x >= g.x && x < g.x + Math.max(g.advance, 1));
    if (!hit?.id) return;
    chooseGlyph(hit.id);
    if (stage === 'plan' || stage === 'cast')
      void navigate(`../draw?glyph=${encodeURIComponent(project.glyphs[hit.id]?.name ?? '')}`, { relative: 'path' });
  };

  const isEmpty = line?.glyphs.every((g) => !line.paths[g.gid]);

  const tool = 'flex h-6.5 items-center gap-1 rounded-md px-1.5 hover:bg-kelp-tint';
  return (
    <section aria-label="Galley" className={`shrink-0 border-t border-line ${swapped ? 'bg-ink' : 'bg-panel'}`}>
      <div className="flex h-9 items-center gap-3 border-b border-line/60 bg-panel px-5 text-[13px] text-quiet">
        <span className="font-semibold text-ink">Galley</span>
        <input
          aria-label="Text of the galley"
          spellCheck={false}
          className="h-6.5 min-w-0 flex-1 rounded-md border border-transparent bg-transparent px-1.5 text-[13.5px] text-ink hover:border-line focus:border-line"
          value={text}
          onChange={(e) => run((p) => setGalleyText(p, { text: e.target.value }), 'galley')}
        />
        {fault ? (
          <span role="alert" className="text-brick">
            {fault}
          </span>
        ) : (
          <span className="hidden whitespace-nowrap min-[1150px]:inline">the font as it would be cast now</span>
        )}
        <Check
          label="kerning"
          className="items-center"
          checked={kerning}
          onChange={(on) => setKernings({ ...kernings, [where]: on })}
        />
        <span className="flex items-center gap-1.5">
          <Slide
            label="Size of the galley"
            min={14}
            max={160}
            value={size}
            disabled={grown}
            className="w-24"
            onChange={setSize}
          />
          <span className="w-10 text-right">{size} px</span>
        </span>
        <IconButton
          className={tool}
          aria-pressed={swapped}
          label="Swap ink and paper"
          onClick={() => setSwapped(!swapped)}
        >
          <Contrast size={15} />
        </IconButton>
        <IconButton
          className={tool}
          aria-pressed={grown}
          label={grown ? 'One line' : 'Waterfall of sizes'}
          onClick={() => setGrown(!grown)}
        >
          {grown ? <ChevronDown size={16} /> : <ChevronUp size={16} />}
        </IconButton>
      </div>
      <div className="relative">
        {isEmpty && (
          <p className="pointer-events-none absolute top-4 left-5 text-quiet">
            {text === ''
              ? 'Write a text above; it is set in your font.'
              : 'Nothing of this text is drawn yet; it appears here letter by letter.'}
          </p>
        )}
        <canvas
          ref={ref}
          role="img"
          aria-label={`“${text}” in ${project.family.name}`}
          data-testid="galley-line"
          data-width={line?.width ?? ''}
          data-glyphs={line?.glyphs.length ?? ''}
          data-revision={revision}
          data-milliseconds={line?.milliseconds.toFixed(1) ?? ''}
          onClick={goTo}
          className="block w-full"
          style={{ height: Math.min(height, grown ? 400 : 260) }}
        />
      </div>
    </section>
  );
}
