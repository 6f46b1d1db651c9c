import { readyDemo } from '../../../demo/ready';
import { membersOf } from './classes';
import { projectGround } from './ground';
import { sectionInWords } from './inWords';
import { compileSections, lineAndColumn, lineSpan } from './sections';

const demo = readyDemo();
const none = { replace: '', by: '', before: '', after: '' };

test('a rule in words is written with names of glyphs, its context marked, several as any of them', () => {
  expect(sectionInWords(demo, { ...none, replace: 'f i', by: 'f_i' })).toEqual({
    title: 'f i by f_i',
    text: 'feature calt {\n  sub f i by f_i;\n} calt;\n',
  });
  const section = sectionInWords(demo, { replace: ' a ', by: 'a.ss01', before: 'n  é', after: '1' });
  expect(section?.text).toBe("feature calt {\n  sub [n eacute] a' one by a.ss01;\n} calt;\n");
});

test('a rule in words that is not complete is none; one of glyphs that are not there is told at its place', () => {
  expect(sectionInWords(demo, none)).toBeUndefined();
  expect(sectionInWords(demo, { ...none, replace: 'a' })).toBeUndefined();
  expect(sectionInWords(demo, { ...none, by: 'a', before: 'b' })).toBeUndefined();
  const section = sectionInWords(demo, { ...none, replace: 'a', by: 'a.nowhere', before: '中' })!;
  const { faults } = compileSections([{ id: '1', ...section }], {}, { glyphs: projectGround(demo, 'm1').names });
  expect(faults.map((f) => f.reason).join(' ')).toMatch(/a\.nowhere is not in the project/);
});

test('the members of a class are worked out through classes, ranges and later sections', () => {
  const glyphs = ['a', 'b', 'c', 'd', 'x'];
  const texts = [
    '@Low = [a-c];',
    'feature ss01 { @All = [@Low x]; sub @All by d; } ss01; @Again = [@All d]; @Low = [x];',
  ];
  expect(membersOf(texts, glyphs, '@Low')).toEqual(['x']);
  expect(membersOf(texts, glyphs, '@All')).toEqual(['a', 'b', 'c', 'x']);
  expect(membersOf(texts, glyphs, '@Again')).toEqual(['a', 'b', 'c', 'x', 'd']);
  expect(membersOf(texts, glyphs, '@None')).toEqual([]);
  expect(membersOf(['@Broken = [a', '@Fine = [nowhere b];'], glyphs, '@Fine')).toEqual(['b']);
});

test('lines are found by number, without their ends, and say where they are', () => {
  const text = 'one\n\nthree\nfour';
  expect([1, 2, 3, 4].map((n) => lineSpan(text, n)).map((s) => text.slice(s!.from, s!.to))).toEqual([
    'one',
    '',
    'three',
    'four',
  ]);
  expect(lineSpan(text, 5)).toBeUndefined();
  expect(lineSpan(text, 0)).toBeUndefined();
  for (const n of [1, 2, 3, 4]) expect(lineAndColumn(text, lineSpan(text, n)!.from)).toEqual({ line: n, column: 1 });
});
