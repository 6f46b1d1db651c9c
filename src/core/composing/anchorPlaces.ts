import { lineAt, lineHeight, type Profile, profileOf } from '../fitting/profile';
import type { Anchor, Glyph, Master, Project, Zones } from '../project/model';
import { drawingOf } from '../project/queries';
import type { AnchorName } from './marks';
import { nearerToCapitals } from './nearness';

/**
 * Proposals of anchors from shapes. All is judged upright, slanted letters set straight by their master's angle, and carried
 * back along the slant. Shares and constants were found on the accented letters of open text faces (bench “marks”).
 */
const { abs, max, min, round } = Math;

/** How far a top or bottom may miss a line and still stand on it, as a share of the em: round letters pass it. */
const ON_LINE = 0.03;
/** What counts as the top or the bottom of a shape, as a share of its height. */
const SLAB = 0.16;
/** A top narrower than this share of the whole shape carries the mark by itself: the stem of l and h, the apex of A. */
const NARROW = 0.4;
/** … unless it stands this far aside, as a share of the width. */
const ASIDE = 0.25;
/** Ink that ends within this share of the width ends where the letter does. */
const FLUSH = 0.03;

/** Letters whose bowl carries the mark, beside the ascender: b and d. */
const BOWLS: ReadonlySet<number> = new Set([0x62, 0x64]);
/** Letters with an ear or a loop beside the bowl: g is judged by its bowl. */
const EARED: ReadonlySet<number> = new Set([0x67]);
/** A small letter that is open at one side, as c, has its mark this share of the em towards that side … */
const TOWARDS_OPEN = 0.028;
/** … when it is at least so deep there in the middle, and goes so far out below, as shares of its width. */
const OPEN = { depth: 0.4, below: 0.85 };
/** Capitals whose stem carries the mark where it has no serif; h and k do too. */
const STEMMED: ReadonlySet<number> = new Set([0x4c, 0x68, 0x6b]);
/** Letters with a stroke through them, which may stick out: they end where the letters without it do. */
const CROSSED: ReadonlySet<number> = new Set([0xd8, 0xf8]);
/** Marks sit nearer to ascenders than to small letters, by this share of the em. */
const NEARER_ASCENDER = 0.03;

/** How far a mark that leans, acute or grave, is held by its lower end rather than by its middle. */
const LEANING = 0.75;
/** A mark this much wider than high lies, as a tilde, and does not lean. */
const LYING = 2.2;

/** The upright extent of a shape: its lines of ink, and its sides over all of them. */
type Shape = { profile: Profile; low: number; high: number; bottom: number; top: number; left: number; right: number };

function shapeOf(project: Project, glyph: Glyph, master: Master): Shape | undefined {
  const profile = profileOf(project, glyph.id, master.id);
  let [low, high] = [-1, -1];
  let [left, right] = [Infinity, -Infinity];
  profile.left.forEach((x, i) => {
    if (Number.isNaN(x)) return;
    if (low < 0) low = i;
    high = i;
    left = min(left, x);
    right = max(right, profile.right[i]!);
  });
  if (low < 0) return undefined;
  return { profile, low, high, left, right, bottom: lineHeight(profile, low), top: lineHeight(profile, high) };
}

/** The sides of the lines of a shape between two heights. */
function slab({ profile, low, high }: Shape, from: number, to: number): { left: number; right: number } | undefined {
  let [left, right] = [Infinity, -Infinity];
  for (let i = max(low, lineAt(profile, from)); i <= min(high, lineAt(profile, to)); i++) {
    if (Number.isNaN(profile.left[i]!)) continue;
    left = min(left, profile.left[i]!);
    right = max(right, profile.right[i]!);
  }
  return left > right ? undefined : { left, right };
}

/** A height brought to the line that a shape reaches, where it is near one. */
function onLine(y: number, lines: readonly number[], em: number): number {
  const near = lines.filter((l) => abs(l - y) <= ON_LINE * em).sort((a, b) => abs(a - y) - abs(b - y))[0];
  return near ?? y;
}

const topLines = ({ xHeight, capHeight, ascender }: Zones) => [xHeight.position, capHeight.position, ascender.position];

/** The middle of a shape's top or bottom: of the stem or apex where it ends in one, else of the whole. */
function middleOf(
  shape: Shape,
  end: 'top' | 'bottom',
  { small = false, stemmed = false }: { small?: boolean; stemmed?: boolean } = {},
): number {
  const height = shape.top - shape.bottom;
  const part =
    end === 'top'
      ? slab(shape, shape.top - SLAB * height, shape.top)
      : slab(shape, shape.bottom, shape.bottom + SLAB * height);
  const whole = (shape.left + shape.right) / 2;
  if (!part) return whole;
  const own = (part.left + part.right) / 2;
  const width = shape.right - shape.left;
  if (stemmed && end === 'top' && isPlainStem(shape, part)) return own;
  // A stem that rises at one side of a wider letter, h or k: the mark stands over the middle of the letter.
  if (end === 'top' && part.right - part.left < NARROW * width && abs(own - whole) > ASIDE * width) return whole;
  // A small letter whose top reaches one of its sides, n or v, is judged by all of it; a round one by its top.
  if (end === 'top' && small && min(part.left - shape.left, shape.right - part.right) < FLUSH * width) return whole;
  return own;
}

