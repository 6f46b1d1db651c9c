import { counted } from '../base/notation';
import { refuse } from '../base/result';
import { translation } from '../geometry/affine';
import {
  type Contour,
  contourBounds,
  curvesOf,
  type Point,
  reverseContour,
  signedArea,
  transformContour,
} from '../geometry/contour';
import {
  asCubic,
  type Box,
  boundsOf,
  type Curve,
  emptyBox,
  isEmptyBox,
  stretchBox,
  stretchBoxToCurve,
} from '../geometry/curve';
import { liesApart, removeOverlaps, type ShapeResult } from '../geometry/overlaps';
import { type CffContour, writeCharstring } from '../opentype/charstring';
import { type GlyfBox, type GlyfComponent, type GlyfPoint, writeSimpleGlyph } from '../opentype/glyf';
import type { Drawing, GlyphId } from '../project/model';
import { type DrawingSource, flattened } from '../project/outline';
import { cleanedOf, isDrawn } from './cleaned';
import { agree, glyfPoints, type QuadraticRows, quadraticRows } from './quadraticRows';
import { type StemHints, stemHints } from './stems';

/** What casting makes of one glyph's outline, whatever its place in the font. */
export type CffShape = { kind: 'cff'; body: Uint8Array; box: Box; stems: StemHints; overlapFailed: boolean };
export type SimpleShape = {
  kind: 'simple';
  record: Uint8Array;
  box: Box;
  points: number;
  contours: number;
  /** The points of each contour, as the record has them. */
  outline: readonly (readonly GlyfPoint[])[];
  /** Largest error of the cubic to quadratic conversion in units. */
  error: number;
  overlapFailed: boolean;
};
/** Components by glyph id; the record is written once glyph indices are known. */
export type CompositeShape = {
  kind: 'composite';
  parts: readonly (Omit<GlyfComponent, 'glyph'> & { base: GlyphId })[];
};
export type TrueTypeShape = SimpleShape | CompositeShape;

export const roundedBox = (box: Box): GlyfBox =>
  isEmptyBox(box)
    ? { xMin: 0, yMin: 0, xMax: 0, yMax: 0 }
    : { xMin: Math.floor(box.xMin), yMin: Math.floor(box.yMin), xMax: Math.ceil(box.xMax), yMax: Math.ceil(box.yMax) };

type Prepared = { contours: readonly Contour[]; overlapFailed: boolean };

/** Closed contours only, components drawn out, overlaps removed unless kept. */
function prepare(drawing: Drawing, source: DrawingSource, keepOverlaps: boolean): Prepared {
  const closed = flattened(drawing, source).filter(isDrawn);
  if (keepOverlaps) return { contours: closed, overlapFailed: false };
  const clean = partsApart(drawing, source)?.map(cleanPart) ?? [removeOverlaps(closed)];
  return { contours: clean.flatMap((c) => [...c.contours]), overlapFailed: clean.some((c) => c.failed) };
}

/** Contours of a drawing or of one that it is composed of, moved. */
type Part = { contours: readonly Contour[]; dx: number; dy: number };

/** What a composite is put together from, where nothing is scaled or composed in its turn and all of it lies apart. */
function partsApart(drawing: Drawing, source: DrawingSource): Part[] | undefined {
  if (drawing.components.length === 0) return [{ contours: drawing.contours, dx: 0, dy: 0 }];
  const parts: Part[] = drawing.contours.length > 0 ? [{ contours: drawing.contours, dx: 0, dy: 0 }] : [];
  for (const { glyph, transform } of drawing.components) {
    const [xx, xy, yx, yy, dx, dy] = transform;
    const base = source(glyph);
    if (!base || base.components.length > 0 || xx !== 1 || xy !== 0 || yx !== 0 || yy !== 1) return undefined;
    parts.push({ contours: base.contours, dx, dy });
  }
  const boxes = parts.map(({ contours, dx, dy }) => {
    const box = emptyBox();
    for (const c of contours) {
      const b = contourBounds(c);
      stretchBox(box, b.xMin + dx, b.yMin + dy);
      stretchBox(box, b.xMax + dx, b.yMax + dy);
    }
    return box;
  });
  return boxes.every((a, i) => boxes.every((b, k) => k >= i || liesApart(a, b))) ? parts : undefined;
}

/** What is drawn of a part, without overlaps. */
function cleanPart({ contours, dx, dy }: Part): ShapeResult {
  const clean = cleanedOf(contours);
  if (dx === 0 && dy === 0) return clean;
  return { ...clean, contours: clean.contours.map((c) => transformContour(c, translation(dx, dy))) };
}

/** Turns a whole outline so that its filled area counts counter-clockwise, as CFF fills. */
function counterClockwise(contours: readonly Contour[]): readonly Contour[] {
  const area = contours.reduce((sum, c) => sum + signedArea(c), 0);
  return area < 0 ? contours.map(reverseContour) : contours;
}

/** `fractions`: coordinates are not rounded to whole units. */
export type HowCff = { keepOverlaps: boolean; unitsPerEm: number; hinted?: boolean; fractions?: boolean };

