import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildStarter } from '../../demo/starter';
import { writeProjectFile } from '../core/formats/project/projectFile';
import { acceptFindings } from '../core/preflight/judged';
import type { Drawing } from '../core/project/model';
import { withChanged } from '../core/testing/change';
import { wendril } from './testing';

const folder = mkdtempSync(join(tmpdir(), 'wendril-check-'));
const starter = buildStarter();
const [master] = starter.masters;
const stray = (d: Drawing): Partial<Drawing> => ({
  contours: [...d.contours, { closed: true, points: [{ x: 9, y: 9, type: 'line' }] }],
});
const open = (d: Drawing): Partial<Drawing> => ({ contours: d.contours.map((c) => ({ ...c, closed: false })) });
const faulty = withChanged(withChanged(starter, 'n', master!.id, stray), 'o', master!.id, open);
const source = join(folder, 'Faulty.wendril');
const accepting = join(folder, 'Accepting.wendril');

type Told = {
  kind: string;
  level: string;
  glyph?: string;
  contour?: number;
  point?: number;
  masters?: string[];
  x?: number;
};
const findings = (out: string): Told[] => (JSON.parse(out) as { findings: Told[] }[]).flatMap((f) => f.findings);

beforeAll(() => {
  writeFileSync(source, writeProjectFile(faulty));
  const accepted = acceptFindings(faulty, { kind: 'outlines/open', count: 99, reason: 'Strokes' });
  if (accepted.ok) writeFileSync(accepting, writeProjectFile(accepted.project));
});

test('check tells each finding with its place, and ends by the limit', async () => {
  const run = await wendril('check', source, '--only', 'outlines');
  expect(run.code).toBe(1);
  expect(run.out).toMatch(/^.*Faulty\.wendril: \d+ errors?, \d+ warning/);
  expect(run.out).toMatch(/ {2}error {2}o, contour 1, point 1: A contour is open.* \[outlines\/open\]/);
  expect(run.out).toMatch(/ {2}warning {2}n, contour \d+, point 1: A point stands alone\. {2}\[outlines\/stray\]/);
  expect((await wendril('check', source, '--only', 'outlines', '--fail-on', 'never')).code).toBe(0);
  expect((await wendril('check', source, '--only', 'lines', '--fail-on', 'error')).code).toBe(0);
});

test('what the project accepts is left out, and told on request', async () => {
  const kinds = async (...more: string[]) =>
    findings((await wendril('check', accepting, '--only', 'outlines', '--json', ...more)).out).map((f) => f.kind);
  expect(await kinds()).not.toContain('outlines/open');
  expect(await kinds()).toContain('outlines/stray');
  expect(await kinds('--accepted')).toContain('outlines/open');
});

test('mended into another source, nothing that a machine can mend is left of it', async () => {
  const target = join(folder, 'Mended.ufo');
  const before = readFileSync(source);
  const run = await wendril('check', source, '--only', 'outlines', '--mend', '--out', target, '--json');
  expect(run.err).toMatch(/mended \d+ findings/);
  expect(findings(run.out).filter((f) => /stray|open/.test(f.kind))).toEqual([]);
  expect(readFileSync(source).equals(before)).toBe(true);
  const second = await wendril('check', target, '--only', 'outlines', '--json');
  expect(second.err).toBe('');
  const again = findings(second.out);
  expect(again.filter((f) => /stray|open/.test(f.kind))).toEqual([]);
});

test('a log for build systems names rules, places and levels', async () => {
  const log = JSON.parse((await wendril('check', source, '--sarif')).out) as {
    version: string;
    runs: {
      tool: { driver: { name: string; rules: { id: string }[] } };
      results: {
        ruleId: string;
        ruleIndex: number;
        level: string;
        message: { text: string };
        locations: { physicalLocation: { artifactLocation: { uri: string } }; logicalLocations?: { name: string }[] }[];
      }[];
    }[];
  };
  const [run] = log.runs;
  expect([log.version, run!.tool.driver.name]).toEqual(['2.1.0', 'Wendril']);
  const found = run!.results.find((r) => r.ruleId === 'outlines/open')!;
  expect(found.level).toBe('error');
  expect(run!.tool.driver.rules[found.ruleIndex]!.id).toBe('outlines/open');
  expect(found.locations[0]!.logicalLocations![0]!.name).toBe('o');
  expect(found.locations[0]!.physicalLocation.artifactLocation.uri).toMatch(/Faulty\.wendril$/);
});

test('a finished font is checked as a file too, and one that cannot be read is named without keeping the others', async () => {
  const fonts = join(folder, 'fonts');
  await wendril('cast', join(folder, 'Faulty.wendril'), '--out', fonts, '--format', 'ttf', '--blanks');
  const font = join(fonts, 'VelmarrowSans-Regular.ttf');
  const bytes = readFileSync(font);
  const broken = join(folder, 'Broken.ttf');
  // Another checksum in the head table of the directory.
  const harmed = Uint8Array.from(bytes);
  harmed[harmed.length - 1]! ^= 0xff;
  writeFileSync(broken, harmed);
  const none = join(folder, 'none.ufo');
  const run = await wendril('check', broken, none, font, '--only', 'files');
  expect(run.code).toBe(1);
  expect(run.err).toMatch(/none\.ufo/);
  expect(run.out).toMatch(/Broken\.ttf: 1 error[\s\S]*Checksum/);
  expect(run.out).toMatch(/VelmarrowSans-Regular\.ttf: nothing found/);
});

test('what cannot be meant is refused in a sentence', async () => {
  for (const [args, why] of [
    [['check'], /one or more/],
    [['check', source, '--only', 'colours'], /--only is one of outlines/],
    [['check', source, '--fail-on', 'often'], /--fail-on is one of/],
    [['check', source, '--mend'], /needs --out/],
    [['check', source, '--out', 'x.ufo'], /--mend/],
    [['check', source, '--mend', '--out', 'x.doc'], /ending/],
  ] as const) {
    const run = await wendril(...args);
    expect([run.code, run.out]).toEqual([1, '']);
    expect(run.err).toMatch(why);
  }
});
