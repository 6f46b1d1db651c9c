import { z } from 'zod';
import { listed } from '../base/text';
import { type Contour, isOnCurve, reverseContour, sameBuild, withStart } from '../geometry/contour';
import * as a from '../project/arguments';
import { defineEdit, edited, plural, refused } from '../project/edit';
import type { Drawing, Glyph, MasterId, Project } from '../project/model';
import { drawingsOf, flattened } from '../project/outline';
import { drawingOf } from '../project/queries';
import { designsOf, mainOn, waypointsIn } from '../project/structure';
import { type AgreementFault, agreementOf } from './agreement';
import { aligned } from './alignment';
import { contourFacts, matchedContours, matchedStart } from './matching';

/** Rounds in which points that one master brings are carried to all others. */
const MOST_ROUNDS = 4;

/** A glyph with its masters brought to agree as far as a machine can: what was done in words, and what is left for the hand. */
export type Mended = { glyph: Glyph; done: readonly string[]; left: readonly AgreementFault[] };

type Sources = Map<string, Drawing>;

/**
 * Brings the masters and waypoints of a glyph to agree with the default: components drawn out where they differ, contours put in the
 * order of their shapes, turned, started alike, and given the points that their fellows have. Shapes stay what they are.
 */
export function mendedGlyph(project: Project, glyph: Glyph): Mended {
  const faults = agreementOf(project, glyph).filter((f) => f.kind !== 'anchors');
  if (faults.length === 0) return { glyph, done: [], left: agreementOf(project, glyph) };
  const done = new Set<string>();
  const next = designsOf(project).reduce(
    (g, design) => mendedIn(design, mainOn(project, design.masters).id, g, done),
    glyph,
  );
  return { glyph: next, done: [...done], left: agreementOf(project, next) };
}

/** The masters and waypoints of one design brought to agree with its main one. */
function mendedIn(project: Project, main: MasterId, glyph: Glyph, done: Set<string>): Glyph {
  const sources: Sources = new Map(project.masters.map((m) => [m.id, drawingOf(glyph, m.id)]));
  const own = waypointsIn(project, glyph);
  for (const { waypoint, index } of own) sources.set(`waypoint ${index}`, waypoint.drawing);
  withSameParts(project, sources, main, done);
  const count = sources.get(main)!.contours.length;
  const others = [...sources.keys()].filter((k) => k !== main && sources.get(k)!.contours.length === count);
  for (const key of others) sources.set(key, ordered(sources.get(main)!, sources.get(key)!, done));
  for (let i = 0; i < count; i++) alike(sources, main, others, i, done);
  const drawings = { ...glyph.drawings };
  for (const m of project.masters)
    if (sources.get(m.id) !== drawingOf(glyph, m.id)) drawings[m.id] = sources.get(m.id)!;
  const waypoints = own.reduce(
    (list, { waypoint, index }) => list.with(index, { ...waypoint, drawing: sources.get(`waypoint ${index}`)! }),
    glyph.waypoints,
  );
  return { ...glyph, drawings, waypoints };
}

/** Components in one order; drawn out everywhere where they are not the same. */
function withSameParts(project: Project, sources: Sources, main: MasterId, done: Set<string>): void {
  const names = (d: Drawing) => d.components.map((c) => c.glyph);
  const wanted = names(sources.get(main)!);
  const all = [...sources.values()].map(names);
  if (all.every((n) => String(n) === String(wanted))) return;
  if (
    all.every((n) => String([...n].sort()) === String([...wanted].sort())) &&
    new Set(wanted).size === wanted.length
  ) {
    for (const [key, d] of sources)
      sources.set(key, { ...d, components: wanted.map((g) => d.components.find((c) => c.glyph === g)!) });
    done.add('components put in one order');
    return;
  }
  for (const m of project.masters) {
    const d = sources.get(m.id)!;
    const contours = flattened(d, drawingsOf(project, m.id));
    sources.set(m.id, { ...d, contours, components: [] });
  }
  done.add('components drawn out');
}

function ordered(of: Drawing, other: Drawing, done: Set<string>): Drawing {
  const order = matchedContours(of, other);
  if (order.every((k, i) => k === i)) return other;
  done.add('contours put in order');
  return { ...other, contours: order.map((k) => other.contours[k]!) };
}

/** One contour in all sources: its direction, its start, its points. */
function alike(sources: Sources, main: MasterId, others: readonly string[], index: number, done: Set<string>): void {
  const of = (key: string): Contour => sources.get(key)!.contours[index]!;
  const put = (key: string, contour: Contour) => {
    const d = sources.get(key)!;
    sources.set(key, { ...d, contours: d.contours.map((c, i) => (i === index ? contour : c)) });
  };
  for (const key of others) {
    if (contourFacts(of(main)).direction * contourFacts(of(key)).direction < 0) {
      put(key, reverseContour(of(key)));
      done.add('contours turned');
    }
    const start = matchedStart(of(main), of(key));
    if (start !== undefined && start !== of(key).points.findIndex(isOnCurve)) {
      put(key, withStart(of(key), start));
      done.add('starts moved');
    }
  }
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const differing = others.filter((key) => !sameBuild(of(main), of(key)));
    if (differing.length === 0) return;
    for (const key of differing) {
      const pair = aligned(of(main), of(key));
      if (!pair) continue;
      put(main, pair[0]);
      put(key, pair[1]);
      done.add('points put in where their fellows have some');
    }
  }
}

/** Would mending bring all masters of a glyph to blend? */
export function canBeMended(project: Project, glyph: Glyph): boolean {
  const { done, left } = mendedGlyph(project, glyph);
  return done.length > 0 && left.every((f) => f.suspicion || f.kind === 'anchors');
}

/** Mends the agreement of glyphs as far as a machine can. */
export const mendAgreement = defineEdit(
  {
    name: 'mendAgreement',
    does: 'Brings the masters of glyphs to agree',
    reach: 'all masters',
    args: z.object({ glyphs: a.glyphs }),
  },
  (project, { glyphs: ids }) => {
    const glyphs = { ...project.glyphs };
    const left: string[] = [];
    let count = 0;
    for (const id of ids) {
      const glyph = project.glyphs[id];
      if (!glyph) continue;
      const mended = mendedGlyph(project, glyph);
      const stays = mended.left.some((f) => !f.suspicion && f.kind !== 'anchors');
      if (stays) left.push(glyph.name);
      // What would still not agree is not half mended.
      if (mended.done.length === 0 || stays) continue;
      glyphs[id] = mended.glyph;
      count++;
    }
    const rest = left.length > 0 ? `${listed(left)} must be mended by hand` : '';
    if (count === 0) return refused(rest ? `Nothing could be mended: ${rest}.` : 'These glyphs agree already.');
    return edited({ ...project, glyphs }, `Brought ${plural(count, 'glyph')} to agree${rest ? `; ${rest}` : ''}`);
  },
);
