import type { Reader } from './binary';
import { GSUB_EXTENSION } from './gsub';
import { part } from './layout/codec';
import { coverage } from './layout/coverage';
import { type Layout, readLayout } from './layout/lists';

const SINGLE = 1;
const ALTERNATES = 3;
const LIGATURES = 4;

/** One way to a glyph: the glyphs that are replaced by it, the feature that does so (none: only from a context), and its place among alternates. */
export type WayTo = { from: readonly number[]; to: number; feature: string | undefined; nth?: number };

/** The substitutions of one glyph by one, of one by one of several, and of several by one, in the font's order. */
export function waysToGlyphs(bytes: Uint8Array): WayTo[] {
  const layout = readLayout(bytes, 'GSUB', GSUB_EXTENSION);
  const tags = featuresOfLookups(layout);
  return layout.lookups.flatMap(({ type, subtables }, lookup) => {
    const feature = tags.get(lookup);
    return subtables.flatMap((from) => replaced(type, from).map((way) => ({ ...way, feature })));
  });
}

/** For each lookup the feature that says most of it: any other before “access all alternates”. */
function featuresOfLookups(layout: Layout): Map<number, string> {
  const tags = new Map<number, string>();
  for (const { tag, lookups } of layout.features)
    for (const lookup of lookups) if (!tags.has(lookup) || tags.get(lookup) === 'aalt') tags.set(lookup, tag);
  return tags;
}

function replaced(type: number, from: Reader): Omit<WayTo, 'feature'>[] {
  const format = from.uint16();
  if (![SINGLE, ALTERNATES, LIGATURES].includes(type)) return [];
  const covered = coverage.read(part(from, from.uint16()) ?? from);
  if (type === SINGLE && format === 1) {
    const delta = from.uint16();
    return covered.map((glyph) => ({ from: [glyph], to: (glyph + delta) & 0xffff }));
  }
  const offsets = Array.from({ length: from.uint16() }, () => from.uint16());
  if (type === SINGLE)
    return offsets.flatMap((to, i) => (covered[i] === undefined ? [] : [{ from: [covered[i]], to }]));
  return offsets.flatMap((offset, i) => {
    const glyph = covered[i];
    const set = glyph === undefined ? undefined : part(from, offset);
    if (glyph === undefined || !set) return [];
    const inside = Array.from({ length: set.uint16() }, () => set.uint16());
    if (type === ALTERNATES) return inside.map((to, nth) => ({ from: [glyph], to, nth: nth + 1 }));
    return inside.flatMap((at) => {
      const ligature = part(set, at);
      if (!ligature) return [];
      const to = ligature.uint16();
      const parts = Array.from({ length: Math.max(0, ligature.uint16() - 1) }, () => ligature.uint16());
      return [{ from: [glyph, ...parts], to }];
    });
  });
}
