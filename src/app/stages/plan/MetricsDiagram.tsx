import { type PointerEvent as ReactPointerEvent, useLayoutEffect, useRef, useState } from 'react';
import { shownNumber } from '../../../core/base/notation';
import type { Outcome } from '../../../core/project/edit';
import { overshootSign, setOwnZone, setZone } from '../../../core/project/edits';
import { type Glyph, type Project, ZONE_KEYS, type Zone } from '../../../core/project/model';
import { drawingPath } from '../../../core/project/pathData';
import { drawingOf, glyphNamed, isEmptyDrawing } from '../../../core/project/queries';
import { preview, run, useBench } from '../../state/bench';
import { characterOf } from '../../ui/GlyphShape';

/** Cap height of the interface's face as a share of its size: a pencilled letter stands between the lines too. */
const PENCIL_CAP_HEIGHT = 0.66;
const LETTERS = ['H', 'x', 'o', 'p', 'd'];
const LABELS = 92;
const READINGS = 86;

/** The project's own H x o p d between its metrics lines; each line is dragged, its overshoot shown as a band. */
export function MetricsDiagram() {
  const project = useBench((s) => s.project)!;
  const masterId = useBench((s) => s.master);
  const master = project.masters.find((m) => m.id === masterId)!;
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
  const glyphs = LETTERS.flatMap((name) => glyphNamed(project, name) ?? []);
  const widthOf = (g: Glyph) => Math.max(drawingOf(g, masterId).advance, em * 0.2);
  const total = glyphs.reduce((sum, g) => sum + widthOf(g), 0) || em;
  const top = Math.max(master.zones.ascender.position, master.zones.capHeight.position) + em * 0.12;
  const bottom = master.zones.descender.position - em * 0.1;
  const fitted = Math.min((size.height - 32) / (top - bottom), (size.width - LABELS - READINGS - 40) / total);
  // While a line is dragged the scale stays, so that it keeps under the pointer.
  const scale = dragged?.scale ?? Math.max(0.02, fitted);
  const baseline = size.height / 2 + ((top + bottom) / 2) * scale;
  const y = (v: number) => baseline - v * scale;
  const left = LABELS + Math.max(0, (size.width - LABELS - READINGS - total * scale) / 2);

  /** Every line of the diagram: what it is, and the edit that moves it. */
  const lines: {
    key: string;
    zone: Zone;
    fixed: boolean;
    sign: number;
    move: (position: number) => (p: Project) => Outcome;
  }[] = [
    ...ZONE_KEYS.map((key) => ({
      key: key as string,
      zone: master.zones[key],
      fixed: key === 'baseline',
      sign: overshootSign(key),
      move: (position: number) => (p: Project) => setZone(p, { master: masterId, zone: key, change: { position } }),
    })),
    ...master.zones.own.map((zone, index) => ({
      key: `own ${index}`,
      zone,
      fixed: false,
      sign: Math.sign(zone.overshoot) || 1,
      move: (position: number) => (p: Project) => setOwnZone(p, { master: masterId, index, change: { position } }),
    })),
  ];

  const drag = (line: (typeof lines)[number]) => (e: ReactPointerEvent<SVGGElement>) => {
    if (line.fixed) return;
    const target = e.currentTarget;
    const from = e.clientY;
    const start = line.zone.position;
    let position = start;
    target.setPointerCapture(e.pointerId);
    setDragged({ key: line.key, scale });
    const move = (m: PointerEvent) => {
      position = Math.round(start - (m.clientY - from) / scale);
      preview(line.move(position));
    };
    const up = () => {
      target.removeEventListener('pointermove', move);
      setDragged(undefined);
      if (position !== start) run(line.move(position));
    };
    target.addEventListener('pointermove', move);
    target.addEventListener('pointerup', up, { once: true });
  };

  let x = left;
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
        {glyphs.map((g) => {
          const drawing = drawingOf(g, masterId);
          const at = x;
          x += widthOf(g) * scale;
          if (isEmptyDrawing(drawing)) {
            return (
              <text
                key={g.id}
                x={at + (widthOf(g) * scale) / 2}
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
              d={drawingPath(project, masterId, drawing)}
              transform={`translate(${at} ${baseline}) scale(${scale} ${-scale})`}
              fill="var(--ink)"
            />
          );
        })}
        {spreadLabels(lines.map((line) => ({ ...line, at: y(line.zone.position) }))).map(({ at, label, ...line }) => {
          const { key, zone, fixed } = line;
          const on = dragged?.key === key;
          return (
            <g key={key} onPointerDown={drag(line)} data-zone={key} style={{ cursor: fixed ? 'default' : 'ns-resize' }}>
              <line
                x1={LABELS}
                x2={size.width - READINGS}
                y1={at}
                y2={at}
                stroke={on ? 'var(--kelp)' : 'var(--quiet)'}
                strokeWidth={on ? 1.5 : 1}
                strokeDasharray={fixed ? undefined : '1 0'}
                opacity={on ? 1 : 0.55}
              />
              <rect x={0} y={at - 9} width={size.width} height={18} fill="transparent" />
              <text x={LABELS - 10} y={label + 4} textAnchor="end" fontSize={13} fill="var(--ink)">
                {zone.name}
              </text>
              <text
                x={size.width - READINGS + 10}
                y={label + 4}
                fontSize={13}
                fill={on ? 'var(--kelp)' : 'var(--ink)'}
                fontWeight={600}
              >
                {shownNumber(zone.position)}
                <tspan
                  fill="var(--quiet)"
                  fontWeight={400}
                >{`  ${line.sign < 0 ? '−' : '+'}${Math.abs(zone.overshoot)}`}</tspan>
              </text>
              {!fixed && (
                <circle
                  cx={size.width - READINGS}
                  cy={at}
                  r={4.5}
                  fill="var(--panel)"
                  stroke={on ? 'var(--kelp)' : 'var(--quiet)'}
                  strokeWidth={1.5}
                />
              )}
            </g>
          );
        })}
      </svg>
    </div>
  );
}

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