/** Refuses (throws) what lies farther out than 16 bits reach. */
function within(values: readonly number[]): void {
  for (const v of values)
    if (!(v >= -32768 && v <= 32767))
      refuse(`it has a point at ${counted(Math.round(v))}; a font holds −32,768 to 32,767.`);
}

/** A glyph as a charstring without its width. Coordinates are rounded here, once. */
export function cffShape(
  drawing: Drawing,
  source: DrawingSource,
  { keepOverlaps, unitsPerEm, hinted = true, fractions = false }: HowCff,
): CffShape {
  const { contours, overlapFailed } = prepare(drawing, source, keepOverlaps);
  const box = emptyBox();
  const out: CffContour[] = [];
  const drawnCurves: Curve[][] = [];
  for (const contour of counterClockwise(contours)) {
    const curves = roundedCurves(contour, fractions ? finely : Math.round);
    const first = curves[0];
    if (!first || curves.length < 2) continue;
    for (const c of curves) {
      within(c);
      stretchBoxToCurve(box, c);
    }
    const last = curves[curves.length - 1]!;
    // The fill closes a contour by itself; a straight last side need not be drawn.
    const drawn = last.length === 4 ? curves.slice(0, -1) : curves;
    drawnCurves.push(curves);
    out.push({ x: first[0]!, y: first[1]!, segments: drawn.map((c) => c.slice(2)) });
  }
  const stems = hinted ? stemHints(drawnCurves, unitsPerEm) : { horizontal: [], vertical: [] };
  return { kind: 'cff', body: writeCharstring(out, undefined, stems), box, stems, overlapFailed };
}

/** To what charstrings can hold. */
const finely = (v: number): number => Math.round(v * 65536) / 65536;

/** Lines and cubics of rounded coordinates, nothing of zero length. */
function roundedCurves(contour: Contour, rounded: (v: number) => number): Curve[] {
  const out: Curve[] = [];
  for (const curve of curvesOf(contour)) {
    const c = (curve.length === 6 ? asCubic(curve) : curve).map(rounded);
    if (c.every((v, i) => v === c[i % 2])) continue;
    out.push(c);
  }
  return out;
}

/** The same glyph in another master, with the drawings its components refer to there. */
export type Sibling = { drawing: Drawing; source: DrawingSource };

/**
 * A glyph as a TrueType record, components kept where the format and the overlaps allow. Where overlaps are kept, curves
 * get as many quadratics as the same curve needs in any of the `siblings`, so that fonts of all masters agree point for point.
 */
export function trueTypeShape(
  drawing: Drawing,
  source: DrawingSource,
  keepOverlaps: boolean,
  isCast: (id: GlyphId) => boolean,
  siblings: readonly Sibling[] = [],
): TrueTypeShape {
  const composite = asComposite(drawing, source, keepOverlaps, isCast);
  if (composite) return composite;
  const { contours, overlapFailed } = prepare(drawing, source, keepOverlaps);
  const others = keepOverlaps
    ? siblings.map((s) => prepare(s.drawing, s.source, true).contours).filter((other) => agree(contours, other))
    : [];
  const family = [contours, ...others];
  return { ...simpleShape(quadraticRows(family, 1, isTurned(family)), 0, keepOverlaps), overlapFailed };
}

/**
 * TrueType fills clockwise outlines; turning a list of points round keeps its start. All masters are turned, or none: where a contour runs
 * against its fellows, which way the whole runs may differ from one to the next.
 */
const isTurned = (family: readonly (readonly Contour[])[]): boolean =>
  family.flat().reduce((sum, c) => sum + signedArea(c), 0) > 0;

/** The record of one of the drawings that rows of points are of. */
function simpleShape(rows: QuadraticRows, row: number, overlaps: boolean): SimpleShape {
  for (const list of [...rows.xs, ...rows.ys]) within(list);
  const outline = glyfPoints(rows, row);
  const box = emptyBox();
  for (const points of outline) stretchBoxToGlyf(box, points);
  return {
    kind: 'simple',
    record: writeSimpleGlyph(outline, roundedBox(box), overlaps),
    box,
    points: rows.on.length,
    contours: outline.length,
    outline,
    error: rows.errors[row]!,
    overlapFailed: false,
  };
}

/** A glyph’s points in several masters; of a composite a place for each of its parts. */
export type MasterPoints = { readonly xs: readonly (readonly number[])[]; readonly ys: readonly (readonly number[])[] };
export type FamilyShape = {
  /** As one of the masters has it. */
  readonly main: TrueTypeShape;
  /** Absent where the masters do not agree point for point. */
  readonly all?: MasterPoints;
};

/**
 * A glyph as a TrueType record of one of its masters, overlaps kept, and its points in all of them. Composites are composites where all
 * are, each part scaled alike; nothing where only some are.
 */
