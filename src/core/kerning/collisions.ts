import { profileOf } from '../fitting/profile';
import { kerningOf } from '../project/kerningLookup';
import type { GlyphId, MasterId, Project } from '../project/model';
import { modelKerning } from './optical';

/** Two glyphs whose shapes touch or come too near: the least distance between them, in font units. */
export type Collision = { first: GlyphId; second: GlyphId; distance: number };

/**
 * Pairs of some glyphs whose outlines come nearer than a distance, kerning counted, accents and all; the nearest first. Distance is
 * taken along lines a hundredth of the em apart and between neighbouring lines at 45°.
 */
export function collisions(
  project: Project,
  masterId: MasterId,
  glyphs: readonly GlyphId[],
  nearest: number,
  progress: (done: number, total: number) => void = () => {},
): Collision[] {
  const master = project.masters.find((m) => m.id === masterId)!;
  const drawn = glyphs
    .map((id) => ({ id, profile: profileOf(project, id, masterId, true) }))
    .filter(({ profile }) => profile.right.some((x) => !Number.isNaN(x)));
  const out: Collision[] = [];
  drawn.forEach((a, i) => {
    if (i % 8 === 0) progress(i, drawn.length);
    for (const b of drawn) {
      const kern = kerningOf(project, master, a.id, b.id)?.value ?? 0;
      let distance = Infinity;
      const { right } = a.profile;
      const { left, step } = b.profile;
      for (let y = 0; y < right.length; y++) {
        if (Number.isNaN(right[y]!)) continue;
        for (let d = -2; d <= 2; d++) {
          const x = left[y + d];
          if (x === undefined || Number.isNaN(x)) continue;
          const gap = a.profile.advance + kern - right[y]! + x;
          const away = gap > 0 ? Math.hypot(gap, d * step) : gap + Math.abs(d) * step;
          if (away < distance) distance = away;
        }
      }
      if (distance < nearest) out.push({ first: a.id, second: b.id, distance: Math.round(distance) });
    }
  });
  return out.sort((p, q) => p.distance - q.distance);
}

/** Two glyphs that leave a hole between them, and by how much they stand too far apart, in font units. */
export type Hole = { first: GlyphId; second: GlyphId; tooOpen: number };

/** Pairs of some glyphs that stand farther apart than even by a distance or more, kerning counted; the most open first. */
export function holes(
  project: Project,
  masterId: MasterId,
  glyphs: readonly GlyphId[],
  atLeast: number,
  progress: (done: number, total: number) => void = () => {},
): Hole[] {
  const master = project.masters.find((m) => m.id === masterId)!;
  const out: Hole[] = [];
  glyphs.forEach((first, i) => {
    if (i % 8 === 0) progress(i, glyphs.length);
    for (const second of glyphs) {
      const tooOpen =
        (kerningOf(project, master, first, second)?.value ?? 0) - modelKerning(project, master, first, second);
      if (tooOpen >= atLeast) out.push({ first, second, tooOpen });
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
