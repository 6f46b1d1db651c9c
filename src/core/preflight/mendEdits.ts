import { z } from 'zod';
import type { Contour } from '../geometry/contour';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused, runEdit, withGlyph } from '../project/edit';
import type { Drawing, Glyph, MasterId, Project } from '../project/model';
import { drawingOf, glyphThere } from '../project/queries';
import { sameStructure } from '../project/structure';
import { waypointId } from '../project/waypoints';
import { rounded } from '../tidying/straight';
import type { Finding } from './finding';
import { withPointsMoved } from './heights';
import { amountsOf } from './judged';
import { kindOf } from './kinds';
import { amountFor, drawingsToJudge, outlineCheck } from './outlineFindings';

/** A glyph with the contours of some of its drawings replaced, those of masters and of waypoints. */
function withContours(glyph: Glyph, drawn: ReadonlyMap<MasterId, readonly Contour[]>): Glyph {
  const drawings: Record<MasterId, Drawing> = { ...glyph.drawings };
  let { waypoints } = glyph;
  for (const [id, contours] of drawn) {
    if (drawings[id]) drawings[id] = { ...drawings[id], contours };
    else
      waypoints = waypoints.map((w) =>
        waypointId(w.place) === id ? { ...w, drawing: { ...w.drawing, contours } } : w,
      );
  }
  return { ...glyph, drawings, waypoints };
}

/** A mended contour with its points on the grid, if those of the contour that it was made of lay there. */
function onGridLike(before: Contour, after: Contour, grid: number): Contour {
  const on = (v: number) => Math.abs(v / grid - Math.round(v / grid)) < 1e-6;
  return grid > 0 && before !== after && before.points.every((p) => on(p.x) && on(p.y)) ? rounded(after, grid) : after;
}

/** Mends one fault of an outline, in one of its ways; where points come or go, in all masters that agree. */
export const mendOutline = defineEdit(
  {
    name: 'mendOutline',
    does: 'Mends a fault of an outline',
    reach: 'masters named',
    args: z.object({
      glyph: a.glyph,
      masters: z.array(a.master).min(1).readonly(),
      kind: z.string().max(80),
      way: z.string().max(40),
      contour: a.index,
      point: z.number().int().min(-1),
    }),
  },
  (project, { glyph: id, masters, kind, way, contour, point }) => {
    const glyph = glyphThere(project, id);
    const check = outlineCheck(kind);
    const how = check?.ways?.find((w) => w.way === way);
    if (!check || !how) return refused(`There is no mend “${way}” of “${kind}”.`);
    const first = drawingOf(glyph, masters[0]!);
    const all = drawingsToJudge(project, glyph);
    // The master that has the fault worst leads.
    const fellows = all
      .filter(({ drawing }) =>
        sameStructure([
          { ...first, components: [] },
          { ...drawing, components: [] },
        ]),
      )
      .sort((p, q) => Number(q.id === masters[0]) - Number(p.id === masters[0]));
    const done = how.together ? fellows : fellows.filter((d) => masters.includes(d.id));
    const siblings = done.map((d) => d.drawing.contours[contour]);
    if (siblings.length === 0 || siblings.some((c) => c === undefined))
      return refused('That contour is no longer there.');
    const amount = amountFor(project, check, amountsOf(project));
    const after = how.mend(siblings as Contour[], { contour, point }, amount, project.unitsPerEm / 1000);
    if (!after) return refused(`${glyph.name} cannot be mended that way in all its masters; it is for the hand.`);
    const { grid } = project.settings;
    const contoursOf = (d: Drawing, i: number) =>
      d.contours.flatMap((c, k) => (k === contour ? after[i]!.map((m) => onGridLike(c, m, grid)) : [c]));
    const next = new Map(done.map((d, i) => [d.id, contoursOf(d.drawing, i)]));
    // Masters that agreed agree afterwards.
    const builds = fellows.map((d) => ({
      ...d.drawing,
      components: [],
      contours: next.get(d.id) ?? d.drawing.contours,
    }));
    if (builds.length > 1 && !sameStructure(builds))
      return refused(`The masters of ${glyph.name} would no longer agree that way; it is for the hand.`);
    return edited(
      withGlyph(project, withContours(glyph, next)),
      `${how.title.replace(/^Take (it|one) away$/, 'Took a contour or point away')} in ${glyph.name}`,
    );
  },
);

