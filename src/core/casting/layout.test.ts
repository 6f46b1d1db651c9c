import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../../../demo/ready';
import { name } from '../opentype/name';
import { readSfnt } from '../opentype/sfnt';
import type { Project } from '../project/model';
import { castFont } from './font';

const demo = readyDemo();
const folder = mkdtempSync(join(tmpdir(), 'wendril-rules-'));

function cast(project: Project) {
  const font = castFont(project, { flavour: 'otf', place: { master: 'm1' } });
  if (!font.ok) throw new Error(font.reason);
  const path = join(folder, 'rules.otf');
  writeFileSync(path, font.value.bytes);
  const shaped = (text: string, ...settings: string[]): string[] =>
    JSON.parse(
      execFileSync(process.execPath, ['scripts/shape.mjs', path, text, ...settings], { encoding: 'utf8' }),
    ).map((g: { name: string }) => g.name);
  return { ...font.value, shaped };
}
const withText = (text: string): Project => ({
  ...demo,
  features: { ...demo.features, sections: [{ id: 's', title: 'Trial', options: {}, text }] },
});

test('the demo’s rules work: ligatures, small capitals, figures, fractions, stylistic sets', () => {
  const { notes, shaped } = cast(demo);
  expect(notes.filter((n) => n.place?.table === 'GSUB')).toEqual([]);
  expect(shaped('offi ff')).toEqual(['o', 'f_f_i', 'space', 'f_f']);
  expect(shaped('Ab', 'smcp=1')).toEqual(['A', 'b.sc']);
  expect(shaped('Ab', 'smcp=1', 'c2sc=1')).toEqual(['a.sc', 'b.sc']);
  expect(shaped('(H)', 'case=1')).toEqual(['parenleft.case', 'H', 'parenright.case']);
  expect(shaped('07', 'onum=1')).toEqual(['zero.onum', 'seven.onum']);
  expect(shaped('07', 'pnum=1')).toEqual(['zero.pnum', 'seven.pnum']);
  expect(shaped('07', 'pnum=1', 'tnum=1', 'onum=0')).toEqual(['zero', 'seven']);
  expect(shaped('x2', 'sups=1')).toEqual(['x', 'twosuperior']);
  expect(shaped('12/345', 'frac=1')).toEqual([
    'one.numr',
    'two.numr',
    'fraction',
    'three.dnom',
    'four.dnom',
    'five.dnom',
  ]);
  expect(shaped('agy', 'ss01=1', 'ss03=1')).toEqual(['a.ss01', 'g', 'y.ss03']);
  expect(shaped('i\u0301')).toEqual(['iacute']);
});

test('names of stylistic sets are in the font, for its menus', () => {
  const records = name.read(readSfnt(cast(demo).bytes).tables.get('name')!);
  const own = records.filter((r) => r.nameID >= 256).map((r) => r.value);
  expect(own).toEqual(['Round a', 'Level-tailed g', 'Straight y', 'Raised colon in times']);
});

test('what is wrong in the text is told with its section and line; the rest works', () => {
  const { notes, shaped } = cast(
    withText('feature liga {\n  sub f f by f_f;\n  sub f j by f_j;\n  sub a b c;\n} liga;'),
  );
  expect(notes.filter((n) => n.place?.table === 'GSUB').map((n) => n.reason)).toEqual([
    'Trial, line 4: A substitution says “by” what or “from” which glyphs before “;”.',
    expect.stringMatching(/^Trial, line 3: Glyph f_j is not in the project\. Near: /),
  ]);
  expect(shaped('ff')).toEqual(['f_f']);
});

test('kerning and marks of the project stand beside rules of the text, in every script, unless the text has its own', () => {
  const own = cast(withText('languagesystem DFLT dflt; languagesystem latn dflt; feature ss01 { pos A -40; } ss01;'));
  const advances = (font: ReturnType<typeof cast>, ...settings: string[]): number[] => {
    const path = join(folder, 'kern.otf');
    writeFileSync(path, font.bytes);
    return JSON.parse(
      execFileSync(process.execPath, ['scripts/shape.mjs', path, 'AV', '--advances', ...settings], {
        encoding: 'utf8',
      }),
    );
  };
  const plain = advances(own, 'kern=0')[0]!;
  const kerned = advances(own)[0]!;
  expect(kerned).toBeLessThan(plain - 20);
  expect(advances(own, 'ss01=1')[0]).toBe(kerned - 40);
  const text = cast(withText('feature kern { pos A V 11; } kern;'));
  expect(advances(text)[0]).toBe(plain + 11);
  expect(text.notes.map((n) => n.reason)).toContain(
    'The rules have a feature kern of their own, so the kerning of Kern is left out.',
  );
});

test('the same rules give the same bytes, and a section that is off is left out', () => {
  expect(cast(demo).bytes).toEqual(cast(demo).bytes);
  const sections = demo.features.sections.map((s) => (s.automatic === 'liga' ? { ...s, options: { off: true } } : s));
  expect(cast({ ...demo, features: { ...demo.features, sections } }).shaped('ff')).toEqual(['f', 'f']);
});
