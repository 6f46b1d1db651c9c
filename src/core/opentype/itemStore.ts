import { Writer } from './binary';
import type { AxisRegion, ItemData, ItemStore } from './variations';

const LONG_WORDS = 0x8000;
const MOST_ROWS = 0xffff;

/** Bytes that a difference takes: none for 0, one, two or four. */
const widthOf = (v: number): 0 | 1 | 2 | 4 =>
  v === 0 ? 0 : v >= -128 && v <= 127 ? 1 : v >= -32768 && v <= 32767 ? 2 : 4;

/**
 * An item variation store (OpenType, “Item Variation Store”), as HVAR, MVAR, GDEF and CFF2 have it. In each set the regions whose
 * differences need more room stand first, as the format wants it; rows stay in their order.
 */
export function writeItemStore({ regions, data }: ItemStore, axisCount: number): Uint8Array {
  const sets = data.map(writeData);
  const head = 8 + sets.length * 4;
  const list = new Writer().uint16(axisCount).uint16(regions.length);
  for (const region of regions) for (const [start, peak, end] of region) list.f2dot14(start).f2dot14(peak).f2dot14(end);
  const regionBytes = list.toBytes();
  const out = new Writer().uint16(1).uint32(head).uint16(sets.length);
  let at = head + regionBytes.length;
  for (const set of sets) {
    out.uint32(at);
    at += set.length;
  }
  out.raw(regionBytes);
  for (const set of sets) out.raw(set);
  return out.toBytes();
}

function writeData({ regions, rows }: ItemData): Uint8Array {
  const widths = regions.map((_, k) => rows.reduce((most, row) => Math.max(most, widthOf(row[k]!)), 0));
  const isLong = widths.some((w) => w === 4);
  const narrow = isLong ? 2 : 1;
  const order = regions
    .map((_, k) => k)
    .sort((a, b) => Number(widths[b]! > narrow) - Number(widths[a]! > narrow) || a - b);
  const wide = widths.filter((w) => w > narrow).length;
  const out = new Writer()
    .uint16(rows.length)
    .uint16(wide | (isLong ? LONG_WORDS : 0))
    .uint16(regions.length);
  for (const k of order) out.uint16(regions[k]!);
  for (const row of rows)
    order.forEach((k, i) => {
      const v = row[k]!;
      if (isLong) i < wide ? out.uint32(v >>> 0) : out.int16(v);
      else i < wide ? out.int16(v) : out.uint8(v & 0xff);
    });
  return out.toBytes();
}

/** A difference where a region applies, in whole units. */
export type RegionDelta = { region: AxisRegion; delta: number };
/** Where a row came to lie. */
export type ItemIndex = { outer: number; inner: number };

/** Regions in the order in which they are first asked for, each once. */
export class RegionList {
  readonly regions: AxisRegion[] = [];
  private readonly numbers = new Map<string, number>();
  /** Those that were asked for, by what they are: nearly all rows of a font have the same few. */
  private readonly known = new Map<AxisRegion, number>();

  numberOf(region: AxisRegion): number {
    let n = this.known.get(region);
    if (n === undefined) {
      const key = JSON.stringify(region);
      n = this.numbers.get(key) ?? this.regions.push(region) - 1;
      this.numbers.set(key, n);
      this.known.set(region, n);
    }
    return n;
  }
}

type Group = { widths: readonly number[]; rows: string[] };

/** Collects rows of differences, each once, and lays them out in sets of as few bytes as may be. */
export class DeltaStore {
  private readonly list = new RegionList();
  private readonly rows = new Map<string, number[]>();

  constructor(private readonly axisCount: number) {}

  /** Notes a row; its key, or nothing where nothing differs. */
  add(deltas: readonly RegionDelta[]): string | undefined {
    return deltas.every((d) => d.delta === 0) ? undefined : this.addRow(deltas);
  }

  /** Notes a row even where nothing differs: maps lead to one for every glyph. */
  addRow(deltas: readonly RegionDelta[]): string {
    const row: number[] = [];
    for (const { region, delta } of deltas) {
      if (delta === 0) continue;
      const n = this.list.numberOf(region);
      row[n] = (row[n] ?? 0) + delta;
    }
    const whole = Array.from(row, (v) => v ?? 0);
    const key = whole.join(' ');
    this.rows.set(key, whole);
    return key;
  }

