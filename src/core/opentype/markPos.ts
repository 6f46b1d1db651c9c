import { Writer } from './binary';
import { coverage } from './layout/coverage';
import type { Lookup } from './layout/lists';
import { type AnchorAt, writeAnchor } from './layout/positions';
import { type Device, device } from './layout/values';

/** Where a glyph is attached, in font units, by glyph index. */
export type AnchorsByGlyph = ReadonlyMap<number, AnchorAt>;

/** Anchors of a ligature's parts in order, nothing for a part that takes no mark of the kind. */
export type AnchorsByPart = ReadonlyMap<number, readonly (AnchorAt | undefined)[]>;

const MARK_TO_BASE = 4;
const MARK_TO_LIGATURE = 5;
const MARK_TO_MARK = 6;
/** Bases of one subtable: offsets to their anchors are 16 bits wide. */
const MOST_BASES = { still: 4000, varying: 2400 };

/**
 * A lookup that sets marks on bases, or on other marks, at one kind of anchor (OpenType, “Mark-to-Base Attachment Positioning”
 * and “Mark-to-Mark”, format 1, one class). None where either side is empty.
 */
export function markLookup(onto: 'base' | 'mark', marks: AnchorsByGlyph, bases: AnchorsByGlyph): Lookup<Uint8Array>[] {
  if (marks.size === 0 || bases.size === 0) return [];
  const sorted = [...bases.keys()].sort((a, b) => a - b);
  const subtables: Uint8Array[] = [];
  const varies = [...bases.values()].some((a) => a.xDevice || a.yDevice);
  const most = varies ? MOST_BASES.varying : MOST_BASES.still;
  for (let i = 0; i < sorted.length; i += most)
    subtables.push(attachment(marks, new Map(sorted.slice(i, i + most).map((g) => [g, bases.get(g)!]))));
  return [{ type: onto === 'base' ? MARK_TO_BASE : MARK_TO_MARK, flag: 0, subtables }];
}

/** A lookup that sets marks on the parts of ligatures (“Mark-to-Ligature Attachment Positioning”, format 1, one class). */
export function ligatureMarkLookup(marks: AnchorsByGlyph, ligatures: AnchorsByPart): Lookup<Uint8Array>[] {
  if (marks.size === 0 || ligatures.size === 0) return [];
  const sorted = [...ligatures].sort(([a], [b]) => a - b);
  const attachments = sorted.map(([, parts]) => attachedParts(parts));
  const array = new Writer().uint16(sorted.length);
  let offset = 2 + sorted.length * 2;
  for (const a of attachments) {
    array.uint16(offset);
    offset += a.length;
  }
  for (const a of attachments) array.raw(a);
  const subtables = [joined(marks, coverage.write(sorted.map(([g]) => g)), array.toBytes())];
  return [{ type: MARK_TO_LIGATURE, flag: 0, subtables }];
}

/** Component records of one class, and their anchors behind them. */
function attachedParts(parts: readonly (AnchorAt | undefined)[]): Uint8Array {
  const out = new Writer().uint16(parts.length);
  const pool = new AnchorPool(2 + parts.length * 2);
  for (const p of parts) out.uint16(p ? pool.place(p) : 0);
  return out.raw(pool.toBytes()).toBytes();
}

/** Anchors behind a list of offsets; equal ones are written once, and device tables stand behind all of them, each once. */
class AnchorPool {
  private readonly anchors = new Map<string, { at: number; anchor: AnchorAt }>();
  private end: number;

  /** `start` is where the pool begins, from what the offsets are counted from. */
  constructor(start: number) {
    this.end = start;
  }

  /** Where an anchor comes to lie. */
  place(anchor: AnchorAt): number {
    const key = JSON.stringify(anchor);
    const known = this.anchors.get(key);
    if (known) return known.at;
    const at = this.end;
    this.anchors.set(key, { at, anchor });
    this.end += anchor.xDevice || anchor.yDevice ? 10 : writeAnchor(anchor).length;
    return at;
  }

  toBytes(): Uint8Array {
    const out = new Writer();
    const devices = new Map<string, { at: number; bytes: Uint8Array }>();
    let end = this.end;
    const placed = (d: Device | undefined, from: number): number => {
      if (!d) return 0;
      const key = JSON.stringify(d);
      let known = devices.get(key);
      if (!known) {
        known = { at: end, bytes: device.write(d) };
        devices.set(key, known);
        end += known.bytes.length;
      }
      return known.at - from;
    };
    for (const { at, anchor } of this.anchors.values()) {
      const { x, y, xDevice, yDevice } = anchor;
      if (xDevice || yDevice) out.uint16(3).int16(x).int16(y).uint16(placed(xDevice, at)).uint16(placed(yDevice, at));
      else out.raw(writeAnchor(anchor));
    }
    for (const { bytes } of devices.values()) out.raw(bytes);
    return out.toBytes();
  }
}

const HEADER = 12;

const attachment = (marks: AnchorsByGlyph, bases: AnchorsByGlyph): Uint8Array =>
  joined(marks, coverage.write([...bases.keys()]), anchored(bases, false));

/** Marks of one class, and what they are set on: its coverage and its array. */
function joined(marks: AnchorsByGlyph, baseCoverage: Uint8Array, baseArray: Uint8Array): Uint8Array {
  const markCoverage = coverage.write([...marks.keys()]);
  const markArray = anchored(marks, true);
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
  const pool = new AnchorPool(2 + sorted.length * (classed ? 4 : 2));
  for (const [, a] of sorted) {
    if (classed) out.uint16(0);
    out.uint16(pool.place(a));
  }
  return out.raw(pool.toBytes()).toBytes();
}
