import { type PointerEvent as ReactPointerEvent, useLayoutEffect, useRef, useState } from 'react';
import { shownNumber } from '../../../core/base/notation';
import type { Outcome } from '../../../core/project/edit';
import {
  type Glyph,
  type Master,
  type MasterId,
  type Project,
  ZONE_KEYS,
  type Zone,
} from '../../../core/project/model';
import { drawingPath } from '../../../core/project/pathData';
import { drawingOf, glyphForCodePoint, glyphsInOrder, isEmptyDrawing, masterOf } from '../../../core/project/queries';
import { overshootSign, setOwnZone, setZone } from '../../../core/project/zoneEdits';
import { cancelPreview, preview, run, useBench } from '../../state/bench';
import { characterOf } from '../../ui/GlyphShape';
import { reachOf } from '../../ui/reach';

/** Cap height of the interface's face as a share of its size: a pencilled letter stands between the lines too. */
const PENCIL_CAP_HEIGHT = 0.66;
const LETTERS = ['H', 'x', 'o', 'p', 'd'];
const LABELS = 92;
const READINGS = 86;

/** A line of the diagram: what it is, and the edit that moves it. */
type Line = {
  key: string;
  zone: Zone;
  fixed: boolean;
  sign: number;
  move: (position: number) => (p: Project) => Outcome;
};

const linesOf = ({ id: master, zones }: Master): Line[] => [
  ...ZONE_KEYS.map((key) => ({
    key: key as string,
    zone: zones[key],
    fixed: key === 'baseline',
    sign: overshootSign(key),
    move: (position: number) => (p: Project) => setZone(p, { master, zone: key, change: { position } }),
  })),
  ...zones.own.map((zone, index) => ({
    key: `own ${index}`,
    zone,
    fixed: false,
    sign: Math.sign(zone.overshoot) || 1,
    move: (position: number) => (p: Project) => setOwnZone(p, { master, index, change: { position } }),
  })),
];

/** The project's own H x o p d; where it has no Latin, the first letters that it has drawn. */
function lettersOf(project: Project): Glyph[] {
  const own = LETTERS.flatMap((c) => glyphForCodePoint(project, c.codePointAt(0)!) ?? []);
  const drawn = (g: Glyph) => project.masters.some((m) => !isEmptyDrawing(drawingOf(g, m.id)));
  if (own.some(drawn)) return own;
  const others = glyphsInOrder(project).filter(
    (g) => g.unicodes.some((c) => /\p{L}/u.test(String.fromCodePoint(c))) && drawn(g),
  );
  return others.length > 0 ? others.slice(0, 5) : own;
}

const widthOf = (project: Project, master: MasterId, g: Glyph): number =>
  Math.max(drawingOf(g, master).advance, project.unitsPerEm * 0.2);

/** The project's own H x o p d between its metrics lines; each line is dragged, its overshoot shown as a band. */
export function MetricsDiagram() {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const master = masterOf(project, masterId)!;
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 900, height: 520 });
  const [dragged, setDragged] = useState<{ key: string; scale: number } | undefined>();

  useLayoutEffect(() => {
    const box = frame.current;
    if (!box) return;
    const observer = new ResizeObserver(() => setSize({ width: box.clientWidth, height: box.clientHeight }));
    observer.observe(box);
    return () => observer.disconnect();
  }, []);

  const em = project.unitsPerEm;
  const glyphs = lettersOf(project);
  const total = glyphs.reduce((sum, g) => sum + widthOf(project, masterId, g), 0) || em;
  const reach = reachOf(project, masterId, glyphs);
  const top = Math.max(master.zones.ascender.position, master.zones.capHeight.position, reach.top) + em * 0.06;
  const bottom = Math.min(master.zones.descender.position, reach.bottom) - em * 0.06;
  const fitted = Math.min((size.height - 32) / (top - bottom), (size.width - LABELS - READINGS - 40) / total);
  // While a line is dragged the scale stays, so that it keeps under the pointer.
  const scale = dragged?.scale ?? Math.max(0.02, fitted);
  const baseline = size.height / 2 + ((top + bottom) / 2) * scale;
  const y = (v: number) => baseline - v * scale;
  const left = LABELS + Math.max(0, (size.width - LABELS - READINGS - total * scale) / 2);

  const lines = linesOf(master);
  const drag = (line: Line) => (e: ReactPointerEvent<SVGGElement>) => {
    if (line.fixed) return;
    // The diagram holds the pointer: a line that passes another changes its place among them, and would let go.
    const target = e.currentTarget.ownerSVGElement ?? e.currentTarget;
    const from = e.clientY;
    const start = line.zone.position;
    let position = start;
    target.setPointerCapture(e.pointerId);
    setDragged({ key: line.key, scale });
    const move = (m: PointerEvent) => {
      position = Math.round(start - (m.clientY - from) / scale);
      preview(line.move(position));
    };
    const done = new AbortController();
    const end = (taken: boolean) => {
      done.abort();
      setDragged(undefined);
      if (taken && position !== start) run(line.move(position));
      else cancelPreview();
    };
    const { signal } = done;
    target.addEventListener('pointermove', move, { signal });
    target.addEventListener('pointerup', () => end(true), { signal });
    target.addEventListener('pointercancel', () => end(false), { signal });
    window.addEventListener(
      'keydown',
      (k) => {
        if (k.key !== 'Escape') return;
        k.stopPropagation();
        end(false);
      },
      { signal, capture: true },
    );
  };

  return (
    <div ref={frame} className="min-w-0 flex-1 overflow-hidden">
      <svg
        role="img"
        aria-label="Vertical metrics on the project’s own letters"
        width={size.width}
        height={size.height}
        className="block select-none"
      >
        {lines.map(({ key, zone }) => (
          <rect
            key={key}
            x={LABELS}
            width={Math.max(0, size.width - LABELS - READINGS)}
            y={Math.min(y(zone.position), y(zone.position + zone.overshoot))}
            height={Math.abs(zone.overshoot) * scale}
            fill="var(--zone)"
          />
        ))}
        <Letters left={left} baseline={baseline} scale={scale} />
        {spreadLabels(lines.map((line) => ({ ...line, at: y(line.zone.position) }))).map((line, _, all) => (
          <MetricsLine
            key={line.key}
            line={line}
            grip={gripOf(line, all)}
            width={size.width}
            on={dragged?.key === line.key}
            onPointerDown={drag(line)}
          />
        ))}
      </svg>
    </div>
  );
}

