/** One side of a kerning pair: a glyph or a group, by id. */
export type PairSide = { kind: 'glyph' | 'group'; id: string };

/** The key of a pair in a master's kerning. Ids hold no spaces or colons. */
export const pairKey = (first: PairSide, second: PairSide): string =>
  `${first.kind}:${first.id} ${second.kind}:${second.id}`;

/** The sides a key names; undefined for a key that is not one. */
export function pairSides(key: string): [first: PairSide, second: PairSide] | undefined {
  const match = /^(glyph|group):(\S+) (glyph|group):(\S+)$/.exec(key);
  if (!match) return undefined;
  return [
    { kind: match[1] as PairSide['kind'], id: match[2]! },
    { kind: match[3] as PairSide['kind'], id: match[4]! },
  ];
}
