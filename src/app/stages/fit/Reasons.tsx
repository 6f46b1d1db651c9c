import { stretchesAlong } from '../../../core/drawing/gauge';
import { measureFor, whiteOnSide, zoneOf } from '../../../core/fitting/optical';
import type { Sides } from '../../../core/fitting/sides';
import type { Glyph } from '../../../core/project/model';
import { drawingsOf, flattened } from '../../../core/project/outline';
import { drawingOf, masterOf } from '../../../core/project/queries';
import { useBench } from '../../state/bench';
import { Section } from '../../ui/parts';

const shown = (v: number): string => String(Math.round(v)).replace('-', '−');

/** The numbers behind the eye: stem, counter, and the white on each side against what the controls leave. */
export function Reasons({ glyph, sides }: { glyph: Glyph; sides: Sides }) {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const master = masterOf(project, masterId)!;
  const zone = zoneOf(project, glyph, master);
  const contours = flattened(drawingOf(glyph, masterId), drawingsOf(project, masterId));
  const across = (share: number) => {
    const y = zone.bottom + (zone.top - zone.bottom) * share;
    return stretchesAlong(contours, { x0: -2000, y0: y, x1: 4000, y1: y });
  };
  // Where the first stroke is narrowest: at another height a bar or a bowl may lie there.
  const along = [0.5, 0.35, 0.65, 0.25, 0.75].map(across).reduce((best, s) => (s[0] && (!best[0] || s[0].length < best[0].length - 1) ? s : best), [] as ReturnType<typeof across>);
  const stem = along.find((s) => s.ink)?.length;
  const counter = along.find((s) => !s.ink)?.length;
  const measure = measureFor(project, glyph, master);
  const rows = [
    stem !== undefined && ['Stem', shown(stem)],
    counter !== undefined && ['Counter; half of it', `${shown(counter)}; ${shown(counter / 2)}`],
    ...(measure ? (['left', 'right'] as const) : []).map((side) => {
      const { now, wanted } = whiteOnSide(project, glyph, master, side, sides[side], measure!);
      return [`White ${side}; by its controls`, `${shown(now)}; ${shown(wanted)}`];
    }),
  ].filter((r): r is string[] => Boolean(r));
  return (
    <Section title="Why">
      <dl className="grid grid-cols-[1fr_auto] gap-x-2 gap-y-0.5" title="White is the side bearing with what a round, open or diagonal side adds to it for the eye">
        {rows.map(([what, value]) => (
          <div key={what} className="contents">
            <dt className="text-quiet">{what}</dt>
            <dd className="text-right">{value}</dd>
          </div>
        ))}
      </dl>
    </Section>
  );
}
