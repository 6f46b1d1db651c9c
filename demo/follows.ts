type Side = 'left' | 'right';

/** Side bearings that are another's: the straight and the round sides each have one letter to be set by. */
export const FOLLOWS: readonly (readonly [name: string, side: Side, of: string, ofSide: Side])[] = [
  ...['b', 'h', 'k', 'l', 'm', 'p', 'r', 'dotlessi'].map((n) => [n, 'left', 'n', 'left'] as const),
  ...['d', 'q', 'dotlessi'].map((n) => [n, 'right', 'n', 'left'] as const),
  ['u', 'left', 'n', 'left'],
  ...['h', 'm', 'u'].map((n) => [n, 'right', 'n', 'right'] as const),
  ...['c', 'e'].map((n) => [n, 'left', 'o', 'left'] as const),
  ['o', 'right', 'o', 'left'],
  ...['B', 'D', 'E', 'F', 'K', 'L', 'M', 'N', 'P', 'R'].map((n) => [n, 'left', 'H', 'left'] as const),
  ...['H', 'M', 'N'].map((n) => [n, 'right', 'H', 'left'] as const),
  ...['C', 'G', 'Q'].map((n) => [n, 'left', 'O', 'left'] as const),
  ['O', 'right', 'O', 'left'],
];
