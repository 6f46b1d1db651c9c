import fc from 'fast-check';
import { CONSTRUCT_GLYPHS, CONSTRUCTS } from '../testing/featureConstructs';
import { formatted } from './format';
import { compileSections } from './sections';
import { tokensOf } from './tokens';
import { writeRules } from './write';

const even = (text: string): string => {
  const out = formatted(text);
  if (!out.ok) throw new Error(out.reason);
  return out.value;
};

test('rules come out one a line, indented, with their comments where they stood', () => {
  const text = `# Head
@a=[a   b c];feature  liga{ # open
sub f i by f_i;sub a' @a  b'lookup x by y ; # behind


# own line
 lookupflag RightToLeft MarkAttachmentType [acutecomb];
  pos a <1 2 -3 4>; pos b (wght=400:10 wght=900:20);sub [\\1-\\3] by a;
include( a b.fea );
featureNames{name "Round" ;} ;
}liga ;`;
  expect(even(text)).toBe(`# Head
@a = [a b c];
feature liga { # open
  sub f i by f_i;
  sub a' @a b' lookup x by y; # behind

  # own line
  lookupflag RightToLeft MarkAttachmentType [acutecomb];
  pos a <1 2 -3 4>;
  pos b (wght=400:10 wght=900:20);
  sub [\\1-\\3] by a;
  include( a b.fea );
  featureNames {
    name "Round";
  };
} liga;
`);
});

test('long lists are wrapped and say the same', () => {
  const names = Array.from({ length: 60 }, (_, i) => `glyph.number${i}`).join(' ');
  const out = even(`feature ss01 { sub [${names}] by a; } ss01;`);
  expect(Math.max(...out.split('\n').map((l) => l.length))).toBeLessThanOrEqual(100);
  expect(out.split('\n')[2]).toMatch(/^ {6}glyph/);
});

test('a text with signs that mean nothing is refused, not changed', () => {
  expect(formatted('feature liga { sub a by b; } liga; $')).toMatchObject({
    ok: false,
    reason: '“$” has no meaning here. Mend that first.',
  });
  expect(formatted('')).toMatchObject({ ok: true });
});

const words = (text: string) => {
  const { tokens, comments } = tokensOf(text);
  return [tokens.map((t) => t.text), comments.map((c) => text.slice(c.from, c.to).trim())];
};

test('words, signs and comments of any text stay, in their order; a second time changes nothing', () => {
  const parts = fc.constantFrom(
    ...CONSTRUCTS.map(([, text]) => text),
    '# a comment\n',
    '\n\n\n',
    '}',
    '{',
    '@x =',
    "a' lookup",
    ' # behind\n',
  );
  fc.assert(
    fc.property(fc.array(parts, { maxLength: 6 }), (list) => {
      const text = list.join(' ');
      const out = formatted(text);
      if (!out.ok) return;
      expect(words(out.value)).toEqual(words(text));
      expect(even(out.value)).toBe(out.value);
    }),
    { numRuns: 300, seed: 3 },
  );
});

test('every construct compiles to the same bytes before and after', () => {
  const bytes = (text: string) => {
    const { GSUB, GPOS } = compileSections([{ id: '', title: '', text }], {}, { glyphs: CONSTRUCT_GLYPHS });
    return [writeRules(GSUB, 'GSUB'), writeRules(GPOS, 'GPOS')];
  };
  for (const [name, text] of CONSTRUCTS) expect([name, bytes(even(text))]).toEqual([name, bytes(text)]);
});
