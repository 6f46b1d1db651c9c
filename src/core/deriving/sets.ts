import { markOf } from '../composing/marks';
import { recipeOf } from '../composing/recipes';
import { nameForCodePoint } from '../project/glyphNames';
import type { Glyph, Project } from '../project/model';
import { drawingOf, glyphForCodePoint, glyphNamed, glyphsInOrder, isEmptyDrawing } from '../project/queries';
import { ligatureItems } from './ligatures';

/** Which letters a drawing is measured among. */
export type Kind = 'capitals' | 'small' | 'figures';

/** How a glyph of a set comes from others; parts by their names. */
export type Way =
  /** Scaled to the height of the set and reweighted. */
  | { readonly how: 'scaled'; readonly of: string; readonly among: Kind }
  /** The glyph itself as a part, higher or lower: by where the set stands, to the middle of capitals, or onto the baseline. */
  | { readonly how: 'moved'; readonly of: string; readonly to: 'foot' | 'middle' | 'baseline' | 'hang' | 'asIs' }
  /** Parts in a row. */
  | { readonly how: 'row'; readonly of: readonly string[] }
  /** The glyph as a part in the middle of the width that its set shares. */
  | { readonly how: 'centred'; readonly of: string }
  /** The glyph as a part with the sides that its shape asks for. */
  | { readonly how: 'sided'; readonly of: string }
  /** A letter of the set with marks at its anchors. */
  | { readonly how: 'marked'; readonly base: string; readonly marks: readonly { glyph: string; anchor: string }[] }
  /** Scaled figures in a ring. */
  | { readonly how: 'ringed'; readonly of: readonly string[] }
  /** In a frame, as on a key. */
  | { readonly how: 'framed'; readonly of: string };

export type Item = {
  readonly name: string;
  readonly unicodes: readonly number[];
  readonly way: Way;
  /** Why a design needs it. */
  readonly hint?: string;
};

/** Numbers of a set, in percent: how high it is, how wide beside that, how thick its strokes are, where its foot stands. */
export type SetTerms = {
  readonly height: number;
  readonly width: number;
  readonly weight: number;
  readonly foot: number;
};

export type SetFacts = {
  readonly key: string;
  readonly title: string;
  readonly does: string;
  /** What its height is a share of; none where it has no height of its own. */
  readonly measure: 'xHeight' | 'figures' | undefined;
  readonly usual: SetTerms;
  readonly items: (project: Project) => Item[];
  /** The straight and the round glyph by which the sides of its glyphs can be proposed, by their names. */
  readonly controls?: (project: Project) => readonly [straight: string, round: string];
  /** Said where there is nothing to make, and letters are drawn. */
  readonly none?: string;
};

const FIGURES = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
const NOTHING: SetTerms = { height: 100, width: 100, weight: 100, foot: 0 };

const code = (c: string): number => c.codePointAt(0)!;
const nameAt = (project: Project, c: number): string => glyphForCodePoint(project, c)?.name ?? nameForCodePoint(c);
const named = (project: Project, c: string): string => nameAt(project, code(c));
/** The name of a figure, as the project calls it. */
const figure = (project: Project, i: number): string => nameAt(project, 0x30 + i);

/** Is a glyph drawn in every master? */
export const isDrawn = (project: Project, glyph: Glyph | undefined): glyph is Glyph =>
  glyph !== undefined && project.masters.every((m) => !isEmptyDrawing(drawingOf(glyph, m.id)));

function smallCaps(project: Project): Item[] {
  const plain: Item[] = [];
  const marked: Item[] = [];
  for (const glyph of glyphsInOrder(project)) {
    const [c] = glyph.unicodes;
    if (c === undefined || glyph.name.includes('.')) continue;
    const letter = String.fromCodePoint(c);
    if (/\p{Lu}/u.test(letter) && !recipeOf(c)) {
      const small = [...letter.toLowerCase()];
      if (small.length !== 1 || letter === 'ẞ') continue;
      plain.push({
        name: `${named(project, small[0]!)}.sc`,
        unicodes: [],
        way: { how: 'scaled', of: glyph.name, among: 'capitals' },
      });
    } else if (/\p{Ll}/u.test(letter)) {
      const item = withMarks(project, glyph, c);
      if (item) marked.push(item);
    }
  }
  const there = new Set(plain.map((i) => i.name));
  return [...plain, ...eszett(project, there), ...marked.filter((i) => 'base' in i.way && there.has(i.way.base))];
}

