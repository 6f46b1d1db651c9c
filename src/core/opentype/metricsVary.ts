import { Writer } from './binary';
import { DeltaStore, type RegionDelta, RegionList, writeIndexMap, writeItemStore } from './itemStore';

/**
 * `HVAR`, or `VVAR` where lines run down: what the advances of glyphs vary by, in the order of glyphs; each row its own, or
 * through a map, whichever is smaller.
 */
export function writeAdvancesVary(
  tag: 'HVAR' | 'VVAR',
  advances: readonly (readonly RegionDelta[])[],
  axisCount: number,
): Uint8Array {
  // The map of advances is followed by those of two bearings, and of origins for vertical ones.
  const maps = tag === 'HVAR' ? 3 : 4;
  const direct = headed(maps, directStore(advances, axisCount));
  const store = new DeltaStore(axisCount);
  const keys = advances.map((a) => store.addRow(a));
  const { bytes, at } = store.finished();
  const mapped = headed(maps, bytes, writeIndexMap(keys.map(at)));
  return mapped.length < direct.length ? mapped : direct;
}

function headed(maps: number, store: Uint8Array, map?: Uint8Array): Uint8Array {
  const head = 8 + 4 * maps;
  const out = new Writer().uint16(1).uint16(0).uint32(head);
  out.uint32(map ? head + store.length : 0);
  for (let i = 1; i < maps; i++) out.uint32(0);
  out.raw(store);
  return (map ? out.raw(map) : out).toBytes();
}

/** One set with a row for each glyph. */
function directStore(rows: readonly (readonly RegionDelta[])[], axisCount: number): Uint8Array {
  const list = new RegionList();
  const sparse = rows.map((row) =>
    row.filter((d) => d.delta !== 0).map((d) => [list.numberOf(d.region), d.delta] as const),
  );
  const { regions } = list;
  const data = sparse.map((row) => {
    const whole = regions.map(() => 0);
    for (const [k, delta] of row) whole[k]! += delta;
    return whole;
  });
  return writeItemStore({ regions, data: [{ regions: regions.map((_, k) => k), rows: data }] }, axisCount);
}

/** `MVAR`: what metrics of the whole font vary by, by their tags; undefined where none does. */
export function writeMvar(
  metrics: ReadonlyMap<string, readonly RegionDelta[]>,
  axisCount: number,
): Uint8Array | undefined {
  const store = new DeltaStore(axisCount);
  const keys = [...metrics].flatMap(([tag, deltas]) => {
    const key = store.add(deltas);
    return key === undefined ? [] : [[tag, key] as const];
  });
  if (keys.length === 0) return undefined;
  const { bytes, at } = store.finished();
  const sorted = keys.sort(([a], [b]) => (a < b ? -1 : 1));
  const out = new Writer().uint16(1).uint16(0).uint16(0).uint16(8).uint16(sorted.length);
  out.uint16(12 + sorted.length * 8);
  for (const [tag, key] of sorted) {
    const { outer, inner } = at(key);
    out.tag(tag).uint16(outer).uint16(inner);
  }
  return out.raw(bytes).toBytes();
}

/** Fields that may vary, by their tags in `MVAR` (OpenType, “MVAR”: value tags), and the tables they are of. */
export const VARYING_FIELDS = {
  hasc: ['OS/2', 'sTypoAscender'],
  hdsc: ['OS/2', 'sTypoDescender'],
  hlgp: ['OS/2', 'sTypoLineGap'],
  hcla: ['OS/2', 'usWinAscent'],
  hcld: ['OS/2', 'usWinDescent'],
  xhgt: ['OS/2', 'sxHeight'],
  cpht: ['OS/2', 'sCapHeight'],
  sbxs: ['OS/2', 'ySubscriptXSize'],
  sbys: ['OS/2', 'ySubscriptYSize'],
  sbxo: ['OS/2', 'ySubscriptXOffset'],
  sbyo: ['OS/2', 'ySubscriptYOffset'],
  spxs: ['OS/2', 'ySuperscriptXSize'],
  spys: ['OS/2', 'ySuperscriptYSize'],
  spxo: ['OS/2', 'ySuperscriptXOffset'],
  spyo: ['OS/2', 'ySuperscriptYOffset'],
  strs: ['OS/2', 'yStrikeoutSize'],
  stro: ['OS/2', 'yStrikeoutPosition'],
  undo: ['post', 'underlinePosition'],
  unds: ['post', 'underlineThickness'],
  hcrs: ['hhea', 'caretSlopeRise'],
  hcrn: ['hhea', 'caretSlopeRun'],
  hcof: ['hhea', 'caretOffset'],
  vasc: ['vhea', 'vertTypoAscender'],
  vdsc: ['vhea', 'vertTypoDescender'],
  vlgp: ['vhea', 'vertTypoLineGap'],
} as const;
