import { random as seeded } from '../../../fuzz/mutate';
import { CONSTRUCT_GLYPHS as GLYPHS } from '../testing/featureConstructs';
import { type Compiled, compileFeatures } from './compile';
import { parseFeatures } from './parse';
import { compileSections } from './sections';
import { treeOf } from './trees';
import { writeRules } from './write';

/** Sections that lean on one another: classes, marks, anchors, values, lookups, systems, faults. */
const PIECES = [
  'languagesystem DFLT dflt;',
  'languagesystem latn dflt; languagesystem latn TRK;',
  '@x = [a b c];',
  '@x = [a b];',
  '@x = [d e f i];',
  '@y = [@x f];',
  'markClass [acutecomb] <anchor 10 20> @TOP;',
  'markClass [gravecomb] <anchor 30 40> @TOP;',
  'anchorDef 100 200 P;',
  'anchorDef 120 250 P;',
  'valueRecordDef -30 TIGHT;',
  'valueRecordDef -60 TIGHT;',
  'lookup one { sub a by a.sc; sub b by b.sc; } one;',
  'lookup two { sub a by b; } two;',
  "feature calt { sub @x' lookup one d; sub d @y' by x; } calt;",
  "feature calt { ignore sub a @x'; sub @x' a by x; } calt;",
  'feature smcp { lookup one; sub @x by x; } smcp;',
  'feature smcp { script latn; language TRK exclude_dflt; sub a by a.sc; } smcp;',
  'feature mark { pos base @x <anchor P> mark @TOP; } mark;',
  'feature mark { pos base [a e] <anchor 50 60> mark @TOP; } mark;',
  'feature kern { pos @x @y <TIGHT>; enum pos a @y 20; pos a b -10; } kern;',
  'feature kern { lookupflag MarkAttachmentType @TOP; pos b a -20; } kern;',
  'feature kern { lookupflag UseMarkFilteringSet [acutecomb]; pos c a -20; } kern;',
  'feature aalt { feature smcp; sub a from [a.alt1 a.alt2]; } aalt;',
  'feature ss01 { featureNames { name "Own"; }; sub a by nothere; sub @nowhere by b; } ss01;',
  'feature ss02 { sub b by nothere; sub a by a.alt1; } ss02;',
  'table GDEF { GlyphClassDef @x, , [acutecomb gravecomb], ; } GDEF;',
  'table hhea { Ascender 800; } hhea;',
] as const;

/** All that a font and its designer would notice. */
const outcome = (c: Compiled) => ({
  bytes: [writeRules(c.GSUB, 'GSUB'), writeRules(c.GPOS, 'GPOS')].map((b) => b && Buffer.from(b).toString('hex')),
  faults: c.faults,
  names: c.names,
  tags: [...c.tags],
  classes: [...c.definitions.classes],
  sets: [c.definitions.attachmentClasses, c.definitions.filterSets],
  said: c.definitions.said,
  from: [c.GSUB, c.GPOS].map((t) => t.lookups.map((l) => [l.name, l.feature, l.source, l.from])),
  named: c.drafts.map((d) => d.nameAt),
});

const section = (text: string, i: number) => ({ id: String(i), title: '', text });

test('texts that are remembered come to what they come to when all is read anew, whatever changes about them', () => {
  const random = seeded(17);
  const any = (n: number) => Math.floor(random() * n);
  let texts: string[] = Array.from({ length: 12 }, () => PIECES[any(PIECES.length)]!);
  let faulty = 0;
  for (let step = 0; step < 400; step++) {
    const at = any(texts.length);
    const piece = PIECES[any(PIECES.length)]!;
    switch (any(4)) {
      case 0:
        texts = texts.with(at, piece);
        break;
      case 1:
        texts = texts.toSpliced(at, 1, piece, texts[at]!).slice(0, 16);
        break;
      case 2:
        texts = texts.length > 6 ? texts.toSpliced(at, 1) : [...texts, piece];
        break;
      default: {
        const [one] = texts.splice(at, 1);
        texts = texts.toSpliced(any(texts.length), 0, one!);
      }
    }
    // Glyphs come and go as well.
    const glyphs = any(10) === 0 ? GLYPHS.slice(0, -3) : GLYPHS;
    const remembered = outcome(compileSections(texts.map(section), {}, { glyphs }));
    const anew = outcome(
      compileFeatures(
        texts.map((t) => ({ tree: parseFeatures(t) })),
        { glyphs },
      ),
    );
    expect([texts, remembered]).toEqual([texts, anew]);
    faulty += anew.faults.some((f) => f.severity === 'error') ? 1 : 0;
  }
  expect(faulty).toBeGreaterThan(40);
  expect(faulty).toBeLessThan(400);
});

test('lookups of a section that did not change, and means the same, are the same again', () => {
  const texts = [
    '@x = [a b c];',
    'feature smcp { sub @x by x; } smcp;',
    "feature calt { sub d' @x by e; } calt;",
    'feature liga { sub f i by f_i; } liga;',
  ];
  const lookups = (list: string[]) => compileSections(list.map(section), {}, { glyphs: GLYPHS }).drafts;
  const before = lookups(texts);
  const ligature = lookups(texts.with(3, 'feature liga { sub f f by f_f; } liga;'));
  expect(before.map((l) => ligature.includes(l))).toEqual([true, true, true, false]);
  const wider = lookups(texts.with(0, '@x = [a b c d];'));
  expect(before.map((l) => wider.includes(l))).toEqual([false, false, false, true]);
  const again = lookups(texts);
  const moved = lookups([texts[3]!, texts[0]!, texts[1]!, texts[2]!]);
  expect(again.every((l) => moved.includes(l))).toBe(true);
});

test('the rules of a large font are read once, whatever small texts are read beside them', () => {
  const rule = 'feature ss01 { sub a by b; } ss01;\n';
  const large = `# of a font with many contexts\n${rule}${'# left\n'.repeat(200_000)}`;
  expect(large.length).toBeGreaterThan(1_400_000);
  const tree = treeOf(large);
  for (let i = 0; i < 50; i++) treeOf(`${rule}# ${i}`);
  expect(treeOf(`${large}`)).toBe(tree);
});
