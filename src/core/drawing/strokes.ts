import { z } from 'zod';
import { isRefused, type Refusal } from '../base/result';
import { type Contour, reverseContour } from '../geometry/contour';
import { isEmptyBox } from '../geometry/curve';
import { removeOverlaps } from '../geometry/overlaps';
import { CAPS, JOINS, movedOutline, strokeOutline } from '../geometry/stroke';
import { tidy } from '../geometry/tidy';
import { directedByNesting } from '../geometry/winding';
import * as a from '../project/arguments';
import { defineEdit, editDrawing, refused } from '../project/edit';
import { type Drawing, drawingSchema, type MasterId, type Project, type Zones } from '../project/model';
import { drawingBounds, drawingsOf, flattened } from '../project/outline';
import { masterOf } from '../project/queries';
import { withFewerPoints } from '../tidying/fewer';
import { shifted } from './edits';
import { rectangle, roundedRectangle } from './shapes';

/**
 * What becomes of the sides of a framed letter: those it had are kept around the frame, the frame is the advance, or the
 * advance stays as it is (when nothing is said).
 */
export const FRAME_SIDES = ['around', 'frame', 'as it is'] as const;

/** Strokes made to outlines, shapes grown, hollowed and framed: of a drawing, or of many glyphs at once. */
const join = z.enum(JOINS);
export const strokeWork = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('stroke'), width: a.number, join, cap: z.enum(CAPS) }),
  /** Grows by a distance on every side; negative shrinks. */
  z.object({ kind: z.literal('grow'), by: a.number, join }),
  /** Leaves a wall inside the edge. */
  z.object({ kind: z.literal('hollow'), wall: a.number, join }),
  /** A box around, `margin` beyond the letter and the line's height, at least so wide; a `wall` thick, or filled with the letter left out. */
  z.object({
    kind: z.literal('frame'),
    margin: a.number,
    wall: a.number,
    radius: a.number,
    reversed: z.boolean(),
    sides: z.enum(FRAME_SIDES).optional(),
    /** Frames narrower than this are widened on both sides alike: keys of one width. */
    least: a.number.optional(),
  }),
]);
/** The kinds of work. */
export const strokeKind = z.enum(['stroke', 'grow', 'hollow', 'frame']);
export type StrokeWork = z.infer<typeof strokeWork>;
export type StrokeKind = StrokeWork['kind'];

type Changed = { contours: readonly Contour[] } | Refusal;
const UNSOUND = refused('These outlines lie so closely that nothing sound could be made of them.');
/** Points of a parallel that the shape can do without, within this distance in font units. */
const NEEDLESS = 0.12;

/** The contours through one work; `drawn` is everything drawn, components too, for what lies around it. */
export function worked(
  contours: readonly Contour[],
  work: StrokeWork,
  drawn: Drawing,
  box: ReturnType<typeof drawingBounds>,
  zones: Zones,
): Changed {
  const fault = strokeFault(work);
  if (fault) return refused(fault);
  if (work.kind === 'frame') return framed(contours, work, box, zones, drawn);
  if (contours.length === 0) return refused('There are no contours here to work on.');
  if (work.kind === 'stroke') {
    const { contours: outline, failed } = strokeOutline(contours, work);
    return failed ? UNSOUND : { contours: settled(outline) };
  }
  const closed = contours.filter((c) => c.closed);
  if (closed.length === 0) return refused('Only closed contours have an inside; make a stroke of open ones.');
  const distance = work.kind === 'grow' ? work.by : -work.wall;
  const simple = removeOverlaps(closed);
  if (simple.failed) return UNSOUND;
  const directed = directedByNesting(simple.contours);
  const grown = movedOutline(directed, distance, work.join);
  if (grown.failed) return UNSOUND;
  if (work.kind === 'grow')
    return grown.contours.length === 0 ? refused('Nothing would be left.') : { contours: settled(grown.contours) };
  if (grown.contours.length === 0) return refused('The wall is so thick that nothing would be hollow.');
  return { contours: [...directed, ...settled(grown.contours).map(reverseContour)] };
}

/** Why numbers cannot be worked with, if they cannot. */
export function strokeFault(work: StrokeWork): string | undefined {
  if (Object.values(work).some((v) => typeof v === 'number' && !Number.isFinite(v))) return 'A number is missing.';
  if (work.kind === 'stroke' && !(work.width >= 1 && work.width <= 2000)) return 'A stroke is 1 to 2000 units wide.';
  if (work.kind === 'grow' && (work.by === 0 || Math.abs(work.by) > 1000))
    return 'Grow by 1 to 1000 units; a negative number shrinks.';
  if (work.kind === 'hollow' && !(work.wall >= 1 && work.wall <= 1000)) return 'A wall is 1 to 1000 units thick.';
  if (work.kind === 'frame' && (work.margin < 0 || work.radius < 0 || !(work.wall >= 1 || work.reversed)))
    return 'A frame has a wall of at least 1 unit, a margin and a radius of at least 0.';
  if (work.kind === 'frame' && !((work.least ?? 0) >= 0 && (work.least ?? 0) <= 10_000))
    return 'The least width of a frame is 0 to 10000 units.';
  return undefined;
}

