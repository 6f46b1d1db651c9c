import { execFileSync } from 'node:child_process';
import { writeGdef } from '../opentype/gdef';
import { CONSTRUCTS, CONSTRUCT_GLYPHS as GLYPHS } from '../testing/featureConstructs';
import { type Compiled, compileFeatures, type Included } from './compile';
import { parseFeatures } from './parse';
import { writeRules } from './write';

const compiled = (text: string): Compiled => compileFeatures([{ tree: parseFeatures(text) }], { glyphs: GLYPHS });

/** Tables as the oracle takes them: those of the text, and what of GDEF lookups refer to. */
function tables({ GSUB, GPOS, definitions }: Compiled): Record<string, string> {
  const gdef = writeGdef({
    classes: definitions.classes,
    carets: definitions.carets,
    caretPoints: definitions.caretPoints,
    attachPoints: definitions.attachPoints,
    attachmentClasses: new Map(definitions.attachmentClasses.flatMap((set, i) => set.map((g) => [g, i + 1] as const))),
    markSets: definitions.filterSets,
  });
  const bytes = { GSUB: writeRules(GSUB, 'GSUB'), GPOS: writeRules(GPOS, 'GPOS'), GDEF: gdef };
  return Object.fromEntries(
    Object.entries(bytes).flatMap(([tag, b]) => (b ? [[tag, Buffer.from(b).toString('base64')]] : [])),
  );
}

type Meaning = Record<string, unknown>;
function judged(texts: readonly string[]): { ours: Meaning; theirs: Meaning }[] {
  const cases = texts.map((text) => ({ text, tables: tables(compiled(text)) }));
  return JSON.parse(
    execFileSync('/usr/bin/python3', ['src/core/testing/featureOracle.py'], {
      input: JSON.stringify({ glyphs: GLYPHS, cases }),
      encoding: 'utf8',
      maxBuffer: 1 << 28,
      stdio: ['pipe', 'pipe', 'ignore'],
    }),
  );
}

test('every construct means what the general Python font library makes of it', () => {
  const found = judged(CONSTRUCTS.map(([, text]) => text));
  expect(found).toHaveLength(CONSTRUCTS.length);
  CONSTRUCTS.forEach(([name, text], i) => {
    const { ours, theirs } = found[i]!;
    expect([name, compiled(text).faults.filter((f) => f.severity === 'error')]).toEqual([name, []]);
    expect([name, theirs.refused]).toEqual([name, undefined]);
    expect([name, ours]).toEqual([name, theirs]);
    expect([name, Object.keys(theirs).length > 0]).toEqual([name, true]);
  });
});

const faultsOf = (text: string): string[] =>
  compiled(text).faults.map((f) => `${text.slice(f.from, f.to)} | ${f.reason}`);