/** Moves points of a contour onto the height, or the width of a stem, that their fellows have. */
export const mendHeight = defineEdit(
  {
    name: 'mendHeight',
    does: 'Puts a height or stem where its fellows have it',
    reach: 'one master',
    args: z.object({
      glyph: a.glyph,
      master: a.master,
      contour: a.index,
      points: a.indices,
      axis: z.enum(['x', 'y']),
      by: a.units,
    }),
  },
  (project, { glyph: id, master, contour, points, axis, by }) => {
    const glyph = glyphThere(project, id);
    const drawing = drawingOf(glyph, master);
    const own = drawing.contours[contour];
    if (!own) return refused('That contour is no longer there.');
    const moved = withPointsMoved(own, points, axis, by);
    const contours = drawing.contours.map((c, i) => (i === contour ? moved : c));
    return edited(
      withGlyph(project, withContours(glyph, new Map([[master, contours]]))),
      `Put ${plural(points.length, 'point')} of ${glyph.name} in line with its fellows`,
    );
  },
);

/** Several mends as one: all of them, or none. */
export const mendTogether = defineEdit(
  {
    name: 'mendTogether',
    does: 'Carries out several mends as one',
    reach: 'masters named',
    args: z.object({
      edits: z
        .array(z.object({ edit: z.string().max(80), args: z.unknown() }))
        .min(1)
        .max(10_000)
        .readonly(),
    }),
  },
  (project, { edits }) => {
    let now = project;
    let sentence = '';
    for (const { edit, args } of edits) {
      const done = runEdit(now, edit, args);
      if (!done.ok) return done;
      now = done.project;
      sentence ||= done.sentence;
    }
    return edited(now, edits.length === 1 ? sentence : `${sentence}, and ${edits.length - 1} more`);
  },
);

/** What mending many findings came to. */
export type MendedMany = {
  readonly project: Project;
  readonly mended: number;
  readonly left: readonly { finding: Finding; why: string }[];
};

/**
 * Mends findings one after the other, each by its usual way. After every mend those of its glyph are looked for anew, since places move;
 * `findAgain` gives those of a kind in a glyph, or in the project.
 */
export function mendMany(
  project: Project,
  findings: readonly Finding[],
  findAgain: (project: Project, kind: string, glyph: string | undefined) => readonly Finding[],
  progress: (done: number, total: number) => void = () => {},
): MendedMany {
  let now = project;
  let mended = 0;
  const left: { finding: Finding; why: string }[] = [];
  const seen = new Set<string>();
  const wanted = findings.filter((f) => f.mends.length > 0 && !kindOf(f.kind)?.oneByOne);
  wanted.forEach((f, i) => {
    if (i % 8 === 0) progress(i, wanted.length);
    const key = `${f.kind} ${f.glyph ?? ''}`;
    if (seen.has(key)) return;
    seen.add(key);
    const many = wanted.filter((o) => o.kind === f.kind && o.glyph === f.glyph).length;
    const refusedAt = new Set<string>();
    // Each mend takes one away; where none goes any more, the rest is for the hand.
    for (let round = 0; round < many * 2 + 4; round++) {
      const next = findAgain(now, f.kind, f.glyph).find((o) => o.mends.length > 0 && !refusedAt.has(placeKey(o)));
      if (!next) break;
      const [mend] = next.mends;
      const done = runEdit(now, mend!.edit, mend!.args);
      if (done.ok && done.project !== now) {
        now = done.project;
        mended++;
      } else {
        refusedAt.add(placeKey(next));
        left.push({ finding: next, why: done.ok ? 'Nothing changed.' : done.reason });
      }
    }
  });
  return { project: now, mended, left };
}

const placeKey = (f: Finding): string =>
  `${f.contour} ${f.point} ${f.masters.join()} ${f.others?.join() ?? ''} ${f.section ?? ''} ${f.reason}`;

/** The sentence of a mend of many. */
export const mendedSentence = (kind: string, mended: number): string =>
  `Mended ${plural(mended, 'finding')}: ${kindOf(kind)?.title.toLowerCase() ?? kind}`;
