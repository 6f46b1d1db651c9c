/** How a letter carries its marks where that is not told by its shape alone; found on the letters of open text faces. */
export type LetterHabit = {
  /**
   * What carries a mark above: the bowl beside an ascender; the bowl beside an ear; the stem where it ends without a serif; what
   * stands halfway up; the same where the letter is slanted, since strokes that lead in and out are no part of it; all of the letter
   * where it is upright, its lower arm being as much of it as the upper; the bowl above, which goes out beyond what is flat of the top.
   */
  readonly top?:
    | 'bowl'
    | 'bowl beside an ear'
    | 'plain stem'
    | 'waist'
    | 'waist if slanted'
    | 'whole if upright'
    | 'upper bowl';
  /** A mark below stands under what is halfway up rather than under what stands on the line. */
  readonly bottom?: 'waist';
  /** The cedilla hangs from the stem at the left. */
  readonly cedilla?: 'left stem';
  /** A stroke goes through the letter and may stick out: it ends where the letter without it does. */
  readonly isCrossed?: true;
};

const HABITS: readonly (readonly [letters: string, habit: LetterHabit])[] = [
  ['bd', { top: 'bowl' }],
  ['g', { top: 'bowl beside an ear' }],
  ['Lk', { top: 'plain stem' }],
  ['h', { top: 'plain stem', cedilla: 'left stem' }],
  ['ıȷ', { top: 'waist' }],
  ['mnuи', { top: 'waist if slanted' }],
  // Of Latin, Greek and Cyrillic.
  ['E\u0395\u0415', { top: 'whole if upright' }],
  ['R', { top: 'upper bowl', bottom: 'waist' }],
  ['N', { bottom: 'waist' }],
  ['H', { cedilla: 'left stem' }],
  ['Øø', { isCrossed: true }],
];

const byCode = new Map(HABITS.flatMap(([letters, habit]) => [...letters].map((c) => [c.codePointAt(0)!, habit])));
const NONE: LetterHabit = {};
/** The habit of a letter, by its code point. */
export const habitOf = (code: number): LetterHabit => byCode.get(code) ?? NONE;
