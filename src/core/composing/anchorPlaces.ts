import type { Anchor, Glyph, Master, Project, Zones } from '../project/model';
import { drawingOf } from '../project/queries';
import {
  above,
  centreOf,
  leftStem,
  middleOf,
  opening,
  placed,
  type Shape,
  SLAB,
  shapeOf,
  slab,
  upperMiddle,
  waistOf,
} from './anchorShape';
import { habitOf } from './letterHabits';
import { type AnchorName, markCodeOf } from './marks';

/**
 * Proposals of anchors from shapes. All is judged upright, slanted letters set straight by their master's angle, and carried
 * back along the slant. Shares and constants were found on the accented letters of open text faces (bench “marks”).
 */
const { abs } = Math;

/** How far a top or bottom may miss a line and still stand on it, as a share of the em: round letters pass it. */
const ON_LINE = 0.03;

/** An upright small letter that is open at one side has its mark this share of the em towards that side. */
const TOWARDS_OPEN = 0.028;
/**
 * Marks sit nearer to ascenders and to capitals than to small letters, by these shares of the em. Foundries have 0 to 0.03 for most
 * capitals, whatever room the line has for them.
 */
const NEARER = { ascender: 0.03, capital: 0.008 };

/** A letter stands on a foot of its own that is this far from its middle, as a share of its width. */
const FOOT_ASIDE = 0.14;
/** How far left of a capital's foot an ogonek ends, and how far beyond its share a round letter's, as shares of the em. */
const OGONEK = { capital: 0.025, round: 0.03 };

/** How far a mark that leans, acute or grave, is held by its lower end rather than by its middle. */
const LEANING = 0.75;
/** … where foundries hold one otherwise: grave and double acute. */
const LEANING_OWN: ReadonlyMap<number, number> = new Map([
  [0x300, 0.65],
  [0x30b, 0.95],
]);
/** A mark this much wider than high lies, as a tilde, and does not lean. */
const LYING = 2.2;

/** A height brought to the line that a shape reaches, where it is near one. */
function onLine(y: number, lines: readonly number[], em: number): number {
  const near = lines.filter((l) => abs(l - y) <= ON_LINE * em).sort((a, b) => abs(a - y) - abs(b - y))[0];
  return near ?? y;
}

const topLines = ({ xHeight, capHeight, ascender }: Zones) => [xHeight.position, capHeight.position, ascender.position];

/** Over what of a letter a mark stands that has no ascender beside a bowl. */
function topMiddle(shape: Shape, code: number, { xHeight }: Zones, small: boolean): number {
  const { top } = habitOf(code);
  const isUpright = shape.profile.lean === 0;
  if (top === 'waist' || (top === 'waist if slanted' && !isUpright)) return centreOf(waistOf(shape));
  if (top === 'whole if upright' && isUpright) return centreOf(shape);
  const ear = top === 'bowl beside an ear' && slab(shape, 0.4 * xHeight.position, 0.75 * xHeight.position);
  if (ear) return centreOf(ear);
  const own = middleOf(shape, 'top', { small, stemmed: top === 'plain stem' });
  return top === 'upper bowl' ? (own + upperMiddle(shape)) / 2 : own;
}

const isCapital = (code: number): boolean => /\p{Lu}/u.test(String.fromCodePoint(code));

