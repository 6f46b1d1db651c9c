import { addTo } from '../base/grouping';
import type { Glyph, Project } from '../project/model';
import { type Place, wholePlace } from '../project/places';
import { sameStructure, waypointsIn } from '../project/structure';
import { drawingsOf } from './kinks';
import { type Edges, edgesOf, type Row, rowsThrough } from './rows';

/**
 * Ink that is wider or narrower, or white that is narrower, on the way from one master to another than in both: a stem that swells, a
 * counter that closes. Along two masters that nobody else has a say between, everything goes straight from one to the other; a third master or a
 * waypoint can put a lump there.
 */
export type Lump = {
  of: 'ink' | 'white';
  /** How much wider than in the wider end, or (negative) narrower than in the narrower one, in units. */
  units: number;
  width: number;
  /** The middle of what is too wide or too narrow, at the place. */
  at: { x: number; y: number };
  place: Place;
  /** The masters between which it lies, by their places in the list. */
  between: readonly [number, number];
};

/** Heights that are looked at, as shares of the outline’s. */
const HEIGHTS = [0.12, 0.22, 0.32, 0.42, 0.5, 0.58, 0.68, 0.78, 0.88];
/** So far off a width is looked at again, and may differ by this share: where it differs by more outlines turn. */
const CLOSE = { away: 0.015, share: 0.08 };
/** Less than so many thousandths of the em, and less than this share of the width, is no lump. */
const LEAST = { units: 0.004, share: 0.05 };
/** So many heights show a lump at least: one alone is where outlines turn. */
const LEAST_ROWS = 2;

/** Two masters along one axis from one another, and those between them on it. */
type Line = { ends: readonly [number, number]; between: readonly number[] };

const lines = new WeakMap<Project['masters'], { axes: Project['axes']; lines: Line[] }>();
/**
 * Every two masters that lie along one axis from one another with one other between them at most, and the outermost two: between
 * masters that follow one another widths go straight, so that lumps stand at masters and waypoints.
 */
function linesOf({ masters, axes }: Project): Line[] {
  const known = lines.get(masters);
  if (known?.axes === axes) return known.lines;
  const places = masters.map((m) => wholePlace(axes, m.place));
  const out: Line[] = [];
  for (const { tag } of axes) {
    const rows = new Map<string, number[]>();
    places.forEach((p, i) => {
      const key = axes.map((x) => (x.tag === tag ? '' : p[x.tag])).join(' ');
      addTo(rows, key, i);
    });
    for (const row of rows.values()) {
      row.sort((i, j) => places[i]![tag]! - places[j]![tag]!);
      const add = (from: number, to: number) =>
        out.push({ ends: [row[from]!, row[to]!], between: row.slice(from + 1, to) });
      for (let k = 1; k < row.length; k++) {
        add(k - 1, k);
        if (k > 1) add(k - 2, k);
      }
      if (row.length > 3) add(0, row.length - 1);
    }
  }
  lines.set(masters, { axes, lines: out });
  return out;
}

/** Does a place lie on the line between two masters? */
function isOn(axes: Project['axes'], a: Place, b: Place, at: Place): boolean {
  const [p, q, w] = [a, b, at].map((x) => wholePlace(axes, x)) as [Place, Place, Place];
  return axes.every(({ tag }) => {
    const [low, high] = [Math.min(p[tag]!, q[tag]!), Math.max(p[tag]!, q[tag]!)];
    return w[tag]! >= low - 1e-6 && w[tag]! <= high + 1e-6;
  });
}

type Stretch = { of: 'ink' | 'white'; width: number; x: number };

/** Edges with their stretches at each height, those close by worked out only where something is found. */
class Outline {
  readonly rows: readonly { y: number; stretches: readonly Stretch[] }[];
  private readonly close = new Map<number, readonly Stretch[]>();

  constructor(private readonly edges: Edges) {
    this.rows = rowsThrough(edges, HEIGHTS).map((r) => ({ y: r.y, stretches: stretchesOf(r) }));
  }

  /** Is a stretch as wide close by? */
  isSteady(row: number, k: number): boolean {
    const near = this.close.get(row) ?? rowsThrough(this.edges, [HEIGHTS[row]! + CLOSE.away]).flatMap(stretchesOf);
    this.close.set(row, near);
    const { stretches } = this.rows[row]!;
    const { width } = stretches[k]!;
    return near.length === stretches.length && Math.abs(near[k]!.width - width) <= CLOSE.share * width;
  }
}

/** Ink and white of a row in turn, with their middles. */
function stretchesOf({ ink }: Row): Stretch[] {
  return ink.flatMap(([from, to], i) => {
    const next = ink[i + 1];
    const own = { of: 'ink' as const, width: to - from, x: (from + to) / 2 };
    return next ? [own, { of: 'white' as const, width: next[0] - to, x: (to + next[0]) / 2 }] : [own];
  });
}

/** Lumps of a glyph between its masters, the worst of each kind first; none where they do not agree or are two only without a waypoint. */
export function lumpsOf(project: Project, glyph: Glyph): Lump[] {
  const drawings = drawingsOf(project, glyph);
  if (drawings.length < 3 || drawings[0]!.contours.length === 0 || !sameStructure(drawings)) return [];
  const { masters, axes, unitsPerEm } = project;
  const least = LEAST.units * unitsPerEm;
  const outlines: (Outline | undefined)[] = [];
  const outlineIn = (i: number): Outline => {
    outlines[i] ??= new Outline(edgesOf(drawings[i]!.contours));
    return outlines[i];
  };
  const worst = new Map<string, Lump>();
  const waypoints = waypointsIn(project, glyph).map(({ waypoint }) => waypoint);
  const places = [...masters.map((m) => m.place), ...waypoints.map((w) => w.place)];
  for (const { ends, between } of linesOf(project)) {
    const [i, j] = ends;
    const own = waypoints.flatMap((w, k) =>
      isOn(axes, masters[i]!.place, masters[j]!.place, w.place) ? [masters.length + k] : [],
    );
    for (const k of [...between, ...own]) {
      const [a, b, there] = [outlineIn(i), outlineIn(j), outlineIn(k)];
      const place = wholePlace(axes, places[k]!);
      const found = new Map<string, { count: number; lump: Lump }>();
      there.rows.forEach(({ y, stretches }, r) => {
        const [p, q] = [a.rows[r]?.stretches, b.rows[r]?.stretches];
        if (p?.length !== stretches.length || q?.length !== stretches.length) return;
        stretches.forEach(({ of, width, x }, n) => {
          const [low, high] = [Math.min(p[n]!.width, q[n]!.width), Math.max(p[n]!.width, q[n]!.width)];
          const units = width > high ? width - high : width < low ? width - low : 0;
          // White that opens is no fault.
          if (Math.abs(units) < Math.max(least, LEAST.share * high) || (of === 'white' && units > 0)) return;
          if (![a, b, there].every((o) => o.isSteady(r, n))) return;
          const key = `${of} ${units > 0}`;
          const known = found.get(key);
          const lump: Lump = { of, units, width, at: { x, y }, place, between: ends };
          if (!known) found.set(key, { count: 1, lump });
          else {
            known.count++;
            if (Math.abs(units) > Math.abs(known.lump.units)) known.lump = lump;
          }
        });
      });
      for (const [key, { count, lump }] of found)
        if (count >= LEAST_ROWS && Math.abs(lump.units) > Math.abs(worst.get(key)?.units ?? 0)) worst.set(key, lump);
    }
  }
  return [...worst.values()].sort((x, y) => Math.abs(y.units) - Math.abs(x.units));
}
