import { type FitZone, zoneOf } from '../fitting/optical';
import { lineAt, type Profile, profileOf } from '../fitting/profile';
import type { GlyphId, Master, Project } from '../project/model';
import { drawingOf, isEmptyDrawing } from '../project/queries';
import type { Side } from './lookup';

/** How deep a side is looked into, as a share of the em: what lies farther in does not show beside a neighbour. */
const DEEPEST = 0.1;

/** The side of a first glyph that meets a second one is its right, and the other way round. */
const edgeOf = (profile: Profile, side: Side): Float64Array => (side === 'first' ? profile.right : profile.left);

/** Depths of a side from its outermost ink over a zone, capped. */
function depths(profile: Profile, side: Side, zone: FitZone, deepest: number): Float64Array {
  const edge = edgeOf(profile, side);
  const outward = side === 'first' ? 1 : -1;
  const [from, to] = [lineAt(profile, zone.bottom), lineAt(profile, zone.top)];
  let outermost = -Infinity;
  for (let i = from; i <= to; i++) if (!Number.isNaN(edge[i]!)) outermost = Math.max(outermost, outward * edge[i]!);
  return Float64Array.from({ length: Math.max(0, to - from + 1) }, (_, k) => {
    const x = edge[from + k]!;
    return Number.isNaN(x) ? deepest : Math.min(deepest, outermost - outward * x);
  });
}

/**
 * How alike two glyphs are on a side, 0 to 1: one less the mean difference of their depths as a share of the depth looked into.
 * 1 for the same shape wherever it stands; 0 as well for glyphs of which one is not drawn.
 */
export function likeness(project: Project, master: Master, side: Side, a: GlyphId, b: GlyphId): number {
  const [g, h] = [project.glyphs[a], project.glyphs[b]];
  if (!g || !h || isEmptyDrawing(drawingOf(g, master.id)) || isEmptyDrawing(drawingOf(h, master.id))) return 0;
  const [p, q] = [zoneOf(project, g, master), zoneOf(project, h, master)];
  const zone = { bottom: Math.min(p.bottom, q.bottom), top: Math.max(p.top, q.top) };
  const deepest = DEEPEST * project.unitsPerEm;
  const [x, y] = [depths(profileOf(project, a, master.id), side, zone, deepest), depths(profileOf(project, b, master.id), side, zone, deepest)];
  if (x.length === 0) return 0;
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += Math.abs(x[i]! - y[i]!);
  return Math.max(0, 1 - sum / x.length / deepest);
}

/** Glyphs that are as alike to one on a side as wanted, the most alike first. */
export const alike = (project: Project, master: Master, side: Side, glyph: GlyphId, atLeast = 0.93): { glyph: GlyphId; likeness: number }[] =>
  project.glyphOrder
    .filter((id) => id !== glyph && project.glyphs[id]!.unicodes.some((c) => /[\p{L}\p{N}\p{P}]/u.test(String.fromCodePoint(c))))
    .map((id) => ({ glyph: id, likeness: likeness(project, master, side, glyph, id) }))
    .filter((l) => l.likeness >= atLeast)
    .sort((a, b) => b.likeness - a.likeness);
