import { type MouseEvent, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Refusal, Result } from '../../core/base/result';
import type { SetLine, SetLines } from '../../workers/compile';
import { currentInks, useCanvas } from '../canvas/useCanvas';
import { useWheel } from '../canvas/useWheelView';
import { chooseGlyph, useBench } from '../state/bench';
import { requestLines } from '../state/liveFont';
import type { StageKey } from '../state/stages';
import { path2d } from '../ui/path2d';
import { GalleyBar, type GalleyLook } from './GalleyBar';

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

/** What to say of glyphs that could not be made and stand blank. */
const leftOut = ([first, ...more]: readonly Refusal[]): string | undefined =>
  first && `${first.reason}${more.length > 0 ? ` ${more.length} more are left out.` : ' It is left out here.'}`;

/** The text as the font sets it now; asked for anew with every change of the document. */
function useGalleyLine(text: string, kerning: boolean) {
  const [line, setLine] = useState<SetLine | undefined>();
  const [revision, setRevision] = useState(0);
  const [fault, setFault] = useState<string | undefined>();

  // Asked for at every change of the document, a gesture's too, without drawing the band anew until the line has come.
  useEffect(() => {
    const show = (set: Result<SetLines>) => {
      setLine(set.ok ? set.value.lines[0] : undefined);
      setRevision((n) => n + 1);
      setFault(set.ok ? leftOut(set.value.left) : set.reason);
    };
    const ask = () => requestLines('galley', { texts: [text], features: kerning ? [] : ['kern=0'], show });
    ask();
    return useBench.subscribe((now, then) => {
      if (now.project && (now.project !== then.project || now.master !== then.master)) ask();
    });
  }, [text, kerning]);
  return { line, revision, fault };
}

/** The designer's own text in the font as it would be cast this instant: compiled in a worker, shaped by HarfBuzz. */
export function Galley({ stage }: { stage: StageKey }) {
  const navigate = useNavigate();
  const project = useBench((s) => s.settled)!;
  const master = useBench((s) => s.master);
  const glyph = useBench((s) => s.glyph);
  const [look, setLook] = useState<GalleyLook>({ size: 60, grown: false, swapped: false });
  const { size, grown, swapped } = look;
  const [kernings, setKernings] = useState({ fit: false, others: true });
  // Fitting is judged without kerning.
  const where = stage === 'fit' ? 'fit' : 'others';
  const kerning = kernings[where];
  const scroll = useRef(0);
  const text = project.texts.galley;
  const em = project.unitsPerEm;

  const { line, revision, fault } = useGalleyLine(text, kerning);

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
  useWheel(ref, (e, canvas) => {
    const longest = ((line?.width ?? 0) * rows[rows.length - 1]!.size) / em + 2 * MARGIN;
    scroll.current = Math.max(0, Math.min(longest - canvas.clientWidth, scroll.current + e.deltaX + e.deltaY));
    invalidate();
  });

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

  return (
    <section aria-label="Galley" className={`shrink-0 border-t border-line ${swapped ? 'bg-ink' : 'bg-panel'}`}>
      <GalleyBar
        text={text}
        fault={fault}
        kerning={kerning}
        onKerning={(on) => setKernings({ ...kernings, [where]: on })}
        look={look}
        onLook={(change) => setLook({ ...look, ...change })}
      />
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