/** Where a base takes a mark at an anchor, in font units; undefined where it is not drawn or has no such place. */
export function basePlace(
  project: Project,
  glyph: Glyph,
  master: Master,
  anchor: AnchorName,
): { x: number; y: number } | undefined {
  const shape = shapeOf(project, glyph, master);
  if (!shape) return undefined;
  const em = project.unitsPerEm;
  const { zones } = master;
  // A mark carries the next one at its own edge, whatever line that is near.
  const lines = glyph.category !== 'mark';
  const code = glyph.unicodes[0] ?? 0;
  const habit = habitOf(code);
  const crossed = habit.isCrossed ? 2.5 : 1;
  const top = lines ? onLine(shape.top, topLines(zones), em * crossed) : shape.top;
  const bottom = lines ? onLine(shape.bottom, [0, zones.descender.position], em) : shape.bottom;
  const width = shape.right - shape.left;
  switch (anchor) {
    case 'top': {
      const bowl = habit.top === 'bowl' && slab(shape, 0, zones.xHeight.position * 0.9);
      const small = top < (zones.xHeight.position + zones.capHeight.position) / 2;
      if (!bowl) {
        const upper = lines && shape.bottom < 0 ? above(shape, 0) : shape;
        const nearer = !lines || small ? 0 : (isCapital(code) ? NEARER.capital : NEARER.ascender) * em;
        const open = small && lines && shape.profile.lean === 0 ? opening(upper) * TOWARDS_OPEN * em : 0;
        return placed(shape, topMiddle(upper, code, zones, small) + open, top - nearer);
      }
      const stem = slab(shape, zones.xHeight.position * 1.15, top);
      const left = stem && stem.left - bowl.left < bowl.right - stem.right;
      const x = left ? (stem.right + bowl.right) / 2 : (bowl.left + (stem?.left ?? bowl.right)) / 2;
      // Halfway to the middle of the letter.
      return placed(shape, (x + centreOf(shape)) / 2, zones.xHeight.position);
    }
    case 'bottom': {
      if (habit.bottom === 'waist') return placed(shape, centreOf(waistOf(shape)), bottom);
      // Between the foot and the middle of all, unless the foot is well aside, as that of r.
      const [foot, whole] = [middleOf(shape, 'bottom'), centreOf(shape)];
      return placed(shape, abs(foot - whole) > FOOT_ASIDE * width ? foot : (foot + whole) / 2, bottom);
    }
    case 'cedilla': {
      const stem = habit.cedilla === 'left stem' ? leftStem(project, glyph, master, shape) : undefined;
      return placed(shape, stem ?? middleOf(shape, 'bottom'), bottom);
    }
    case 'ogonek': {
      const low = slab(shape, shape.bottom, shape.bottom + 0.08 * (shape.top - shape.bottom));
      const right = low ? low.right : shape.right;
      // Under a foot at its right end, under a round shape right of its middle.
      const under = shape.right - right < 0.12 * width;
      const foot = right - (isCapital(code) ? OGONEK.capital * em : 0);
      const x = under ? foot : centreOf(shape) + 0.12 * width + OGONEK.round * em;
      return placed(shape, x, bottom);
    }
    case 'horn':
      return placed(shape, shape.right - 0.06 * width, top - 0.04 * em);
    case 'topright': {
      const end = slab(shape, shape.top - SLAB * (shape.top - shape.bottom), shape.top);
      return placed(shape, (end?.right ?? shape.right) + 0.05 * em, top);
    }
    case 'centre':
      return placed(shape, centreOf(shape), (top + bottom) / 2);
  }
}

/** Where a mark sits on a base: the middle of its shape, at the height of the letters that it is drawn over. */
export function markPlace(
  project: Project,
  glyph: Glyph,
  master: Master,
  anchor: AnchorName,
): { x: number; y: number } | undefined {
  const shape = shapeOf(project, glyph, master);
  if (!shape) return undefined;
  const { zones } = master;
  const middle = centreOf(shape);
  // A form of its own for capitals stands as its designer put it, over them or, lower, as if over small letters.
  const high = shape.bottom >= zones.capHeight.position;
  const nearer = high || glyph.name.includes('.') ? NEARER.capital * project.unitsPerEm : 0;
  const over = (high ? zones.capHeight : zones.xHeight).position - nearer;
  switch (anchor) {
    case 'top': {
      const leaning =
        LEANING_OWN.get(markCodeOf(project, glyph) ?? 0) ??
        (shape.right - shape.left < LYING * (shape.top - shape.bottom) ? LEANING : 0);
      return placed(shape, leaning * middleOf(shape, 'bottom') + (1 - leaning) * middle, over);
    }
    case 'bottom':
      return placed(shape, middle, 0);
    case 'cedilla':
      return placed(shape, middleOf(shape, 'top'), 0);
    case 'ogonek':
      return placed(shape, shape.right - 0.05 * (shape.right - shape.left), 0);
    case 'horn':
      return placed(shape, shape.left, zones.xHeight.position - 0.04 * project.unitsPerEm);
    case 'topright':
      return placed(shape, shape.left, zones.ascender.position);
    case 'centre':
      return placed(shape, middle, (shape.top + shape.bottom) / 2);
  }
}

/** An anchor of a base, or of a mark (its name with `_` before it). */
export function proposedAnchor(
  project: Project,
  glyph: Glyph,
  master: Master,
  anchor: AnchorName,
  role: 'takesMark' | 'isMark',
): Anchor | undefined {
  const at = (role === 'isMark' ? markPlace : basePlace)(project, glyph, master, anchor);
  return at && { name: role === 'isMark' ? `_${anchor}` : anchor, ...at, role };
}

/** The anchor of this name that a drawing has. */
export const anchorNamed = (glyph: Glyph, master: Master, name: string): Anchor | undefined =>
  drawingOf(glyph, master.id).anchors.find((a) => a.name === name);
