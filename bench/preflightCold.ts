import { readyDemo } from '../demo/ready';
import '../src/core/allEdits';
import { movePoints } from '../src/core/drawing/edits';
import { transformContour } from '../src/core/geometry/contour';
import { Preflight } from '../src/core/preflight/preflight';
import type { Drawing, Glyph, Project } from '../src/core/project/model';
import { glyphNamed } from '../src/core/project/queries';

/** The demo with so many glyphs, no two alike, in the four masters at its corners: kerning, rules and anchors as they are. */
function large(count: number): Project {
  const demo = readyDemo();
  // The four corners of weight and width.
  const masters = demo.masters.filter((m) => /Light|Heavy/.test(m.name));
  const kept = new Set(masters.map((m) => m.id));
  const only = (g: Glyph, factor: number, id: string, name: string, first: boolean): Glyph => ({
    ...g,
    id,
    name,
    unicodes: first ? g.unicodes : [],
    drawings: Object.fromEntries(
      Object.entries(g.drawings).flatMap(([m, d]): [string, Drawing][] =>
        kept.has(m)
          ? [
              [
                m,
                factor === 1
                  ? d
                  : { ...d, contours: d.contours.map((c) => transformContour(c, [factor, 0, 0, 1, 0, 0])) },
              ],
            ]
          : [],
      ),
    ),
  });
  const glyphs: Record<string, Glyph> = {};
  const order: string[] = [];
  for (let round = 0; order.length < count; round++)
    for (const id of demo.glyphOrder) {
      if (order.length >= count) break;
      const g = demo.glyphs[id]!;
      const own = round === 0 ? id : `${id}v${round}`;
      glyphs[own] = only(g, 1 + round * 0.01, own, round === 0 ? g.name : `${g.name}.v${round}`, round === 0);
      order.push(own);
    }
  return { ...demo, masters, glyphs, glyphOrder: order };
}

const project = large(2000);
const preflight = new Preflight();
const begun = performance.now();
let first = 0;
let quick = 0;
let count = 0;
for (const { done, total, findings } of preflight.steps(project)) {
  if (!findings) continue;
  first ||= performance.now() - begun;
  if (done < total) quick = performance.now() - begun;
  count = findings.length;
}
const whole = performance.now() - begun;
const n = glyphNamed(project, 'o')!;
const edits: number[] = [];
const own: number[] = [];
let now = project;
for (let i = 0; i < 9; i++) {
  const moved = movePoints(now, { at: { glyph: n.id, master: project.masters[0]!.id }, points: ['0:0'], dx: 1, dy: 0 });
  if (!moved.ok) throw new Error(moved.reason);
  now = moved.project;
  const t = performance.now();
  let told = 0;
  for (const { findings } of preflight.steps(now)) if (findings) told ||= performance.now() - t;
  own.push(told);
  edits.push(performance.now() - t);
}
for (const list of [edits, own]) list.sort((a, b) => a - b);
console.log(
  JSON.stringify({
    glyphs: project.glyphOrder.length,
    masters: project.masters.length,
    first,
    quick,
    whole,
    own: own[4],
    edit: edits[4],
    count,
  }),
);
