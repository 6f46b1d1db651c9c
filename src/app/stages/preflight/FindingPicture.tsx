import { type PointerEvent, useMemo, useRef, useState } from 'react';
import { movePoints } from '../../../core/drawing/edits';
import { pointKey } from '../../../core/drawing/points';
import { type Contour, contourBounds, isOnCurve, neighbour } from '../../../core/geometry/contour';
import { isEmptyBox } from '../../../core/geometry/curve';
import type { Finding, Spot } from '../../../core/preflight/finding';
import { kindOf } from '../../../core/preflight/kinds';
import type { Glyph, MasterId } from '../../../core/project/model';
import { drawingIn } from '../../../core/project/outline';
import { drawingPath } from '../../../core/project/pathData';
import { masterOf } from '../../../core/project/queries';
import { cancelPreview, preview, run, useBench } from '../../state/bench';
import { useWidth } from '../../ui/useWidth';
import { spotsIn } from './spots';

/** As high as leaves room for what is said and done about it. */
const heightNow = (): number => Math.max(230, Math.min(520, Math.round(window.innerHeight * 0.37)));

/** The letter of a finding, large, with the place marked; points near the place can be dragged on the spot. */
export function FindingPicture({ finding, glyph, master }: { finding: Finding; glyph: Glyph; master: MasterId }) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 480);
  const height = heightNow();
  const [near, setNear] = useState(false);
  const shown = useBench((s) => s.project)!;
  const readOnly = useBench((s) => s.readOnly);
  const now = shown.glyphs[glyph.id] ?? glyph;
  const drawing = drawingIn(shown, now, master);
  const m = masterOf(shown, master)!;
  const settled = useBench((s) => s.settled)!;
  const spots = useMemo(() => spotsIn(settled, finding, master), [settled, finding, master]);
  const [first] = spots;
  // What is looked at stays in place while a point is dragged.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the letter as it was when it was chosen.
  const view = useMemo(() => {
    const { ascender, capHeight, descender } = m.zones;
    let [left, right, top, bottom] = [
      0,
      drawing.advance,
      Math.max(ascender.position, capHeight.position),
      descender.position,
    ];
    for (const c of drawing.contours) {
      const b = contourBounds(c);
      if (isEmptyBox(b) || b.xMax - b.xMin > 20_000) continue;
      [left, right, top, bottom] = [
        Math.min(left, b.xMin),
        Math.max(right, b.xMax),
        Math.max(top, b.yMax),
        Math.min(bottom, b.yMin),
      ];
    }
    if (near && first) {
      const around = shown.unitsPerEm * 0.11;
      [left, right, top, bottom] = [first.x - around, first.x + around, first.y + around, first.y - around];
    }
    const scale = Math.min((width - 40) / Math.max(1, right - left), (height - 40) / Math.max(1, top - bottom));
    return { scale, x: width / 2 - ((left + right) / 2) * scale, y: height / 2 + ((top + bottom) / 2) * scale };
  }, [finding, master, width, height, near]);
  const x = (v: number) => view.x + v * view.scale;
  const y = (v: number) => view.y - v * view.scale;
  const editable =
    !readOnly &&
    ['outlines', 'heights', 'masters'].includes(kindOf(finding.kind)?.family ?? '') &&
    glyph.drawings[master] !== undefined;
  const handles =
    editable && spots.length > 0 ? nearPoints(drawing.contours, spots, near ? 130 / view.scale : 34 / view.scale) : [];
  const zones = [m.zones.baseline, m.zones.xHeight, m.zones.capHeight];
  return (
    <div ref={frame} className="relative rounded-xl border border-line bg-panel">
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={`${glyph.name} in ${m.name}, with the place marked`}
        className="block"
      >
        <clipPath id="finding-frame">
          <rect width={width} height={height} rx={12} />
        </clipPath>
        <g clipPath="url(#finding-frame)">
          {zones.map((z) => (
            <line key={z.name} x1={0} x2={width} y1={y(z.position)} y2={y(z.position)} stroke="var(--line)" />
          ))}
          {[0, drawing.advance].map((v, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: left and right edge.
            <line key={i} x1={x(v)} x2={x(v)} y1={0} y2={height} stroke="var(--line)" />
          ))}
          <path
            d={drawingPath(shown, master, drawing)}
            transform={`translate(${view.x} ${view.y}) scale(${view.scale} ${-view.scale})`}
            fill="var(--ink)"
            fillOpacity={near ? 0.16 : 0.88}
            stroke="var(--ink)"
            strokeWidth={(near ? 1.4 : 0) / view.scale}
          />
          {handles.map((h) => (
            <Handle
              key={h.key}
              handle={h}
              glyph={glyph.id}
              master={master}
              at={[x(h.x), y(h.y)]}
              tie={h.tie && [x(h.tie.x), y(h.tie.y)]}
              scale={view.scale}
            />
          ))}
          {spots.slice(0, 60).map((s, i) => (
            <circle
              // biome-ignore lint/suspicious/noArrayIndexKey: spots are known by their places.
              key={i}
              cx={x(s.x)}
              cy={y(s.y)}
              r={spots.length > 12 ? 5 : i === 0 ? 13 : 10}
              fill="none"
              stroke="var(--violet)"
              strokeWidth={2}
              className="pointer-events-none"
            />
          ))}
        </g>
      </svg>
      {spots.length > 0 && (
        <button
          type="button"
          aria-pressed={near}
          className="absolute top-2 right-2 rounded-md border border-line bg-paper px-2 py-0.5 text-[12.5px] hover:bg-kelp-tint"
          onClick={() => setNear(!near)}
        >
          {near ? 'Whole letter' : 'Nearer'}
        </button>
      )}
      {near && handles.length > 0 && (
        <p className="pointer-events-none absolute bottom-1.5 left-2 rounded bg-panel px-1.5 text-[12.5px] text-quiet">
          Points can be dragged here.
        </p>
      )}
    </div>
  );
}

