import { isEmptyBox } from '../geometry/curve';
import type { Glyph, Master, Project } from '../project/model';
import { drawingBounds, drawingIn, drawingsOf } from '../project/outline';
import { glyphForCodePoint } from '../project/queries';
import { stemAndCounter } from './counter';
import { sidesOf } from './sides';

/** A face: a project and the master of it that is looked at. */
export type Face = { project: Project; master: Master };
/** What two faces are brought to the same size by. */
export type SameSize = 'x-height' | 'em';

/** What one letter measures, in font units of the face it is told for. */
export type LetterFacts = {
  left: number | undefined;
  right: number | undefined;
  advance: number;
  stem: number | undefined;
  counter: number | undefined;
  /** Both sides to the counter, as a share. */
  share: number | undefined;
  top: number | undefined;
  bottom: number | undefined;
};

/** By how much another face is scaled to stand beside one at the same x-height, or at the same em. */
export function besideScale(own: Face, other: Face, by: SameSize): number {
  const em = own.project.unitsPerEm / other.project.unitsPerEm;
  const [a, b] = [own.master.zones.xHeight.position, other.master.zones.xHeight.position];
  return by === 'x-height' && a > 0 && b > 0 ? a / b : em;
}

/** The glyph of another face that stands for the same character as one of ours; undefined where it has none. */
export const counterpart = (glyph: Glyph, other: Face): Glyph | undefined =>
  glyph.unicodes.map((c) => glyphForCodePoint(other.project, c)).find((g) => g !== undefined);

/** What a glyph of a face measures, times a scale. */
export function letterFacts({ project, master }: Face, glyph: Glyph, scale = 1): LetterFacts {
  const sides = sidesOf(project, glyph, master.id);
  const { stem, counter } = stemAndCounter(project, glyph, master);
  const box = drawingBounds(drawingIn(project, glyph, master.id), drawingsOf(project, master.id));
  const drawn = isEmptyBox(box) ? undefined : box;
  const own = 'left' in sides ? sides : undefined;
  const scaled = (v: number | undefined) => (v === undefined ? undefined : v * scale);
  return {
    left: scaled(own?.left),
    right: scaled(own?.right),
    advance: sides.advance * scale,
    stem: scaled(stem),
    counter: scaled(counter),
    share: own && counter ? (own.left + own.right) / counter : undefined,
    top: scaled(drawn?.yMax),
    bottom: scaled(drawn?.yMin),
  };
}

/** Heights of a face's lines, times a scale: x-height, cap height, ascender, descender. */
export const heightFacts = (
  { master: { zones } }: Face,
  scale = 1,
): readonly (readonly [name: string, value: number])[] =>
  (['xHeight', 'capHeight', 'ascender', 'descender'] as const).map((key) => [
    zones[key].name,
    zones[key].position * scale,
  ]);
