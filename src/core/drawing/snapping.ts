import type { Drawing, Master } from '../project/model';
import { zonesOf } from '../project/queries';
import { guidesFor } from './guides';
import { type PointKey, pointKey } from './points';

/** What a place can catch on: a level line, an upright line, or a slanting one, each with the name of what it is. */
export type Catch =
  | { kind: 'level'; y: number; name: string; weight: number }
  | { kind: 'upright'; x: number; name: string; weight: number }
  | { kind: 'line'; x: number; y: number; angle: number; name: string; weight: number };
export type Snapped = { x: number; y: number; names: readonly string[]; catches: readonly Catch[] };

/** All that a moved point of a drawing may catch on; points that move along are left out. */
export function catchesFor(master: Master, drawing: Drawing, moving: ReadonlySet<PointKey>): Catch[] {
  const out: Catch[] = [];
  for (const zone of zonesOf(master)) {
    out.push({ kind: 'level', y: zone.position, name: zone.name, weight: 0 });
    if (zone.overshoot !== 0)
      out.push({ kind: 'level', y: zone.position + zone.overshoot, name: `${zone.name} overshoot`, weight: 0 });
  }
  out.push(
    { kind: 'upright', x: 0, name: 'left edge', weight: 0 },
    { kind: 'upright', x: drawing.advance, name: 'right edge', weight: 0 },
  );
  guidesFor(master, drawing).forEach((g, i) => {
    const name = g.name ?? `guide ${i + 1}`;
    if (g.angle % 180 === 0) out.push({ kind: 'level', y: g.y, name, weight: 0 });
    else if (g.angle % 180 === 90) out.push({ kind: 'upright', x: g.x, name, weight: 0 });
    else out.push({ kind: 'line', x: g.x, y: g.y, angle: (g.angle * Math.PI) / 180, name, weight: 0 });
  });
  drawing.contours.forEach((c, ci) => {
    c.points.forEach((p, pi) => {
      if (p.type === 'off' || moving.has(pointKey(ci, pi))) return;
      out.push(
        { kind: 'level', y: p.y, name: 'a point', weight: 1 },
        { kind: 'upright', x: p.x, name: 'a point', weight: 1 },
      );
    });
  });
  for (const a of drawing.anchors) out.push({ kind: 'upright', x: a.x, name: `anchor ${a.name}`, weight: 1 });
  return out;
}

/** Catches a place within a reach: level and upright lines each by themselves, else the nearest slanting guide. Named lines win over points. */
export function snapped(catches: readonly Catch[], x: number, y: number, reach: number): Snapped {
  let [level, upright, line]: [Catch | undefined, Catch | undefined, Catch | undefined] = [
    undefined,
    undefined,
    undefined,
  ];
  let [best, bestX, bestLine] = [reach, reach, reach];
  for (const c of catches) {
    // A point must be nearer than a named line to be preferred.
    const handicap = c.weight * reach * 0.25;
    if (c.kind === 'level') {
      const d = Math.abs(c.y - y) + handicap;
      if (d < best) [best, level] = [d, c];
    } else if (c.kind === 'upright') {
      const d = Math.abs(c.x - x) + handicap;
      if (d < bestX) [bestX, upright] = [d, c];
    } else {
      const d = Math.abs((x - c.x) * Math.sin(c.angle) - (y - c.y) * Math.cos(c.angle));
      if (d < bestLine) [bestLine, line] = [d, c];
    }
  }
  const found: Catch[] = [upright, level].flatMap((c) => c ?? []);
  if (found.length === 0 && line?.kind === 'line') {
    const along = (x - line.x) * Math.cos(line.angle) + (y - line.y) * Math.sin(line.angle);
    return {
      x: line.x + along * Math.cos(line.angle),
      y: line.y + along * Math.sin(line.angle),
      names: [line.name],
      catches: [line],
    };
  }
  return {
    x: upright?.kind === 'upright' ? upright.x : x,
    y: level?.kind === 'level' ? level.y : y,
    names: [...new Set(found.map((c) => c.name))],
    catches: found,
  };
}
