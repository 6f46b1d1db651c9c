import { readyDemo } from '../../../demo/ready';
import '../allEdits';
import { runEdit } from '../project/edit';
import type { Glyph, Project } from '../project/model';
import { glyphsInOrder } from '../project/queries';
import { sameStructure } from '../project/structure';
import { OUTLINE_PLANTS, planted, randomOf } from '../testing/plantedFaults';
import type { Finding } from './finding';
import { OUTLINE_CHECKS } from './outlineFindings';
import { Preflight } from './preflight';

const demo = withKinds(readyDemo(), ['outlines/inflection', 'outlines/bump']);
const preflight = new Preflight();
const letters = glyphsInOrder(demo).filter((g) => Object.values(g.drawings).every((d) => d.contours.length > 0));

function withKinds(project: Project, on: readonly string[]): Project {
  const kinds = Object.fromEntries(on.map((k) => [k, { on: true }]));
  return { ...project, settings: { ...project.settings, preflight: { kinds } } };
}

const of = (project: Project, glyph: Glyph, kind: string): Finding[] =>
  preflight.glyphFindings(project, glyph.id).filter((f) => f.kind === kind);

/** Glyphs, chosen by a seed, that have a place for a fault and not the fault itself. */
function cases(kind: string, count: number) {
  const random = randomOf(kind.length * 31 + kind.charCodeAt(kind.length - 1));
  const out: { glyph: Glyph; project: Project; contour: number; point: number }[] = [];
  for (let i = 0; i < 200 && out.length < count; i++) {
    const glyph = letters[Math.floor(random() * letters.length)]!;
    if (of(demo, glyph, kind).length > 0) continue;
    const done = planted(demo, glyph, kind, random);
    if (done) out.push({ glyph, ...done });
  }
  return out;
}

describe.each(OUTLINE_PLANTS.map((p) => p.kind))('%s', (kind) => {
  const tried = cases(kind, 8);

  it('is found wherever it is planted, in all masters', () => {
    expect(tried.length).toBeGreaterThanOrEqual(5);
    for (const { glyph, project } of tried)
      expect([glyph.name, of(project, glyph, kind).length > 0]).toEqual([glyph.name, true]);
  });

  it('is mended without harm to the rest of the drawing', () => {
    for (const { glyph, project, contour } of tried) {
      let now = project;
      // More than one of a kind may have come of it.
      for (let round = 0; round < 6; round++) {
        const [found] = of(now, now.glyphs[glyph.id]!, kind);
        const [mend] = found?.mends ?? [];
        if (!found || !mend) break;
        const done = runEdit(now, mend.edit, mend.args);
        if (!done.ok) break;
        now = done.project;
      }
      const ways = OUTLINE_CHECKS.find((c) => c.kind === kind)!.ways;
      if (!ways) continue;
      const after = now.glyphs[glyph.id]!;
      expect([glyph.name, of(now, after, kind).map((f) => f.reason)]).toEqual([glyph.name, []]);
      for (const m of demo.masters) {
        const [was, is] = [project.glyphs[glyph.id]!.drawings[m.id]!, after.drawings[m.id]!];
        expect({ ...is, contours: [] }).toEqual({ ...was, contours: [] });
        // Other contours are the very same.
        for (const [i, c] of was.contours.entries())
          if (i !== contour && i < glyph.drawings[m.id]!.contours.length) expect(is.contours).toContain(c);
      }
      expect(sameStructure(demo.masters.map((m) => after.drawings[m.id]!))).toBe(
        sameStructure(demo.masters.map((m) => glyph.drawings[m.id]!)),
      );
    }
  });
});
