import type { Project } from '../src/core/project/model';
import { Session } from '../src/core/scripting/session';
import { runScript, startInterpreter } from '../src/sandbox/sandbox';
import { largeProject } from './largeProject';
import { median, milliseconds, printTable, type Row } from './table';

const READS = `let n = 0;
for (const glyph of chosen) for (const m of masters) for (const c of glyph.drawing(m).contours) for (const p of c.points) n += p.x;
say(n);`;
const EDITS = `for (let i = 0; i < 10000; i++) edits.movePoints({ at: chosen[i % 200].drawing(masters[i % masters.length]), points: ['0:0'], dx: i % 2 ? 1 : -1, dy: 0 });`;

async function timed(project: Project, text: string): Promise<number> {
  const interpreter = await startInterpreter();
  const drawn = project.glyphOrder.filter((id) =>
    Object.values(project.glyphs[id]!.drawings).every((d) => d.contours.length > 0),
  );
  const session = new Session(project, { chosen: drawn, masters: project.masters.map((m) => m.id), given: {} });
  const start = performance.now();
  const ended = runScript(interpreter, text, session, { seconds: 120, megabytes: 512 });
  if (!ended.ok) throw new Error(ended.reason);
  return performance.now() - start;
}

/** Budgets of scripts: the interpreter starts, points are read, edits are made. */
export async function benchScripts(): Promise<void> {
  const one = largeProject(2000);
  const project: Project = {
    ...one,
    masters: ['m1', 'm2', 'm3', 'm4'].map((id, i) => ({
      ...one.masters[0]!,
      id,
      name: id,
      place: { wght: 300 + 100 * i },
    })),
    glyphs: Object.fromEntries(
      Object.entries(one.glyphs).map(([id, g]) => {
        const drawing = g.drawings[one.masters[0]!.id]!;
        return [id, { ...g, drawings: { m1: drawing, m2: drawing, m3: drawing, m4: drawing } }];
      }),
    ),
  };
  const starts: number[] = [];
  for (let i = 0; i < 7; i++) {
    const start = performance.now();
    const interpreter = await startInterpreter();
    const session = new Session(project, { chosen: [], masters: ['m1'], given: {} });
    runScript(interpreter, 'say(1)', session);
    starts.push(performance.now() - start);
  }
  const row = (what: string, ms: number, budget: number): Row => ({
    what,
    budget: milliseconds(budget),
    measured: milliseconds(ms),
    met: ms <= budget,
  });
  printTable('Scripts, 2,000 glyphs × 4 masters', [
    row('interpreter started, first line run', median(starts), 150),
    row('all points read', await timed(project, READS), 1000),
    row('10,000 edits', await timed(project, EDITS), 2000),
  ]);
}
