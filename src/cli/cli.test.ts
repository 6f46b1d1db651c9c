import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { buildStarter } from '../../demo/starter';
import { castFont } from '../core/casting/font';
import { packZip } from '../core/formats/fileTree';
import { projectFiles, writeProjectFile } from '../core/formats/projectFile';

const folder = mkdtempSync(join(tmpdir(), 'wendril-cli-'));
const files = projectFiles(buildStarter());
const ufoFolder = 'VelmarrowSans-Regular.ufo';

function wendril(...args: string[]) {
  const run = spawnSync(process.execPath, ['bin/wendril.mjs', ...args], { encoding: 'utf8' });
  return { code: run.status, out: run.stdout, err: run.stderr };
}

beforeAll(() => {
  for (const [path, bytes] of files) {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), bytes);
  }
  writeFileSync(join(folder, 'demo.wendril'), writeProjectFile(buildStarter()));
  writeFileSync(join(folder, 'demo.ufoz'), packZip(new Map([...files].filter(([p]) => p.startsWith(ufoFolder)))));
});

test('every kind of source gives the same bytes as the core', () => {
  const font = castFont(buildStarter(), { flavour: 'otf', master: 'm1' });
  if (!font.ok) throw new Error(font.reason);
  for (const [i, source] of ['demo.wendril', 'demo.ufoz', ufoFolder, 'project.designspace'].entries()) {
    const out = join(folder, `out${i}`);
    const run = wendril('cast', join(folder, source), '--out', out, '--format', 'otf');
    expect(run).toEqual({ code: 0, out: `${join(out, 'VelmarrowSans-Regular.otf')}\n`, err: '' });
    expect(Buffer.compare(readFileSync(join(out, 'VelmarrowSans-Regular.otf')), font.value.bytes)).toBe(0);
  }
});

test('all formats, and facts about each', () => {
  const out = join(folder, 'all');
  expect(wendril('cast', join(folder, 'demo.wendril'), '--out', out, '--keep-overlaps').code).toBe(0);
  expect(readdirSync(out).sort()).toEqual(['VelmarrowSans-Regular.otf', 'VelmarrowSans-Regular.ttf', 'VelmarrowSans-Regular.woff2']);
  for (const format of ['otf', 'ttf', 'woff2']) {
    const run = wendril('info', join(out, `VelmarrowSans-Regular.${format}`), '--json');
    expect(JSON.parse(run.out)).toMatchObject({ format, glyphs: 76, unitsPerEm: 1000, weightClass: 400, names: { 1: 'Velmarrow Sans', 6: 'VelmarrowSans-Regular' } });
  }
  expect(JSON.parse(wendril('info', join(folder, ufoFolder), '--json').out)).toMatchObject({
    format: 'source',
    family: 'Velmarrow Sans',
    glyphs: 76,
    masters: [{ name: 'Regular' }],
  });
});

test('a designspace may name sources beside its own folder', () => {
  mkdirSync(join(folder, 'space'), { recursive: true });
  const text = new TextDecoder().decode(files.get('project.designspace')).replace(`filename="${ufoFolder}"`, `filename="../${ufoFolder}"`);
  writeFileSync(join(folder, 'space/beside.designspace'), text);
  const out = join(folder, 'beside');
  expect(wendril('cast', join(folder, 'space/beside.designspace'), '--out', out, '--format', 'otf')).toMatchObject({ code: 0, err: '' });
  expect(readFileSync(join(out, 'VelmarrowSans-Regular.otf'))).toEqual(readFileSync(join(folder, 'out0/VelmarrowSans-Regular.otf')));
});

test('what goes wrong is one sentence on standard error and exit code 1', () => {
  const fails = (...args: string[]) => {
    const run = wendril(...args);
    expect(run.code).toBe(1);
    expect(run.out).toBe('');
    expect(run.err.trimEnd().split('\n')).toHaveLength(1);
    return run.err.trim();
  };
  writeFileSync(join(folder, 'empty.wendril'), '');
  writeFileSync(join(folder, 'letter.ttf'), 'Dear Sir, this is no font.');
  expect(fails('cast', join(folder, 'none.ufo'), '--out', folder)).toMatch(/none\.ufo does not exist\.$/);
  expect(fails('cast', join(folder, 'empty.wendril'), '--out', folder)).toBe('wendril: empty.wendril is not a zip file.');
  expect(fails('cast', join(folder, 'demo.wendril'))).toMatch(/needs --out DIR/);
  expect(fails('cast', join(folder, 'demo.wendril'), '--out', folder, '--format', 'pfb')).toMatch(/“pfb” is not a format; choose from otf, ttf, woff2/);
  expect(fails('info', join(folder, 'letter.ttf'), '--json')).toMatch(/letter\.ttf: This is not an OpenType or TrueType font file\.$/);
  expect(fails('polish')).toMatch(/no command “polish”/);
  expect(fails('cast', join(folder, 'demo.wendril'), '--loud')).toMatch(/--loud/);
});

test('help needs no arguments and exits with 0', () => {
  expect(wendril().out).toContain('wendril cast SOURCE');
  expect(wendril('--help').code).toBe(0);
});
