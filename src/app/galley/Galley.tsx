import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type KeyboardEvent, type MouseEvent, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Refusal, Result } from '../../core/base/result';
import { AS_TEXT } from '../../core/features/setting';
import { placeInWords } from '../../core/project/places';
import { masterOf } from '../../core/project/queries';
import type { Setting } from '../../core/project/setting';
import type { SetLine, SetLines } from '../../workers/compile';
import { currentInks, useCanvas } from '../canvas/useCanvas';
import { useWheel } from '../canvas/useWheelView';
import { chooseGlyph, useBench } from '../state/bench';
import { requestLines } from '../state/liveFont';
import { goToPartner, partnerLine, usePartner } from '../state/partner';
import type { StageKey } from '../state/stages';
import { path2d } from '../ui/path2d';
import { GalleyBar, type GalleyLook } from './GalleyBar';

const WATERFALL = [12, 16, 20, 26, 36, 50, 72];
const MARGIN = 20;

/** A line at a size; `line` is 1 for the place that is kept in sight. */
type Row = { size: number; baseline: number; line: number };

/** Rows of the galley: one line, or the same line at falling sizes. `ascent` and `descent` are shares of the em. */
function rowsFor(
  grown: boolean,
  size: number,
  { ascent, descent, lines }: { ascent: number; descent: number; lines: number },
): { rows: Row[]; height: number } {
  const sizes = (grown ? WATERFALL : [size]).flatMap((s) => Array.from({ length: lines }, (_, line) => ({ s, line })));
  let y = grown ? 10 : 2;
  const rows = sizes.map(({ s, line }) => {
    const row = { size: s, baseline: y + s * ascent, line };
    y += s * (ascent + descent) + (grown ? 8 : 0);
    return row;
  });
  return { rows, height: Math.ceil(y + (grown ? 10 : 6)) };
}

/** What to say of glyphs that could not be made and stand blank. */
const leftOut = ([first, ...more]: readonly Refusal[]): string | undefined =>
  first && `${first.reason}${more.length > 0 ? ` ${more.length} more are left out.` : ' It is left out here.'}`;

type Place = Readonly<Record<string, number>>;

/**
 * The text as the font sets it now, at what is worked on or at a place of its own; asked for anew with every change of the document.
 */
function useGalleyLine(asker: string, text: string, { setting, place }: { setting: Setting; place?: Place | null }) {
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
    if (place === null) return setLine(undefined);
    const ask = () => requestLines(asker, { texts: [text], setting, show, place });
    ask();
    return useBench.subscribe((now, then) => {
      const moved = now.master !== then.master || now.visit !== then.visit;
      if (now.project && (now.project !== then.project || moved)) ask();
    });
  }, [asker, text, setting, place]);
  return { line, revision, fault };
}

/** The same text in the partner as it was stored last, while it is wanted. */
function usePartnerLine(text: string, setting: Setting): SetLine | undefined {
  const [line, setLine] = useState<SetLine>();
  const partner = useBench((s) => s.settled?.settings.partner);
  const wanted = usePartner((s) => s.inGalley) && partner !== undefined;
  const master = useBench((s) => s.master);
  const visit = useBench((s) => s.visit);
  // biome-ignore lint/correctness/useExhaustiveDependencies: master and place decide where the partner is shown.
  useEffect(() => {
    if (!wanted) return;
    let left = false;
    partnerLine(text, setting).then(
      (set) => {
        if (!left) setLine(set);
      },
      () => {},
    );
    return () => {
      left = true;
    };
  }, [wanted, partner, text, setting, master, visit]);
  return wanted ? line : undefined;
}