/** The letters themselves, side by side; what is not drawn yet is pencilled in the interface's face. */
function Letters({ left, baseline, scale }: { left: number; baseline: number; scale: number }) {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const master = masterOf(project, masterId)!;
  const glyphs = lettersOf(project);
  let x = left;
  return glyphs.map((g) => {
    const drawing = drawingOf(g, master.id);
    const at = x;
    x += widthOf(project, master.id, g) * scale;
    if (isEmptyDrawing(drawing)) {
      return (
        <text
          key={g.id}
          x={at + (widthOf(project, master.id, g) * scale) / 2}
          y={baseline}
          fontSize={(master.zones.capHeight.position / PENCIL_CAP_HEIGHT) * scale}
          textAnchor="middle"
          fill="var(--shade)"
          fontWeight={300}
        >
          {characterOf(g)}
        </text>
      );
    }
    return (
      <path
        key={g.id}
        d={drawingPath(project, master.id, drawing)}
        transform={`translate(${at} ${baseline}) scale(${scale} ${-scale})`}
        fill="var(--ink)"
      />
    );
  });
}

/** A metrics line with its name, its height and its overshoot; labels of neighbours keep apart. */
function MetricsLine({
  line: { zone, fixed, sign, key, at, label },
  grip,
  width,
  on,
  onPointerDown,
}: {
  line: Line & { at: number; label: number };
  /** How far from the line it can be taken hold of, in pixels. */
  grip: number;
  width: number;
  on: boolean;
  onPointerDown: (e: ReactPointerEvent<SVGGElement>) => void;
}) {
  return (
    <g onPointerDown={onPointerDown} data-zone={key} style={{ cursor: fixed ? 'default' : 'ns-resize' }}>
      <line
        x1={LABELS}
        x2={width - READINGS}
        y1={at}
        y2={at}
        stroke={on ? 'var(--kelp)' : 'var(--quiet)'}
        strokeWidth={on ? 1.5 : 1}
        strokeDasharray={fixed ? undefined : '1 0'}
        opacity={on ? 1 : 0.55}
      />
      <rect x={0} y={at - grip} width={width} height={2 * grip} fill="transparent" />
      <text x={LABELS - 10} y={label + 4} textAnchor="end" fontSize={13} fill="var(--ink)">
        {zone.name}
      </text>
      <text
        x={width - READINGS + 10}
        y={label + 4}
        fontSize={13}
        fill={on ? 'var(--kelp)' : 'var(--ink)'}
        fontWeight={600}
      >
        {shownNumber(zone.position)}
        <tspan fill="var(--quiet)" fontWeight={400}>{`  ${sign < 0 ? '−' : '+'}${Math.abs(zone.overshoot)}`}</tspan>
      </text>
      {!fixed && (
        <circle
          cx={width - READINGS}
          cy={at}
          r={Math.min(4.5, Math.max(3, grip))}
          pointerEvents="none"
          fill="var(--panel)"
          stroke={on ? 'var(--kelp)' : 'var(--quiet)'}
          strokeWidth={1.5}
        />
      )}
    </g>
  );
}

/** A line is taken hold of 9 pixels around it, and no farther than half the way to the next one. */
const gripOf = (line: { key: string; at: number }, all: readonly { key: string; at: number }[]): number =>
  Math.max(2, Math.min(9, ...all.map((o) => (o.key === line.key ? 9 : Math.abs(o.at - line.at) / 2))));

/** Labels of lines that lie close keep 16 pixels apart. */
function spreadLabels<T extends { at: number }>(lines: T[]): (T & { label: number })[] {
  let last = Number.POSITIVE_INFINITY;
  return [...lines]
    .sort((a, b) => b.at - a.at)
    .map((l) => {
      const label = Math.min(l.at, last - 16);
      last = label;
      return { ...l, label };
    });
}
