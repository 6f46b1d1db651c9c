import { Reader, Writer } from './binary';

/** Vertical origins of CFF glyphs (OpenType, “VORG”): the most frequent is the default, the others are listed. */
export function writeVorg(origins: readonly number[]): Uint8Array {
  const counts = new Map<number, number>();
  for (const y of origins) counts.set(y, (counts.get(y) ?? 0) + 1);
  const [usual] = [...counts].reduce((a, b) => (b[1] > a[1] ? b : a), [0, 0]);
  const others = origins.flatMap((y, i) => (y === usual ? [] : [[i, y] as const]));
  const out = new Writer().uint16(1).uint16(0).int16(usual).uint16(others.length);
  for (const [glyph, y] of others) out.uint16(glyph).int16(y);
  return out.toBytes();
}

/** The vertical origin of a glyph by its number. */
export function readVorg(bytes: Uint8Array): (glyph: number) => number {
  const from = new Reader(bytes, 'VORG');
  from.seek(4);
  const usual = from.int16();
  const own = new Map(Array.from({ length: from.uint16() }, () => [from.uint16(), from.int16()] as const));
  return (glyph) => own.get(glyph) ?? usual;
}