type NearPoint = { key: `${number}:${number}`; x: number; y: number; on: boolean; tie: Spot | undefined };

/** Points within a distance of the places, on the curve and off it; those off it with the point that they belong to. */
function nearPoints(contours: readonly Contour[], spots: readonly Spot[], within: number): NearPoint[] {
  return contours.flatMap((c, ci) =>
    c.points.flatMap((p, pi) => {
      if (!spots.slice(0, 8).some((s) => Math.hypot(s.x - p.x, s.y - p.y) <= within)) return [];
      const tied = isOnCurve(p)
        ? undefined
        : [-1, 1].map((s) => neighbour(c, pi, s)).find((k) => k !== undefined && isOnCurve(c.points[k]!));
      return [
        {
          key: pointKey(ci, pi),
          x: p.x,
          y: p.y,
          on: isOnCurve(p),
          tie: tied === undefined ? undefined : c.points[tied],
        },
      ];
    }),
  );
}

/** A point that can be dragged; what comes of it is seen at once, and kept when it is let go. Escape lets it be. */
function Handle({
  handle,
  glyph,
  master,
  at: [x, y],
  tie,
  scale,
}: {
  handle: NearPoint;
  glyph: string;
  master: MasterId;
  at: readonly [number, number];
  tie: readonly [number, number] | undefined;
  scale: number;
}) {
  const begun = useRef<{ x: number; y: number; scale: number } | undefined>(undefined);
  const edit = (e: PointerEvent) => {
    const { x: x0, y: y0, scale: s } = begun.current!;
    const args = { at: { glyph, master }, points: [handle.key], dx: (e.clientX - x0) / s, dy: (y0 - e.clientY) / s };
    return (p: Parameters<typeof movePoints>[0]) => movePoints(p, args);
  };
  const drop = (e: KeyboardEvent) => {
    if (e.key !== 'Escape' || !begun.current) return;
    begun.current = undefined;
    cancelPreview();
  };
  return (
    <g>
      {tie && <line x1={tie[0]} y1={tie[1]} x2={x} y2={y} stroke="var(--kelp)" strokeWidth={1.2} />}
      <circle
        data-testid="finding-point"
        cx={x}
        cy={y}
        r={handle.on ? 5 : 4}
        fill={handle.on ? 'var(--kelp)' : 'var(--panel)'}
        stroke="var(--kelp)"
        strokeWidth={1.5}
        className="cursor-grab"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          begun.current = { x: e.clientX, y: e.clientY, scale };
          window.addEventListener('keydown', drop);
        }}
        onPointerMove={(e) => begun.current && preview(edit(e))}
        onPointerUp={(e) => {
          window.removeEventListener('keydown', drop);
          if (!begun.current) return;
          const moved = e.clientX !== begun.current.x || e.clientY !== begun.current.y;
          const change = edit(e);
          begun.current = undefined;
          cancelPreview();
          if (moved) run(change);
        }}
        onPointerCancel={() => {
          window.removeEventListener('keydown', drop);
          begun.current = undefined;
          cancelPreview();
        }}
      />
    </g>
  );
}
