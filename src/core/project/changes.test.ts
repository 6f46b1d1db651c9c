import fc from 'fast-check';
import { buildStarter } from '../../../demo/starter';
import { entriesSince, glyphsTouched, noteCast } from './changes';
import type { Entry } from './history';

const entry = (at: number | undefined, ...paths: (string | number)[][]): Entry => ({
  sentence: 'Did it',
  patch: paths.map((path) => ({ path, before: 0, after: 1 })) as unknown as Entry['patch'],
  ...(at !== undefined && { at }),
});

test('entries since a time come in their order, and it is said whether older ones need be asked for', () => {
  const list = [entry(10), entry(20), entry(30), entry(40)];
  expect(entriesSince(list, 25)).toEqual({ found: list.slice(2), all: false });
  expect(entriesSince(list, 10)).toEqual({ found: list, all: true });
  expect(entriesSince(list, 99)).toEqual({ found: [], all: false });
  expect(entriesSince([], 5)).toEqual({ found: [], all: true });
});

test('an entry whose time is not known is older than any; one that could not be read is stepped over', () => {
  expect(entriesSince([entry(30), entry(undefined), entry(40)], 1).found.map((e) => e.at)).toEqual([40]);
  expect(entriesSince([entry(30), undefined, entry(40)], 1)).toMatchObject({
    found: [{ at: 30 }, { at: 40 }],
    all: true,
  });
});

test('whatever the times, what is found is the unbroken end of the list that is new enough', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(50), { maxLength: 12 }), fc.nat(50), (times, since) => {
      const sorted = [...times].sort((a, b) => a - b).map((t) => entry(t));
      const { found, all } = entriesSince(sorted, since);
      expect(found).toEqual(sorted.filter((e) => e.at! >= since));
      expect(all).toBe(found.length === sorted.length);
    }),
  );
});

test('glyphs are touched by what is within them; the order of glyphs and other parts touch none', () => {
  const all = [
    entry(1, ['glyphs', 'g4', 'drawings', 'm1'], ['glyphs', 'g7', 'status']),
    entry(2, ['glyphs']),
    entry(3, ['glyphOrder', 2], ['masters', 0, 'kerning']),
    entry(4, ['glyphs', 'g4', 'name']),
  ];
  expect([...glyphsTouched(all)]).toEqual(['g4', 'g7']);
});

test('noting a cast changes when it was, and what is given with it, and nothing else', () => {
  const project = buildStarter();
  const plain = noteCast(project, { at: 123 });
  expect(plain.ok && plain.project).toEqual({ ...project, settings: { ...project.settings, castAt: 123 } });
  const casting = { at: 124, version: '1.000', files: [], more: 0 };
  const print = { glyphs: { a: 1 }, kerning: { Regular: [0, 7] as const }, rules: {} };
  const noted = noteCast(project, { at: 124, casting, print });
  expect(noted.ok && noted.project.settings).toEqual({
    ...project.settings,
    castAt: 124,
    castings: [casting],
    castPrint: print,
  });
  // Noted again without a print the last one stays.
  if (!noted.ok) throw new Error(noted.reason);
  const again = noteCast(noted.project, { at: 125 });
  expect(again.ok && again.project.settings).toMatchObject({
    castAt: 125,
    castings: [casting],
    castPrint: print,
  });
});
