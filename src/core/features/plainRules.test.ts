import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { castFont } from '../casting/font';
import { writeGdef } from '../opentype/gdef';
import { hhea } from '../opentype/hhea';
import { hmtx } from '../opentype/hmtx';
import { readSfnt, writeSfnt } from '../opentype/sfnt';
import { createProject } from '../project/create';
import { glyphsInOrder } from '../project/queries';
import {
  interpret,
  type PlainFont,
  type PlainLookup,
  type PlainPlaced,
  type Skips,
  textOf,
} from '../testing/plainRules';
import { compileFeatures } from './compile';
import { decompilePositions, decompileSubstitutions } from './decompile';
import { parseFeatures } from './parse';
import { compileSections } from './sections';
import { writeRules } from './write';

/**
 * Random rules of every kind: as text through our parser, compiler and writer, shaped by HarfBuzz, against a slow, plain
 * interpreter of the same rules.
 */

const LETTERS = [...'abcdefgh'];
const CHARACTERS = new Map([...LETTERS.map((c) => [c, c] as const), ['acutecomb', '\u0301'], ['gravecomb', '\u0300']]);
const MARKS = ['acutecomb', 'gravecomb'];
const isMark = (name: string): boolean => MARKS.includes(name);

/** A font of blank letters of different widths, without rules; its glyphs by name. */
const bare = (() => {
  const empty = createProject({
    family: 'Orde',
    characters: [...CHARACTERS.values()].map((c) => c.codePointAt(0)!),
    created: 0,
  });
  const glyphs = Object.fromEntries(
    glyphsInOrder(empty).map((g, i) => {
      const drawings = Object.fromEntries(
        Object.entries(g.drawings).map(([m, d]) => [m, { ...d, advance: 300 + 37 * i }]),
      );
      return [g.id, { ...g, drawings }];
    }),
  );
  const cast = castFont({ ...empty, glyphs }, { flavour: 'ttf', place: { master: 'm1' }, blanks: true });
  if (!cast.ok) throw new Error(cast.reason);
  const { version, tables } = readSfnt(cast.value.bytes);
  const names = cast.value.glyphIds.map((id) => empty.glyphs[id]!.name);
  const { numberOfHMetrics } = hhea.read(tables.get('hhea')!);
  const advances = hmtx.read(tables.get('hmtx')!, numberOfHMetrics, names.length).map((m) => m.advanceWidth);
  return { version, tables, names, advances };
})();
const advanceOf = (name: string): number => bare.advances[bare.names.indexOf(name)]!;

const compiledText = (text: string) => compileFeatures([{ tree: parseFeatures(text) }], { glyphs: bare.names });

/** A table of positions that no text asks for: without any, HarfBuzz would put marks by its own lights. */
const QUIET = writeRules(compiledText('feature zzzz { pos a 1; } zzzz;').GPOS, 'GPOS')!;

/** The font with rules in it, as base 64. */
function fontWith(gsub: Uint8Array | undefined, gpos: Uint8Array | undefined): string {
  const tables = new Map(bare.tables);
  for (const [tag, bytes] of [
    ['GSUB', gsub],
    ['GPOS', gpos ?? QUIET],
  ] as const) {
    if (bytes) tables.set(tag, bytes);
    else tables.delete(tag);
  }
  const classes = new Map(bare.names.flatMap((n, i) => (i < 2 ? [] : [[i, isMark(n) ? 3 : 1] as const])));
  tables.set('GDEF', writeGdef({ classes }));
  return Buffer.from(writeSfnt(bare.version, tables)).toString('base64');
}

type Case = { font: PlainFont; texts: readonly (readonly string[])[]; choice: number };
type Shaped = { gid: number; x: number; y: number; advance: number }[];

function shaped(cases: readonly { font: string; texts: readonly (readonly string[])[]; choice: number }[]): Shaped[][] {
  const input = cases.map(({ font, texts, choice }) => ({
    font,
    texts: texts.map((names) => names.map((n) => CHARACTERS.get(n)!).join('')),
    features: [`test=${choice}`],
  }));
  return JSON.parse(
    execFileSync(process.execPath, ['scripts/shape-many.mjs'], {
      input: JSON.stringify(input),
      encoding: 'utf8',
      maxBuffer: 1 << 28,
    }),
  );
}

const named = (glyphs: Shaped): PlainPlaced[] =>
  glyphs.map(({ gid, ...place }) => ({ name: bare.names[gid]!, ...place }));