const smallControls = (project: Project): readonly [string, string] => [
  `${named(project, 'h')}.sc`,
  `${named(project, 'o')}.sc`,
];

/** ß as a small capital: from its capital where that is drawn, else two of s. */
function eszett(project: Project, there: ReadonlySet<string>): Item[] {
  const small = glyphForCodePoint(project, code('ß'));
  const s = `${named(project, 's')}.sc`;
  if (!small || !there.has(s)) return [];
  const capital = glyphForCodePoint(project, code('ẞ'));
  const way: Way = isDrawn(project, capital)
    ? { how: 'scaled', of: capital.name, among: 'capitals' }
    : { how: 'row', of: [s, s] };
  return [{ name: `${small.name}.sc`, unicodes: [], way }];
}

/** A small letter with marks as a small capital, by the marks that are drawn. */
function withMarks(project: Project, glyph: Glyph, c: number): Item | undefined {
  const recipe = recipeOf(c);
  if (!recipe || recipe.marks.length === 0 || recipe.before || recipe.beside) return undefined;
  const marks = recipe.marks.map(({ mark, anchor }) => {
    // A caron that stands beside a tall small letter sits on top of a capital.
    const above = anchor === 'topright' && mark === 0x315 ? 0x30c : mark;
    // The comma turned above g stands below its capital.
    const plain = above === 0x312 ? 0x326 : above;
    const own = [nameAt(project, plain), markOf(plain)?.spacing[0]].flatMap((n) =>
      typeof n === 'string' ? [`${n}.sc`, n] : [],
    );
    return {
      glyph: own.find((n) => isDrawn(project, glyphNamed(project, n))) ?? nameAt(project, plain),
      anchor: plain === 0x30c && anchor === 'topright' ? 'top' : plain !== above ? 'bottom' : anchor,
    };
  });
  const base = `${nameAt(project, recipe.base)}.sc`;
  return { name: `${glyph.name}.sc`, unicodes: [], way: { how: 'marked', base, marks } };
}

/** Figures of a suffix, scaled from those of the text, or parts of ones that are drawn so already. */
const figures =
  (name: (plain: string, i: number) => string, of: readonly string[] = [], codes: readonly number[] = []) =>
  (project: Project): Item[] =>
    FIGURES.map((_, i): Item => {
      const plain = figure(project, i);
      const drawn = of.map((suffix) => `${plain}${suffix}`).find((n) => isDrawn(project, glyphNamed(project, n)));
      const way: Way = drawn ? { how: 'moved', of: drawn, to: 'foot' } : { how: 'scaled', of: plain, among: 'figures' };
      return { name: name(plain, i), unicodes: codes[i] === undefined ? [] : [codes[i]!], way };
    });

const SUPERIOR = [0x2070, 0xb9, 0xb2, 0xb3, 0x2074, 0x2075, 0x2076, 0x2077, 0x2078, 0x2079];
const INFERIOR = FIGURES.map((_, i) => 0x2080 + i);

/** The name of a superior figure: that of its character, else the one by which features know it. */
const superior = (project: Project, i: number): string =>
  glyphForCodePoint(project, SUPERIOR[i]!)?.name ?? `${FIGURES[i]}superior`;

/** Have the figures of text one width in every master? */
const areOfOneWidth = (project: Project): boolean =>
  project.masters.every((m) => {
    const widths = FIGURES.map((_, i) => glyphNamed(project, figure(project, i))).map(
      (g) => g && drawingOf(g, m.id).advance,
    );
    return new Set(widths).size === 1;
  });

const others = (project: Project, suffix: string, how: 'centred' | 'sided'): Item[] =>
  FIGURES.map((_, i): Item => {
    const of = figure(project, i);
    return { name: `${of}${suffix}`, unicodes: [], way: { how, of } };
  });

/** Old-style figures: 0, 1 and 2 as high as small letters, 6 and 8 as they are, the others hanging. */
const oldStyle = (project: Project): Item[] =>
  FIGURES.map((_, i): Item => {
    const of = figure(project, i);
    const way: Way =
      i < 3 ? { how: 'scaled', of, among: 'figures' } : { how: 'moved', of, to: i === 6 || i === 8 ? 'asIs' : 'hang' };
    return { name: `${of}.onum`, unicodes: [], way };
  });

