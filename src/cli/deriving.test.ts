import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../../demo/ready';
import { buildStarter } from '../../demo/starter';
import { readProjectFile, writeProjectFile } from '../core/formats/project/projectFile';
import type { Project } from '../core/project/model';
import { drawingOf, glyphNamed } from '../core/project/queries';
import { removeGlyphs } from '../core/project/removal';
import { sameStructure } from '../core/project/structure';
import { measuredStems } from '../core/reweighting/standard';
import { wendril } from './testing';

const folder = mkdtempSync(join(tmpdir(), 'wendril-deriving-'));
const demo = readyDemo();
const file = join(folder, 'demo.wendril');
const starter = join(folder, 'starter.wendril');
const target = join(folder, 'made.wendril');

beforeAll(() => {
  // Three of its masters, without ligatures: quicker, and something to make.
  const removed = removeGlyphs(demo, {
    ids: demo.glyphOrder.filter((id) => /^f_|\.sc$/.test(demo.glyphs[id]!.name)),
  });
  if (!removed.ok) throw new Error(removed.reason);
  const masters = removed.project.masters.slice(0, 3);
  writeFileSync(file, writeProjectFile({ ...removed.project, masters }));
  writeFileSync(starter, writeProjectFile(buildStarter()));
});

function read(path: string): Project {
  const done = readProjectFile(new Uint8Array(readFileSync(path)), path);
  if (!done.ok) throw new Error(done.reason);
  return done.value;
}

test('small capitals are made from capitals, accents and all, and text has them by its features', async () => {
  const before = JSON.parse((await wendril('derive', 'smallCaps', file, '--json')).out);
  expect(before.glyphs.every((g: { state: string }) => g.state === 'can')).toBe(true);
  const run = await wendril('derive', 'smallCaps', file, target, '--json');
  expect([run.code, run.err]).toEqual([0, '']);
  const told = JSON.parse(run.out);
  expect(told.made).toEqual(expect.arrayContaining(['a.sc', 'aacute.sc', 'zcaron.sc', 'germandbls.sc']));
  expect(told.left).toEqual([]);
  const shaped = await wendril('shape', target, 'žába', '--features', 'smcp', '--json');
  expect(shaped.out).toMatch(/zcaron\.sc.*aacute\.sc.*b\.sc.*a\.sc/s);
  const again = await wendril('derive', 'smallCaps', target, target);
  expect([again.code, again.err]).toEqual([1, expect.stringMatching(/All of this set is drawn already\./)]);
});

test('a second master is begun by stems, on an axis that it brings', async () => {
  const run = await wendril(
    'reweight',
    starter,
    target,
    '--vertical',
    '150',
    '--as',
    'Black',
    '--place',
    'wght=900',
    '--json',
  );
  expect([run.code, run.err]).toEqual([0, '']);
  const told = JSON.parse(run.out);
  expect(told.to.vertical).toBe(150);
  // The contrast is that of the source.
  expect(told.to.horizontal / 150).toBeCloseTo(told.from.horizontal / told.from.vertical, 2);
  const project = read(target);
  expect(project.axes.map((a) => [a.tag, a.minimum, a.default, a.maximum])).toEqual([['wght', 400, 400, 900]]);
  const [regular, black] = project.masters.map((m) => m.id) as [string, string];
  for (const g of Object.values(project.glyphs))
    expect([g.name, sameStructure([drawingOf(g, regular), drawingOf(g, black)])]).toEqual([g.name, true]);
  expect(Math.abs(measuredStems(project, black)!.vertical / 150 - 1)).toBeLessThan(0.09);
  expect(drawingOf(glyphNamed(project, 'n')!, black).advance).toBe(
    drawingOf(glyphNamed(project, 'n')!, regular).advance,
  );
});

test('what cannot be asked for is said in a sentence, and nothing is written', async () => {
  for (const [args, words] of [
    [['derive', 'nothing', file, target], /There is no set “nothing”; there are smallCaps/],
    [['derive', 'smallCaps'], /derive takes a set, a source/],
    [['derive', 'fractions', starter, target], /Nothing could be made: .* not drawn/],
    [['reweight', starter, target], /Say how thick strokes are to be/],
    [['reweight', starter, target, '--vertical', '0'], /vertical/],
    [['reweight', starter, target, '--vertical', '90', '--horizontal', '80', '--contrast', '90'], /two of the three/],
    [['reweight', starter, target, '--vertical', '90', '--width', 'wide'], /--width is keep, counters or a share/],
    [['reweight', starter, target, '--vertical', '90', '--as', 'Bold'], /needs a place/],
    [
      ['reweight', starter, target, '--vertical', '90', '--as', 'Bold', '--place', 'heavy'],
      /--place is an axis and a number/,
    ],
    [['reweight', starter, target, '--vertical', '90', '--from', 'Nobody'], /There is no master “Nobody”/],
  ] as const) {
    const run = await wendril(...args);
    expect([args.join(' '), run.code]).toEqual([args.join(' '), expect.any(Number)]);
    expect(run.code).not.toBe(0);
    expect(run.err).toMatch(words);
    expect(run.err.trim().split('\n')).toHaveLength(1);
  }
});
