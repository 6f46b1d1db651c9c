import fc from 'fast-check';
import type { Glyph } from '../project/model';
import { finalNames, namesNote } from './glyphNames';

const called = (names: readonly string[], production: Readonly<Record<string, string>> = {}) =>
  names.map((name) => ({
    glyph: { name, ...(Object.hasOwn(production, name) && { productionName: production[name] }) } as Glyph,
  }));

test('names that a font cannot have are made legal and unique, and told', () => {
  const long = 'x'.repeat(64);
  const entries = called(['.notdef', 'A B', 'A_B', 'é', `${long}1`, `${long}2`, 'a(b)', '😀'], { A_B: 'A_B' });
  const names = finalNames(entries);
  expect(names).toEqual([
    '.notdef',
    'A_B.1',
    'A_B',
    'uni00E9',
    'x'.repeat(63),
    `${'x'.repeat(61)}.1`,
    'a_b_',
    'u1F600',
  ]);
  expect(namesNote(entries, names)?.reason).toMatch(/^6 glyphs cannot be called that .*A B → A_B\.1, é → uni00E9/);
});

test('whoever is right keeps the name, wherever it stands', () => {
  expect(finalNames(called(['a b', 'a_b.1', 'a_b']))).toEqual(['a_b.2', 'a_b.1', 'a_b']);
  expect(finalNames(called(['twin', 'twin', 'twin']))).toEqual(['twin', 'twin.1', 'twin.2']);
  const plain = called(['a', 'b.alt', 'uni0416-x']);
  expect(namesNote(plain, finalNames(plain))).toBeUndefined();
});

test('any names come out unique, of printable ASCII and short enough', () => {
  fc.assert(
    fc.property(fc.array(fc.string({ maxLength: 80, unit: 'grapheme' }), { maxLength: 40 }), (names) => {
      const out = finalNames(called(names));
      expect(new Set(out).size).toBe(names.length);
      for (const name of out) expect(name).toMatch(/^[\x21-\x7e]{1,63}$/);
    }),
  );
});
