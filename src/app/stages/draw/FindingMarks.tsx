import { kindOf } from '../../../core/preflight/kinds';
import { toPxX, toPxY } from '../../canvas/view';
import { useBench } from '../../state/bench';
import { usePreflight } from '../../state/preflight';
import { useDrawBench } from './drawBench';

/** What Draw says in words at the contour itself; see WrongWay. */
const TOLD = new Set(['outlines/direction', 'outlines/turned']);

/** A small mark beside each place where something is wrong, away from the point itself; what it is shows on hover. */
export function FindingMarks() {
  const glyph = useBench((s) => s.glyph);
  const master = useBench((s) => s.master);
  // While a drawing is changed marks would point at where the fault was.
  const still = useBench((s) => s.project === s.settled && s.settled !== undefined);
  const of = usePreflight((s) => s.of);
  const drawn = useBench((s) => (s.glyph ? s.settled?.glyphs[s.glyph] : undefined));
  const found = usePreflight((s) => (glyph ? s.byGlyph.get(glyph) : undefined));
  const view = useDrawBench((s) => s.view);
  if (!view || !found || !still || !glyph || of?.glyphs[glyph] !== drawn) return null;
  const marks = found.flatMap((f) => {
    if (f.contour === undefined || !f.masters.includes(master) || TOLD.has(f.kind)) return [];
    const own = f.masters[0] === master ? f.spots : [];
    const point = drawn?.drawings[master]?.contours[f.contour]?.points[f.point ?? -1];
    const spots = own.length > 0 ? own : point ? [point] : [];
    return spots.slice(0, 8).map((s) => ({ f, s }));
  });
  return marks.slice(0, 60).map(({ f, s }, i) => {
    const severity = kindOf(f.kind)?.severity;
    return (
      <span
        // biome-ignore lint/suspicious/noArrayIndexKey: marks are known by their places.
        key={i}
        role="img"
        data-testid="finding-mark"
        title={f.reason}
        aria-label={f.reason}
        className={`absolute flex size-3.5 items-center justify-center text-[10px] leading-none ${severity === 'error' ? 'text-brick' : severity === 'attention' ? 'text-marigold' : 'text-quiet'}`}
        style={{ left: toPxX(view, s.x) + 7, top: toPxY(view, s.y) - 19 }}
      >
        {severity === 'error' ? '■' : severity === 'attention' ? '▲' : '●'}
      </span>
    );
  });
}