/** The designer's own text in the font as it would be cast this instant: compiled in a worker, shaped by HarfBuzz. */
export function Galley({ stage }: { stage: StageKey }) {
  const navigate = useNavigate();
  const project = useBench((s) => s.settled)!;
  const projectId = useBench((s) => s.projectId);
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

  const [setting, setSetting] = useState<Setting>(AS_TEXT);
  const set = useMemo(
    () => (kerning ? setting : { ...setting, features: { kern: 0, ...setting.features } }),
    [kerning, setting],
  );
  const { line, revision, fault } = useGalleyLine('galley', text, { setting: set });
  const watched = useBench((s) => s.watched);
  const second = useGalleyLine('galley, in sight', text, { setting: set, place: watched ?? null }).line;
  const partner = usePartnerLine(text, set);
  const lines = [line, ...(second ? [second] : []), ...(partner ? [partner] : [])];

  const { zones, verticalMetrics } = masterOf(project, master)!;
  // What a font says of its lines holds where it has room for marks; no more than a line and a half of it.
  const above = Math.max(zones.ascender.position, zones.capHeight.position, verticalMetrics.hheaAscender ?? 0);
  const below = Math.max(-zones.descender.position, -(verticalMetrics.hheaDescender ?? 0));
  const ascent = Math.min(1.3, above / em + (verticalMetrics.hheaAscender === undefined ? 0.14 : 0.04));
  const descent = Math.min(0.6, below / em + 0.04);
  const count = lines.length;
  const { rows, height } = useMemo(
    () => rowsFor(grown, size, { ascent, descent, lines: count }),
    [grown, size, ascent, descent, count],
  );

  /** Where a row's line begins, in pixels: at the left, or so that a line set from the right begins there. */
  const startOf = ({ size, line: l }: Row, wide: number): number => {
    const own = lines[l];
    if (!own?.rightToLeft) return MARGIN - scroll.current;
    return wide - MARGIN - (own.width * size) / em + scroll.current;
  };
  const {
    ref,
    invalidate,
    size: area,
  } = useCanvas(({ context, width: wide }) => {
    const inks = currentInks();
    for (const row of rows) {
      const scale = row.size / em;
      const own = lines[row.line];
      for (const g of own?.glyphs ?? []) {
        const data = own!.paths[g.gid];
        if (!data) continue;
        context.save();
        context.translate(startOf(row, wide) + g.x * scale, row.baseline - g.y * scale);
        context.scale(scale, -scale);
        context.fillStyle = swapped ? inks.panel : inks.ink;
        context.fill(path2d(data));
        context.restore();
      }
    }
    if (!glyph || grown) return;
    const scale = size / em;
    context.fillStyle = inks.kelp;
    for (const row of rows)
      for (const g of lines[row.line]?.glyphs ?? [])
        if (g.id === glyph)
          context.fillRect(
            startOf(row, wide) + g.x * scale,
            row.baseline + size * descent - (row.line === lines.length - 1 ? -3 : 1),
            Math.max(3, g.advance * scale),
            2,
          );
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the canvas shows all of these.
  useEffect(invalidate, [line, second, partner, rows, swapped, glyph, invalidate]);

  // The wheel moves text that is longer than the band.
  const longest =
    (Math.max(...lines.map((l) => l?.width ?? 0)) * Math.max(...rows.map((r) => r.size))) / em + 2 * MARGIN;
  const walk = (by: number) => {
    scroll.current = Math.max(0, Math.min(longest - area.current.width, scroll.current + by));
    invalidate();
    tellPlace((n) => n + 1);
  };
  const [, tellPlace] = useState(0);
  useWheel(ref, (e) => walk(e.deltaX + e.deltaY));
  const backwards = line?.rightToLeft ? 1 : -1;
  const walked = (e: KeyboardEvent<HTMLCanvasElement>) => {
    const by = { ArrowLeft: 120 * backwards, ArrowRight: -120 * backwards, Home: -1e9, End: 1e9 }[e.key];
    if (by === undefined) return;
    e.preventDefault();
    e.stopPropagation();
    walk(by);
  };
  const over = longest - area.current.width;

  const goTo = (e: MouseEvent<HTMLCanvasElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const row = rows.find((r) => e.clientY - box.top <= r.baseline + r.size * descent) ?? rows[rows.length - 1]!;
    const x = ((e.clientX - box.left - startOf(row, box.width)) * em) / row.size;
    const hit = lines[row.line]?.glyphs.find((g) => x >= g.x && x < g.x + Math.max(g.advance, 1));
    if (!hit?.id) return;
    if (partner && row.line === lines.length - 1) return void goToPartner(hit.id);
    chooseGlyph(hit.id);
    if (stage === 'plan' || stage === 'cast')
      void navigate(`../draw?glyph=${encodeURIComponent(project.glyphs[hit.id]?.name ?? '')}`, { relative: 'path' });
  };

  // A line set anew begins at its beginning.
  // biome-ignore lint/correctness/useExhaustiveDependencies: another text is another line.
  useEffect(() => {
    scroll.current = 0;
  }, [text, projectId]);

  const isEmpty = line?.glyphs.every((g) => !line.paths[g.gid]);

  return (
    <section aria-label="Galley" className={`shrink-0 border-t border-line ${swapped ? 'bg-ink' : 'bg-panel'}`}>
      <GalleyBar
        text={text}
        fault={fault}
        kerning={kerning}
        onKerning={(on) => setKernings({ ...kernings, [where]: on })}
        setting={setting}
        onSetting={setSetting}
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
          data-keeps-keys
          tabIndex={0}
          onClick={goTo}
          onKeyDown={walked}
          className="block w-full outline-none focus-visible:shadow-[inset_0_0_0_2px_var(--kelp)]"
          data-second={second?.width ?? ''}
          data-partner={partner?.width ?? ''}
          style={{ height: Math.min(height, grown ? 400 : 260 * lines.length) }}
        />
        {lines.length > 1 && !grown && (
          <span className="pointer-events-none absolute right-2 bottom-1 rounded bg-panel/85 px-1.5 text-[12px] text-quiet">
            below:{' '}
            {[
              ...(second && watched ? [placeInWords(project.axes, watched)] : []),
              ...(partner ? [project.settings.partner?.name] : []),
            ].join('; ')}
          </span>
        )}
        {over > 1 &&
          ([-1, 1] as const).map((way) => {
            const atEnd = way < 0 ? scroll.current <= 0 : scroll.current >= over - 1;
            const left = way < 0 !== (line?.rightToLeft === true);
            return atEnd ? null : (
              <button
                key={way}
                type="button"
                aria-label={way < 0 ? 'Towards the beginning of the line' : 'Towards the end of the line'}
                className={`absolute top-1/2 flex size-7 -translate-y-1/2 items-center justify-center rounded-full border border-edge bg-panel text-ink shadow-sm hover:bg-kelp-tint ${left ? 'left-1.5' : 'right-1.5'}`}
                onClick={() => walk(way * Math.max(120, area.current.width * 0.7))}
              >
                {left ? <ChevronLeft size={16} /> : <ChevronRight size={16} />}
              </button>
            );
          })}
        {!line && !fault && (
          <p role="status" className="pointer-events-none absolute top-4 left-5 text-quiet">
            Setting the line…
          </p>
        )}
      </div>
    </section>
  );
}