const caseForms = (project: Project): Item[] => {
  const onLine = [...'¡¿'];
  return [...'-‐–—•·‹›«»()[]{}@:', ...onLine].flatMap((c): Item[] => {
    const glyph = glyphForCodePoint(project, code(c));
    if (!glyph) return [];
    const way: Way = { how: 'moved', of: glyph.name, to: onLine.includes(c) ? 'baseline' : 'middle' };
    return [{ name: `${glyph.name}.case`, unicodes: [], way }];
  });
};

/** Characters that Unicode takes apart into others, as a row of those. */
const rows =
  (codes: readonly number[], part: (project: Project, c: string, i: number, all: readonly string[]) => string) =>
  (project: Project): Item[] =>
    codes.map((c): Item => {
      const letters = [...String.fromCodePoint(c).normalize('NFKD')];
      const of = letters.map((l, i) => part(project, l, i, letters));
      return { name: nameAt(project, c), unicodes: [c], way: { how: 'row', of } };
    });

const FRACTIONS = [
  0xbd, 0xbc, 0xbe, 0x2153, 0x2154, 0x215b, 0x215c, 0x215d, 0x215e, 0x2155, 0x2156, 0x2157, 0x2158, 0x2159, 0x215a,
  0x2150, 0x2151, 0x2152, 0x2189,
];
const fractions = rows(FRACTIONS, (project, c, i, all) => {
  if (c === '⁄') return nameAt(project, 0x2044);
  const plain = named(project, c);
  return i < all.indexOf('⁄') ? `${plain}.numr` : `${plain}.dnom`;
});

const ROMAN = [...Array.from({ length: 12 }, (_, i) => 0x2160 + i), 0x216c, 0x216d, 0x216e, 0x216f];
const roman = rows([...ROMAN, ...ROMAN.map((c) => c + 0x10)], (project, c) => named(project, c));

const ringed = (project: Project): Item[] =>
  [0x24ea, ...Array.from({ length: 20 }, (_, i) => 0x2460 + i)].map((c, n): Item => {
    const of = [...String(n)].map((d) => named(project, d));
    return { name: nameAt(project, c), unicodes: [c], way: { how: 'ringed', of } };
  });

const keys = (project: Project): Item[] =>
  [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789'].flatMap((c): Item[] => {
    const glyph = glyphForCodePoint(project, code(c));
    return glyph ? [{ name: `${glyph.name}.key`, unicodes: [], way: { how: 'framed', of: glyph.name } }] : [];
  });

const ordinals = (project: Project): Item[] =>
  (['ª', 'º'] as const).map((c): Item => {
    const of = named(project, c === 'ª' ? 'a' : 'o');
    return { name: named(project, c), unicodes: [code(c)], way: { how: 'scaled', of, among: 'small' } };
  });

