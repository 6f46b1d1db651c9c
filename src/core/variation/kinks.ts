import { z } from 'zod';
import { type Contour, isOnCurve, neighbour, type Point } from '../geometry/contour';
import { tidy } from '../geometry/tidy';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import type { Drawing, Glyph, Project } from '../project/model';
import { type Place, weightsAt, wholePlace } from '../project/places';
import { defaultMaster, drawingOf } from '../project/queries';
import { designsOf, sameStructure, waypointsIn } from '../project/structure';

/** A smooth point that breaks between masters: how much, how far it stands off its tangent, where on the axes it is worst. */
export type Kink = {
  /** Its contour and point, from 0 on. */
  contour: number;
  point: number;
  degrees: number;
  units: number;
  place: Place;
  /** A machine can mend it by sliding the point along its tangent, so far at most, in units. */
  slide: number | undefined;
};

/** Less than this is not seen, in degrees and in thousandths of the em. */
const LEAST = { degrees: 2, share: 0.0006 };
/** A point slides this far at most, in thousandths of the em; farther is for the hand. */
const FARTHEST = 0.02;
/** Shares of the way between two masters at which points are looked at. */
const STEPS = [0.25, 0.5, 0.75];

type Sides = { before: Point; at: Point; after: Point };

const sidesOf = (c: Contour, i: number): Sides | undefined => {
  const [before, after] = [neighbour(c, i, -1), neighbour(c, i, 1)];
  if (before === undefined || after === undefined) return undefined;
  return { before: c.points[before]!, at: c.points[i]!, after: c.points[after]! };
};

type Vec = { x: number; y: number };
type Row = { before: Vec; at: Vec; after: Vec };

/** How much a way turns at a point, in degrees, and how far the point stands off the line between its neighbours. */
function turnAt({ before, at, after }: Row): { degrees: number; units: number } {
  const [ax, ay, bx, by] = [at.x - before.x, at.y - before.y, after.x - at.x, after.y - at.y];
  const cross = ax * by - ay * bx;
  const degrees = Math.abs((Math.atan2(cross, ax * bx + ay * by) * 180) / Math.PI);
  const chord = Math.hypot(after.x - before.x, after.y - before.y);
  return { degrees, units: chord === 0 ? 0 : Math.abs(cross) / chord };
}

/** Where on the axes kinks are looked for: between every two masters, and at the instances. */
export function placesBetween({ masters, axes, instances }: Project): Place[] {
  const out: Place[] = [];
  masters.forEach((m, i) => {
    for (const o of masters.slice(0, i)) {
      const [p, q] = [wholePlace(axes, m.place), wholePlace(axes, o.place)];
      for (const t of STEPS)
        out.push(Object.fromEntries(axes.map((x) => [x.tag, p[x.tag]! + (q[x.tag]! - p[x.tag]!) * t])));
    }
  });
  return [...out, ...instances.map((i) => i.place)];
}

/** Weights of the drawings of most glyphs at places; those with waypoints of their own have others. */
export type Looks = readonly { place: Place; weights: readonly number[] }[];
export const looksAt = (project: Project, places: readonly Place[], glyph?: Glyph): Looks => {
  const own = glyph ? waypointsIn(project, glyph) : [];
  const stands = [...project.masters.map((m) => m.place), ...own.map(({ waypoint }) => waypoint.place)];
  return places.map((place) => ({ place, weights: weightsAt(project.axes, stands, place) }));
};

/** The same places with the weights of a glyph's own drawings. */
export const looksOf = (project: Project, glyph: Glyph, looks: Looks): Looks =>
  glyph.waypoints.length === 0
    ? looks
    : looksAt(
        project,
        looks.map((l) => l.place),
        glyph,
      );

/** All drawings of a glyph that count between masters: its masters' and its waypoints'. */
export const drawingsOf = (project: Project, glyph: Glyph): Drawing[] => [
  ...project.masters.map((m) => drawingOf(glyph, m.id)),
  ...waypointsIn(project, glyph).map(({ waypoint }) => waypoint.drawing),
];

/** Smooth points of a glyph that break between its masters, the worst first; none where they do not agree. */
export function kinksOf(project: Project, glyph: Glyph, looks: Looks): Kink[] {
  const drawings = drawingsOf(project, glyph);
  if (drawings.length < 2 || !sameStructure(drawings)) return [];
  const own = looksOf(project, glyph, looks);
  const main = drawingOf(glyph, defaultMaster(project).id);
  const least = LEAST.share * project.unitsPerEm;
  const out: Kink[] = [];
  main.contours.forEach((contour, c) => {
    contour.points.forEach((p, i) => {
      if (!isOnCurve(p) || !p.smooth) return;
      const rows = drawings.map((d) => sidesOf(d.contours[c]!, i));
      if (rows.some((r) => !r)) return;
      const all = rows as Sides[];
      // What breaks in a master breaks there, not between.
      const held = Math.max(...all.map((r) => turnAt(r).degrees));
      let worst: { degrees: number; units: number; place: Place } | undefined;
      for (const { place, weights } of own) {
        const turn = turnAt(blended(all, weights));
        if (!worst || turn.degrees > worst.degrees) worst = { ...turn, place };
      }
      if (!worst || worst.degrees - held < LEAST.degrees || worst.units < least) return;
      const slide = slideOf(all);
      out.push({
        contour: c,
        point: i,
        degrees: worst.degrees - held,
        units: worst.units,
        place: worst.place,
        slide: slide <= FARTHEST * project.unitsPerEm ? slide : undefined,
      });
    });
  });
  return out.sort((x, y) => y.degrees * y.units - x.degrees * x.units);
}

