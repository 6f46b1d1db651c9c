import { isTabular } from '../fitting/figures';
import { controlsFor, controlsOf } from '../fitting/lines';
import { type FitZone, measureFor, zoneOf } from '../fitting/optical';
import { limitRise, lineAt, type Profile, profileOf } from '../fitting/profile';
import type { Side } from '../project/kerningLookup';
import type { GlyphId, Master, MasterId, Project } from '../project/model';
import { glyphForCodePoint } from '../project/queries';

const { max, min, round } = Math;

/**
 * How much white two glyphs leave between them. The distance of their outlines is taken line by line, in places that are narrow
 * more than in wide ones (a power mean), and no farther than the eye looks. Before that, ink spreads its presence up and down:
 * the bar of T keeps an o away that lies below it. What is even is calibrated by the straight and round controls of the font.
 */
export type White = { even: number; power: number; farthest: number; nearest: number };

/** How steeply ink keeps a neighbour away above and below itself, in units a unit of height. */
const RISE = 1.7;

/** How far back a side's outline lies as its neighbour meets it, spread upwards and downwards. */
const spreadCache = new WeakMap<Float64Array, Float64Array>();
function spread(edge: Float64Array, outward: 1 | -1, step: number): Float64Array {
  const known = spreadCache.get(edge);
  if (known) return known;
  const out = Float64Array.from(edge, (v) => (Number.isNaN(v) ? Infinity : -outward * v));
  limitRise(out, RISE * step);
  spreadCache.set(edge, out);
  return out;
}

/** Distances between two glyphs set one after the other without kerning, over the zone that both are judged in. */
export function gapsBetween(first: Profile, second: Profile, zone: FitZone): Float64Array {
  const right = spread(first.right, 1, first.step);
  const left = spread(second.left, -1, second.step);
  const [from, to] = [lineAt(first, zone.bottom + first.step / 2), lineAt(first, zone.top - first.step / 2)];
  const out = new Float64Array(max(0, to - from + 1));
  for (let i = from; i <= to; i++) out[i - from] = first.advance + right[i]! + left[i]!;
  return out;
}

/** The zone of a pair: from the lower bottom to the higher top. */
export const pairZone = (a: FitZone, b: FitZone): FitZone => ({
  bottom: min(a.bottom, b.bottom),
  top: max(a.top, b.top),
});

/** White between two glyphs moved towards or away from each other by a distance. */
export function whiteOf(
  gaps: Float64Array,
  by: number,
  { power, farthest }: Pick<White, 'power' | 'farthest'>,
): number {
  const table = powers(power, Math.ceil(min(farthest, 4000)));
  const last = table.length - 1;
  let sum = 0;
  for (let i = 0; i < gaps.length; i++) {
    const g = gaps[i]! + by;
    sum += table[g >= last ? last : g <= 1 ? 1 : round(g)]!;
  }
  return gaps.length === 0 ? 0 : (sum / gaps.length) ** (1 / power);
}

const tables = new Map<string, Float64Array>();

/** Whole numbers raised to a power: asked for by the million. */
function powers(power: number, most: number): Float64Array {
  const key = `${power} ${most}`;
  let table = tables.get(key);
  if (!table) {
    if (tables.size > 200) tables.clear();
    table = Float64Array.from({ length: most + 1 }, (_, v) => max(1, v) ** power);
    tables.set(key, table);
  }
  return table;
}

/** How far the eye looks between two glyphs, and how near they may come, by the white that is even. */
const FARTHEST = 1.5;
const NEAREST = 0.65;

/** The white of a font's own controls: even is what n n leave, and the power that which makes n o and o o leave as much. */
export function calibrated(project: Project, master: Master, straight = 'n', round = 'o'): White | undefined {
  const [s, r] = [straight, round].map((c) => glyphForCodePoint(project, c.codePointAt(0)!));
  if (!s || !r || !measureFor(project, s, master)) return undefined;
  const zone = pairZone(zoneOf(project, s, master), zoneOf(project, r, master));
  const [a, b] = [profileOf(project, s.id, master.id), profileOf(project, r.id, master.id)];
  const [straights, rounds] = [gapsBetween(a, a, zone), gapsBetween(b, b, zone)];
  if (straights.length === 0 || straights.some((g) => !Number.isFinite(g))) return undefined;
  const even = whiteOf(straights, 0, { power: 1, farthest: 1e6 });
  const farthest = even * FARTHEST;
  let [low, high] = [-6, 1];
  for (let i = 0; i < 40; i++) {
    const power = (low + high) / 2 || 1e-6;
    if (whiteOf(rounds, 0, { power, farthest }) > even) high = power;
    else low = power;
  }
  return { even, power: (low + high) / 2 || 1e-6, farthest, nearest: even * NEAREST };
}

