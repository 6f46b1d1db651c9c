import { type AnchorName, markOf } from './marks';

/** What a character is put together from: a base, and marks in order, each at an anchor. */
export type Recipe = {
  base: number;
  marks: readonly { mark: number; anchor: AnchorName }[];
};

/** Letters whose Unicode decomposition is not what is drawn: the caron beside an ascender, commas for cedillas in Latvian. */
const OWN: readonly (readonly [letters: string, mark: number, anchor: AnchorName])[] = [
  ['ďľťĽ', 0x315, 'topright'],
  ['ĢķĶļĻņŅŗŖ', 0x326, 'bottom'],
  ['ģ', 0x312, 'top'],
];

const OWN_RECIPES = new Map(
  OWN.flatMap(([letters, mark, anchor]) =>
    [...letters].map((letter) => {
      const base = letter.normalize('NFD').codePointAt(0)!;
      return [letter.codePointAt(0)!, { base, marks: [{ mark, anchor }] }] as const;
    }),
  ),
);

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
  const [base, ...marks] = [...String.fromCodePoint(code).normalize('NFD')].map((c) => c.codePointAt(0)!);
  if (base === undefined || marks.length === 0) return undefined;
  // Accents and breathings stand before Greek capitals, not above them: those letters are drawn.
  const character = String.fromCodePoint(code);
  if (/\p{Script=Greek}/u.test(character) && /\p{Lu}|\p{Lt}/u.test(character) && marks.some((m) => m !== 0x308))
    return undefined;
  const kinds = marks.map(markOf);
  if (kinds.some((k) => k === undefined)) return undefined;
  return { base, marks: marks.map((mark, i) => ({ mark, anchor: kinds[i]!.anchor })) };
}

/** Letters that lose their dot under a mark above. */
const DOTLESS = new Map([
  [0x69, 0x131],
  [0x6a, 0x237],
]);

/** The base that carries marks: dotless i and j under a mark above. */
export function baseUnder(recipe: Recipe): number {
  const above = recipe.marks.some((m) => m.anchor === 'top');
  return (above && DOTLESS.get(recipe.base)) || recipe.base;
}

/** Letters with a dot that a mark above takes the place of, and the same without it. */
export const DOTLESS_LETTERS: ReadonlyMap<number, number> = DOTLESS;
