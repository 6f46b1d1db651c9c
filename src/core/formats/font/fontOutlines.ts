import { refuse } from '../../base/result';
import { type Affine, compose, translation } from '../../geometry/affine';
import { type Contour, type Point, reverseContour } from '../../geometry/contour';
import { withSmoothPoints } from '../../geometry/smooth';
import { readCff2 } from '../../opentype/cff2Read';
import { readCff } from '../../opentype/cffRead';
import type { CffContour } from '../../opentype/charstring';
import { type GlyfPoint, type GlyfRecord, readGlyphs } from '../../opentype/glyf';
import { type GlyphVariation, pointDeltas, readGvar } from '../../opentype/gvar';
import type { HorizontalMetric } from '../../opentype/hmtx';
import { type Sfnt, tableOf } from '../../opentype/sfnt';
import { type AxisRegion, readHvar } from '../../opentype/variations';

/** One glyph of a font at a place on its axes: contours, or parts by glyph index. */
export type FontGlyph = {
  advance: number;
  contours: readonly Contour[];
  parts: readonly { glyph: number; transform: Affine }[];
};

/** The outlines of a font file of either kind. */
export type FontOutlines = {
  kind: 'truetype' | 'cff';
  /** Glyph names the outlines bring along, where they do. */
  names: readonly string[];
  /** Hints that are left aside: stems of CFF, glyphs with instructions. */
  hints: number;
  /** All regions in which anything varies. */
  regions(): readonly AxisRegion[];
  glyph(index: number, place: readonly number[]): FontGlyph;
};

type Facts = { numGlyphs: number; indexToLocFormat: number; metrics: readonly HorizontalMetric[] };

export function readOutlines(font: Sfnt, facts: Facts): FontOutlines {
  if (font.tables.has('glyf')) return trueTypeOutlines(font, facts);
  if (font.tables.has('CFF2')) return cff2Outlines(font, facts);
  if (font.tables.has('CFF ')) return cffOutlines(font, facts);
  return refuse('The font has no outlines: neither a glyf nor a CFF table.');
}

/** Lines and cubics as a closed contour; a last side that only closes is left to the closing. */
export function contourOfCff({ x, y, segments }: CffContour): Contour {
  const points: Point[] = [{ x, y, type: 'line' }];
  for (const s of segments) {
    if (s.length === 2) points.push({ x: s[0]!, y: s[1]!, type: 'line' });
    else
      points.push(
        { x: s[0]!, y: s[1]!, type: 'off' },
        { x: s[2]!, y: s[3]!, type: 'off' },
        { x: s[4]!, y: s[5]!, type: 'curve' },
      );
  }
  const last = points[points.length - 1]!;
  if (points.length > 1 && last.x === x && last.y === y) {
    points.pop();
    points[0] = last;
  }
  return { closed: true, points };
}

const drawable = (contours: readonly Contour[]): Contour[] =>
  contours.filter((c) => c.points.length > 1).map((c) => withSmoothPoints(c, 0.02));

function cffOutlines(font: Sfnt, { metrics }: Facts): FontOutlines {
  const cff = readCff(tableOf(font, 'CFF '));
  return {
    kind: 'cff',
    names: cff.glyphNames,
    hints: cff.hints,
    regions: () => [],
    glyph(index) {
      const glyph = cff.glyphs[index];
      return {
        advance: metrics[index]?.advanceWidth ?? glyph?.advance ?? 0,
        contours: drawable((glyph?.drawn.contours ?? []).map(contourOfCff)),
        parts: [],
      };
    },
  };
}

function cff2Outlines(font: Sfnt, { metrics, numGlyphs }: Facts): FontOutlines {
  const cff = readCff2(tableOf(font, 'CFF2'));
  if (cff.count < numGlyphs) refuse(`The CFF2 table has ${cff.count} glyphs, but the font should have ${numGlyphs}.`);
  const hvar = font.tables.has('HVAR') ? readHvar(font.tables.get('HVAR')!) : undefined;
  return {
    kind: 'cff',
    names: [],
    hints: 0,
    regions: () => [...cff.store.regions, ...(hvar?.store.regions ?? [])],
    glyph: (index, place) => ({
      advance: (metrics[index]?.advanceWidth ?? 0) + (hvar?.advance(index, place) ?? 0),
      contours: drawable(cff.outline(index, place).map(contourOfCff)),
      parts: [],
    }),
  };
}

/** TrueType points as a contour of quadratics, turned to run as ours do: outer shapes counter-clockwise. */
export function contourOfGlyf(points: readonly GlyfPoint[]): Contour {
  const n = points.length;
  return reverseContour({
    closed: true,
    points: points.map((p, i) => ({
      x: p.x,
      y: p.y,
      type: p.on ? (points[(i - 1 + n) % n]!.on ? 'line' : 'qcurve') : 'off',
    })),
  });
}

