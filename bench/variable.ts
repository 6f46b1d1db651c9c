import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { openSource } from '../src/cli/source';
import { CastCache } from '../src/core/casting/cache';
import { castFont } from '../src/core/casting/font';
import { movePoints } from '../src/core/drawing/edits';
import { projectFiles } from '../src/core/formats/project/projectFile';
import type { Project } from '../src/core/project/model';
import { largeProject } from './largeProject';
import { median, milliseconds, printTable, type Row } from './table';

const time = <T>(work: () => T): [number, T] => {
  const started = performance.now();
  const value = work();
  return [performance.now() - started, value];
};

const AXIS = {
  tag: 'wght',
  name: 'Weight',
  minimum: 400,
  default: 400,
  maximum: 700,
  hidden: false,
  map: [],
  labels: {},
};

/** A variable font of 1,500 glyphs in four masters, from its designspace: ours, and the general Python font library’s. */
export function benchVariable(): void {
  const folder = mkdtempSync(join(tmpdir(), 'wendril-bench-variable-'));
  const project: Project = { ...largeProject(1500, 4), axes: [AXIS] };
  for (const [path, bytes] of projectFiles(project)) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), bytes);
  }
  const source = join(folder, 'project.designspace');
  const variable = (of: Project, cache = new CastCache()) => {
    const main = of.masters[0]!.id;
    const font = castFont(of, { flavour: 'ttf', place: { master: main }, variable: true, blanks: true, cache });
    if (!font.ok) throw new Error(font.reason);
    return font.value;
  };
  const rounds = Array.from({ length: 8 }, () => time(() => variable(openSource(source, { keep: false })))[0]).slice(3);
  const cache = new CastCache();
  variable(project, cache);
  const moved = movePoints(project, { at: { glyph: 'g40', master: 'm1' }, points: ['0:0'], dx: 3, dy: 0 });
  const [after] = time(() => moved.ok && variable(moved.project, cache));
  const whole = [0, 1, 2].map(
    () =>
      time(() =>
        execFileSync(
          'bin/wendril.mjs',
          ['cast', source, '--out', folder, '--format', 'ttf', '--variable', '--blanks'],
          {
            stdio: ['ignore', 'pipe', 'ignore'],
          },
        ),
      )[0],
  );
  const rows: Row[] = [{ what: 'the same after one edit', budget: 'none', measured: milliseconds(after), met: true }];
  const reference = join(folder, 'reference.ttf');
  const runs = [0, 1, 2].map(() =>
    time(() => spawnSync('/usr/bin/python3', ['bench/referenceVariable.py', source, reference], { encoding: 'utf8' })),
  );
  const compared = (ours: number, theirs: number) =>
    `${milliseconds(ours)} to ${milliseconds(theirs)}, ${(theirs / ours).toFixed(1)}x`;
  if (runs.every(([, run]) => run.status === 0)) {
    const python = median(runs.map(([, run]) => Number(run.stdout.trim())));
    const command = median(runs.map(([t]) => t));
    const warm = median(rounds);
    rows.unshift(
      {
        what: 'designspace to variable TrueType, warm, to the general Python font library after its imports',
        budget: '10x',
        measured: compared(warm, python),
        met: python / warm >= 10,
      },
      {
        what: 'the same, whole command to whole command',
        budget: '5x',
        measured: compared(median(whole), command),
        met: command / median(whole) >= 5,
      },
      {
        what: `size, the library’s ${statSync(reference).size} bytes`,
        budget: 'no larger',
        measured: `${variable(project).bytes.length} bytes`,
        met: true,
      },
    );
  } else
    rows.push({
      what: `the library is not here: ${runs[0]![1].stderr.slice(-200)}`,
      budget: '',
      measured: milliseconds(median(rounds)),
      met: true,
    });
  printTable('A variable font of 1,500 glyphs in 4 masters', rows);
}
