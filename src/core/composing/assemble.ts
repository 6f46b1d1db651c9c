import type { Box } from '../geometry/curve';
import { tidy } from '../geometry/tidy';
import type { Anchor, Component, Drawing, GlyphId, Master } from '../project/model';

/** A glyph to be set somewhere: how wide it is, its anchors, its ink. */
export type Place = { glyph: GlyphId; advance: number; anchors: readonly Anchor[]; box: Box };

/** A mark by its anchor, and the anchor that it meets, of the base or, by its number, of a mark set before. */
type Attached = { place: Place; anchor: string; on: Anchor; at: Anchor; onMark: number };

export type Assembly = {
  base: Place;
  marks: readonly Attached[];
  before: readonly Place[];
  beside: readonly Place[];
};

/** White between accents before a capital, between them and the letter, and before them: shares of the em. */
const BEFORE = { between: 0.02, letter: 0.03, lead: 0.035 };
/** How far accents before a capital pass its height, as a share of the em. */
const ABOVE = 0.02;

const at = (x: number, y: number) => [1, 0, 0, 1, tidy(x), tidy(y)] as const;

/**
 * One letter set together in a master: accents before it at the height of capitals, the base, marks where anchors meet, each
 * further one of the same anchor on the one before, letters beside one after the other. It is as wide as its base, and as what
 * stands before and beside it takes.
 */
export function assembled(
  master: Master,
  unitsPerEm: number,
  { base, marks, before, beside }: Assembly,
): Pick<Drawing, 'advance' | 'components' | 'anchors'> {
  const { row, shift } = rowBefore(master, unitsPerEm, base, before);
  const components: Component[] = [{ glyph: base.glyph, transform: at(shift, 0) }, ...row];
  const set: { dx: number; dy: number }[] = [];
  const top = new Map<string, { mark: Place; dx: number; dy: number }>();
  for (const { place, anchor, on, at: sits, onMark } of marks) {
    const under = set[onMark] ?? { dx: shift, dy: 0 };
    const [dx, dy] = [tidy(on.x + under.dx - sits.x), tidy(on.y + under.dy - sits.y)];
    components.push({ glyph: place.glyph, transform: at(dx, dy), anchor });
    set.push({ dx, dy });
    top.set(anchor, { mark: place, dx, dy });
  }
  let advance = base.advance + shift;
  for (const { glyph, advance: width } of beside) {
    components.push({ glyph, transform: at(advance, 0) });
    advance += width;
  }
  // What marks of other kinds, or one on top of the last, find on the whole letter.
  const free = base.anchors
    .filter((a) => !a.name.startsWith('_') && !top.has(a.name))
    .map((a) => (shift === 0 ? a : { ...a, x: tidy(a.x + shift) }));
  const onTop = [...top].flatMap(([anchor, { mark, dx, dy }]): Anchor[] => {
    const carries = mark.anchors.find((a) => a.name === anchor);
    return carries ? [{ ...carries, x: tidy(carries.x + dx), y: tidy(carries.y + dy) }] : [];
  });
  return { advance: tidy(advance), components, anchors: beside.length > 0 ? [] : [...free, ...onTop] };
}

/** Accents before a capital, and how far it moves to make room for them. */
function rowBefore(
  { zones }: Master,
  em: number,
  base: Place,
  before: readonly Place[],
): { row: Component[]; shift: number } {
  let x = Math.round(BEFORE.lead * em);
  const row = before.map(({ glyph, box }, i): Component => {
    if (i > 0) x += Math.round(BEFORE.between * em);
    const rise = Math.round(zones.capHeight.position + ABOVE * em - box.yMax);
    const transform = at(Math.round(x - box.xMin), rise);
    x += Math.round(box.xMax - box.xMin);
    return { glyph, transform };
  });
  const shift = row.length === 0 ? 0 : Math.max(0, Math.round(x + BEFORE.letter * em - base.box.xMin));
  return { row, shift };
}
