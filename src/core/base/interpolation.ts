/** The arithmetic of variation, said once: for the document, for font tables, for whatever is blended. */

/** How much of one axis of a region applies at a normalised value, 0 to 1 (OpenType, "Algorithm for Interpolation of Instance Values"). */
export function regionShare(
  [start, peak, end]: readonly [start: number, peak: number, end: number],
  v: number,
): number {
  if (peak === 0 || start > peak || peak > end || (start < 0 && end > 0) || v === peak) return 1;
  if (v <= start || v >= end) return 0;
  return v < peak ? (v - start) / (peak - start) : (end - v) / (end - peak);
}

/** A value on an axis as -1 at its lowest, 0 in the middle, 1 at its highest; beyond the ends it counts as the end. */
export function axisShare(low: number, middle: number, high: number, value: number): number {
  const held = Math.min(Math.max(value, Math.min(low, high)), Math.max(low, high));
  const upward = (held - middle) * (high - middle) > 0;
  const end = upward ? high : low;
  const share = held === middle || end === middle ? 0 : Math.abs((held - middle) / (end - middle));
  return upward || share === 0 ? share : -share;
}

/** A value led along straight pieces between places that are given, ordered; beyond them it stays as far off as it was. */
export function bent(map: readonly (readonly [from: number, to: number])[], value: number): number {
  if (map.length === 0) return value;
  const [first, last] = [map[0]!, map[map.length - 1]!];
  if (value <= first[0]) return first[1] + (value - first[0]);
  if (value >= last[0]) return last[1] + (value - last[0]);
  const i = map.findIndex(([from]) => from >= value);
  const [f0, t0] = map[i - 1]!;
  const [f1, t1] = map[i]!;
  return f1 === f0 ? t1 : t0 + ((value - f0) / (f1 - f0)) * (t1 - t0);
}
