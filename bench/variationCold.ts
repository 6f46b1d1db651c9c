import { readyDemo } from '../demo/ready';
import { drawingsAt } from '../src/core/project/drawingsAt';
import type { Glyph, Project } from '../src/core/project/model';
import { glyphNamed } from '../src/core/project/queries';
import { agreementOf } from '../src/core/variation/agreement';
import { brokenGlyphs } from '../src/core/variation/between';
import { glyphAt } from '../src/core/variation/glyphAt';

/** A thousand glyphs of the demo, each with drawings of its own. */
function thousand(): Project {
  const demo = readyDemo();
  const glyphs: Record<string, Glyph> = structuredClone(demo.glyphs);
  const order = [...demo.glyphOrder];
  for (let i = 0; order.length < 1000; i++) {
    const g = demo.glyphs[demo.glyphOrder[i]!]!;
    const id = `${g.id}x`;
    glyphs[id] = { ...structuredClone(g), id, name: `${g.name}.copy`, unicodes: [] };
    order.push(id);
  }
  return { ...demo, glyphs, glyphOrder: order };
}

const project = thousand();
const timed = (work: () => void): number => {
  const start = performance.now();
  work();
  return performance.now() - start;
};
const all = (p: Project) => {
  for (const id of p.glyphOrder) agreementOf(p, p.glyphs[id]!);
};
const first = timed(() => all(project));
// Drawings that were never compared, by code that has run: as after a file is opened in an app that is open.
const fresh = thousand();
const cold = timed(() => all(fresh));
const n = glyphNamed(project, 'n')!;
const edits = [1, 2, 3, 4, 5].map((by) => {
  const drawings = { ...n.drawings, m1: { ...n.drawings.m1!, advance: n.drawings.m1!.advance + by } };
  const changed = { ...project, glyphs: { ...project.glyphs, [n.id]: { ...n, drawings } } };
  return timed(() => all(changed));
});
const edited = edits.sort((a, b) => a - b)[2];
const kinks = timed(() => brokenGlyphs(project));
const letters = [...'abcdefghijklmnopqrstuvwxyzABCD'].map((c) => glyphNamed(project, c)!.id);
let place = 300;
const lines = Array.from({ length: 20 }, () => {
  place += 20;
  const at = { wght: place, wdth: 90 };
  return timed(() => {
    drawingsAt(project, at);
    for (const id of letters) glyphAt(project, id, at);
  });
}).sort((a, b) => a - b);
console.log(
  JSON.stringify({ glyphs: project.glyphOrder.length, first, cold, edited, kinks, line: lines[lines.length >> 1] }),
);