/** Holds cases against the interpreter; gives how many texts came out otherwise than they went in. */
function hold(cases: readonly Case[], expectation = (c: Case) => compiledText(textOf(c.font))): number {
  const compiled = cases.map((c) => {
    const { GSUB, GPOS, faults } = expectation(c);
    expect([textOf(c.font), faults.filter((f) => f.severity === 'error')]).toEqual([textOf(c.font), []]);
    return fontWith(writeRules(GSUB, 'GSUB'), writeRules(GPOS, 'GPOS'));
  });
  const found = shaped(cases.map((c, i) => ({ ...c, font: compiled[i]! })));
  let changed = 0;
  cases.forEach((c, i) => {
    c.texts.forEach((names, k) => {
      const wanted = interpret(c.font, names, { isMark, advanceOf, choice: c.choice });
      const got = named(found[i]![k]!);
      expect([textOf(c.font), names.join(' '), got]).toEqual([textOf(c.font), names.join(' '), wanted]);
      const plain = interpret({ lookups: [], used: [] }, names, { isMark, advanceOf });
      if (JSON.stringify(plain) !== JSON.stringify(wanted)) changed++;
    });
  });
  return changed;
}

// What random rules are made of.
const letter = fc.constantFrom(...LETTERS);
const anyName = fc.oneof({ weight: 5, arbitrary: letter }, { weight: 1, arbitrary: fc.constantFrom(...MARKS) });
const skips = fc.constantFrom<Skips>('nothing', 'nothing', 'marks');
const some = (min: number, max: number) => fc.uniqueArray(anyName, { minLength: min, maxLength: max });
const context = fc.array(some(1, 3), { maxLength: 2 });
const texts = fc.array(fc.array(anyName, { minLength: 1, maxLength: 12 }), { minLength: 4, maxLength: 4 });
const lookup = <T extends object>(arbitrary: fc.Arbitrary<T>) =>
  fc.tuple(skips, arbitrary).map(([s, l]) => ({ skips: s, ...l })) as unknown as fc.Arbitrary<PlainLookup>;
const rulesBy = <T>(rule: fc.Arbitrary<T>, key: (r: T) => string, most = 6) =>
  fc.uniqueArray(rule, { selector: key, minLength: 1, maxLength: most });

/** Contexts that are often met. */
const wide = fc.array(some(4, 8), { maxLength: 1 });

const singles = (least: number) =>
  lookup(
    fc.record({
      kind: fc.constant('single'),
      rules: fc.uniqueArray(fc.record({ from: anyName, to: letter }), {
        selector: (r) => r.from,
        minLength: least,
        maxLength: least + 5,
      }),
    }),
  );
const single = singles(1);
const multiple = lookup(
  fc.record({
    kind: fc.constant('multiple'),
    rules: rulesBy(
      fc.record({
        from: anyName,
        to: fc.oneof(fc.array(anyName, { minLength: 2, maxLength: 3 }), fc.constant<string[]>([])),
      }),
      (r) => r.from,
    ),
  }),
);
const alternate = lookup(
  fc.record({
    kind: fc.constant('alternate'),
    rules: rulesBy(
      fc.record({ from: anyName, choice: fc.uniqueArray(letter, { minLength: 1, maxLength: 3 }) }),
      (r) => r.from,
    ),
  }),
);
const ligature = lookup(
  fc.record({
    kind: fc.constant('ligature'),
    rules: rulesBy(fc.record({ from: fc.array(anyName, { minLength: 2, maxLength: 3 }), to: letter }), (r) =>
      r.from.join(' '),
    ),
  }),
);
const reverse = lookup(
  fc.record({
    kind: fc.constant('reverse'),
    rules: fc.array(
      fc.tuple(context, some(1, 3), context, fc.boolean(), letter).map(([back, input, ahead, one, to]) => ({
        back,
        input,
        ahead,
        to: one ? [to] : input.map((_, i) => LETTERS[(LETTERS.indexOf(to) + i) % LETTERS.length]!),
      })),
      { minLength: 1, maxLength: 3 },
    ),
  }),
);

/** A context that calls single replacements anywhere in it, or one lookup of another kind at its beginning. */
const chain = (callable: readonly PlainLookup[]) => {
  const singles = callable.flatMap((l, i) => (l.kind === 'single' ? [i] : []));
  const others = callable.flatMap((l, i) => (l.kind === 'single' ? [] : [i]));
  const one = fc
    .tuple(wide, fc.array(some(4, 8), { minLength: 1, maxLength: 2 }), wide, fc.nat(3), fc.nat(100))
    .map(([back, input, ahead, kind, pick]) => {
      const calls: (number | undefined)[] = input.map((_, i) =>
        kind === 3 ? (i === 0 ? others[pick % others.length] : undefined) : singles[(pick + i) % singles.length],
      );
      // A rule that calls nothing must at least be an exception.
      return { back, input, ahead, calls: kind === 0 ? input.map(() => undefined) : calls, ignored: kind === 0 };
    });
  return lookup(fc.record({ kind: fc.constant('chain'), rules: fc.array(one, { minLength: 1, maxLength: 4 }) }));
};

