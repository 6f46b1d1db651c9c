import { attempt } from '../base/result';
import { GPOS_EXTENSION } from '../opentype/gpos';
import { readLayout } from '../opentype/layout/lists';
import type { PairValue } from '../opentype/layout/positions';
import { type ReadPositions, readPosition } from '../opentype/layout/readPositions';

/** From this share on, pairs that do more than change an advance make rules of all that their lookup says. */
const MOVING = 0.2;

const isMoving = ({ first, second }: PairValue): boolean =>
  [...Object.entries(first), ...Object.entries(second).map(([k, v]) => [`second ${k}`, v] as const)].some(
    ([field, v]) => field !== 'xAdvance' && v !== 0,
  );

/** Lookups of pairs that move letters otherwise than by the advance of the first, as kerning of letters from the right does. */
export function kerningThatMoves(rules: readonly (readonly ReadPositions[])[]): ReadonlySet<number> {
  return new Set(
    rules.flatMap((subtables, i) => {
      const pairs = subtables.flatMap((r): readonly { value: PairValue }[] =>
        r.kind === 'glyphPairs' || r.kind === 'classPairs' ? r.pairs : [],
      );
      const moving = pairs.filter((p) => isMoving(p.value)).length;
      return moving > 0 && moving >= pairs.length * MOVING ? [i] : [];
    }),
  );
}

/** Lookups of kerning in a `GPOS` table that are rules, not pairs; none where the table is damaged. */
export function kerningAsRules(gpos: Uint8Array, glyphs: number): ReadonlySet<number> {
  const found = attempt(() => {
    const layout = readLayout(gpos, 'GPOS', GPOS_EXTENSION);
    const of = new Set(layout.features.filter((f) => f.tag === 'kern').flatMap((f) => f.lookups));
    return kerningThatMoves(
      layout.lookups.map((l, i) => (of.has(i) ? l.subtables.map((s) => readPosition(l.type, s, glyphs)) : [])),
    );
  });
  return found.ok ? found.value : new Set();
}