  get isEmpty(): boolean {
    return this.rows.size === 0;
  }

  /** The store as bytes, and where each row lies. The same rows give the same bytes in whatever order they came. */
  finished(): { bytes: Uint8Array; at: (key: string) => ItemIndex } {
    const { regions } = this.list;
    const full = (key: string) => {
      const row = this.rows.get(key)!;
      return regions.map((_, k) => row[k] ?? 0);
    };
    const groups = new Map<string, Group>();
    for (const key of [...this.rows.keys()].sort()) {
      const widths = full(key).map(widthOf);
      const name = widths.join('');
      const group = groups.get(name) ?? { widths, rows: [] };
      group.rows.push(key);
      groups.set(name, group);
    }
    const data: ItemData[] = [];
    const places = new Map<string, ItemIndex>();
    for (const { widths, rows } of merged([...groups.values()])) {
      const used = widths.flatMap((w, k) => (w > 0 ? [k] : []));
      for (let i = 0; i < rows.length; i += MOST_ROWS) {
        const part = rows.slice(i, i + MOST_ROWS);
        part.forEach((key, inner) => {
          places.set(key, { outer: data.length, inner });
        });
        const rowOf = (key: string): number[] => {
          const row = full(key);
          return used.map((k) => row[k]!);
        };
        data.push({ regions: used, rows: part.map(rowOf) });
      }
    }
    return {
      bytes: writeItemStore({ regions, data }, this.axisCount),
      at: (key) => places.get(key)!,
    };
  }
}

const HEAD = 10;
const joint = (a: readonly number[], b: readonly number[]): number[] => a.map((w, k) => Math.max(w, b[k]!));

/** Bytes of a set: its head, its regions, its rows. */
function bytesOf(widths: readonly number[], rows: number): number {
  const used = widths.filter((w) => w > 0);
  const long = used.some((w) => w === 4);
  const row = used.reduce((sum, w) => sum + (long ? Math.max(2, w) : w), 0);
  return HEAD + used.length * 2 + rows * row;
}

/** Sets joined while that saves bytes: the two that save most first. */
function merged(groups: readonly Group[]): Group[] {
  const all = [...groups];
  for (;;) {
    let best: { i: number; k: number; saved: number } | undefined;
    for (let i = 0; i < all.length; i++)
      for (let k = i + 1; k < all.length; k++) {
        const [a, b] = [all[i]!, all[k]!];
        const both = bytesOf(joint(a.widths, b.widths), a.rows.length + b.rows.length);
        const saved = bytesOf(a.widths, a.rows.length) + bytesOf(b.widths, b.rows.length) - both;
        if (saved > (best?.saved ?? 0)) best = { i, k, saved };
      }
    if (!best) return all;
    const [a, b] = [all[best.i]!, all[best.k]!];
    all.splice(best.k, 1);
    all[best.i] = { widths: joint(a.widths, b.widths), rows: [...a.rows, ...b.rows].sort() };
  }
}

/** A map from glyphs, by their numbers, to rows (OpenType, “DeltaSetIndexMap”): what repeats at the end is written once. */
export function writeIndexMap(entries: readonly ItemIndex[]): Uint8Array {
  let count = entries.length;
  while (count > 1) {
    const [a, b] = [entries[count - 1]!, entries[count - 2]!];
    if (a.outer !== b.outer || a.inner !== b.inner) break;
    count--;
  }
  const kept = entries.slice(0, count);
  const innerBits = Math.max(1, bits(Math.max(0, ...kept.map((e) => e.inner))));
  const outerBits = bits(Math.max(0, ...kept.map((e) => e.outer)));
  const size = Math.max(1, Math.ceil((innerBits + outerBits) / 8));
  const out = new Writer();
  const format = ((size - 1) << 4) | (innerBits - 1);
  if (count > 0xffff) out.uint8(1).uint8(format).uint32(count);
  else out.uint8(0).uint8(format).uint16(count);
  for (const { outer, inner } of kept) {
    const v = outer * 2 ** innerBits + inner;
    for (let i = size - 1; i >= 0; i--) out.uint8(Math.floor(v / 256 ** i) & 0xff);
  }
  return out.toBytes();
}

const bits = (v: number): number => (v === 0 ? 0 : Math.floor(Math.log2(v)) + 1);
