import { controlsFor } from '../fitting/lines';
import { type FitZone, measureFor, zoneOf } from '../fitting/optical';
import { limitRise, lineAt, type Profile, profileOf } from '../fitting/profile';
import type { GlyphId, Master, MasterId, Project } from '../project/model';
import { glyphForCodePoint } from '../project/queries';

/**
 * How much white two glyphs leave between them. The distance of their outlines is taken line by line, in places that are narrow
 * more than in wide ones (a power mean), and no farther than the eye looks. Before that, ink spreads its presence up and down:
 * the bar of T keeps an o away that lies below it. What is even is calibrated by the straight and round controls of the font.
 */
export type White = { even: number; power: number; farthest: number; nearest: number };

/** How far back a side's outline lies as its neighbour meets it, spread upwards and downwards by a unit for a unit. */
const spreadCache = new WeakMap<Float64Array, Float64Array>();
function spread(edge: Float64Array, outward: 1 | -1, step: number): Float64Array {
  const known = spreadCache.get(edge);
  if (known) return known;
  const out = Float64Array.from(edge, (v) => (Number.isNaN(v) ? Infinity : -outward * v));
  limitRise(out, step);
  spreadCache.set(edge, out);
  return out;
}

/** Distances between two glyphs set one after the other without kerning, over the zone that both are judged in. */
export function gapsBetween(first: Profile, second: Profile, zone: FitZone): Float64Array {
  const right = spread(first.right, 1, first.step);
  const left = spread(second.left, -1, second.step);
  const [from, to] = [lineAt(first, zone.bottom + first.step / 2), lineAt(first, zone.top - first.step / 2)];
  const out = new Float64Array(Math.max(0, to - from + 1));
  for (let i = from; i <= to; i++) out[i - from] = first.advance + right[i]! + left[i]!;
  return out;
}

/** The zone of a pair: from the lower bottom to the higher top. */
export const pairZone = (a: FitZone, b: FitZone): FitZone => ({ bottom: Math.min(a.bottom, b.bottom), top: Math.max(a.top, b.top) });

/** White between two glyphs moved towards or away from each other by a distance. */
export function whiteOf(gaps: Float64Array, by: number, { power, farthest }: Pick<White, 'power' | 'farthest'>): number {
  const table = powers(power, Math.ceil(Math.min(farthest, 4000)));
  const last = table.length - 1;
  let sum = 0;
  for (let i = 0; i < gaps.length; i++) {
    const g = gaps[i]! + by;
    sum += table[g >= last ? last : g <= 1 ? 1 : Math.round(g)]!;
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
    table = Float64Array.from({ length: most + 1 }, (_, v) => Math.max(1, v) ** power);
    tables.set(key, table);
  }
  return table;
}

/** How far the eye looks between two glyphs, and how near they may come, by the white that is even. */
const FARTHEST = 2.1;
const NEAREST = 0.3;

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

/** The kerning that makes a pair even, in whole units: 0 where nothing faces anything. */
export function evenKerning(gaps: Float64Array, white: White): number {
  if (gaps.length === 0) return 0;
  let narrowest = Infinity;
  for (const g of gaps) narrowest = Math.min(narrowest, g);
  if (!Number.isFinite(narrowest)) return 0;
  let [low, high] = [white.nearest - narrowest, white.even * 3 - narrowest];
  if (whiteOf(gaps, low, white) >= white.even) return Math.round(low);
  for (let i = 0; i < 14; i++) {
    const by = (low + high) / 2;
    if (whiteOf(gaps, by, white) > white.even) high = by;
    else low = by;
  }
  return Math.round((low + high) / 2);
}

/** How much of a pair's unevenness is kerned away, and the most that is: a reader's eye takes the rest for granted. */
const SHARE = 0.5;
const MOST = 0.11;

/** Whites by the kind of glyph; a pair of two kinds takes the mean of both. */
type Whites = {
  lower: White | undefined;
  upper: White | undefined;
  /** For pairs of both kinds. */
  between: White | undefined;
  shapes: Map<GlyphId, Shape>;
};

/** What a pair needs of a glyph, measured once. */
type Shape = { profile: Profile; zone: FitZone; isLower: boolean };

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
  const between = lower || upper ? { even: mean('even'), power: mean('power'), farthest: mean('farthest'), nearest: mean('nearest') } : undefined;
  return { lower: lower ?? upper, upper: upper ?? lower, between, shapes: new Map() };
}

const whiteFor = (whites: Whites, a: Shape, b: Shape): White | undefined => (a.isLower !== b.isLower ? whites.between : a.isLower ? whites.lower : whites.upper);

function shapeOf(project: Project, master: Master, id: GlyphId, whites: Whites): Shape | undefined {
  const known = whites.shapes.get(id);
  const glyph = project.glyphs[id];
  if (known || !glyph) return known;
  const shape = { profile: profileOf(project, id, master.id), zone: zoneOf(project, glyph, master), isLower: controlsFor(glyph)[0] === 'n' };
  whites.shapes.set(id, shape);
  return shape;
}

/** The kerning that the model proposes for two glyphs, in units; 0 where either is not drawn or no control is. */
export function modelKerning(project: Project, master: Master, first: GlyphId, second: GlyphId): number {
  const whites = whitesOf(project, master);
  const [a, b] = [shapeOf(project, master, first, whites), shapeOf(project, master, second, whites)];
  const white = a && b && whiteFor(whites, a, b);
  if (!white) return 0;
  const full = evenKerning(gapsBetween(a.profile, b.profile, pairZone(a.zone, b.zone)), white);
  const most = MOST * project.unitsPerEm;
  return Math.max(-most, Math.min(most, full * SHARE));
}
