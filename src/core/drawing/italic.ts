import { type Affine, compose, invert } from '../geometry/affine';
import { type Contour, curvesOf, isOnCurve, neighbour, type Point } from '../geometry/contour';
import { type Curve, pointAt, type Vec } from '../geometry/curve';
import { gridded } from '../geometry/tidy';
import { windingAt } from '../geometry/winding';
import type { Drawing, Glyph, GlyphId, Project } from '../project/model';
import { sameStructure } from '../project/structure';
import { withExtremes } from '../tidying/extremes';
import { agreeing } from '../tidying/siblings';

/**
 * An italic begun from a roman. Letters are sheared; then every edge moves along its normal by half of what its stroke has lost or gained:
 * a shear keeps areas, so a stroke whose edge grows longer by a factor is thinner by it. Stems, diagonals and rounds so keep their weight,
 * levels stay as they are. Curves get points at their extremes again.
 */

/** A stroke is no thicker than this share of the em: beyond it two edges are not of one stroke. */
const THICKEST = 0.32;
/** No point moves farther than this share of the em: where strokes end the normals say little. */
const FARTHEST = 0.03;
/** How far from a corner its edges are measured, in thousandths of the em, and at most this share of the way to the next point. */
const ASIDE = { units: 0.012, share: 0.3 };
/** A step to either side of an edge, in thousandths of the em. */
const STEP = 0.0005;
/** Edges that meet at less than this (sine) are one edge. */
const FLAT = 0.2;
const PIECES = 12;

type Edge = readonly [x0: number, y0: number, x1: number, y1: number];

const edgesOf = (curves: readonly Curve[]): Edge[] =>
  curves.flatMap((c): Edge[] => {
    const n = c.length === 4 ? 1 : PIECES;
    const at = Array.from({ length: n + 1 }, (_, i) => pointAt(c, i / n));
    return at.slice(1).map((q, i) => [at[i]![0], at[i]![1], q[0], q[1]] as const);
  });

/** Ink about a glyph’s edges. */
class Ink {
  private readonly curves: readonly Curve[];
  private readonly edges: readonly Edge[];

  constructor(
    contours: readonly Contour[],
    private readonly em: number,
  ) {
    this.curves = contours.flatMap((c) => curvesOf(c));
    this.edges = edgesOf(this.curves);
  }

  /**
   * How thick the stroke is whose edge runs through a place along a direction, and on which side of it the ink lies (1 at its left);
   * undefined where it is no edge between ink and paper, or no stroke.
   */
  stroke([x, y]: Vec, [ux, uy]: Vec): { thickness: number; side: 1 | -1 } | undefined {
    const step = STEP * this.em;
    const inkAt = (side: number) => windingAt(this.curves, x - uy * step * side, y + ux * step * side) !== 0;
    const [left, right] = [inkAt(1), inkAt(-1)];
    if (left === right) return undefined;
    const side = left ? 1 : -1;
    const [nx, ny] = [-uy * side, ux * side];
    const most = THICKEST * this.em;
    let winding = windingAt(this.curves, x + nx * step, y + ny * step);
    const met: [distance: number, way: number][] = [];
    for (const [x0, y0, x1, y1] of this.edges) {
      const [a, b] = [(x0 - x) * ny - (y0 - y) * nx, (x1 - x) * ny - (y1 - y) * nx];
      if (a > 0 === b > 0) continue;
      const t = a / (a - b);
      const distance = (x0 + (x1 - x0) * t - x) * nx + (y0 + (y1 - y0) * t - y) * ny;
      if (distance > step && distance <= most) met.push([distance, a > 0 ? 1 : -1]);
    }
    met.sort((p, q) => p[0] - q[0]);
    // An edge that goes from the right of the ray to its left takes one turn away.
    for (const [distance, way] of met) {
      winding -= way;
      if (winding === 0) return { thickness: distance, side };
    }
    return undefined;
  }
}

const unit = ([x, y]: Vec): Vec | undefined => {
  const length = Math.hypot(x, y);
  return length < 1e-9 ? undefined : [x / length, y / length];
};