/** Does a stem end at the top without a serif: no wider there than a third of the way down? */
function isPlainStem(shape: Shape, end: { left: number; right: number }): boolean {
  const height = shape.top - shape.bottom;
  const below = slab(shape, shape.top - 0.34 * height, shape.top - 0.3 * height);
  return below !== undefined && end.right - end.left < 1.2 * (below.right - below.left);
}

/** To which side a letter is open: 1 to the right as c, −1 to the left, 0 to neither or both. */
function opening(shape: Shape): -1 | 0 | 1 {
  const height = shape.top - shape.bottom;
  const width = shape.right - shape.left;
  const middle = slab(shape, shape.bottom + 0.32 * height, shape.bottom + 0.68 * height);
  const below = slab(shape, shape.bottom, shape.bottom + 0.25 * height);
  if (!middle || !below || width <= 0) return 0;
  const right = (shape.right - middle.right) / width > OPEN.depth;
  const left = (middle.left - shape.left) / width > OPEN.depth;
  if (right === left) return 0;
  const out = right ? below.right - shape.left : shape.right - below.left;
  const other = right ? below.left - shape.left : shape.right - below.right;
  return out / width > OPEN.below && other / width < 1 - OPEN.below + 0.1 ? (right ? 1 : -1) : 0;
}

/** The shape above a height alone: tails and hooks below the baseline do not move what stands above. */
function above(shape: Shape, y: number): Shape {
  const low = max(shape.low, lineAt(shape.profile, y));
  if (low >= shape.high) return shape;
  const sides = slab(shape, y, shape.top);
  return sides ? { ...shape, ...sides, low, bottom: lineHeight(shape.profile, low) } : shape;
}

/** A place of the upright shape carried back along the slant, on whole units. */
function placed({ profile }: Shape, x: number, y: number): { x: number; y: number } {
  return { x: round(x + profile.lean * (y - profile.pivot)), y: round(y) };
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
  const crossed = CROSSED.has(glyph.unicodes[0] ?? 0) ? 2.5 : 1;
  const top = lines ? onLine(shape.top, topLines(zones), em * crossed) : shape.top;
  const bottom = lines ? onLine(shape.bottom, [0, zones.descender.position], em) : shape.bottom;
  const width = shape.right - shape.left;
  switch (anchor) {
    case 'top': {
      const code = glyph.unicodes[0] ?? 0;
      const bowl = BOWLS.has(code) && slab(shape, 0, zones.xHeight.position * 0.9);
      const small = top < (zones.xHeight.position + zones.capHeight.position) / 2;
      if (!bowl) {
        const upper = lines && shape.bottom < 0 ? above(shape, 0) : shape;
        const ear = EARED.has(code) && slab(shape, 0.4 * zones.xHeight.position, 0.75 * zones.xHeight.position);
        const middle = ear ? (ear.left + ear.right) / 2 : middleOf(upper, 'top', { small, stemmed: STEMMED.has(code) });
        const nearer = !lines || small ? 0 : isCapital(code) ? nearerToCapitals(project, master) : NEARER_ASCENDER * em;
        const open = small && lines ? opening(upper) * TOWARDS_OPEN * em : 0;
        return placed(shape, middle + open, top - nearer);
      }
      const stem = slab(shape, zones.xHeight.position * 1.15, top);
      const left = stem && stem.left - bowl.left < bowl.right - stem.right;
      const x = left ? (stem.right + bowl.right) / 2 : (bowl.left + (stem?.left ?? bowl.right)) / 2;
      // Halfway to the middle of the letter.
      return placed(shape, (x + (shape.left + shape.right) / 2) / 2, zones.xHeight.position);
    }
    case 'bottom':
    case 'cedilla':
      return placed(shape, middleOf(shape, 'bottom'), bottom);
    case 'ogonek': {
      const foot = slab(shape, shape.bottom, shape.bottom + 0.08 * (shape.top - shape.bottom));
      const right = foot ? foot.right : shape.right;
      // Under a foot at its right end, under a round shape right of its middle.
      const x = shape.right - right < 0.12 * width ? right : (shape.left + shape.right) / 2 + 0.12 * width;
      return placed(shape, x, bottom);
    }
    case 'horn':
      return placed(shape, shape.right - 0.06 * width, top - 0.04 * em);
    case 'topright': {
      const end = slab(shape, shape.top - SLAB * (shape.top - shape.bottom), shape.top);
      return placed(shape, (end?.right ?? shape.right) + 0.05 * em, top);
    }
    case 'centre':
      return placed(shape, (shape.left + shape.right) / 2, (top + bottom) / 2);
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
  const middle = (shape.left + shape.right) / 2;
  // A form of its own for capitals stands as its designer put it, over them or, lower, as if over small letters.
  const high = shape.bottom >= zones.capHeight.position;
  const nearer = high || glyph.name.includes('.') ? nearerToCapitals(project, master) : 0;
  const over = (high ? zones.capHeight : zones.xHeight).position - nearer;
  switch (anchor) {
    case 'top': {
      const leaning = shape.right - shape.left < LYING * (shape.top - shape.bottom) ? LEANING : 0;
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
