import { Reader, Writer } from './binary';
import { classDef } from './layout/classDef';
import { part } from './layout/codec';
import { coverage } from './layout/coverage';
import { Packed } from './layout/packed';
import { type Device, device } from './layout/values';

/** Where a table of version 1.3 tells its variation store. */
const STORE_AT = 14;

/** What kinds of glyphs `GDEF` tells apart. */
export const GLYPH_CLASS = { base: 1, ligature: 2, mark: 3, component: 4 } as const;

/** A caret’s place from the left, in font units; with what it varies by, in variable fonts. */
export type CaretAt = number | { x: number; device: Device };
const caretPlace = (c: CaretAt): number => (typeof c === 'number' ? c : c.x);

/** What a `GDEF` table says, by glyph index: classes, carets of ligatures in font units from the left, sets of marks. */
export type GlyphDefinitions = {
  classes: ReadonlyMap<number, number>;
  carets?: ReadonlyMap<number, readonly CaretAt[]>;
  /** Carets at points of the outline. */
  caretPoints?: ReadonlyMap<number, readonly number[]>;
  /** Points of the outline at which others attach. */
  attachPoints?: ReadonlyMap<number, readonly number[]>;
  /** Classes of marks that lookups name to skip all others, from 1 on. */
  attachmentClasses?: ReadonlyMap<number, number>;
  markSets?: readonly (readonly number[])[];
  /** What values of this table and of `GPOS` vary by: an item variation store. */
  store?: Uint8Array | undefined;
};

/** A `GDEF` table, of version 1.3 where values vary, 1.2 where it has sets of marks, else 1.0. */
export function writeGdef({
  classes,
  carets = new Map(),
  caretPoints = new Map(),
  attachPoints = new Map(),
  attachmentClasses = new Map(),
  markSets = [],
  store,
}: GlyphDefinitions): Uint8Array {
  const hasCarets = carets.size + caretPoints.size > 0;
  const parts = [
    classDef.write(classes),
    attachPoints.size > 0 ? attachList(attachPoints) : undefined,
    hasCarets ? ligatureCarets(carets, caretPoints) : undefined,
    attachmentClasses.size > 0 ? classDef.write(attachmentClasses) : undefined,
    ...(markSets.length > 0 ? [markGlyphSets(markSets)] : store ? [undefined] : []),
  ];
  if (!store)
    return new Packed()
      .number(1, markSets.length > 0 ? 2 : 0)
      .part(...parts)
      .toBytes();
  // The store lies behind all else, at an offset of 32 bits.
  const bytes = new Packed()
    .number(1, 3)
    .part(...parts)
    .number(0, 0)
    .toBytes();
  const whole = new Uint8Array(bytes.length + store.length);
  whole.set(bytes);
  whole.set(store, bytes.length);
  new DataView(whole.buffer).setUint32(STORE_AT, bytes.length);
  return whole;
}

/**
 * A `GDEF` table of version 1.0 or 1.2 with a variation store behind it, all else as it was; undefined for one that has a store already, or
 * is none.
 */
export function gdefWithStore(gdef: Uint8Array, store: Uint8Array): Uint8Array | undefined {
  if (gdef.length < 12) return undefined;
  const from = new DataView(gdef.buffer, gdef.byteOffset, gdef.byteLength);
  const [major, minor] = [from.getUint16(0), from.getUint16(2)];
  if (major !== 1 || (minor !== 0 && minor !== 2)) return undefined;
  const head = minor === 2 ? 14 : 12;
  const fields = (head - 4) / 2;
  const shift = STORE_AT + 4 - head;
  const out = new Uint8Array(gdef.length + shift + store.length);
  const to = new DataView(out.buffer);
  to.setUint16(0, 1);
  to.setUint16(2, 3);
  for (let i = 0; i < fields; i++) {
    const offset = from.getUint16(4 + i * 2);
    if (offset + shift > 0xffff) return undefined;
    to.setUint16(4 + i * 2, offset === 0 ? 0 : offset + shift);
  }
  to.setUint32(STORE_AT, gdef.length + shift);
  out.set(gdef.subarray(head), STORE_AT + 4);
  out.set(store, gdef.length + shift);
  return out;
}

/** Points of glyphs at which others attach (“Attachment Point List table”). */
function attachList(points: ReadonlyMap<number, readonly number[]>): Uint8Array {
  const sorted = [...points].sort(([a], [b]) => a - b);
  return new Packed()
    .part(coverage.write(sorted.map(([glyph]) => glyph)))
    .number(sorted.length)
    .part(...sorted.map(([, list]) => new Packed().number(list.length, ...list).toBytes()))
    .toBytes();
}

/** Where the caret may stand within ligatures (“Ligature Caret List table”): places, or points of the outline. */
function ligatureCarets(
  carets: ReadonlyMap<number, readonly CaretAt[]>,
  points: ReadonlyMap<number, readonly number[]>,
): Uint8Array {
  const glyphs = [...new Set([...carets.keys(), ...points.keys()])].sort((a, b) => a - b);
  const values = (glyph: number): Uint8Array[] => [
    ...[...(carets.get(glyph) ?? [])]
      .sort((a, b) => caretPlace(a) - caretPlace(b))
      .map((c) =>
        typeof c === 'number'
          ? new Packed().number(1, c).toBytes()
          : new Packed().number(3, c.x).part(device.write(c.device)).toBytes(),
      ),
    ...(points.get(glyph) ?? []).map((p) => new Packed().number(2, p).toBytes()),
  ];
  return new Packed()
    .part(coverage.write(glyphs))
    .number(glyphs.length)
    .part(
      ...glyphs.map((g) => {
        const own = values(g);
        return new Packed()
          .number(own.length)
          .part(...own)
          .toBytes();
      }),
    )
    .toBytes();
}

/** Sets of marks that lookups name to skip all others (“Mark Glyph Sets table”). */
function markGlyphSets(sets: readonly (readonly number[])[]): Uint8Array {
  const tables = sets.map((s) => coverage.write([...s].sort((a, b) => a - b)));
  const out = new Writer().uint16(1).uint16(sets.length);
  let at = 4 + sets.length * 4;
  for (const t of tables) {
    out.uint32(at);
    at += t.length;
  }
  for (const t of tables) out.raw(t);
  return out.toBytes();
}

/** What a `GDEF` table says of classes and of carets at places, in font units; other carets are left out. */
export function readGdef(bytes: Uint8Array): Pick<GlyphDefinitions, 'classes'> & { carets: Map<number, number[]> } {
  const from = new Reader(bytes, 'GDEF').seek(4);
  const [classesAt, , caretsAt] = [from.uint16(), from.uint16(), from.uint16()];
  const classTable = part(from, classesAt);
  const caretTable = part(from, caretsAt);
  const carets = new Map<number, number[]>();
  if (caretTable) {
    const covered = part(caretTable, caretTable.uint16());
    const glyphs = covered ? coverage.read(covered) : [];
    const offsets = Array.from({ length: caretTable.uint16() }, () => caretTable.uint16());
    offsets.forEach((offset, i) => {
      const ligature = part(caretTable, offset);
      const glyph = glyphs[i];
      if (!ligature || glyph === undefined) return;
      const places = Array.from({ length: ligature.uint16() }, () => ligature.uint16()).flatMap((o) => {
        const caret = part(ligature, o);
        const format = caret?.uint16();
        return caret && (format === 1 || format === 3) ? [caret.int16()] : [];
      });
      if (places.length > 0) carets.set(glyph, places);
    });
  }
  return { classes: classTable ? classDef.read(classTable) : new Map(), carets };
}