/** What an edge has to move by, outwards along its normal after the shear, so that its stroke is as thick as before. */
function wanted(ink: Ink, at: Vec, u: Vec, k: number): { normal: Vec; by: number } | undefined {
  const stroke = ink.stroke(at, u);
  const sheared: Vec = [u[0] + k * u[1], u[1]];
  const stretch = Math.hypot(...sheared);
  // The paper lies on the other side than the ink.
  const side = stroke ? -stroke.side : 1;
  const normal: Vec = [(-sheared[1] / stretch) * side, (sheared[0] / stretch) * side];
  return stroke && { normal, by: (stroke.thickness / 2) * (1 - 1 / stretch) };
}

/** The move that brings two edges that meet in a point where each of them wants to be. */
function moveOf(a: ReturnType<typeof wanted>, b: ReturnType<typeof wanted>): Vec {
  const one = a ?? b;
  const two = b ?? a;
  if (!one || !two) return [0, 0];
  const cross = one.normal[0] * two.normal[1] - one.normal[1] * two.normal[0];
  if (Math.abs(cross) < FLAT) {
    const n = unit([one.normal[0] + two.normal[0], one.normal[1] + two.normal[1]]) ?? one.normal;
    const by = (one.by + two.by) / 2;
    return [n[0] * by, n[1] * by];
  }
  return [
    (one.by * two.normal[1] - two.by * one.normal[1]) / cross,
    (two.by * one.normal[0] - one.by * two.normal[0]) / cross,
  ];
}

/** The next point another way that lies elsewhere: where an edge goes to. */
function towards(contour: Contour, index: number, step: 1 | -1): Point | undefined {
  const p = contour.points[index]!;
  let at: number | undefined = index;
  for (let n = 0; n < contour.points.length; n++) {
    at = neighbour(contour, at, step);
    if (at === undefined || at === index) return undefined;
    const q = contour.points[at]!;
    if (Math.hypot(q.x - p.x, q.y - p.y) > 1e-6) return q;
  }
  return undefined;
}

function slantedContour(contour: Contour, ink: Ink, k: number, dx: number, em: number): Contour {
  const moves = contour.points.map((p, i): Vec | undefined => {
    if (!isOnCurve(p)) return undefined;
    const sides = ([-1, 1] as const).map((step) => {
      const q = towards(contour, i, step);
      const u = q && unit([(q.x - p.x) * step, (q.y - p.y) * step]);
      if (!q || !u) return undefined;
      const aside = Math.min(ASIDE.units * em, ASIDE.share * Math.hypot(q.x - p.x, q.y - p.y)) * step;
      return wanted(ink, p.smooth ? [p.x, p.y] : [p.x + u[0] * aside, p.y + u[1] * aside], u, k);
    });
    const [mx, my] = moveOf(sides[0], sides[1]);
    const far = Math.hypot(mx, my);
    const hold = far > FARTHEST * em ? (FARTHEST * em) / far : 1;
    return [mx * hold, my * hold];
  });
  const nearest = (i: number, step: 1 | -1): number | undefined => {
    let at: number | undefined = neighbour(contour, i, step);
    while (at !== undefined && at !== i && !moves[at]) at = neighbour(contour, at, step);
    return at;
  };
  const moveAt = (i: number): Vec => {
    const own = moves[i];
    if (own) return own;
    // A handle goes with its point; of quadratic curves those between go with both.
    const [before, after] = [nearest(i, -1), nearest(i, 1)];
    const a = before === undefined ? undefined : moves[before];
    const b = after === undefined ? undefined : moves[after];
    const n = contour.points.length;
    const isNext = (from: number | undefined, step: number) => from !== undefined && (from + step + n) % n === i;
    const cubic = after !== undefined && contour.points[after]!.type === 'curve';
    if (cubic && a && isNext(before, 1) && !isNext(after, -1)) return a;
    if (cubic && b && isNext(after, -1) && !isNext(before, 1)) return b;
    return [((a?.[0] ?? 0) + (b?.[0] ?? 0)) / 2, ((a?.[1] ?? 0) + (b?.[1] ?? 0)) / 2];
  };
  return {
    ...contour,
    points: contour.points.map((p, i) => {
      const [mx, my] = moveAt(i);
      return { ...p, x: p.x + k * p.y + dx + mx, y: p.y + my };
    }),
  };
}