/** How far a pair would have to move to be even, in units: 0 where nothing faces anything. */
export function evenKerning(gaps: Float64Array, white: White): number {
  if (gaps.length === 0) return 0;
  let narrowest = Infinity;
  for (const g of gaps) narrowest = min(narrowest, g);
  if (!Number.isFinite(narrowest)) return 0;
  let [low, high] = [white.nearest - narrowest, white.even * 3 - narrowest];
  if (whiteOf(gaps, low, white) >= white.even) return low;
  for (let i = 0; i < 14; i++) {
    const by = (low + high) / 2;
    if (whiteOf(gaps, by, white) > white.even) high = by;
    else low = by;
  }
  return (low + high) / 2;
}

/**
 * What is kerned of a pair's unevenness. Of what each of the two has with a straight neighbour, this much is in its side bearings and
 * not the pair's; a reader does not see the rest under a threshold, and half of what is over it is kerned, up to a most. Found by
 * holding proposals against the kerning of thirteen text faces, serif and sans, frequent pairs counting more. Thresholds and the most
 * are shares of the em.
 */
const OF_BEARINGS = 0.7;
const SHARE = 0.5;
const MOST = 0.1;
const UNSEEN = { lower: 0.005, upper: 0.026, other: 0.019, dash: 0.07 };

/**
 * What is drawn nearer: letters, stops, quotation marks, dashes. The others professionals leave as they are set (seven text faces
 * that were looked at kern no figure beside a letter or a stop, and next to no question mark, bracket or bullet).
 */
