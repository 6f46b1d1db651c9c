import { refuse } from '../base/result';
import { Reader } from './binary';

/** What GSUB and GPOS share: scripts and features lead to lookups, lookups to subtables (OpenType, "Common Table Formats"). */
export type Lookup = { type: number; flag: number; subtables: readonly Reader[] };
export type Layout = { features: readonly { tag: string; lookups: readonly number[] }[]; lookups: readonly Lookup[] };

const at = (from: Reader, offset: number): Reader => {
  if (offset > from.bytes.length)
    refuse(`The ${from.name} table places a part at byte ${offset} of ${from.bytes.length}.`);
  return new Reader(from.bytes.subarray(offset), from.name);
};

/** The features and lookups of a GSUB or GPOS table; `extension` is the lookup type that only points further. */
export function readLayout(bytes: Uint8Array, table: string, extension: number): Layout {
  const from = new Reader(bytes, table);
  const [featuresAt, lookupsAt] = [from.seek(6).uint16(), from.uint16()];
  if (featuresAt === 0 || lookupsAt === 0) return { features: [], lookups: [] };
  const featureList = at(from, featuresAt);
  const lookupList = at(from, lookupsAt);
  const features = Array.from({ length: featureList.uint16() }, (_, i) => {
    const tag = featureList.seek(2 + i * 6).tag();
    const feature = at(featureList, featureList.uint16());
    feature.seek(2);
    return { tag, lookups: Array.from({ length: feature.uint16() }, () => feature.uint16()) };
  });
  const lookups = Array.from({ length: lookupList.uint16() }, (_, i) =>
    readLookup(at(lookupList, lookupList.seek(2 + i * 2).uint16()), extension),
  );
  return { features, lookups };
}

function readLookup(from: Reader, extension: number): Lookup {
  let type = from.uint16();
  const flag = from.uint16();
  const offsets = Array.from({ length: from.uint16() }, () => from.uint16());
  const subtables = offsets.map((offset) => at(from, offset));
  if (type !== extension) return { type, flag, subtables };
  const reached = subtables.map((sub) => {
    sub.seek(2);
    type = sub.uint16();
    return at(sub, sub.uint32());
  });
  if (type === extension) refuse(`The ${from.name} table has an extension that leads to an extension.`);
  return { type, flag, subtables: reached };
}

/** A part of a subtable at an offset written in it; nothing where the offset is 0. */
export const part = (from: Reader, offset: number): Reader | undefined => (offset === 0 ? undefined : at(from, offset));

/** Glyphs of a coverage table in coverage order. */
export function readCoverage(from: Reader): number[] {
  const format = from.uint16();
  const count = from.uint16();
  if (format === 1) return Array.from({ length: count }, () => from.uint16());
  if (format !== 2) return refuse(`The ${from.name} table has a coverage of the unknown format ${format}.`);
  const out: number[] = [];
  for (let i = 0; i < count; i++) {
    const start = from.uint16();
    const end = from.uint16();
    from.uint16();
    if (end < start || out.length > 65535)
      refuse(`The ${from.name} table has a damaged coverage range (${start} to ${end}).`);
    for (let glyph = start; glyph <= end; glyph++) out.push(glyph);
  }
  return out;
}

/** Class of every glyph that is in one; all others are in class 0. */
export function readClasses(from: Reader): Map<number, number> {
  const format = from.uint16();
  const out = new Map<number, number>();
  if (format === 1) {
    const first = from.uint16();
    const count = from.uint16();
    for (let i = 0; i < count; i++) out.set(first + i, from.uint16());
  } else if (format === 2) {
    const count = from.uint16();
    for (let i = 0; i < count; i++) {
      const start = from.uint16();
      const end = from.uint16();
      const value = from.uint16();
      if (end < start) refuse(`The ${from.name} table has a damaged class range (${start} to ${end}).`);
      for (let glyph = start; glyph <= end; glyph++) out.set(glyph, value);
    }
  } else refuse(`The ${from.name} table has classes of the unknown format ${format}.`);
  return out;
}
