import { Writer } from './binary';
import { classDef } from './layout/classDef';
import { coverage } from './layout/coverage';

/** What kinds of glyphs `GDEF` tells apart. */
export const GLYPH_CLASS = { base: 1, ligature: 2, mark: 3, component: 4 } as const;

/** What a `GDEF` table says, by glyph index: classes, carets of ligatures in font units from the left, sets of marks. */
export type GlyphDefinitions = {
  classes: ReadonlyMap<number, number>;
  carets?: ReadonlyMap<number, readonly number[]>;
  markSets?: readonly (readonly number[])[];
};

/** A `GDEF` table, of version 1.2 where it has sets of marks, else 1.0. */
export function writeGdef({ classes, carets = new Map(), markSets = [] }: GlyphDefinitions): Uint8Array {
  const header = markSets.length > 0 ? 14 : 12;
  const classTable = classDef.write(classes);
  const caretTable = carets.size > 0 ? ligatureCarets(carets) : new Uint8Array();
  const setTable = markSets.length > 0 ? markGlyphSets(markSets) : new Uint8Array();
  const caretsAt = header + classTable.length;
  const out = new Writer()
    .uint16(1)
    .uint16(markSets.length > 0 ? 2 : 0)
    .uint16(header)
    .uint16(0)
    .uint16(caretTable.length > 0 ? caretsAt : 0)
    .uint16(0);
  if (markSets.length > 0) out.uint16(caretsAt + caretTable.length);
  return out.raw(classTable).raw(caretTable).raw(setTable).toBytes();
}

/** Where the caret may stand within ligatures (“Ligature Caret List table”, caret values of format 1). */
function ligatureCarets(carets: ReadonlyMap<number, readonly number[]>): Uint8Array {
  const sorted = [...carets].sort(([a], [b]) => a - b);
  const covered = coverage.write(sorted.map(([glyph]) => glyph));
  const start = 4 + sorted.length * 2;
  const out = new Writer().uint16(start).uint16(sorted.length);
  let at = start + covered.length;
  for (const [, places] of sorted) {
    out.uint16(at);
    at += 2 + places.length * 6;
  }
  out.raw(covered);
  for (const [, places] of sorted) {
    out.uint16(places.length);
    places.forEach((_, i) => {
      out.uint16(2 + places.length * 2 + i * 4);
    });
    for (const x of [...places].sort((a, b) => a - b)) out.uint16(1).int16(x);
  }
  return out.toBytes();
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