const KERNED = /[\p{L}\p{M}\p{Pd}.,…:;'"‘’‚‛“”„‟‹›«»]/u;

/** Shapes nearer than this are set apart, until they are clear of each other; shares of the em. */
const TOUCHING = 0.004;
export const CLEAR = 0.02;

/** The unevenness between two shapes that is not seen, as a share of the em. */
const unseenOf = (a: Shape, b: Shape): number =>
  a.dash || b.dash
    ? UNSEEN.dash
    : a.isLower && b.isLower
      ? UNSEEN.lower
      : a.isUpper && b.isUpper
        ? UNSEEN.upper
        : UNSEEN.other;

/** How near two shapes may come before they are set apart, by the white that is even; no nearer than straight letters stand. */
const CLOSEST = 0.25;

/** Whites by the kind of glyph; a pair of two kinds takes the mean of both. */
type Whites = {
  lower: White | undefined;
  upper: White | undefined;
  /** For pairs of both kinds. */
  between: White | undefined;
  shapes: Map<GlyphId, Shape>;
  controls: { lowerFirst?: number; upperFirst?: number };
};

/**
 * What a pair needs of a glyph, measured once; `uneven` is how it stands before and after the straight control of its kind, `standsOff`
 * how far it keeps from itself.
 */
type Shape = {
  profile: Profile;
  zone: FitZone;
  isLower: boolean;
  isUpper: boolean;
  /** Figures, question marks, brackets, signs that stand by themselves: only set apart where they would touch. */
  lone: boolean;
  /** Hyphens and dashes lie in the middle of the white, and are read as white themselves. */
  dash: boolean;
  tabular: boolean;
  control: GlyphId | undefined;
  uneven: { first?: number; second?: number };
  standsOff?: number;
};

const known = new WeakMap<Project['glyphs'], Map<MasterId, { zones: Master['zones']; whites: Whites }>>();

/** The whites of a master's own controls, n and o, H and O; measured once for the same shapes, whatever the kerning. */
function whitesOf(project: Project, master: Master): Whites {
  const byMaster = known.get(project.glyphs) ?? new Map<MasterId, { zones: Master['zones']; whites: Whites }>();
  known.set(project.glyphs, byMaster);
  const found = byMaster.get(master.id);
  if (found?.zones === master.zones) return found.whites;
  const whites = measured(project, master);
  byMaster.set(master.id, { zones: master.zones, whites });
  return whites;
}

function measured(project: Project, master: Master): Whites {
  const [lower, upper] = [calibrated(project, master, 'n', 'o'), calibrated(project, master, 'H', 'O')];
  const mean = (key: keyof White) => ((lower ?? upper)![key] + (upper ?? lower)![key]) / 2;
  const between =
    lower || upper
      ? { even: mean('even'), power: mean('power'), farthest: mean('farthest'), nearest: mean('nearest') }
      : undefined;
  return { lower: lower ?? upper, upper: upper ?? lower, between, shapes: new Map(), controls: {} };
}

const whiteFor = (whites: Whites, a: Shape, b: Shape): White | undefined =>
  a.isLower !== b.isLower ? whites.between : a.isLower ? whites.lower : whites.upper;

function shapeOf(project: Project, master: Master, id: GlyphId, whites: Whites): Shape | undefined {
  const known = whites.shapes.get(id);
  const glyph = project.glyphs[id];
  if (known || !glyph) return known;
  const isLower = controlsFor(glyph)[0] === 'n';
  const character = String.fromCodePoint(glyph.unicodes[0] ?? 0x20);
  const straight = controlsOf(project, glyph)?.straight;
  const control =
    isLower && straight ? straight.id : glyphForCodePoint(project, (isLower ? 'n' : 'H').charCodeAt(0))?.id;
  const shape: Shape = {
    profile: profileOf(project, id, master.id),
    zone: zoneOf(project, glyph, master),
    isLower,
    isUpper: /\p{Lu}/u.test(character),
    lone: !KERNED.test(character) && character !== ' ',
    dash: /\p{Pd}/u.test(character),
    tabular: isTabular(glyph.name),
    control,
    uneven: {},
  };
  whites.shapes.set(id, shape);
  return shape;
}

/** How far two shapes would have to move to be even. */
function unevenness(whites: Whites, a: Shape, b: Shape): number {
  const white = whiteFor(whites, a, b);
  return white ? evenKerning(gapsBetween(a.profile, b.profile, pairZone(a.zone, b.zone)), white) : 0;
}

/** How far a shape would have to move towards the straight control of its kind, on the side that it has as first or second. */
function withControl(project: Project, master: Master, whites: Whites, shape: Shape, side: Side): number {
  const control = shape.control && shapeOf(project, master, shape.control, whites);
  if (!control) return 0;
  shape.uneven[side] ??= side === 'first' ? unevenness(whites, shape, control) : unevenness(whites, control, shape);
  return shape.uneven[side];
}

/** How uneven the straight controls of two kinds are themselves. */
function ofControls(whites: Whites, before: Shape, after: Shape): number {
  if (before === after) return 0;
  const key = before.isLower ? 'lowerFirst' : 'upperFirst';
  whites.controls[key] ??= unevenness(whites, before, after);
  return whites.controls[key];
}

/** How near two shapes come anywhere, above and below the zone too. */
function nearest({ profile: a }: Shape, { profile: b }: Shape): number {
  const [right, left] = [spread(a.right, 1, a.step), spread(b.left, -1, b.step)];
  let least = Infinity;
  for (let i = 0; i < right.length; i++) {
    const gap = right[i]! + left[i]!;
    if (gap < least) least = gap;
  }
  return least + a.advance;
}

/** How near two glyphs come without kerning, in font units; endless where either is not drawn. */
export function distanceOf(project: Project, master: Master, first: GlyphId, second: GlyphId): number {
  const whites = whitesOf(project, master);
  const [a, b] = [shapeOf(project, master, first, whites), shapeOf(project, master, second, whites)];
  return a && b ? nearest(a, b) : Infinity;
}

/** The kerning that the model proposes for two glyphs, in units; 0 where either is not drawn or no control is, and for figures of one width. */
export function modelKerning(project: Project, master: Master, first: GlyphId, second: GlyphId): number {
  const whites = whitesOf(project, master);
  const [a, b] = [shapeOf(project, master, first, whites), shapeOf(project, master, second, whites)];
  const white = a && b && whiteFor(whites, a, b);
  const near = white ? nearest(a, b) : Infinity;
  if (!white || !Number.isFinite(near) || (a.tabular && b.tabular)) return 0;
  const [before, after] = [a.control, b.control].map((c) => c && shapeOf(project, master, c, whites));
  if (!before || !after) return 0;
  before.standsOff ??= nearest(before, before);
  after.standsOff ??= nearest(after, after);
  const closest = min(CLOSEST * white.even, 0.8 * before.standsOff, 0.8 * after.standsOff);
  const em = project.unitsPerEm;
  // Only what touches, or nearly does, is set apart: a professional leaves what stands close by itself.
  if (near < TOUCHING * em) return round(min(min(closest, CLEAR * em) - near, MOST * em));
  if (a.lone || b.lone) return 0;
  const bearings =
    withControl(project, master, whites, a, 'first') +
    withControl(project, master, whites, b, 'second') -
    ofControls(whites, before, after);
  const unseen = unseenOf(a, b) * em;
  const gaps = gapsBetween(a.profile, b.profile, pairZone(a.zone, b.zone));
  const from = OF_BEARINGS * bearings - unseen;
  // Most pairs are even enough: no need to find how far they are from it.
  if (whiteOf(gaps, from, white) <= white.even) return 0;
  const tighter = min(0, evenKerning(gaps, white) - from) * SHARE;
  return round(max(tighter, -MOST * em, min(0, closest - near))) || 0;
}