function framed(
  contours: readonly Contour[],
  work: Extract<StrokeWork, { kind: 'frame' }>,
  box: ReturnType<typeof drawingBounds>,
  zones: Zones,
  drawn: Drawing,
): Changed {
  const empty = isEmptyBox(box);
  const [left, right] = [(empty ? 0 : box.xMin) - work.margin, (empty ? drawn.advance : box.xMax) + work.margin];
  const wider = Math.max(0, (work.least ?? 0) - (right - left)) / 2;
  const from = wider > 0 ? Math.floor(left - wider) : left;
  const outer = {
    left: from,
    right: from + Math.max(right - left, work.least ?? 0),
    bottom: Math.min(zones.descender.position, empty ? 0 : box.yMin) - work.margin,
    top: Math.max(zones.ascender.position, zones.capHeight.position, empty ? 0 : box.yMax) + work.margin,
  };
  const shape = (by: number) => {
    const radius = Math.max(0, work.radius - by);
    const sides = [outer.left + by, outer.bottom + by, outer.right - by, outer.top - by] as const;
    return radius > 0 ? roundedRectangle(...sides, radius) : rectangle(...sides);
  };
  if (!work.reversed) {
    const narrow = Math.min(outer.right - outer.left, outer.top - outer.bottom);
    if (2 * work.wall >= narrow)
      return refused(`The frame is ${Math.round(narrow)} units wide or high; its wall must be under half of that.`);
    return { contours: [...contours, shape(0), reverseContour(shape(work.wall))] };
  }
  const simple = removeOverlaps(contours.filter((c) => c.closed));
  if (simple.failed) return UNSOUND;
  const turned = simple.contours.map((c) => reverseContour(c));
  return { contours: [shape(0), ...turned] };
}

/** Cut points on a grid of thousandths, needless ones taken away. */
const settled = (contours: readonly Contour[]): Contour[] =>
  contours.map((c) => {
    const fewer = withFewerPoints([c], NEEDLESS)[0]!;
    return { ...fewer, points: fewer.points.map((p) => ({ ...p, x: tidy(p.x), y: tidy(p.y) })) };
  });

/** What was done, as the history tells it. */
export const STROKES_DONE: Readonly<Record<StrokeKind, string>> = {
  stroke: 'Made strokes to outlines',
  grow: 'Grew the shape',
  hollow: 'Hollowed',
  frame: 'Framed',
};

/** Works on chosen contours of a drawing, or on all of it. A reversed frame takes parts apart first. */
export const workStrokes = defineEdit(
  {
    name: 'workStrokes',
    does: 'Works on the edges of contours',
    reach: 'one master',
    args: z.object({ at: a.at, contours: a.indices, work: strokeWork }),
  },
  (project, { at, contours: chosen, work }) => {
    return editDrawing(project, at, STROKES_DONE[work.kind], (d, master) =>
      workedDrawing(project, d, master, chosen, work),
    );
  },
);

/** Takes over what work on edges came to where it was carried out beside: the drawing it made. */
export const takeWorked = defineEdit(
  {
    name: 'takeWorked',
    does: 'Takes over outlines whose edges were worked on',
    reach: 'one master',
    args: z.object({ at: a.at, kind: strokeKind, made: drawingSchema }),
  },
  (project, { at, kind, made }) =>
    editDrawing(project, at, STROKES_DONE[kind], (d) => ({
      ...d,
      advance: made.advance,
      contours: made.contours,
      components: made.components,
      anchors: made.anchors,
      backdrops: made.backdrops,
    })),
);

/** A drawing with work on its edges done, or why it cannot be. */
export function workedDrawing(
  project: Project,
  d: Drawing,
  master: MasterId,
  chosen: readonly number[],
  work: StrokeWork,
): Drawing | Refusal {
  const apart = work.kind === 'frame' && work.reversed;
  const all = apart ? flattened(d, drawingsOf(project, master)) : d.contours;
  const own = apart || chosen.length === 0 ? all : all.filter((_, i) => chosen.includes(i));
  const result = worked(own, work, d, drawingBounds(d, drawingsOf(project, master)), masterOf(project, master)!.zones);
  if (isRefused(result)) return result;
  const next = {
    ...d,
    contours: [...all.filter((c) => !own.includes(c)), ...result.contours],
    components: apart ? [] : d.components,
  };
  return work.kind === 'frame' ? withFrameSides(project, d, next, { master, sides: work.sides }) : next;
}

/** A framed drawing moved and made as wide as was asked for. */
function withFrameSides(
  project: Project,
  before: Drawing,
  framed: Drawing,
  { master, sides }: { master: MasterId; sides: (typeof FRAME_SIDES)[number] | undefined },
): Drawing {
  if (sides === undefined || sides === 'as it is') return framed;
  const source = drawingsOf(project, master);
  const [box, was] = [drawingBounds(framed, source), drawingBounds(before, source)];
  const kept = sides === 'around' && !isEmptyBox(was);
  const [left, right] = kept ? [was.xMin, before.advance - was.xMax] : [0, 0];
  return { ...shifted(framed, tidy(left - box.xMin)), advance: tidy(left + box.xMax - box.xMin + right) };
}
