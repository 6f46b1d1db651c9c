import type { Reader } from './binary';
import { GPOS_EXTENSION } from './gpos';
import { part } from './layout/codec';
import { coverage } from './layout/coverage';
import { type Lookup, readLayout } from './layout/lists';
import { type DeltasAt, variationAt } from './variations';

/** A place on a glyph where marks of one kind are set; `mark` where the glyph is such a mark itself. */
export type MarkAnchor = Place & { glyph: number; kind: string; mark: boolean; part?: number };

/** Where an anchor lies; at every place of a variable font that was asked for, where it is not the same at all. */
type Place = { x: number; y: number; varied?: readonly { x: number; y: number }[] };

const ATTACHMENTS: Readonly<Record<number, string>> = { 4: 'base', 5: 'ligature', 6: 'mark' };

/** Anchors of mark positioning lookups (to bases, ligatures and marks); kinds are numbered over the whole table. */
export function readMarkAnchors(bytes: Uint8Array, deltas?: DeltasAt): MarkAnchor[] {
  const layout = readLayout(bytes, 'GPOS', GPOS_EXTENSION);
  const out: MarkAnchor[] = [];
  const used = new Set(
    layout.features
      .filter((f) => f.tag === 'mark' || f.tag === 'mkmk' || f.tag === 'abvm' || f.tag === 'blwm')
      .flatMap((f) => f.lookups),
  );
  layout.lookups.forEach((lookup: Lookup<Reader>, i) => {
    if (!used.has(i) || !(lookup.type in ATTACHMENTS)) return;
    lookup.subtables.forEach((from, s) => {
      out.push(...readAttachment(from, lookup.type, `${i}.${s}`, deltas));
    });
  });
  return out;
}

function readAttachment(from: Reader, type: number, where: string, deltas: DeltasAt | undefined): MarkAnchor[] {
  if (from.uint16() !== 1) return [];
  const markCoverage = part(from, from.uint16());
  const baseCoverage = part(from, from.uint16());
  const classes = from.uint16();
  const markArray = part(from, from.uint16());
  const baseArray = part(from, from.uint16());
  if (!markCoverage || !baseCoverage || !markArray || !baseArray) return [];
  const kind = (c: number) => `${where}.${c}`;
  const out: MarkAnchor[] = [];
  const marks = coverage.read(markCoverage);
  const count = markArray.uint16();
  for (let i = 0; i < count; i++) {
    const markClass = markArray.seek(2 + i * 4).uint16();
    const anchor = readAnchor(part(markArray, markArray.uint16()), deltas);
    if (anchor && marks[i] !== undefined) out.push({ glyph: marks[i]!, kind: kind(markClass), ...anchor, mark: true });
  }
  const bases = coverage.read(baseCoverage);
  const rows = baseArray.uint16();
  for (let i = 0; i < rows; i++) {
    const glyph = bases[i];
    if (glyph === undefined) continue;
    if (type === 5) {
      const ligature = part(baseArray, baseArray.seek(2 + i * 2).uint16());
      const parts = ligature?.uint16() ?? 0;
      for (let p = 0; p < parts; p++)
        out.push(
          ...anchorRow(ligature!, 2 + p * classes * 2, classes, glyph, kind, deltas).map((a) => ({
            ...a,
            part: p + 1,
          })),
        );
    } else out.push(...anchorRow(baseArray, 2 + i * classes * 2, classes, glyph, kind, deltas));
  }
  return out;
}

function anchorRow(
  from: Reader,
  start: number,
  classes: number,
  glyph: number,
  kind: (c: number) => string,
  deltas: DeltasAt | undefined,
): MarkAnchor[] {
  return Array.from({ length: classes }, (_, c) => c).flatMap((c) => {
    const anchor = readAnchor(part(from, from.seek(start + c * 2).uint16()), deltas);
    return anchor ? [{ glyph, kind: kind(c), ...anchor, mark: false }] : [];
  });
}

function readAnchor(from: Reader | undefined, deltas: DeltasAt | undefined): Place | undefined {
  if (!from) return undefined;
  const format = from.uint16();
  const [x, y] = [from.int16(), from.int16()];
  if (format !== 3 || !deltas) return { x, y };
  const [xs, ys] = [from.uint16(), from.uint16()].map((offset) =>
    offset > 0 ? variationAt(from, offset, deltas) : undefined,
  );
  const varying = xs ?? ys;
  return varying
    ? { x, y, varied: varying.map((_, i) => ({ x: x + (xs?.[i] ?? 0), y: y + (ys?.[i] ?? 0) })) }
    : { x, y };
}