/** Sets that can be made of letters and figures that are drawn, in the order in which they build on each other. */
export const SETS: readonly SetFacts[] = [
  {
    key: 'smallCaps',
    title: 'Small capitals',
    does: 'Capitals at the height of small letters, with their accents',
    measure: 'xHeight',
    usual: { height: 104, width: 104, weight: 103, foot: 0 },
    items: smallCaps,
    controls: smallControls,
  },
  {
    key: 'smallCapFigures',
    title: 'Figures beside small capitals',
    does: 'Figures at the height of small capitals',
    measure: 'xHeight',
    usual: { height: 104, width: 104, weight: 103, foot: 0 },
    items: figures((plain) => `${plain}.sc`),
    controls: smallControls,
  },
  {
    key: 'oldStyle',
    title: 'Old-style figures',
    does: '0, 1 and 2 as high as small letters, 3, 4, 5, 7 and 9 hanging',
    measure: 'xHeight',
    usual: { height: 101, width: 106, weight: 100, foot: 0 },
    items: oldStyle,
  },
  {
    key: 'tabular',
    title: 'Figures of one width',
    does: 'Each in the middle of the width of the widest, in every master',
    measure: undefined,
    usual: NOTHING,
    none: 'The figures are of one width already, in every master.',
    items: (project) => (areOfOneWidth(project) ? [] : others(project, '.tnum', 'centred')),
  },
  {
    key: 'proportional',
    title: 'Figures as wide as they need',
    does: 'The same figures with the sides that their shapes ask for',
    measure: undefined,
    usual: NOTHING,
    none: 'The figures are as wide as they need already.',
    items: (project) => (areOfOneWidth(project) ? others(project, '.pnum', 'sided') : []),
  },
  {
    key: 'superiors',
    title: 'Superiors',
    does: 'Small raised figures at the weight of text',
    measure: 'figures',
    usual: { height: 62, width: 106, weight: 84, foot: 42 },
    items: (project) => figures((_, i) => superior(project, i), [], SUPERIOR)(project),
  },
  {
    key: 'inferiors',
    title: 'Inferiors',
    does: 'The same below the baseline',
    measure: 'figures',
    usual: { height: 62, width: 106, weight: 84, foot: -18 },
    items: (project) =>
      likeSuperiors(
        project,
        (_, i) => glyphForCodePoint(project, INFERIOR[i]!)?.name ?? `${FIGURES[i]}inferior`,
        INFERIOR,
      ),
  },
  {
    key: 'numerators',
    title: 'Numerators',
    does: 'For fractions: as high as figures',
    measure: 'figures',
    usual: { height: 62, width: 106, weight: 84, foot: 38 },
    items: (project) => likeSuperiors(project, (plain) => `${plain}.numr`),
  },
  {
    key: 'denominators',
    title: 'Denominators',
    does: 'For fractions: on the baseline',
    measure: 'figures',
    usual: { height: 62, width: 106, weight: 84, foot: 0 },
    items: (project) => likeSuperiors(project, (plain) => `${plain}.dnom`),
  },
  {
    key: 'fractions',
    title: 'Fractions',
    does: 'Of numerators, the fraction slash and denominators',
    measure: undefined,
    usual: NOTHING,
    items: fractions,
  },
  {
    key: 'ligatures',
    title: 'Ligatures',
    does: 'Of letters as parts, with carets and anchors; those first that a design needs since its letters touch',
    measure: undefined,
    usual: NOTHING,
    items: ligatureItems,
    none: 'f and the letters after it are not drawn yet.',
  },
  {
    key: 'ordinals',
    title: 'Ordinals',
    does: 'ª and º, raised',
    measure: 'xHeight',
    usual: { height: 66, width: 106, weight: 86, foot: 55 },
    items: ordinals,
  },
  {
    key: 'caseForms',
    title: 'Signs beside capitals',
    does: 'Dashes, brackets and quotes at the middle of capitals; ¡ and ¿ on the baseline',
    measure: undefined,
    usual: NOTHING,
    items: caseForms,
  },
  {
    key: 'roman',
    title: 'Roman numerals',
    does: 'I to XII, L, C, D and M as characters of their own, of capitals and of small letters',
    measure: undefined,
    usual: NOTHING,
    items: roman,
  },
  {
    key: 'ringed',
    title: 'Figures in rings',
    does: 'Figures from 0 to 20, each in a ring',
    measure: 'figures',
    usual: { height: 62, width: 100, weight: 88, foot: 19 },
    items: ringed,
  },
  {
    key: 'keys',
    title: 'Keys',
    does: 'Capitals and figures in a frame, as on a keyboard',
    measure: undefined,
    usual: NOTHING,
    items: keys,
  },
];

/** Figures that are superiors at another height, where those are drawn. */
function likeSuperiors(
  project: Project,
  name: (plain: string, i: number) => string,
  codes: readonly number[] = [],
): Item[] {
  return figures(
    name,
    [],
    codes,
  )(project).map((item, i) => {
    const raised = superior(project, i);
    return isDrawn(project, glyphNamed(project, raised))
      ? { ...item, way: { how: 'moved', of: raised, to: 'foot' } }
      : item;
  });
}

export const setOf = (key: string): SetFacts | undefined => SETS.find((s) => s.key === key);

/** Names of the glyphs that a way takes. */
export function needsOf(way: Way): readonly string[] {
  if ('base' in way) return [way.base, ...way.marks.map((m) => m.glyph)];
  return typeof way.of === 'string' ? [way.of] : way.of;
}
