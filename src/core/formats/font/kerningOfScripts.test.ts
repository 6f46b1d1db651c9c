import fc from 'fast-check';
import { buildStarter } from '../../../../demo/starter';
import { castFont } from '../../casting/font';
import { GPOS_EXTENSION, type KernInput, kernLookups } from '../../opentype/gpos';
import { writeLayout } from '../../opentype/layout/lists';
import { readSfnt, writeSfnt } from '../../opentype/sfnt';
import { kerningOf } from '../../project/kerningLookup';
import { glyphForCodePoint } from '../../project/queries';
import { shapedByHarfBuzz } from '../../testing/shaping';
import { projectFromFont } from './projectFromFont';

/** Fonts in which Latin text has other kerning lookups than text of no script, held against HarfBuzz. */

const made = castFont(buildStarter(), { flavour: 'ttf', place: { master: 'm1' } });
if (!made.ok) throw new Error(made.reason);
const font = readSfnt(made.value.bytes);
const LETTERS = [...'noaeHI'];
const indices = shapedByHarfBuzz([{ bytes: made.value.bytes, texts: LETTERS }])[0]!.map(([glyph]) => glyph!.gid);
const texts = LETTERS.flatMap((a) => LETTERS.map((b) => a + b));

const letter = fc.constantFrom(...indices);
const group = (letters: readonly number[]) => letters.filter((g, i) => letters.indexOf(g) === i);
/** Single pairs, and classes of which some letters are; no value is 0 and none takes another away, so that what is kerned is seen. */
const lookup: fc.Arbitrary<KernInput> = fc.record({
  firstGroups: fc.subarray(indices, { minLength: 1 }).map((g) => [group(g)]),
  secondGroups: fc.subarray(indices, { minLength: 1 }).map((g) => [group(g)]),
  pairs: fc.uniqueArray(
    fc.record({
      first: fc.oneof(
        letter.map((glyph) => ({ glyph })),
        fc.constant({ group: 0 }),
      ),
      second: fc.oneof(
        letter.map((glyph) => ({ glyph })),
        fc.constant({ group: 0 }),
      ),
      value: fc.integer({ min: -90, max: -1 }),
    }),
    { minLength: 1, maxLength: 6, selector: (p) => JSON.stringify([p.first, p.second]) },
  ),
});
const some = fc.subarray([0, 1, 2], { minLength: 1 });
const cases = fc.record({ inputs: fc.array(lookup, { minLength: 3, maxLength: 3 }), latin: some, other: some });

/** The font with lookups for Latin text and for text of no script; with the latter only where `latin` is left out. */
function fontWith(inputs: readonly KernInput[], other: readonly number[], latin?: readonly number[]): Uint8Array {
  const lookups = inputs.map((i) => kernLookups(i));
  const first = lookups.map((_, i) => lookups.slice(0, i).reduce((sum, l) => sum + l.length, 0));
  const feature = (of: readonly number[]) => ({
    tag: 'kern',
    lookups: of.flatMap((i) => lookups[i]!.map((_, k) => first[i]! + k)),
  });
  const system = (n: number) => ({ usual: { features: [n] }, languages: [] });
  const gpos = writeLayout(
    {
      scripts: [{ tag: 'DFLT', ...system(0) }, ...(latin ? [{ tag: 'latn', ...system(1) }] : [])],
      features: [feature(other), ...(latin ? [feature(latin)] : [])],
      lookups: lookups.flat(),
    },
    GPOS_EXTENSION,
  );
  return writeSfnt(font.version, new Map([...font.tables].filter(([tag]) => tag !== 'kern')).set('GPOS', gpos));
}

test('a pair comes in with what HarfBuzz gives it in Latin text, else with what text of no script has', () => {
  let both = 0;
  fc.assert(
    fc.property(cases, ({ inputs, latin, other }) => {
      const bytes = fontWith(inputs, other, latin);
      const shaped = shapedByHarfBuzz(
        [bytes, fontWith(inputs, other)].flatMap((b) =>
          ['kern=1', 'kern=0'].map((kern) => ({ bytes: b, texts, features: [kern] })),
        ),
      );
      const value = (of: 0 | 2, i: number) => shaped[of]![i]![0]!.advance - shaped[of + 1]![i]![0]!.advance;
      const read = projectFromFont(bytes, 'Scripts.ttf');
      if (!read.ok) throw new Error(read.reason);
      const { project } = read.value;
      const differing = texts.filter((text, i) => {
        const [a, b] = [...text].map((c) => glyphForCodePoint(project, c.codePointAt(0)!)!.id);
        const [inLatin, elsewhere] = [value(0, i), value(2, i)];
        expect([text, kerningOf(project, project.masters[0]!, a!, b!)?.value ?? 0]).toEqual([
          text,
          inLatin || elsewhere,
        ]);
        return inLatin !== 0 && elsewhere !== 0 && inLatin !== elsewhere;
      });
      both += differing.length;
      expect(read.value.notes.some((n) => n.includes('in another script or language only'))).toBe(differing.length > 0);
    }),
    { numRuns: 15 },
  );
  expect(both).toBeGreaterThan(20);
});
