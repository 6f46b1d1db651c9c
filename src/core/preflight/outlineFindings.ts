import type { Contour } from '../geometry/contour';
import type { Drawing, Glyph, MasterId, Project } from '../project/model';
import { drawingOf } from '../project/queries';
import { sameStructure } from '../project/structure';
import { waypointId } from '../project/waypoints';
import { CONTOUR_CHECKS } from './contours';
import { CROSSING_CHECKS } from './crossings';
import { CURVE_CHECKS } from './curves';
import type { Amounts, Finding } from './finding';
import type { Outline, OutlineCheck, OutlineFault } from './outline';
import { POINT_CHECKS } from './points';

/** All checks of outlines; the order is that in which mends of one glyph are done. */
export const OUTLINE_CHECKS: readonly OutlineCheck[] = [
  ...CONTOUR_CHECKS,
  ...CROSSING_CHECKS,
  ...POINT_CHECKS,
  ...CURVE_CHECKS,
];

const byKind = new Map(OUTLINE_CHECKS.map((c) => [c.kind, c]));
export const outlineCheck = (kind: string): OutlineCheck | undefined => byKind.get(kind);

/** What is looked for in outlines and how strictly; a new one wherever that changes, so that it serves as a key. */
export type OutlineJudgement = {
  readonly checks: readonly { readonly check: OutlineCheck; readonly amount: number }[];
  readonly u: number;
  readonly grid: number;
  readonly faults: WeakMap<readonly Contour[], Record<'leaning' | 'upright', readonly OutlineFault[][] | undefined>>;
};

export const outlineJudgement = (
  project: Project,
  judged: (kind: string) => boolean,
  amounts: Amounts,
): OutlineJudgement => ({
  checks: OUTLINE_CHECKS.filter((c) => judged(c.kind)).map((check) => ({
    check,
    amount: amountFor(project, check, amounts),
  })),
  u: project.unitsPerEm / 1000,
  grid: project.settings.grid,
  faults: new WeakMap(),
});

/** The number a check works with: what is off the grid is measured by the grid. */
export const amountFor = (project: Project, check: OutlineCheck, amounts: Amounts): number =>
  check.kind === 'outlines/offGrid' ? project.settings.grid : amounts(check.kind);

/** Outlines of more points than this are not judged: they are pictures that stand in for letters. */
const MOST_POINTS = 20_000;

/** Faults of a drawing's own contours, a list for each check; known again for the same contours. */
function faultsOf(
  judgement: OutlineJudgement,
  contours: readonly Contour[],
  leans: boolean,
): readonly OutlineFault[][] {
  let held = judgement.faults.get(contours);
  if (!held) {
    held = { leaning: undefined, upright: undefined };
    judgement.faults.set(contours, held);
  }
  const key = leans ? 'leaning' : 'upright';
  if (!held[key]) {
    const outline: Outline = { contours, u: judgement.u, grid: judgement.grid, leans };
    const points = contours.reduce((sum, c) => sum + c.points.length, 0);
    held[key] = judgement.checks.map(({ check, amount }) => (points > MOST_POINTS ? [] : check.look(outline, amount)));
  }
  return held[key]!;
}

/** A drawing of a glyph under the id of its master, or of its waypoint. */
export type DrawnIn = { readonly id: MasterId; readonly drawing: Drawing; readonly leans: boolean };

/** All drawings of a glyph that hold something: masters' in their order, then waypoints'. */
export function drawingsToJudge(project: Project, glyph: Glyph): DrawnIn[] {
  const leans = project.masters.some((m) => m.italicAngle !== 0);
  return [
    ...project.masters.map((m) => ({ id: m.id, drawing: drawingOf(glyph, m.id), leans: m.italicAngle !== 0 })),
    ...glyph.waypoints.map((w) => ({ id: waypointId(w.place), drawing: w.drawing, leans })),
  ].filter(({ drawing }) => drawing.contours.length > 0);
}

/** Masters whose outlines have the same build, so that a point in one is the point in the other. */
function alike(drawn: readonly DrawnIn[]): DrawnIn[][] {
  const out: DrawnIn[][] = [];
  for (const d of drawn) {
    const own = out.find(([first]) =>
      sameStructure([
        { ...first!.drawing, components: [] },
        { ...d.drawing, components: [] },
      ]),
    );
    if (own) own.push(d);
    else out.push([d]);
  }
  return out;
}

/** What is wrong with the outlines of a glyph. The same fault at the same point of several masters is one finding. */
export function outlineFindings(project: Project, glyph: Glyph, judgement: OutlineJudgement): Finding[] {
  const out: Finding[] = [];
  for (const family of alike(drawingsToJudge(project, glyph))) {
    const faults = family.map((d) => faultsOf(judgement, d.drawing.contours, d.leans));
    judgement.checks.forEach(({ check }, k) => {
      const places = new Map<string, { fault: OutlineFault; master: MasterId }[]>();
      faults.forEach((lists, i) => {
        for (const fault of lists[k]!) {
          const key = `${fault.contour} ${fault.point}`;
          const held = places.get(key);
          const one = { fault, master: family[i]!.id };
          if (!held) places.set(key, [one]);
          // Two at one place of one drawing, as crossings can be, are two findings.
          else if (held.some((h) => h.master === one.master)) places.set(`${key} ${places.size}`, [one]);
          else held.push(one);
        }
      });
      for (const held of places.values()) {
        if (check.inAll && held.length < family.length) continue;
        held.sort((a, b) => b.fault.bad - a.fault.bad);
        out.push(told(glyph, check, held, family));
      }
    });
  }
  return out;
}

function told(
  glyph: Glyph,
  check: OutlineCheck,
  held: readonly { fault: OutlineFault; master: MasterId }[],
  family: readonly DrawnIn[],
): Finding {
  const { fault } = held[0]!;
  const { contour = 0, point = 0 } = fault;
  const masters = held.map((h) => h.master);
  const mendable = held.every((h) => h.fault.mends);
  const ways = mendable
    ? (check.ways ?? []).filter((w) => !w.together || w.forSome || held.length === family.length)
    : [];
  return {
    kind: check.kind,
    reason: fault.reason,
    bad: fault.bad,
    glyph: glyph.id,
    masters,
    contour,
    point,
    spots: fault.spots,
    mends: ways.map((w) => ({
      edit: 'mendOutline',
      args: { glyph: glyph.id, masters, kind: check.kind, way: w.way, contour, point },
      title: w.title,
    })),
  };
}
