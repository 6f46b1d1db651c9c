/** How CFF writes advances: one is understood, the others are written as their distance from another. */
export type WidthValues = { defaultWidthX: number; nominalWidthX: number };

/** A charstring number takes one byte up to this distance, two up to the next, three beyond. */
const ONE_BYTE = 107;
const TWO_BYTES = 1131;

/**
 * defaultWidthX is the most frequent advance, the least of several; nominalWidthX what makes the others cheapest to write.
 * Advances are whole numbers of units.
 */
export function widthValues(advances: readonly number[]): WidthValues {
  const counts = new Map<number, number>();
  for (const a of advances) counts.set(a, (counts.get(a) ?? 0) + 1);
  const [defaultWidthX] = [...counts].reduce((a, b) => (b[1] > a[1] || (b[1] === a[1] && b[0] < a[0]) ? b : a), [0, 0]);
  counts.delete(defaultWidthX);
  const widths = Int32Array.from(counts.keys()).sort();
  // How many glyphs are as wide as one of the widths before a place in the row.
  const before = new Int32Array(widths.length + 1);
  widths.forEach((w, i) => {
    before[i + 1] = before[i]! + counts.get(w)!;
  });
  const within = (nominal: number, reach: number) =>
    before[placeOf(widths, nominal + reach + 1)]! - before[placeOf(widths, nominal - reach)]!;
  let best = { nominal: 0, saved: within(0, ONE_BYTE) + within(0, TWO_BYTES) };
  for (const w of widths) {
    const nominal = Math.min(32767, w + ONE_BYTE);
    const saved = within(nominal, ONE_BYTE) + within(nominal, TWO_BYTES);
    if (saved > best.saved) best = { nominal, saved };
  }
  return { defaultWidthX, nominalWidthX: best.nominal };
}

/** Where in a rising row the first value of at least `v` stands. */
function placeOf(row: Int32Array, v: number): number {
  let low = 0;
  let high = row.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (row[middle]! < v) low = middle + 1;
    else high = middle;
  }
  return low;
}
