import fc from 'fast-check';
import { readyDemo } from '../../../demo/ready';
import type { GlyphId, Project } from '../project/model';
import { type PairSide, pairKey } from '../project/pairs';
import { glyphForCodePoint } from '../project/queries';
import { shapedByHarfBuzz } from '../testing/shaping';
import { castFont } from './font';

/** Kerning and the combining marks between letters, held against HarfBuzz. */

const whole = readyDemo();
const LETTERS = [...'AHOTVLP'];
const MARKS = ['\u0301', '\u0308', '\u030C'];
/** Nothing else is cast, so that many fonts can be made. */
const demo: Project = {
  ...whole,
  glyphs: Object.fromEntries(
    Object.entries(whole.glyphs).map(([id, g]) => {
      const cast = g.unicodes.some((code) => [...LETTERS, ...MARKS].includes(String.fromCodePoint(code)));
      return [id, { ...g, cast }];
    }),
  ),
};
const idOf = (c: string): GlyphId => glyphForCodePoint(demo, c.codePointAt(0)!)!.id;
const all = [...LETTERS, ...MARKS].map(idOf);

type Pair = readonly [PairSide, PairSide, number];

/** The value of two glyphs, by the document’s order. */
function wanted({ groups }: Project, pairs: readonly Pair[], first: GlyphId, second: GlyphId): number {
  const sides = (id: GlyphId, of: 'first' | 'second'): PairSide[] => [
    { kind: 'glyph', id },
    ...groups
      .filter((g) => g.side === of && g.members.includes(id))
      .map((g): PairSide => ({ kind: 'group', id: g.id })),
  ];
  for (const a of sides(first, 'first'))
    for (const b of sides(second, 'second')) {
      const found = pairs.findLast(([x, y]) => pairKey(x, y) === pairKey(a, b));
      if (found) return found[2];
    }
  return 0;
}

const group = (id: string) => fc.subarray(all, { minLength: 1 }).map((members) => ({ id, members: [...members] }));
const side = (groupId: string) =>
  fc.oneof(
    fc.constantFrom(...all).map((id): PairSide => ({ kind: 'glyph', id })),
    fc.constant<PairSide>({ kind: 'group', id: groupId }),
  );
const cases = fc.record({
  first: group('one'),
  second: group('two'),
  pairs: fc.array(fc.tuple(side('one'), side('two'), fc.integer({ min: -90, max: 90 })), {
    minLength: 1,
    maxLength: 14,
  }),
  stops: fc.boolean(),
});

test('a pair holds across marks, unless it is to stop at them; pairs with a mark hold as well', () => {
  let moved = 0;
  fc.assert(
    fc.property(cases, ({ first, second, pairs, stops }) => {
      const project: Project = {
        ...demo,
        axes: [],
        instances: [],
        features: { ...demo.features, sections: [] },
        settings: { ...demo.settings, kerningStopsAtMarks: stops },
        groups: [
          { ...first, side: 'first', name: 'one' },
          { ...second, side: 'second', name: 'two' },
        ],
        masters: [
          {
            ...demo.masters[0]!,
            place: {},
            kerning: Object.fromEntries(pairs.map(([a, b, v]) => [pairKey(a, b), v])),
          },
        ],
      };
      const font = castFont(project, { flavour: 'otf', place: { master: demo.masters[0]!.id }, keepOverlaps: true });
      if (!font.ok) throw new Error(font.reason);
      const texts = LETTERS.flatMap((a) => LETTERS.flatMap((b) => ['', ...MARKS].map((m) => `${a}${m}${b}`)));
      // Letters that are composed with their marks would be one glyph.
      const apart = texts.filter((t) => t.length === t.normalize('NFC').length);
      const off = ['ccmp=0', 'locl=0'];
      const [on, none] = [off, [...off, 'kern=0']].map(
        (features) => shapedByHarfBuzz([{ bytes: font.value.bytes, texts: apart, features }])[0]!,
      );
      apart.forEach((text, i) => {
        const glyphs = [...text].map(idOf);
        if (on![i]!.length !== glyphs.length) return;
        const [a, b] = [glyphs[0]!, glyphs[glyphs.length - 1]!];
        const next = glyphs.length === 3 ? wanted(project, pairs, a, glyphs[1]!) : 0;
        const value = (glyphs.length === 3 && stops ? 0 : wanted(project, pairs, a, b)) + next;
        const got = on![i]![0]!.advance - none![i]![0]!.advance;
        if (got !== 0 && glyphs.length === 3) moved++;
        expect([text, stops, got]).toEqual([text, stops, value]);
      });
    }),
    { numRuns: 12, seed: 3 },
  );
  expect(moved).toBeGreaterThan(200);
});
