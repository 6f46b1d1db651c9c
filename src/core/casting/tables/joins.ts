import type { Lookup } from '../../opentype/layout/lists';
import { type AnchorAt, cursiveSubtable, GPOS_TYPE } from '../../opentype/layout/positions';
import type { Anchor, Glyph } from '../../project/model';
import type { CastPlan, Entry } from '../plan';

/** Lookup flags (OpenType, “lookupFlag”): the last letter of a joined row keeps its place; marks do not part letters. */
const [RIGHT_TO_LEFT, IGNORE_MARKS] = [1, 8];
const FROM_RIGHT =
  /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Nko}\p{Script=Thaana}\p{Script=Mandaic}]/u;

const isAt = (a: Anchor, role: 'entry' | 'exit'): boolean => a.role === role || a.name === role;

/**
 * `curs`: letters join where the exit of one meets the entry of the next. Letters that are written from the right have a lookup of
 * their own, as they keep the other end of a row in its place.
 */
export function joins({ entries, varies }: Pick<CastPlan, 'entries' | 'varies'>): Lookup<Uint8Array>[] {
  const placed = (a: Anchor, glyph: Glyph): AnchorAt => varies?.anchor(glyph, a.name) ?? rounded(a);
  const rows = {
    left: new Map<number, { entry?: AnchorAt; exit?: AnchorAt }>(),
    right: new Map<number, { entry?: AnchorAt; exit?: AnchorAt }>(),
  };
  entries.forEach(({ glyph, drawing }, i) => {
    const [entry, exit] = (['entry', 'exit'] as const).map((role) => drawing.anchors.find((a) => isAt(a, role)));
    if (!entry && !exit) return;
    const side = isFromRight(glyph.unicodes[0], glyph.name, entries) ? 'right' : 'left';
    rows[side].set(i, {
      ...(entry && { entry: placed(entry, glyph) }),
      ...(exit && { exit: placed(exit, glyph) }),
    });
  });
  return (['right', 'left'] as const).flatMap((side) =>
    rows[side].size === 0
      ? []
      : [
          {
            type: GPOS_TYPE.cursive,
            flag: IGNORE_MARKS | (side === 'right' ? RIGHT_TO_LEFT : 0),
            subtables: [cursiveSubtable(rows[side])],
          },
        ],
  );
}

const rounded = ({ x, y }: Anchor): AnchorAt => ({ x: Math.round(x), y: Math.round(y) });

/** Is a glyph of a script that is written from the right: by its character, or that of the glyph whose form it is? */
function isFromRight(code: number | undefined, name: string, entries: readonly Entry[]): boolean {
  const own = code ?? entries.find((e) => e.glyph.name === name.split('.', 1)[0])?.glyph.unicodes[0];
  return own !== undefined && FROM_RIGHT.test(String.fromCodePoint(own));
}