test('what is wrong is told in a designer’s words, at its place, all of it at once', () => {
  for (const [text, ...wanted] of [
    ['feature liga { sub f j by f_j; } liga;', 'f_j | Glyph f_j is not in the project. Near: f_f, f_i, f.'],
    ['feature liga { sub @x by a; } liga;', '@x | The class @x is not defined before this place.'],
    [
      'feature liga { sub a b; sub c by; sub d by e; } liga;',
      '; | A substitution says “by” what or “from” which glyphs before “;”.',
      '; | What replaces it is missing before “;”.',
    ],
    [
      'feature liga { sub [a b c] by [x y]; } liga;',
      'sub [a b c] by [x y]; | 3 glyphs cannot be replaced by 2: as many are needed, or one.',
    ],
    ['feature liga { sub a by b; } lig;', 'lig | the feature liga ends as “lig”.'],
    ['feature liga { sub a by b;', '{ | the feature liga begins here and does not end.'],
    ['featur liga { } liga;', 'featur | “featur” is no statement of the feature language; near: feature.'],
    ['sub a by b;', 'sub a by b; | A rule stands in a feature or in a lookup.'],
    [
      'feature liga { lookup nowhere; } liga;',
      'lookup nowhere; | The lookup nowhere is not defined before this place.',
    ],
    [
      'lookup x { sub a by b; pos a 10; } x;',
      'pos a 10; | A lookup holds rules of one kind; this one differs from those before it.',
    ],
    [
      'feature liga { sub a by b; sub a by c; } liga;',
      'sub a by c; | This glyph has another rule before this one in the lookup, which is taken.',
    ],
    [
      'feature kern { pos a b c -20; } kern;',
      'pos a b c -20; | A position of three and more glyphs marks with apostrophes those that move.',
    ],
    [
      "feature calt { sub a' b c' by x; } calt;",
      'b | The marked glyphs of a rule must stand together; this one is not marked.',
    ],
    [
      'lookup alone { sub a by b; } alone; feature ss01 { sub c by d; } ss01;',
      'alone | Nothing calls the lookup alone.',
    ],
    ['include(other.fea);', 'include(other.fea); | The file other.fea is not there to be included.'],
    [
      'feature ss01 { featureNames { name "Round; }; } ss01;',
      '" | A text in quotation marks begins here and does not end.',
    ],
    ['table GDEF { Nothing a; } GDEF;', 'Nothing | The table GDEF has no “Nothing”.'],
    ['feature a { sub \u0000 by b; } a;', '\u0000 | “U+0000” has no meaning here.'],
    [
      'feature test { lookupflag Ignore; sub a by b; } test;',
      'Ignore | “Ignore” is no flag of lookups; there are RightToLeft, IgnoreBaseGlyphs, IgnoreLigatures, IgnoreMarks.',
    ],
    [
      'feature test { lookupflag MarkAttachmentType [acutecomb]; sub a by b; lookupflag MarkAttachmentType [acutecomb gravecomb]; sub c by d; } test;',
      'lookupflag MarkAttachmentType [acutecomb gravecomb]; | acutecomb is in another MarkAttachmentType already; a mark can be in one.',
    ],
  ] as const) {
    const found = faultsOf(text);
    for (const w of wanted) expect(found).toContainEqual(w);
  }
});

test('a file that includes itself, blocks without end and rules without measure end in a sentence', () => {
  const self = parseFeatures('include(self.fea); feature test { sub a by b; } test;');
  const around = (): Included => ({ tree: self, text: 'include(self.fea);', include: around });
  const found = compileFeatures([{ tree: self, include: around }], { glyphs: GLYPHS });
  expect(found.faults[0]!.reason).toBe('In self.fea, line 1: Files include one another too deep, or in a circle.');
  expect(faultsOf('feature a { '.repeat(40)).length).toBeGreaterThan(0);
  expect(faultsOf(`@x = ${'['.repeat(200)}a${']'.repeat(200)};`).join()).toMatch(/too deep/);
  const wide = `@x = [${GLYPHS.slice(1).join(' ')}]; feature liga { sub @x @x @x @x by a; } liga;`;
  expect(faultsOf(wide).join()).toMatch(/stands for [\d,]+ single ones/);
  expect(faultsOf('}'.repeat(5000)).length).toBeLessThanOrEqual(300);
});

test('single replacements stand among ligatures, and among those by several, in one lookup', () => {
  for (const [text, type] of [
    ['lookup n { sub a by b; sub f i by f_i; sub c by d; } n; feature ss02 { lookup n; } ss02;', 4],
    ['lookup m { sub a by b; sub f_i by f i; sub c by d; } m; feature ss01 { lookup m; } ss01;', 2],
  ] as const) {
    const { GSUB, faults } = compiled(text);
    expect(faults).toEqual([]);
    expect(GSUB.lookups.map((l) => l.type)).toEqual([type]);
  }
  expect(faultsOf('lookup m { sub a by b; sub c from [d e]; } m;').join()).toMatch(/A lookup holds rules of one kind/);
});
