import { type Profile, profileOf } from '../fitting/profile';
import { kerningOf } from '../project/kerningLookup';
import type { GlyphId, MasterId, Project } from '../project/model';
import { evennessOf } from './evenness';
import { canMeet, textKind } from './meeting';
import { modelKerning } from './optical';

/** Two glyphs whose shapes touch or come too near: the least distance between them, in font units. */
export type Collision = { first: GlyphId; second: GlyphId; distance: number };

/** Of two glyphs, how often text has such characters, that a pair must reach to be looked at. */
const SELDOM = 0.02;

/** Can text hold the pair, and not only a scholar's? */
function isUsual(project: Project, first: GlyphId, second: GlyphId): boolean {
  const [a, b] = [textKind(project.glyphs[first]!), textKind(project.glyphs[second]!)];
  return a.weight * b.weight >= SELDOM && canMeet(a, b);
}

/** A glyph's edges, how near they come to its own, and whether anything is kerned with it on that side. */
type Edge = { id: GlyphId; profile: Profile; before: number; after: number };

function edgesOf(project: Project, masterId: MasterId, id: GlyphId): Edge {
  const profile = profileOf(project, id, masterId, true);
  let [left, right] = [Infinity, -Infinity];
  for (let y = 0; y < profile.left.length; y++) {
    if (profile.left[y]! < left) left = profile.left[y]!;
    if (profile.right[y]! > right) right = profile.right[y]!;
  }
  return { id, profile, before: left, after: profile.advance - right };
}

/**
 * Pairs of some glyphs that text can hold whose outlines come nearer than a distance, kerning counted, accents and all; the
 * nearest first. Distance is taken along lines a hundredth of the em apart and between neighbouring lines at 45°.
 */
export function collisions(
  project: Project,
  masterId: MasterId,
  glyphs: readonly GlyphId[],
  nearest: number,
  progress: (done: number, total: number) => void = () => {},
): Collision[] {
  const master = project.masters.find((m) => m.id === masterId)!;
  const drawn = glyphs.map((id) => edgesOf(project, masterId, id)).filter((e) => Number.isFinite(e.before));
  const out: Collision[] = [];
  drawn.forEach((a, i) => {
    if (i % 8 === 0) progress(i, drawn.length);
    for (const b of drawn) {
      if (!isUsual(project, a.id, b.id)) continue;
      const kern = kerningOf(project, master, a.id, b.id)?.value ?? 0;
      // Most pairs stand clear of each other by their sides alone.
      if (a.after + b.before + kern >= nearest) continue;
      const distance = distanceBetween(a.profile, b.profile, kern);
      if (distance < nearest) out.push({ first: a.id, second: b.id, distance: Math.round(distance) });
    }
  });
  return out.sort((p, q) => p.distance - q.distance);
}

/** The least distance between two outlines set one after the other. */
export function distanceBetween(a: Profile, b: Profile, kern: number): number {
  let distance = Infinity;
  const { right } = a;
  const { left, step } = b;
  for (let y = 0; y < right.length; y++) {
    if (Number.isNaN(right[y]!)) continue;
    for (let d = -2; d <= 2; d++) {
      const x = left[y + d];
      if (x === undefined || Number.isNaN(x)) continue;
      const gap = a.advance + kern - right[y]! + x;
      const away = gap > 0 ? Math.hypot(gap, d * step) : gap + Math.abs(d) * step;
      if (away < distance) distance = away;
    }
  }
  return distance;
}

/** Two glyphs that leave a hole between them, and by how much they stand too far apart, in font units. */
export type Hole = { first: GlyphId; second: GlyphId; tooOpen: number };

/**
 * Pairs of some glyphs that text can hold which stand farther apart than even by a distance or more, kerning counted; the most
 * open first. What is even is learned from the kerning there is.
 */
export function holes(
  project: Project,
  masterId: MasterId,
  glyphs: readonly GlyphId[],
  atLeast: number,
  progress: (done: number, total: number) => void = () => {},
): Hole[] {
  const master = project.masters.find((m) => m.id === masterId)!;
  const { expected, stray, learned } = evennessOf(project, master);
  const least = learned ? Math.max(atLeast, 2 * stray) : atLeast;
  const out: Hole[] = [];
  glyphs.forEach((first, i) => {
    if (i % 8 === 0) progress(i, glyphs.length);
    for (const second of glyphs) {
      if (!isUsual(project, first, second)) continue;
      const even = expected(first, second, modelKerning(project, master, first, second));
      const tooOpen = Math.round((kerningOf(project, master, first, second)?.value ?? 0) - even);
      if (tooOpen >= least) out.push({ first, second, tooOpen });
    }
  });
  return out.sort((p, q) => q.tooOpen - p.tooOpen);
}

/** Pairs or words of a text file, one to a line; what follows # is a comment. */
export const linesOfWordList = (text: string): string[] =>
  text
    .split(/\r?\n/)
    .map((l) => l.replace(/#.*$/, '').trim())
    .filter((l) => l !== '');
