import '../src/core/allEdits';
import { movePoints } from '../src/core/drawing/edits';
import { Preflight } from '../src/core/preflight/preflight';
import type { Project } from '../src/core/project/model';
import { glyphNamed } from '../src/core/project/queries';

/** The first check that a worker does, and the list after each of some edits, in milliseconds. */
export type PreflightTimes = {
  glyphs: number;
  masters: number;
  count: number;
  first: number;
  whole: number;
  edit: number;
};

function measured(project: Project): PreflightTimes {
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
    const at = { glyph: n.id, master: project.masters[0]!.id };
    const moved = movePoints(now, { at, points: ['0:0'], dx: 1, dy: 0 });
    if (!moved.ok) throw new Error(moved.reason);
    now = moved.project;
    const t = performance.now();
    preflight.check(now);
    edits.push(performance.now() - t);
  }
  edits.sort((a, b) => a - b);
  const { glyphOrder, masters } = project;
  return { glyphs: glyphOrder.length, masters: masters.length, count, first, whole, edit: edits[10]! };
}

addEventListener('message', ({ data }: MessageEvent<Project>) => postMessage(measured(data)));
