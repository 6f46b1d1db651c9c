import fc from 'fast-check';
import { styleNames } from '../fontfacts/names';
import { LONGEST_LINKED, longNames, shortened } from './length';

const named = (family: string, style: string, info = {}) =>
  styleNames({ family: { name: family, versionMajor: 1, versionMinor: 0, names: {} } }, { name: style, info });

test('names that fit are left alone; a long one is told with a shorter that says the same', () => {
  expect(longNames(named('Velmarrow Sans', 'Narrow Bold'))).toEqual([]);
  const [long, ...more] = longNames(named('Velmarrow Sans Display', 'Condensed Extra Light'));
  expect(more).toEqual([]);
  expect(long!.reason).toMatch(/“Velmarrow Sans Display Condensed Extra Light” has 44 characters; .* show 31/);
  expect(long!.mend).toEqual({ fact: 'styleMapFamilyName', value: 'Velmarrow Sans Display Cn XLt' });
  expect(
    longNames(
      named('Velmarrow Sans Display', 'Light', { styleMapFamilyName: 'Something Else That Is Far Too Long' }),
    )[0],
  ).not.toHaveProperty('mend');
});

test('a PostScript name that the rule would cut is said, with one that says all', () => {
  const family = 'Velmarrow Of The Long And Winding Valley Beside The Railway';
  const found = longNames(named(family, 'Condensed Extra Light')).find((n) => n.reason.includes('PostScript'))!;
  expect(found.reason).toMatch(/cut after 63/);
  expect(found.mend).toEqual({
    fact: 'postscriptFontName',
    value: 'VelmarrowOfTheLongAndWindingValleyBesideTheRailway-CnExtraLt',
  });
});

test('what is shortened fits, keeps the family, and shortens no more than it must', () => {
  const words = fc.constantFrom('Condensed', 'Extra Light', 'Medium', 'Heavy', 'Italic', 'Narrow', 'Bold', 'Semi Bold');
  fc.assert(
    fc.property(
      fc.string({ minLength: 3, maxLength: 20 }).filter((s) => s.trim() !== ''),
      fc.array(words, { maxLength: 4 }),
      (family, style) => {
        const name = [family, ...style].join(' ');
        const short = shortened(name, family, LONGEST_LINKED);
        if (short === undefined) return;
        expect(short.length).toBeLessThanOrEqual(LONGEST_LINKED);
        expect(short.startsWith(family)).toBe(true);
        if (name.length <= LONGEST_LINKED) expect(short).toBe(name);
      },
    ),
  );
});
