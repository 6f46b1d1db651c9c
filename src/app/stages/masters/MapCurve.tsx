import { type PointerEvent, useRef, useState } from 'react';
import { bent } from '../../../core/base/interpolation';
import { toDesign } from '../../../core/project/axes';
import type { Project } from '../../../core/project/model';
import { NumberField } from '../../ui/parts';

type Axis = Project['axes'][number];
type Map = Axis['map'];

const WIDE = 220;
const HIGH = 132;
const EDGE = 10;
const sorted = (map: Map): Map => [...map].sort((a, b) => a[0] - b[0]);

/** The map as it is, or, where there is none, its ends. */
const withEnds = (axis: Axis): Map =>
  axis.map.length > 0
    ? sorted(axis.map)
    : [...new Set([axis.minimum, axis.default, axis.maximum])].map((v) => [v, v] as const);

/**
 * From the numbers that fonts have (across) to those that masters are drawn at (up): points are dragged, a press on the line adds one,
 * a double press takes one away.
 */
export function MapCurve({ axis, onChange }: { axis: Axis; onChange: (map: Map) => void }) {
  const sheet = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<number>();
  const map = withEnds(axis);
  // The scale stays while a point is dragged.
  const frozen = useRef<{ user: readonly [number, number]; design: readonly [number, number] }>(undefined);
  const range = (values: readonly number[]): readonly [number, number] => [Math.min(...values), Math.max(...values)];
  const scale = frozen.current ?? {
    user: range([axis.minimum, axis.maximum, ...map.map(([u]) => u)]),
    design: range([toDesign(axis, axis.minimum), toDesign(axis, axis.maximum), ...map.map(([, d]) => d)]),
  };
  const room = (r: readonly [number, number]) => r[1] - r[0] || 1;
  const x = (u: number) => EDGE + ((u - scale.user[0]) / room(scale.user)) * (WIDE - 2 * EDGE);
  const y = (d: number) => HIGH - EDGE - ((d - scale.design[0]) / room(scale.design)) * (HIGH - 2 * EDGE);
  const valueAt = (e: PointerEvent): [number, number] => {
    const box = sheet.current!.getBoundingClientRect();
    const [px, py] = [((e.clientX - box.left) / box.width) * WIDE, ((e.clientY - box.top) / box.height) * HIGH];
    const share = (v: number, low: number, high: number) => Math.min(1, Math.max(0, (v - low) / (high - low)));
    return [
      Math.round(scale.user[0] + share(px, EDGE, WIDE - EDGE) * room(scale.user)),
      Math.round(scale.design[0] + share(HIGH - py, EDGE, HIGH - EDGE) * room(scale.design)),
    ];
  };
  /** A point put somewhere, between its neighbours: the map rises. */
  const put = (i: number, [user, design]: readonly [number, number]) => {
    const [before, after] = [map[i - 1], map[i + 1]];
    const isEnd = !before || !after;
    const u = isEnd ? map[i]![0] : Math.min(Math.max(user, before[0] + 1), after[0] - 1);
    const d = Math.min(Math.max(design, before?.[1] ?? -Infinity), after?.[1] ?? Infinity);
    onChange(map.with(i, [u, d]));
  };
  const add = (e: PointerEvent) => {
    const [user] = valueAt(e);
    if (map.some(([u]) => u === user)) return;
    onChange(sorted([...map, [user, Math.round(bent(map, user))]]));
  };
  const without = (i: number) => i > 0 && i < map.length - 1 && onChange(map.filter((_, k) => k !== i));
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-1.5">
      {/* biome-ignore lint/a11y/useSemanticElements: a curve is no set of fields. */}
      <svg
        ref={sheet}
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        className="w-full touch-none rounded-lg border border-line bg-paper"
        role="group"
        aria-label={`Map of ${axis.name}: fonts’ numbers across, masters’ up`}
      >
        <line
          x1={x(scale.user[0])}
          y1={y(scale.design[0])}
          x2={x(scale.user[1])}
          y2={y(scale.design[1])}
          stroke="var(--line)"
        />
        <polyline
          points={map.map(([u, d]) => `${x(u)},${y(d)}`).join(' ')}
          fill="none"
          stroke="var(--violet)"
          strokeWidth={1.5}
        />
        <polyline
          points={map.map(([u, d]) => `${x(u)},${y(d)}`).join(' ')}
          fill="none"
          stroke="transparent"
          strokeWidth={12}
          className="cursor-copy"
          data-testid="map-line"
          onPointerDown={add}
        />
        {map.map(([u, d], i) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: points keep their places while dragged.
            key={i}
            role="slider"
            tabIndex={0}
            aria-label={`Fonts’ ${u}`}
            aria-valuenow={d}
            data-testid="map-point"
            cx={x(u)}
            cy={y(d)}
            r={5}
            className="cursor-grab fill-violet outline-none focus-visible:stroke-kelp"
            strokeWidth={2.5}
            onPointerDown={(e) => {
              frozen.current = scale;
              e.currentTarget.setPointerCapture(e.pointerId);
              setHeld(i);
            }}
            onPointerMove={(e) => held === i && put(i, valueAt(e))}
            onPointerUp={() => {
              frozen.current = undefined;
              setHeld(undefined);
            }}
            onPointerCancel={() => {
              frozen.current = undefined;
              setHeld(undefined);
            }}
            onDoubleClick={() => without(i)}
            onKeyDown={(e) => {
              const by = e.key === 'ArrowUp' ? 1 : e.key === 'ArrowDown' ? -1 : 0;
              if (e.key === 'Delete' || e.key === 'Backspace') without(i);
              else if (by !== 0) put(i, [u, d + by * (e.shiftKey ? 10 : 1)]);
              else return;
              e.preventDefault();
              e.stopPropagation();
            }}
          />
        ))}
      </svg>
      <div aria-hidden className="grid grid-cols-2 gap-1.5 text-[12px] text-quiet">
        <span>in fonts</span>
        <span>as drawn</span>
      </div>
      {map.map(([u, d], i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: points keep their places.
        <div key={i} className="grid grid-cols-2 gap-1.5">
          <NumberField
            hideLabel
            label={`In fonts, point ${i + 1}`}
            value={u}
            onChange={(v) => onChange(sorted(map.with(i, [v, d])))}
          />
          <NumberField
            hideLabel
            label={`As drawn, point ${i + 1}`}
            value={d}
            onChange={(v) => onChange(map.with(i, [u, v]))}
          />
        </div>
      ))}
    </div>
  );
}
