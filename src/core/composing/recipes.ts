import { type AnchorName, markOf } from './marks';

/**
 * What a character is put together from: a base with marks in order, each at an anchor; marks that stand before it at its
 * own height, as accents of Greek capitals do; letters that follow it.
 */
export type Recipe = {
  base: number;
  marks: readonly { mark: number; anchor: AnchorName }[];
  before?: readonly number[];
  beside?: readonly number[];
};

/** Letters whose Unicode decomposition is not what is drawn: the caron beside an ascender, commas for cedillas in Latvian. */
const OWN: readonly (readonly [letters: string, mark: number, anchor: AnchorName])[] = [
  ['ďľťĽ', 0x315, 'topright'],
  ['ĢķĶļĻņŅŗŖ', 0x326, 'bottom'],
  ['ģ', 0x312, 'top'],
];

/** Letters of two that stand side by side. */
const BESIDE: readonly (readonly [letter: string, parts: string])[] = [
  ['ĳ', 'ij'],
  ['Ĳ', 'IJ'],
  ['ŀ', 'l·'],
  ['Ŀ', 'L·'],
  ['ŉ', '’n'],
  ['ǆ', 'dž'],
  ['ǅ', 'Dž'],
  ['Ǆ', 'DŽ'],
  ['ǉ', 'lj'],
  ['ǈ', 'Lj'],
  ['Ǉ', 'LJ'],
  ['ǌ', 'nj'],
  ['ǋ', 'Nj'],
  ['Ǌ', 'NJ'],
  ['ǳ', 'dz'],
  ['ǲ', 'Dz'],
  ['Ǳ', 'DZ'],
];

const points = (text: string): number[] => [...text].map((c) => c.codePointAt(0)!);

const OWN_RECIPES = new Map<number, Recipe>([
  ...OWN.flatMap(([letters, mark, anchor]) =>
    [...letters].map((letter): [number, Recipe] => {
      const base = letter.normalize('NFD').codePointAt(0)!;
      return [letter.codePointAt(0)!, { base, marks: [{ mark, anchor }] }];
    }),
  ),
  ...BESIDE.map(([letter, parts]): [number, Recipe] => {
    const [base, ...beside] = points(parts);
    return [letter.codePointAt(0)!, { base: base!, marks: [], beside }];
  }),
]);

/** Marks that stand above Greek capitals: dieresis, macron, breve. */
const ABOVE_CAPITALS: ReadonlySet<number> = new Set([0x308, 0x304, 0x306]);
/** The Greek mark below that stands beside a capital as a small iota. */
const IOTA_BELOW = 0x345;
const SMALL_IOTA = 0x3b9;

const known = new Map<number, Recipe | undefined>();

/**
 * The recipe of a precomposed character by Unicode's canonical decomposition, with the habits of type designers put before
 * it; marks stand in the order that they are set in, nearest first. Undefined for characters that are drawn themselves, and
 * for those with marks that have no place on a letter.
 */
export function recipeOf(code: number): Recipe | undefined {
  if (!known.has(code)) known.set(code, decomposed(code));
  return known.get(code);
}

function decomposed(code: number): Recipe | undefined {
  const own = OWN_RECIPES.get(code);
  if (own) return own;
  const character = String.fromCodePoint(code);
  const [base, ...marks] = points(character.normalize('NFD'));
  if (base === undefined || marks.length === 0) return undefined;
  const kinds = marks.map(markOf);
  if (kinds.some((k) => k === undefined)) return undefined;
  if (/\p{Script=Greek}/u.test(character) && /\p{Lu}|\p{Lt}/u.test(character)) return greekCapital(base, marks);
  return { base, marks: marks.map((mark, i) => ({ mark, anchor: kinds[i]!.anchor })) };
}

/** Accents and breathings stand before Greek capitals, the iota beside them; the dieresis and lengths above, as ever. */
function greekCapital(base: number, marks: readonly number[]): Recipe {
  const above = marks.filter((m) => ABOVE_CAPITALS.has(m));
  const before = marks.filter((m) => !ABOVE_CAPITALS.has(m) && m !== IOTA_BELOW);
  return {
    base,
    marks: above.map((mark) => ({ mark, anchor: markOf(mark)!.anchor })),
    ...(before.length > 0 && { before }),
    ...(marks.includes(IOTA_BELOW) && { beside: [SMALL_IOTA] }),
  };
}

/** Spacing characters in which Greek breathings and accents stand together, by what they are made of. */
const TOGETHER: ReadonlyMap<string, number> = new Map(
  [0x1fcd, 0x1fce, 0x1fcf, 0x1fdd, 0x1fde, 0x1fdf].map((code, i) => {
    const marks = [i < 3 ? 0x313 : 0x314, [0x300, 0x301, 0x342][i % 3]!];
    return [String.fromCodePoint(...marks), code];
  }),
);

/** The one spacing character for several Greek marks, if Unicode has it. */
export const spacingTogether = (marks: readonly number[]): number | undefined =>
  TOGETHER.get(String.fromCodePoint(...marks));

/** Letters that lose their dot under a mark above. */
const DOTLESS = new Map([
  [0x69, 0x131],
  [0x6a, 0x237],
]);

/** The base that carries marks: dotless i and j under a mark above. */
export function baseUnder(recipe: Pick<Recipe, 'base' | 'marks'>): number {
  const above = recipe.marks.some((m) => m.anchor === 'top');
  return (above && DOTLESS.get(recipe.base)) || recipe.base;
}

/** Letters with a dot that a mark above takes the place of, and the same without it. */
export const DOTLESS_LETTERS: ReadonlyMap<number, number> = DOTLESS;
