import { regionShare } from '../base/interpolation';
import { refuse } from '../base/result';
import { Reader } from './binary';
import { device, isVariation } from './layout/values';

/** Where a difference applies: per axis start, peak and end, normalised. */
export type AxisRegion = readonly (readonly [start: number, peak: number, end: number])[];

/** How much of a region applies at a place (OpenType, "Algorithm for Interpolation of Instance Values"). */
export function regionScalar(region: AxisRegion, place: readonly number[]): number {
  let scalar = 1;
  for (let i = 0; i < region.length; i++) scalar *= regionShare(region[i]!, place[i] ?? 0);
  return scalar;
}

/** Differences that belong together: one row per item, one value per region. */
export type ItemData = { regions: readonly number[]; rows: readonly (readonly number[])[] };
export type ItemStore = { regions: AxisRegion[]; data: ItemData[] };

/** An item variation store (OpenType, "Item Variation Store"), as HVAR, MVAR, GDEF and CFF2 have it. */
export function readItemStore(bytes: Uint8Array, table: string): ItemStore {
  const from = new Reader(bytes, table);
  from.seek(2);
  const regionsAt = from.uint32();
  const offsets = Array.from({ length: from.uint16() }, () => from.uint32());
  from.seek(regionsAt);
  const axisCount = from.uint16();
  const regions = Array.from(
    { length: from.uint16() },
    (): AxisRegion =>
      Array.from({ length: axisCount }, () => [from.f2dot14(), from.f2dot14(), from.f2dot14()] as const),
  );
  const data = offsets.map((offset): ItemData => {
    if (offset === 0) return { regions: [], rows: [] };
    from.seek(offset);
    const items = from.uint16();
    const words = from.uint16();
    const indexes = Array.from({ length: from.uint16() }, () => from.uint16());
    const long = (words & 0x8000) !== 0;
    const wide = words & 0x7fff;
    if (items * indexes.length > bytes.length)
      refuse(`The ${table} table says it has ${items} rows of ${indexes.length} differences.`);
    const value = (k: number) =>
      k < wide ? (long ? from.uint32() | 0 : from.int16()) : long ? from.int16() : from.int8();
    return { regions: indexes, rows: Array.from({ length: items }, () => indexes.map((_, k) => value(k))) };
  });
  return { regions, data };
}

/** How much each region of a set of rows applies at a place. */
export const itemScalars = (store: ItemStore, outer: number, place: readonly number[]): number[] =>
  (store.data[outer]?.regions ?? []).map((r) => (store.regions[r] ? regionScalar(store.regions[r]!, place) : 0));

/** One item's difference at a place; an item that is not there has none. */
export function itemDelta(store: ItemStore, outer: number, inner: number, place: readonly number[]): number {
  const row = store.data[outer]?.rows[inner];
  if (!row) return 0;
  const scalars = itemScalars(store, outer, place);
  return row.reduce((sum, v, i) => sum + v * (scalars[i] ?? 0), 0);
}

/** Which item each glyph's difference is: from a map, else the glyph's own number in the first set. */
export function readIndexMap(
  bytes: Uint8Array | undefined,
  table: string,
): (index: number) => [outer: number, inner: number] {
  if (!bytes) return (index) => [0, index];
  const from = new Reader(bytes, table);
  const format = from.uint8();
  const entry = from.uint8();
  const count = format === 0 ? from.uint16() : from.uint32();
  const size = ((entry >> 4) & 3) + 1;
  const innerBits = (entry & 15) + 1;
  if (count * size > bytes.length) refuse(`The ${table} table has a map of ${count} entries, more than fit.`);
  const entries = Array.from({ length: count }, () => {
    let v = 0;
    for (let i = 0; i < size; i++) v = v * 256 + from.uint8();
    return [Math.floor(v / 2 ** innerBits), v % 2 ** innerBits] as [number, number];
  });
  return (index) => entries[Math.min(index, entries.length - 1)] ?? [0, index];
}

/** Advance differences of HVAR by glyph and place, and the places its regions peak at. */
export function readHvar(bytes: Uint8Array): {
  store: ItemStore;
  advance(glyph: number, place: readonly number[]): number;
} {
  const from = new Reader(bytes, 'HVAR');
  const storeAt = from.seek(4).uint32();
  const mapAt = from.uint32();
  const store = readItemStore(bytes.subarray(storeAt), 'HVAR');
  const map = readIndexMap(mapAt === 0 ? undefined : bytes.subarray(mapAt), 'HVAR');
  return { store, advance: (glyph, place) => itemDelta(store, ...map(glyph), place) };
}

/** Metrics of a whole font that vary, by their tags, and by how much at a normalised place. */
export type Mvar = { readonly tags: ReadonlySet<string>; of(tag: string, place: readonly number[]): number };

/** Differences of font-wide metrics by tag. */
export function readMvar(bytes: Uint8Array): Mvar {
  const from = new Reader(bytes, 'MVAR');
  const size = from.seek(6).uint16();
  const count = from.uint16();
  const storeAt = from.uint16();
  const store = storeAt === 0 ? { regions: [], data: [] } : readItemStore(bytes.subarray(storeAt), 'MVAR');
  const records = new Map<string, [number, number]>();
  for (let i = 0; i < count; i++) {
    from.seek(12 + i * size);
    records.set(from.tag(), [from.uint16(), from.uint16()]);
  }
  return {
    tags: new Set(records.keys()),
    of: (tag, place) => (records.has(tag) ? itemDelta(store, ...records.get(tag)!, place) : 0),
  };
}

/** An item's differences at every place of a list, the default's (0) first. */
export type DeltasAt = (outer: number, inner: number) => readonly number[];

/** What a value's device table says it differs by; undefined for tables that speak of pixel sizes. */
export function variationAt(parent: Reader, offset: number, deltas: DeltasAt): readonly number[] | undefined {
  // Differences at pixel sizes are nobody's here, and often damaged: they are not read at all.
  const from = new Reader(parent.bytes, parent.name);
  if (!isVariation(from.seek(offset))) return undefined;
  const found = device.read(from.seek(offset));
  return found.kind === 'variation' ? deltas(found.outer, found.inner) : undefined;
}

/** The differences that GPOS values refer to, kept in GDEF since its version 1.3. */
export function readGdefStore(gdef: Uint8Array): ItemStore | undefined {
  const from = new Reader(gdef, 'GDEF');
  const [major, minor] = [from.uint16(), from.uint16()];
  if (major !== 1 || minor < 3) return undefined;
  const offset = from.seek(14).uint32();
  return offset === 0 || offset >= gdef.length ? undefined : readItemStore(gdef.subarray(offset), 'GDEF');
}