const number = fc.integer({ min: -90, max: 90 });
const moves = (y: fc.Arbitrary<number>) =>
  lookup(
    fc.record({
      kind: fc.constant('move'),
      rules: rulesBy(
        fc.record({
          glyph: anyName,
          value: fc.oneof(
            fc.record({ x: number, y, advance: number }),
            number.map((advance) => ({ x: 0, y: 0, advance })),
          ),
        }),
        (r) => r.glyph,
      ),
    }),
  );
const move = moves(number);
/** Beside marks: what becomes of a mark whose base is lifted after it was put there differs between versions of the shaper. */
const levelMove = moves(fc.constant(0));
const pairs = lookup(
  fc.record({
    kind: fc.constant('pairs'),
    rules: rulesBy(fc.record({ first: anyName, second: anyName, value: number }), (r) => `${r.first} ${r.second}`, 14),
  }),
);
/** Names dealt out to sets that have none in common. */
const parted = fc
  .tuple(fc.shuffledSubarray([...LETTERS, ...MARKS], { minLength: 2, maxLength: 7 }), fc.nat(5))
  .map(([names, at]) => {
    const cut = 1 + (at % (names.length - 1));
    return [names.slice(0, cut), names.slice(cut)];
  });
const classPairs = lookup(
  fc.record({
    kind: fc.constant('classPairs'),
    firsts: parted,
    seconds: parted,
    values: fc.array(fc.array(number, { minLength: 2, maxLength: 2 }), { minLength: 2, maxLength: 2 }),
  }),
);
const place = { x: number, y: number };
const marks = fc
  .record({
    kind: fc.constant('marks' as const),
    marks: rulesBy(fc.record({ glyph: fc.constantFrom(...MARKS), ...place }), (m) => m.glyph, 2),
    bases: rulesBy(fc.record({ glyph: letter, ...place }), (b) => b.glyph),
  })
  .map((l): PlainLookup => ({ skips: 'nothing', ...l }));

const withTexts = (font: fc.Arbitrary<PlainFont>): fc.Arbitrary<Case> =>
  fc.record({ font, texts, choice: fc.integer({ min: 1, max: 3 }) });
const allUsed = (lookups: readonly PlainLookup[]): PlainFont => ({ lookups, used: lookups.map((_, i) => i) });
const several = (...kinds: fc.Arbitrary<PlainLookup>[]) =>
  withTexts(fc.array(fc.oneof(...kinds), { minLength: 1, maxLength: 3 }).map(allUsed));
const contexts = withTexts(
  fc.tuple(singles(5), singles(5), fc.oneof(multiple, ligature)).chain((callable) =>
    fc.array(chain(callable), { minLength: 1, maxLength: 2 }).map((chains) => ({
      lookups: [...callable, ...chains],
      used: chains.map((_, i) => callable.length + i),
    })),
  ),
);

const RUNS = 120;
/** The same cases every time: what fails once fails again. */
const casesOf = (arbitrary: fc.Arbitrary<Case>, seed: number) => fc.sample(arbitrary, { numRuns: RUNS, seed });

test.each([
  ['single replacements', several(single)],
  ['one glyph by several, or by none', several(multiple)],
  ['choices of forms', several(alternate)],
  ['ligatures, across marks too', several(ligature)],
  ['contexts that call lookups, with exceptions', contexts],
  ['replacements from the end of the line', several(reverse)],
  ['all kinds of substitution one after the other', several(single, multiple, alternate, ligature, reverse)],
  ['glyphs moved and widened', several(move)],
  ['pairs', several(pairs)],
  ['pairs of classes', several(classPairs)],
  ['marks on letters', several(marks)],
  ['all kinds of position one after the other', several(levelMove, pairs, classPairs, marks)],
] as const)('%s: HarfBuzz does with the compiled rules what the plain interpreter does', (_, arbitrary) => {
  // Rules that never do anything would show nothing.
  expect(hold(casesOf(arbitrary, 11))).toBeGreaterThan(RUNS / 2);
});

test('rules read back from the tables do the same as the ones that were written', () => {
  const sections = (list: readonly { title: string; text: string }[]) => list.map((s, i) => ({ id: String(i), ...s }));
  const again = (c: Case) => {
    const first = compiledText(textOf(c.font));
    const gsub = writeRules(first.GSUB, 'GSUB');
    const gdef = writeGdef({ classes: new Map(MARKS.map((n) => [bare.names.indexOf(n), 3])) });
    const back = gsub
      ? decompileSubstitutions(gsub, gdef, bare.names)
      : decompilePositions(writeRules(first.GPOS, 'GPOS')!, gdef, bare.names);
    if (!back.ok) throw new Error(back.reason);
    const written = back.value;
    return compileSections(sections(written), {}, { glyphs: bare.names });
  };
  for (const arbitrary of [
    several(single, multiple, alternate, ligature, reverse),
    contexts,
    several(levelMove, pairs, classPairs, marks),
  ])
    expect(hold(casesOf(arbitrary, 23), again)).toBeGreaterThan(RUNS / 2);
});