function trueTypeOutlines(font: Sfnt, { numGlyphs, indexToLocFormat, metrics }: Facts): FontOutlines {
  const records = readGlyphs(tableOf(font, 'glyf'), tableOf(font, 'loca'), indexToLocFormat, numGlyphs);
  const gvar = font.tables.has('gvar') ? readGvar(font.tables.get('gvar')!, numGlyphs) : undefined;
  const counts = records.map(
    (r) => (r.kind === 'simple' ? r.contours.reduce((n, c) => n + c.length, 0) : r.components.length) + 4,
  );
  const read: (GlyphVariation[] | undefined)[] = [];
  const variationsOf = (index: number): GlyphVariation[] => {
    read[index] ??= gvar?.(index, counts[index]!) ?? [];
    return read[index]!;
  };
  /** Points of a glyph at a place, how far they lie right of where the side bearing says, and the advance. */
  const moved = (index: number, place: readonly number[]) => {
    const record = records[index]!;
    const metric = metrics[index] ?? { advanceWidth: 0, lsb: 0 };
    const [xs, ys, ends] = coordinates(record);
    const origin = xs.length === 0 ? 0 : record.box.xMin - metric.lsb;
    xs.push(origin, origin + metric.advanceWidth, 0, 0);
    ys.push(0, 0, 0, 0);
    const variations = place.length > 0 ? variationsOf(index) : [];
    if (variations.length > 0) {
      const { dx, dy } = pointDeltas(variations, place, xs, ys, ends);
      xs.forEach((_, i) => {
        xs[i]! += dx[i]!;
        ys[i]! += dy[i]!;
      });
    }
    const left = xs[xs.length - 4]!;
    return { xs, ys, left, advance: Math.max(0, xs[xs.length - 3]! - left) };
  };
  return {
    kind: 'truetype',
    names: [],
    hints: ['fpgm', 'prep', 'cvt '].filter((t) => font.tables.has(t)).length,
    regions: () => records.flatMap((_, i) => variationsOf(i).map((v) => v.region)),
    glyph(index, place) {
      const record = records[index]!;
      const { xs, ys, left, advance } = moved(index, place);
      if (record.kind === 'simple') return { advance, contours: drawable(simple(record, xs, ys, left)), parts: [] };
      const parts = record.components.map((c, i) => {
        const [xx, xy, yx, yy] = c.scale;
        const [x, y] = [xs[i]!, ys[i]!];
        const [e, f] = c.scaledOffset ? [x * Math.hypot(xx, xy), y * Math.hypot(yx, yy)] : [x, y];
        return { glyph: c.glyph, transform: [xx, xy, yx, yy, e - left, f] as Affine, match: c.match };
      });
      // A part is drawn where its points say; as a glyph of its own it stands on its side bearing.
      const standing = matched(parts, records).map(({ glyph, transform }) => {
        const own = records[glyph] ? moved(glyph, place).left : 0;
        return { glyph, transform: own === 0 ? transform : compose(transform, translation(own, 0)) };
      });
      return { advance, contours: [], parts: standing };
    },
  };
}

/** Coordinates that vary: a glyph's points, or the offsets of its parts; and the last point of every contour. */
function coordinates(record: GlyfRecord): [xs: number[], ys: number[], ends: number[]] {
  if (record.kind === 'composite') return [record.components.map((c) => c.dx), record.components.map((c) => c.dy), []];
  const points = record.contours.flat();
  let last = -1;
  return [points.map((p) => p.x), points.map((p) => p.y), record.contours.map((c) => (last += c.length))];
}

function simple(
  record: Extract<GlyfRecord, { kind: 'simple' }>,
  xs: readonly number[],
  ys: readonly number[],
  left: number,
): Contour[] {
  let i = 0;
  return record.contours.map((contour) =>
    contourOfGlyf(
      contour.map((p) => {
        const at = i++;
        return { x: xs[at]! - left, y: ys[at]!, on: p.on };
      }),
    ),
  );
}

type Part = { glyph: number; transform: Affine; match: { parent: number; child: number } | undefined };

/** Parts placed by matching points get the offset that brings the points together. */
function matched(parts: readonly Part[], records: readonly GlyfRecord[]): { glyph: number; transform: Affine }[] {
  const placed: { glyph: number; transform: Affine }[] = [];
  for (const { glyph, transform, match } of parts) {
    if (!match) {
      placed.push({ glyph, transform });
      continue;
    }
    const before = placed.flatMap((p) => pointsOf(p.glyph, records, 0).map(([x, y]) => apply(p.transform, x, y)));
    const target = before[match.parent];
    const own = pointsOf(glyph, records, 0)[match.child];
    const [a, b, c, d] = transform;
    const moved = own && apply([a, b, c, d, 0, 0], ...own);
    placed.push({
      glyph,
      transform: target && moved ? [a, b, c, d, target[0] - moved[0], target[1] - moved[1]] : transform,
    });
  }
  return placed;
}

const apply = ([a, b, c, d, e, f]: Affine, x: number, y: number): [number, number] => [
  a * x + c * y + e,
  b * x + d * y + f,
];

function pointsOf(glyph: number, records: readonly GlyfRecord[], depth: number): [number, number][] {
  const record = records[glyph];
  if (!record || depth > 32) return [];
  if (record.kind === 'simple') return record.contours.flat().map((p) => [p.x, p.y]);
  return record.components.flatMap((c) =>
    pointsOf(c.glyph, records, depth + 1).map(([x, y]) => apply([...c.scale, c.dx, c.dy] as Affine, x, y)),
  );
}
