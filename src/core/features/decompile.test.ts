import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readyDemo } from '../../../demo/ready';
import { castFont } from '../casting/font';
import { projectFromFont } from '../formats/font/projectFromFont';
import { readSfnt } from '../opentype/sfnt';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { removeGlyphs } from '../project/removal';
import { CONSTRUCTS, CONSTRUCT_GLYPHS as GLYPHS } from '../testing/featureConstructs';
import { carriesSubstitutions, rulesFromFont } from './adopt';
import { compileFeatures } from './compile';
import { decompilePositions, decompileSubstitutions } from './decompile';
import { parseFeatures } from './parse';
import { compileSections } from './sections';
import { writeRules } from './write';

const sections = (list: readonly { title: string; text: string }[]) => list.map((s, i) => ({ id: String(i), ...s }));

test('text to tables to text to tables: nothing moves any more, for every kind of substitution', () => {
  let compared = 0;
  for (const [name, text] of CONSTRUCTS) {
    const first = compileFeatures([{ tree: parseFeatures(text) }], { glyphs: GLYPHS });
    const gsub = writeRules(first.GSUB, 'GSUB');
    if (!gsub || first.definitions.attachmentClasses.length + first.definitions.filterSets.length > 0) continue;
    const texts = [text];
    let bytes = gsub;
    for (let round = 0; round < 3; round++) {
      const back = decompileSubstitutions(bytes, undefined, GLYPHS);
      if (!back.ok) throw new Error(`${name}: ${back.reason}`);
      const again = compileSections(sections(back.value), {}, { glyphs: GLYPHS });
      expect([name, again.faults]).toEqual([name, []]);
      texts.push(back.value.map((w) => w.text).join('\n'));
      bytes = writeRules(again.GSUB, 'GSUB')!;
    }
    // The first time lookups are put behind those that they call; from then on nothing moves.
    expect([name, texts[3]]).toEqual([name, texts[2]]);
    compared++;
  }
  expect(compared).toBeGreaterThan(25);
});

test('a font that was opened shapes the same when its substitutions are rules, and keeps them when glyphs go', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wendril-adopt-'));
  const cast = (project: Project, file: string) => {
    const font = castFont(project, { flavour: 'otf', place: { master: project.masters[0]!.id }, blanks: true });
    if (!font.ok) throw new Error(font.reason);
    writeFileSync(join(folder, file), font.value.bytes);
    const shaped = (text: string, ...settings: string[]): string[] =>
      JSON.parse(
        execFileSync(process.execPath, ['scripts/shape.mjs', join(folder, file), text, ...settings], {
          encoding: 'utf8',
        }),
      ).map((g: { name: string }) => g.name);
    return { ...font.value, shaped };
  };
  const source = cast(readyDemo(), 'source.otf');
  const read = projectFromFont(source.bytes, 'source.otf');
  if (!read.ok) throw new Error(read.reason);
  expect(read.value.notes.join(' ')).toMatch(/in Features they become rules/);
  const opened = read.value.project;
  expect(carriesSubstitutions(opened)).toBe(true);
  const adopted = rulesFromFont(opened, {});
  if (!adopted.ok) throw new Error(adopted.reason);
  expect(carriesSubstitutions(adopted.project)).toBe(false);
  const again = cast(adopted.project, 'adopted.otf');
  expect(again.notes.filter((n) => n.place?.table === 'GSUB')).toEqual([]);
  for (const [text, ...settings] of [
    ['office flat ff i\u0301'],
    ['Hamborn', 'smcp=1', 'c2sc=1'],
    ['12/345 0', 'frac=1'],
    ['0189', 'onum=1'],
    ['agy', 'ss01=1', 'ss02=1', 'ss03=1'],
    ['(A-B)', 'case=1'],
  ] as [string, ...string[]][])
    expect([text, again.shaped(text, ...settings)]).toEqual([text, source.shaped(text, ...settings)]);
  // What was carried went with the first glyph that goes; as rules it stays.
  const q = glyphNamed(adopted.project, 'Q')!;
  const fewer = removeGlyphs(adopted.project, { ids: [q.id] });
  if (!fewer.ok) throw new Error(fewer.reason);
  expect(cast(fewer.project, 'fewer.otf').shaped('office')).toEqual(source.shaped('office'));
  expect(rulesFromFont(adopted.project, {})).toMatchObject({ ok: false });
  expect(readSfnt(again.bytes).tables.has('GDEF')).toBe(true);
});

