import fc from 'fast-check';
import { CONSTRUCTS } from '../testing/featureConstructs';
import { comparedWith, mergedInto } from './merge';
import { piecesOf, sectionsOf } from './pieces';
import type { SectionText } from './sections';

const OURS: SectionText[] = [
  { id: 'f1', title: 'Classes', text: '@Round = [c e o];\nlanguagesystem DFLT dflt;' },
  { id: 'f2', title: 'Ligatures', text: '# ours\nfeature liga { sub f i by f_i; } liga;\n' },
];
const THEIRS = `# A file
languagesystem   DFLT dflt;
languagesystem latn TRK;
@Round = [c e o]; # round ones

@Tall = [b d];
lookup tall { sub @Tall by x; } tall;

# their ligatures
feature liga {
  sub f f by f_f;
} liga;

feature ss01 { lookup tall; } ss01;
`;

test('what a file has is told as new, as there already whatever its spaces and comments, or as otherwise', () => {
  const items = comparedWith(OURS, THEIRS);
  expect(items.map((i) => [i.key, i.state])).toEqual([
    ['languagesystem DFLT dflt', 'same'],
    ['languagesystem latn TRK', 'new'],
    ['@Round', 'same'],
    ['@Tall', 'new'],
    ['lookup tall', 'new'],
    ['feature liga', 'other'],
    ['feature ss01', 'new'],
  ]);
  expect(items[5]).toMatchObject({
    ours: '# ours\nfeature liga { sub f i by f_i; } liga;',
    theirs: expect.stringContaining('# their ligatures'),
  });
});

test('chosen things come in: replaced where they stand, definitions first, lookups before what may call them, the rest behind', () => {
  const all = new Set(['languagesystem latn TRK', '@Tall', 'lookup tall', 'feature liga', 'feature ss01']);
  const { changed, added } = mergedInto(OURS, THEIRS, all, 'their.fea');
  expect(changed).toEqual([{ id: 'f2', text: '# their ligatures\nfeature liga {\n  sub f f by f_f;\n} liga;\n' }]);
  expect(added).toEqual([
    { title: 'Definitions of their.fea', text: 'languagesystem latn TRK;\n\n@Tall = [b d];', before: 'f1' },
    { title: 'Lookups of their.fea', text: 'lookup tall { sub @Tall by x; } tall;', before: 'f2' },
    { title: 'Stylistic set 1', text: 'feature ss01 { lookup tall; } ss01;' },
  ]);
  expect(mergedInto(OURS, THEIRS, new Set(['@Round']), 'x').changed).toEqual([
    { id: 'f1', text: '@Round = [c e o]; # round ones\nlanguagesystem DFLT dflt;' },
  ]);
});

test('a feature that stands in several blocks is replaced as one', () => {
  const twice: SectionText[] = [
    { id: 'a', title: '', text: 'feature ss01 { sub a by b; } ss01;\n\nfeature ss02 { sub c by d; } ss02;' },
    { id: 'b', title: '', text: 'feature ss01 { sub e by f; } ss01;' },
  ];
  const { changed } = mergedInto(twice, 'feature ss01 { sub x by y; } ss01;', new Set(['feature ss01']), '');
  expect(changed).toEqual([
    { id: 'a', text: 'feature ss01 { sub x by y; } ss01;\n\nfeature ss02 { sub c by d; } ss02;' },
    { id: 'b', text: '' },
  ]);
});

test('any file cut into sections and joined is the file to the letter; cut into pieces, nothing is lost', () => {
  const piece = fc.constantFrom(
    ...CONSTRUCTS.map(([, text]) => text),
    '# a comment',
    '# one\n# two',
    '@x = [a b];',
    'include(a.fea);',
    'table GDEF { } GDEF;',
    'feature liga { # open\n\n sub a by b;\n\n} liga; # behind',
  );
  const gap = fc.constantFrom('\n', '\n\n', '\n\n\n', ' ', '\n \n', '\n# between\n', '\n\n# between\n');
  fc.assert(
    fc.property(fc.array(fc.tuple(piece, gap), { maxLength: 8 }), (parts) => {
      const text = parts.flat().join('');
      const sections = sectionsOf(text);
      expect(sections.map((s) => s.text).join('\n\n')).toBe(text.trim() === '' ? '' : text);
      const pieces = piecesOf(text);
      if (pieces.length > 0) expect(pieces.map((p) => text.slice(p.from, p.to)).join('')).toBe(text);
    }),
    { numRuns: 300, seed: 5 },
  );
});

test('sections are named by what stands in them', () => {
  expect(sectionsOf(THEIRS).map((s) => s.title)).toEqual(['Lookups', 'Ligatures, always on', 'Stylistic set 1']);
});