/** One drawing slanted: outlines corrected, parts and anchors sheared; `k` is the tangent of the angle, `dx` what keeps it in the middle. */
function slantedDrawing(drawing: Drawing, k: number, dx: number, em: number): Drawing {
  const shear: Affine = [1, 0, k, 1, 0, 0];
  const back = invert(shear)!;
  const ink = new Ink(drawing.contours, em);
  return {
    ...drawing,
    contours: drawing.contours.map((c) => slantedContour(c, ink, k, dx, em)),
    // A part is slanted already: what it was turned by is turned in the slanted space.
    components: drawing.components.map((c) => {
      const [a, b, d, e, x, y] = compose(shear, compose(c.transform as Affine, back));
      const linear: Affine = [a, b, d, e, 0, 0];
      // The part stands moved by dx, and so does the whole.
      const px = x + dx - linear[0] * dx;
      return { ...c, transform: [a, b, d, e, px, y - linear[1] * dx] as Affine };
    }),
    anchors: drawing.anchors.map((n) => ({ ...n, x: n.x + k * n.y + dx })),
    guides: drawing.guides,
    backdrops: [],
  };
}

/** What the italic has of a glyph: corrected drawings in all masters, with points at extremes where all masters can have them alike. */
function slantedGlyph(glyph: Glyph, middles: ReadonlyMap<string, number>, k: number, em: number, grid: number): Glyph {
  const entries = Object.entries(glyph.drawings).map(
    ([m, d]) => [m, slantedDrawing(d, k, middles.get(m) ?? 0, em)] as const,
  );
  const before = Object.values(glyph.drawings);
  let drawings = entries.map(([, d]) => d);
  if (drawings.length > 0 && sameStructure(before)) {
    const contours = drawings[0]!.contours.map((_, c) => {
      const siblings = drawings.map((d) => d.contours[c]!);
      const made = withExtremes(siblings);
      return agreeing(made) ? made : siblings;
    });
    drawings = drawings.map((d, i) => ({ ...d, contours: contours.map((row) => row[i]!) }));
  } else drawings = drawings.map((d) => ({ ...d, contours: d.contours.map((c) => withExtremes([c])[0]!) }));
  const land = (v: number) => gridded(v, grid);
  return {
    ...glyph,
    takes: [],
    waypoints: [],
    drawings: Object.fromEntries(
      entries.map(([m], i) => [
        m,
        {
          ...drawings[i]!,
          contours: drawings[i]!.contours.map((c) => ({
            ...c,
            points: c.points.map((p) => ({ ...p, x: land(p.x), y: land(p.y) })),
          })),
          anchors: drawings[i]!.anchors.map((n) => ({ ...n, x: land(n.x), y: land(n.y) })),
        },
      ]),
    ),
  };
}

const italicName = (name: string): string =>
  /italic|oblique/i.test(name) ? name : name === 'Regular' ? 'Italic' : `${name} Italic`;

/**
 * The italic of a project as a project of its own, of the same family: all masters slanted by an angle in degrees, 1 to 30, to the right; spacing, kerning and
 * rules stay. Waypoints and takes are left behind: between the masters it is begun anew.
 */
export function italicOf(project: Project, degrees: number, progress?: (done: number, total: number) => void): Project {
  const k = Math.tan((Math.max(1, Math.min(30, degrees)) * Math.PI) / 180);
  // Half the height of small letters stays where it is, so that the sides do.
  const middles = new Map(project.masters.map((m) => [m.id, (-k * m.zones.xHeight.position) / 2]));
  const glyphs: Record<GlyphId, Glyph> = {};
  project.glyphOrder.forEach((id, i) => {
    const glyph = project.glyphs[id]!;
    glyphs[id] = slantedGlyph(glyph, middles, k, project.unitsPerEm, project.settings.grid);
    if (progress && i % 16 === 0) progress(i, project.glyphOrder.length);
  });
  return {
    ...project,
    glyphs,
    masters: project.masters.map((m) => ({
      ...m,
      name: italicName(m.name),
      italicAngle: -Math.round(degrees * 100) / 100,
    })),
    instances: project.instances.map((i) => ({ ...i, name: italicName(i.name) })),
  };
}