export function familyShape(
  says: readonly Sibling[],
  main: number,
  isCast: (id: GlyphId) => boolean,
): FamilyShape | undefined {
  if (says[main]!.drawing.components.length === 0) return drawnOutShape(says, main);
  const composites = says.flatMap((s) => asComposite(s.drawing, s.source, true, isCast) ?? []);
  if (composites.length < says.length || !composites.every((c) => scaledAlike(c, composites[0]!))) return undefined;
  const rows = (key: 'dx' | 'dy') => composites.map((c) => c.parts.map((p) => p[key]));
  return { main: composites[main]!, all: { xs: rows('dx'), ys: rows('dy') } };
}

/** As {@link familyShape}, components drawn out. */
export function drawnOutShape(says: readonly Sibling[], main: number): FamilyShape {
  const family = says.map((s) => prepare(s.drawing, s.source, true).contours);
  const own = family[main]!;
  if (family.every((other) => agree(own, other))) {
    const rows = quadraticRows(family, family.length, isTurned(family));
    return { main: simpleShape(rows, main, true), all: rows };
  }
  const agreeing = [own, ...family.filter((other) => other !== own && agree(own, other))];
  return { main: simpleShape(quadraticRows(agreeing, 1, isTurned(agreeing)), 0, true) };
}

const scaledAlike = (a: CompositeShape, b: CompositeShape): boolean =>
  a.parts.length === b.parts.length &&
  a.parts.every((p, i) => p.base === b.parts[i]!.base && p.scale.every((v, k) => v === b.parts[i]!.scale[k]));

/** Grows a box to hold a TrueType contour exactly: its on-curve points, implied ones too, and the extremes of its curves. */
function stretchBoxToGlyf(box: Box, points: readonly GlyfPoint[]): void {
  for (const p of points) if (p.on) stretchBox(box, p.x, p.y);
  for (const [i, p] of points.entries()) {
    if (p.on || (p.x >= box.xMin && p.x <= box.xMax && p.y >= box.yMin && p.y <= box.yMax)) continue;
    const before = points[(i + points.length - 1) % points.length]!;
    const after = points[(i + 1) % points.length]!;
    const a = before.on ? before : { x: (before.x + p.x) / 2, y: (before.y + p.y) / 2 };
    const b = after.on ? after : { x: (after.x + p.x) / 2, y: (after.y + p.y) / 2 };
    stretchBoxToCurve(box, [a.x, a.y, p.x, p.y, b.x, b.y]);
  }
}

/** The curves of a TrueType contour, implied points made real. */
export function glyfCurves(points: readonly GlyfPoint[]): readonly Curve[] {
  const typed = points.map((p, i): Point => {
    const before = points[(i + points.length - 1) % points.length]!;
    return { x: p.x, y: p.y, type: !p.on ? 'off' : before.on ? 'line' : 'qcurve' };
  });
  return curvesOf({ closed: true, points: typed });
}

/** Components stay when there is nothing else, each base is cast and in range, and nothing overlaps. */
function asComposite(
  drawing: Drawing,
  source: DrawingSource,
  keepOverlaps: boolean,
  isCast: (id: GlyphId) => boolean,
): CompositeShape | undefined {
  const { components, contours } = drawing;
  if (components.length === 0 || contours.some((c) => c.closed && c.points.length > 1)) return undefined;
  const fits = components.every(({ glyph, transform: [xx, xy, yx, yy, dx, dy] }) => {
    const base = source(glyph);
    if (!base || !isCast(glyph) || (base.components.length === 0 && base.contours.length === 0)) return false;
    const scales = [xx, xy, yx, yy].every((v) => v >= -2 && v < 1.99994);
    // A mirrored base would fill against the others; a turned one has no exact box of its own.
    return scales && xy === 0 && yx === 0 && xx * yy > 0 && Math.abs(dx) <= 32767 && Math.abs(dy) <= 32767;
  });
  if (!fits) return undefined;
  if (!keepOverlaps && partsOverlap(drawing, source)) return undefined;
  return {
    kind: 'composite',
    parts: components.map(({ glyph, transform: [xx, xy, yx, yy, dx, dy] }) => ({
      base: glyph,
      dx: Math.round(dx),
      dy: Math.round(dy),
      scale: [xx, xy, yx, yy].map((v) => Math.round(v * 16384) / 16384) as [number, number, number, number],
    })),
  };
}

/** Do the parts of a composite overlap one another? Overlaps within a base do not count: each base is cleaned on its own. */
function partsOverlap(drawing: Drawing, source: DrawingSource): boolean {
  const parts = drawing.components.map((c) =>
    flattened({ ...drawing, contours: [], components: [c] }, source).filter((k) => k.closed),
  );
  const boxes = parts.map((contours) => boundsOf(contours.flatMap((c) => [...curvesOf(c)])));
  const apart = boxes.every((a, i) =>
    boxes.every((b, j) => j <= i || a.xMin > b.xMax || b.xMin > a.xMax || a.yMin > b.yMax || b.yMin > a.yMax),
  );
  if (apart) return false;
  return removeOverlaps(parts.flatMap((contours) => removeOverlaps(contours).contours)).changed;
}
