import type { Glyph, GlyphId, Project } from '../project/model';
import { placeInWords } from '../project/places';
import { designsOf, mainOn } from '../project/structure';
import type { AgreementFault } from './agreement';
import { type Kink, kinksOf, type Looks, looksAt, placesBetween } from './kinks';
import { type Lump, lumpsOf } from './lumps';
import { type Tangle, tanglesOf } from './tangles';

/** What goes wrong with a glyph between masters that all are right: points that break, outlines that cross, stems and counters with lumps. */
export type Broken = { glyph: GlyphId; kinks: readonly Kink[]; tangles: readonly Tangle[]; lumps: readonly Lump[] };

/** How much worse a unit of outlines that cross, or of a lump, is than a unit and a degree of a point that breaks. */
const CROSSING = 20;
const LUMP = 5;

export type Design = { project: Project; looks: Looks; first: (own: number) => number };

/** What is looked at: each design that axes of single values part, at places between its masters. */
export function designs(project: Project): Design[] {
  return designsOf(project).map((own) => ({
    project: own,
    looks: looksAt(own, placesBetween(own)),
    first: (i) => project.masters.indexOf(own.masters[i]!),
  }));
}

/** What goes wrong with one glyph between its masters; undefined where nothing does. */
export function brokenGlyph(project: Project, glyph: Glyph, all = designs(project)): Broken | undefined {
  const kinks = all.flatMap((d) => kinksOf(d.project, glyph, d.looks));
  const tangles = all.flatMap((d) => tanglesOf(d.project, glyph, d.looks));
  const lumps = all.flatMap((d) =>
    lumpsOf(d.project, glyph).map((l) => ({ ...l, between: [d.first(l.between[0]), d.first(l.between[1])] as const })),
  );
  return kinks.length + tangles.length + lumps.length > 0 ? { glyph: glyph.id, kinks, tangles, lumps } : undefined;
}

/** What of a glyph that agrees in every number crosses on the way, as suspicions; none where nothing does. */
export function crossingFaults(project: Project, glyph: Glyph): AgreementFault[] {
  const all = known(project);
  return all.flatMap((d) =>
    tanglesOf(d.project, glyph, d.looks).map(({ contours: [a, b], place, units }): AgreementFault => {
      const where = `at ${placeInWords(project.axes, place)}`;
      const by = `by ${Math.round(units)} units, though in no master`;
      return {
        kind: 'crosses',
        at: { master: mainOn(d.project, d.project.masters).id },
        contour: a + 1,
        suspicion: true,
        reason:
          a === b
            ? `Contour ${a + 1} crosses itself ${where} ${by}.`
            : `Contours ${a + 1} and ${b + 1} cross ${where} ${by}.`,
      };
    }),
  );
}

const designsKnown = new WeakMap<Project, Design[]>();
function known(project: Project): Design[] {
  const all = designsKnown.get(project) ?? designs(project);
  designsKnown.set(project, all);
  return all;
}

/** Glyphs that break, cross or swell between masters, looked at in many places, the worst first; none of one master. */
export function brokenGlyphs(project: Project, progress?: (done: number, total: number) => void): Broken[] {
  if (project.masters.length < 2) return [];
  const all = designs(project);
  const out: Broken[] = [];
  project.glyphOrder.forEach((id, i) => {
    const broken = brokenGlyph(project, project.glyphs[id]!, all);
    if (broken) out.push(broken);
    if (progress && i % 16 === 0) progress(i, project.glyphOrder.length);
  });
  const weight = ({ kinks, tangles, lumps }: Broken) =>
    Math.max(
      CROSSING * (tangles[0]?.units ?? 0),
      LUMP * Math.abs(lumps[0]?.units ?? 0),
      kinks[0] ? kinks[0].degrees * kinks[0].units : 0,
    );
  return out.sort((x, y) => weight(y) - weight(x));
}
