import '../src/core/allEdits';
import { movePoints } from '../src/core/drawing/edits';
import { Preflight } from '../src/core/preflight/preflight';
import { glyphNamed } from '../src/core/project/queries';
import { largeFamily } from './largeFamily';

const project = largeFamily(2000);
const preflight = new Preflight();
const begun = performance.now();
let first = 0;
let count = 0;
for (const { findings } of preflight.steps(project)) {
  if (!findings) continue;
  first ||= performance.now() - begun;
  count = findings.length;
}
const whole = performance.now() - begun;
const n = glyphNamed(project, 'o')!;
const edits: number[] = [];
let now = project;
for (let i = 0; i < 21; i++) {
  const moved = movePoints(now, { at: { glyph: n.id, master: project.masters[0]!.id }, points: ['0:0'], dx: 1, dy: 0 });
  if (!moved.ok) throw new Error(moved.reason);
  now = moved.project;
  const t = performance.now();
  preflight.check(now);
  edits.push(performance.now() - t);
}
edits.sort((a, b) => a - b);
console.log(
  JSON.stringify({
    glyphs: project.glyphOrder.length,
    masters: project.masters.length,
    first,
    whole,
    edit: edits[10],
    count,
  }),
);