function blended(rows: readonly Sides[], weights: readonly number[]): Row {
  const sum = (of: (s: Sides) => Vec): Vec => {
    let [x, y] = [0, 0];
    for (let k = 0; k < rows.length; k++) {
      const w = weights[k]!;
      if (w === 0) continue;
      const v = of(rows[k]!);
      x += w * v.x;
      y += w * v.y;
    }
    return { x, y };
  };
  return { before: sum((s) => s.before), at: sum((s) => s.at), after: sum((s) => s.after) };
}

/** Where a point stands between its neighbours, as a share of the way. */
function shareOf({ before, at, after }: Sides): number {
  const [dx, dy] = [after.x - before.x, after.y - before.y];
  const length = dx * dx + dy * dy;
  return length === 0 ? 0.5 : ((at.x - before.x) * dx + (at.y - before.y) * dy) / length;
}

const common = (rows: readonly Sides[]): number => rows.reduce((sum, r) => sum + shareOf(r), 0) / rows.length;

/** The point of a row at a share of the way between its neighbours. */
const slid = ({ before, after }: Sides, share: number): Vec => ({
  x: before.x + (after.x - before.x) * share,
  y: before.y + (after.y - before.y) * share,
});

/** How far points of a row would slide if all stood at the same share of the way. */
function slideOf(rows: readonly Sides[]): number {
  const share = common(rows);
  return Math.max(
    ...rows.map((r) => {
      const to = slid(r, share);
      return Math.hypot(to.x - r.at.x, to.y - r.at.y);
    }),
  );
}

/**
 * A glyph without the kinks that sliding mends: in every drawing the point stands at the same share of the way between its neighbours,
 * on its tangent, so that it does in every blend (three places that divide their line alike stay on one line when they are blended).
 */
export function withoutKinks(
  project: Project,
  glyph: Glyph,
  looks: Looks,
): { glyph: Glyph; mended: number; left: number } {
  const kinks = kinksOf(project, glyph, looks);
  const mends = kinks.filter((k) => k.slide !== undefined);
  let drawings = drawingsOf(project, glyph);
  for (const { contour, point } of mends) {
    const share = common(drawings.map((d) => sidesOf(d.contours[contour]!, point)!));
    drawings = drawings.map((d) => {
      const to = slid(sidesOf(d.contours[contour]!, point)!, share);
      const points = d.contours[contour]!.points.map((p, i) =>
        i === point ? { ...p, x: tidy(to.x), y: tidy(to.y) } : p,
      );
      return { ...d, contours: d.contours.map((c, i) => (i === contour ? { ...c, points } : c)) };
    });
  }
  const waypoints = [...glyph.waypoints];
  waypointsIn(project, glyph).forEach(({ waypoint, index }, i) => {
    waypoints[index] = { ...waypoint, drawing: drawings[project.masters.length + i]! };
  });
  const next: Glyph = {
    ...glyph,
    drawings: {
      ...glyph.drawings,
      ...Object.fromEntries(project.masters.map((m, i) => [m.id, drawings[i]!])),
    },
    waypoints,
  };
  return { glyph: mends.length > 0 ? next : glyph, mended: mends.length, left: kinks.length - mends.length };
}

/** Slides smooth points that break between masters along their tangents, where that is near enough. */
export const mendKinks = defineEdit(
  {
    name: 'mendKinks',
    does: 'Mends smooth points that break between masters',
    reach: 'all masters',
    args: z.object({ glyphs: a.glyphs }),
  },
  (project, { glyphs: ids }) => {
    if (project.masters.length < 2) return refused('One master has nothing between.');
    const glyphs = { ...project.glyphs };
    let [mended, left] = [0, 0];
    for (const design of designsOf(project)) {
      const looks = looksAt(design, placesBetween(design));
      for (const id of ids) {
        const glyph = glyphs[id];
        if (!glyph) continue;
        const done = withoutKinks(design, glyph, looks);
        glyphs[id] = done.glyph;
        mended += done.mended;
        left += done.left;
      }
    }
    if (mended === 0)
      return refused(
        left > 0
          ? `${left === 1 ? 'That point' : 'Those points'} would slide too far; they are for the hand.`
          : 'No smooth point of these glyphs breaks between the masters.',
      );
    return edited(
      { ...project, glyphs },
      `Mended ${plural(mended, 'kink')}${left > 0 ? `; ${left} ${left === 1 ? 'is' : 'are'} for the hand` : ''}`,
    );
  },
);
