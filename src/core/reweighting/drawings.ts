import type { Affine } from '../geometry/affine';
import { type Contour, isOnCurve, type Point, transformContour } from '../geometry/contour';
import { type Box, isEmptyBox, type Vec } from '../geometry/curve';
import { gridded, tidy } from '../geometry/tidy';
import type { Component, Drawing, GlyphId, Master, Project } from '../project/model';
import { drawingBounds } from '../project/outline';
import { leanOf } from '../project/queries';
import type { Stems } from './goals';
import { type Eased, reweighted } from './reweight';
import { heldLines } from './standard';

/** What is asked of drawings: how thick strokes are and are to be, and what becomes of widths and sides. */
export type Weighing = {
  readonly from: Stems;
  readonly to: Stems;
  /** A share of the advance that it had, 1 keeps it; none: counters and sides keep their width. */
  readonly width: number | undefined;
  readonly bearings: 'share' | 'kept';
  /** How much more than straight strokes curved ones grow; 1 as the source has it. */
  readonly rounds: number;
};

export type WeighedDrawing = { readonly drawing: Drawing; readonly eased: readonly Eased[] };

/**
 * A drawing of contours with its strokes at new stems, on the grid of the project; anchors and guides go along, parts stay.
 * `lines` are heights that stay. Slanted letters are set upright by the master's angle meanwhile.
 */
export function weighedContours(
  project: Project,
  drawing: Drawing,
  master: Master,
  asked: Weighing,
  lines: readonly number[] = heldLines(project, master, drawing.contours),
): WeighedDrawing {
  const { lean } = leanOf(master);
  const upright: Affine = [1, 0, -lean, 1, 0, 0];
  const contours = lean === 0 ? drawing.contours : drawing.contours.map((c) => transformContour(c, upright));
  const made = reweighted(contours, {
    from: asked.from,
    to: asked.to,
    advance: drawing.advance,
    newAdvance: asked.width === undefined ? undefined : drawing.advance * asked.width,
    bearings: asked.bearings,
    lines,
    unitsPerEm: project.unitsPerEm,
    rounds: asked.rounds,
  });
  const back = ([x, y]: Vec): Vec => [x + lean * y, y];
  const carry = ([x, y]: Vec): Vec => back(made.carry([x - lean * y, y]));
  const { grid } = project.settings;
  return {
    drawing: {
      ...drawing,
      advance: Math.max(0, gridded(made.advance, grid)),
      contours: made.contours.map((c) => onGrid(transformContour(c, [1, 0, lean, 1, 0, 0]), grid)),
      anchors: drawing.anchors.map((a) => {
        const [x, y] = carry([a.x, a.y]);
        return { ...a, x: gridded(x, grid), y: gridded(y, grid) };
      }),
      guides: drawing.guides.map((g) => {
        const [x, y] = carry([g.x, g.y]);
        return { ...g, x: tidy(x), y: tidy(y) };
      }),
    },
    eased: made.eased.map((e) => ({ ...e, at: back(e.at) })),
  };
}

/** A contour on the grid; a handle of a smooth point that slants keeps its direction as near as the grid allows. */
function onGrid(contour: Contour, grid: number): Contour {
  if (grid <= 0) return { ...contour, points: contour.points.map((p) => ({ ...p, x: tidy(p.x), y: tidy(p.y) })) };
  const n = contour.points.length;
  return {
    ...contour,
    points: contour.points.map((p, i): Point => {
      if (isOnCurve(p)) return { ...p, x: gridded(p.x, grid), y: gridded(p.y, grid) };
      const owner = [contour.points[(i - 1 + n) % n]!, contour.points[(i + 1) % n]!].find(isOnCurve);
      if (!owner) return { ...p, x: gridded(p.x, grid), y: gridded(p.y, grid) };
      const [x, y] = [gridded(owner.x, grid) + p.x - owner.x, gridded(owner.y, grid) + p.y - owner.y];
      if (Math.abs(p.x - owner.x) < 1e-6) return { ...p, x: tidy(x), y: gridded(y, grid) };
      if (Math.abs(p.y - owner.y) < 1e-6) return { ...p, x: gridded(x, grid), y: tidy(y) };
      return { ...p, x: gridded(x, grid), y: gridded(y, grid) };
    }),
  };
}

/** Drawings of other glyphs before and after, for what is built of them. */
export type Parts = {
  readonly before: (id: GlyphId) => Drawing | undefined;
  readonly after: (id: GlyphId) => Drawing | undefined;
};

const boxOf = (drawing: Drawing, component: Component, source: Parts['before']): Box =>
  drawingBounds({ ...drawing, contours: [], components: [component] }, source);

/**
 * A drawing of parts whose parts have changed: the first keeps its place and gives its new width; the others keep the share of
 * the way over it that they had, and their distance from it up or down.
 */
export function weighedParts(drawing: Drawing, parts: Parts, width: number | undefined, grid: number): Drawing {
  const [first] = drawing.components;
  if (!first) return drawing;
  const base = { before: parts.before(first.glyph), after: parts.after(first.glyph) };
  if (!base.before || !base.after) return drawing;
  const old = boxOf(drawing, first, parts.before);
  const now = boxOf(drawing, first, parts.after);
  const follows = Math.abs(base.before.advance - drawing.advance) < 0.51;
  const advance = follows
    ? base.after.advance
    : width === undefined
      ? drawing.advance + base.after.advance - base.before.advance
      : gridded(drawing.advance * width, grid);
  const across = (x: number): number => {
    if (isEmptyBox(old) || isEmptyBox(now)) return x;
    if (x <= old.xMin) return x + now.xMin - old.xMin;
    if (x >= old.xMax) return x + now.xMax - old.xMax;
    return now.xMin + ((x - old.xMin) * (now.xMax - now.xMin)) / (old.xMax - old.xMin || 1);
  };
  const components = drawing.components.map((c, i) => {
    if (i === 0) return c;
    const [was, is] = [boxOf(drawing, c, parts.before), boxOf(drawing, c, parts.after)];
    if (isEmptyBox(was) || isEmptyBox(is)) return c;
    const dx = across((was.xMin + was.xMax) / 2) - (is.xMin + is.xMax) / 2;
    // What stands above keeps its foot, what hangs below its top, what lies across its middle.
    const above = (was.yMin + was.yMax) / 2 > (old.yMin + old.yMax) / 2;
    const dy = above ? was.yMin - is.yMin : was.yMax - is.yMax;
    const [xx, xy, yx, yy, x, y] = c.transform;
    return { ...c, transform: [xx, xy, yx, yy, gridded(x + dx, grid), gridded(y + dy, grid)] as const };
  });
  const shift = (a: Drawing['anchors'][number]) => ({ ...a, x: gridded(across(a.x), grid) });
  return { ...drawing, advance, components, anchors: drawing.anchors.map(shift) };
}
