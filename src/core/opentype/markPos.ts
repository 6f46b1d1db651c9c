import { Writer } from './binary';
import { coverage } from './layout/coverage';
import type { Lookup } from './layout/lists';

/** Where a glyph is attached, in font units, by glyph index. */
export type AnchorsByGlyph = ReadonlyMap<number, { x: number; y: number }>;

const MARK_TO_BASE = 4;
const MARK_TO_MARK = 6;
/** Bases of one subtable: offsets to their anchors are 16 bits wide. */
const MOST_BASES = 4000;

/**
 * A lookup that sets marks on bases, or on other marks, at one kind of anchor (OpenType, “Mark-to-Base Attachment Positioning”
 * and “Mark-to-Mark”, format 1, one class). None where either side is empty.
 */
export function markLookup(onto: 'base' | 'mark', marks: AnchorsByGlyph, bases: AnchorsByGlyph): Lookup<Uint8Array>[] {
  if (marks.size === 0 || bases.size === 0) return [];
  const sorted = [...bases.keys()].sort((a, b) => a - b);
  const subtables: Uint8Array[] = [];
  for (let i = 0; i < sorted.length; i += MOST_BASES)
    subtables.push(attachment(marks, new Map(sorted.slice(i, i + MOST_BASES).map((g) => [g, bases.get(g)!]))));
  return [{ type: onto === 'base' ? MARK_TO_BASE : MARK_TO_MARK, flag: 0, subtables }];
}

const HEADER = 12;

function attachment(marks: AnchorsByGlyph, bases: AnchorsByGlyph): Uint8Array {
  const [markCoverage, baseCoverage] = [coverage.write([...marks.keys()]), coverage.write([...bases.keys()])];
  const markArray = anchored(marks, true);
  const baseArray = anchored(bases, false);
  const markArrayAt = HEADER + markCoverage.length + baseCoverage.length;
  return new Writer()
    .uint16(1)
    .uint16(HEADER)
    .uint16(HEADER + markCoverage.length)
    .uint16(1)
    .uint16(markArrayAt)
    .uint16(markArrayAt + markArray.length)
    .raw(markCoverage)
    .raw(baseCoverage)
    .raw(markArray)
    .raw(baseArray)
    .toBytes();
}

/** Records in the order of coverage, those of marks with their class, and the anchors behind them. */
function anchored(of: AnchorsByGlyph, classed: boolean): Uint8Array {
  const sorted = [...of].sort(([a], [b]) => a - b);
  const out = new Writer().uint16(sorted.length);
  const first = 2 + sorted.length * (classed ? 4 : 2);
  sorted.forEach((_, i) => {
    if (classed) out.uint16(0);
    out.uint16(first + i * 6);
  });
  for (const [, { x, y }] of sorted) out.uint16(1).int16(x).int16(y);
  return out.toBytes();
}
