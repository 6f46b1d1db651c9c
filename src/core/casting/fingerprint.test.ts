import { readyDemo } from '../../../demo/ready';
import { noteCast } from '../project/changes';
import type { Project } from '../project/model';
import { changesBetween, fingerprintOf } from './fingerprint';
import { before, castingOf } from './history';

const demo = readyDemo();
const print = fingerprintOf(demo);
const o = Object.values(demo.glyphs).find((g) => g.name === 'o')!;
const since = (project: Project) => changesBetween(print, fingerprintOf(project));

test('nothing has changed in a project that is the same, nor by what fonts do not show', () => {
  expect(since(demo)).toEqual([]);
  expect(since({ ...demo, texts: { ...demo.texts, galley: 'another' } })).toEqual([]);
  expect(since({ ...demo, glyphs: { ...demo.glyphs, [o.id]: { ...o, note: 'round' } } })).toEqual([]);
});

test('what has changed is told by what a designer did: drawings in any master, glyphs, kerning, rules', () => {
  const drawn = { ...o, drawings: { ...o.drawings, m3: { ...o.drawings.m3!, advance: 999 } } };
  expect(since({ ...demo, glyphs: { ...demo.glyphs, [o.id]: drawn } })).toEqual(['1 glyph drawn or spaced anew: o.']);
  const { [o.id]: _, ...rest } = demo.glyphs;
  const fewer = { ...demo, glyphs: rest, glyphOrder: demo.glyphOrder.filter((id) => id !== o.id) };
  expect(since(fewer)).toEqual(['1 glyph fewer: o.']);
  expect(changesBetween(fingerprintOf(fewer), print)).toEqual(['1 glyph more: o.']);
  const [first] = demo.masters;
  const key = Object.keys(first!.kerning)[0]!;
  const { [key]: gone, ...kerning } = first!.kerning;
  const masters = (own: Record<string, number>) => ({
    ...demo,
    masters: [{ ...first!, kerning: own }, ...demo.masters.slice(1)],
  });
  expect(since(masters(kerning))).toEqual([`Kerning changed in ${first!.name}: 1 pair fewer.`]);
  expect(since(masters({ ...kerning, [key]: gone! - 1 }))).toEqual([`Kerning changed in ${first!.name}.`]);
  const [section, ...others] = demo.features.sections;
  const sections = [{ ...section!, text: `${section!.text}\n# more` }, ...others];
  expect(since({ ...demo, features: { ...demo.features, sections } })).toEqual([`Rules changed: ${section!.title}.`]);
});

test('castings are remembered up to a number, and a file is held against the casting before', () => {
  const file = (bytes: number, fileName = 'A.otf') => ({
    fileName,
    bytes: new Uint8Array(bytes),
    tables: { 'CFF ': bytes },
    glyphs: 3,
    kerningPairs: 1,
  });
  let project: Project = demo;
  for (let i = 1; i <= 15; i++) {
    const noted = noteCast(project, { at: i, casting: castingOf(project, [file(i * 100)], i), print });
    if (!noted.ok) throw new Error(noted.reason);
    project = noted.project;
  }
  const castings = project.settings.castings!;
  expect(castings.map((c) => c.at)).toEqual([4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15]);
  expect(project.settings.castPrint).toEqual(print);
  expect(before(castings, 15, 'A.otf')).toMatchObject({ bytes: 1400, tables: { 'CFF ': 1400 } });
  expect(before(castings, 15, 'B.otf')).toBeUndefined();
  const many = castingOf(
    demo,
    Array.from({ length: 90 }, (_, i) => file(1, `${i}.otf`)),
    1,
  );
  expect([many.files.length, many.more]).toEqual([80, 10]);
});