test('rules of one’s own beside carried substitutions are not dropped without a word', () => {
  const font = castFont(readyDemo(), { flavour: 'ttf', place: { master: 'm1' }, keepOverlaps: true, blanks: true });
  if (!font.ok) throw new Error(font.reason);
  const read = projectFromFont(font.value.bytes, 'x.ttf');
  if (!read.ok) throw new Error(read.reason);
  const own = [{ id: 's', title: 'Mine', options: {}, text: 'feature ss09 { sub a by b; } ss09;' }];
  const project = { ...read.value.project, features: { ...read.value.project.features, sections: own } };
  const cast = castFont(project, { flavour: 'ttf', place: { master: project.masters[0]!.id }, keepOverlaps: true });
  expect(cast.ok && cast.value.notes.map((n) => n.reason).join(' ')).toMatch(/project’s own rules are left out/);
});

test('positions that are neither kerning nor marks come in as rules, and work again; what is by context too', () => {
  const text = [
    'feature cpsp { pos [A B C] <5 0 10 0>; } cpsp;',
    'feature curs { lookupflag RightToLeft; pos cursive a <anchor 0 10> <anchor 400 20>; pos cursive b <anchor NULL> <anchor 300 0>; } curs;',
    "feature ss05 { pos x' 20 y; pos a b -9; pos [c d] [e f] -7; subtable; pos [c] [e g] 3; } ss05;",
    "feature kern { pos A' -30 [V W] x; } kern;",
  ].join('\n');
  const first = compileFeatures([{ tree: parseFeatures(text) }], { glyphs: GLYPHS });
  const found = decompilePositions(writeRules(first.GPOS, 'GPOS')!, undefined, GLYPHS);
  if (!found.ok) throw new Error(found.reason);
  expect(found.value.flatMap((s) => (s.beside ? [s.tag] : []))).toEqual(['kern']);
  const second = compileSections(sections(found.value), {}, { glyphs: GLYPHS });
  expect(second.faults).toEqual([]);
  expect([...second.tags].sort()).toEqual(['cpsp', 'curs', 'kern', 'ss05']);
  const again = decompilePositions(writeRules(second.GPOS, 'GPOS')!, undefined, GLYPHS);
  expect(again.ok && again.value.map((s) => s.text.replace(/\d+/g, 'n'))).toEqual(
    found.value.map((s) => s.text.replace(/\d+/g, 'n')),
  );
});

test('kerning by context goes beside the pairs of Kern; marks of a feature with contexts are rules whole, attached as before', () => {
  const text = [
    'markClass [acutecomb gravecomb] <anchor 5 500> @TOP; markClass dotbelowcomb <anchor 0 -10> @LOW;',
    'lookup high { pos base a <anchor 250 700> mark @TOP; } high;',
    "feature mark { pos base a <anchor 240 480> mark @TOP <anchor 250 0> mark @LOW; pos base b <anchor 230 690> mark @TOP; pos ligature f_i <anchor 1 2> mark @TOP ligComponent <anchor NULL> ligComponent <anchor 3 4> mark @LOW; pos x a' acutecomb' lookup high; } mark;",
    'feature mkmk { pos mark acutecomb <anchor 5 720> mark @TOP; } mkmk;',
    'feature kern { pos A V -50; pos T o -40; } kern;',
    "feature kern { pos A' -30 [V W] x; } kern;",
  ].join('\n');
  const first = compileFeatures([{ tree: parseFeatures(text) }], { glyphs: GLYPHS });
  expect(first.faults).toEqual([]);
  const found = decompilePositions(writeRules(first.GPOS, 'GPOS')!, undefined, GLYPHS);
  if (!found.ok) throw new Error(found.reason);
  // The pairs are Kern’s.
  expect(found.value.flatMap((s) => s.tag ?? [])).toEqual(['kern', 'mark', 'mkmk']);
  expect(found.value.map((s) => s.text).join('\n')).not.toMatch(/pos A V|pos T o/);
  const second = compileSections(sections(found.value), {}, { glyphs: GLYPHS });
  expect(second.faults).toEqual([]);
  const again = decompilePositions(writeRules(second.GPOS, 'GPOS')!, undefined, GLYPHS);
  const plain = (list: readonly { text: string }[]) => list.map((s) => s.text.replace(/(move|Called|_)\d+/g, '$1n'));
  expect(again.ok && plain(again.value)).toEqual(plain(found.value));
});
