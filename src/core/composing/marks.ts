import type { Glyph, Project } from '../project/model';
import { glyphNamed } from '../project/queries';

/** Where on a letter a mark sits, by the name of the anchor that both have (`top` on the base, `_top` on the mark). */
export const ANCHOR_NAMES = ['top', 'bottom', 'ogonek', 'cedilla', 'horn', 'topright', 'centre'] as const;
export type AnchorName = (typeof ANCHOR_NAMES)[number];

/** A combining mark: its character, spacing signs of the same shape (which may stand at another height), where it sits. */
export type MarkKind = { code: number; spacing: readonly number[]; anchor: AnchorName };

const above = (code: number, ...spacing: number[]): MarkKind => ({ code, spacing, anchor: 'top' });
const below = (code: number, ...spacing: number[]): MarkKind => ({ code, spacing, anchor: 'bottom' });

/** Marks of Latin, Greek and Cyrillic, Vietnamese and the romanisations among them. */
export const MARKS: readonly MarkKind[] = [
  above(0x300, 0x60),
  above(0x301, 0xb4, 0x384),
  above(0x302, 0x2c6, 0x5e),
  above(0x303, 0x2dc),
  above(0x304, 0xaf, 0x2c9),
  above(0x306, 0x2d8),
  above(0x307, 0x2d9),
  above(0x308, 0xa8),
  above(0x309),
  above(0x30a, 0x2da),
  above(0x30b, 0x2dd),
  above(0x30c, 0x2c7),
  above(0x30f),
  above(0x311),
  above(0x312, 0x2018),
  above(0x313, 0x1fbd, 0x2019),
  above(0x314, 0x1ffe, 0x201b),
  above(0x342, 0x1fc0),
  // The caron beside an ascender is drawn as a raised comma.
  { code: 0x315, spacing: [0x2019], anchor: 'topright' },
  { code: 0x31b, spacing: [], anchor: 'horn' },
  below(0x323, 0x2d9, 0x2e),
  below(0x324, 0xa8),
  below(0x325, 0x2da),
  below(0x326, 0x2c),
  { code: 0x327, spacing: [0xb8], anchor: 'cedilla' },
  { code: 0x328, spacing: [0x2db], anchor: 'ogonek' },
  below(0x32d, 0x2c6, 0x5e),
  below(0x32e, 0x2d8),
  below(0x330, 0x2dc),
  below(0x331, 0xaf, 0x2c9),
  below(0x345, 0x37a),
];

const byCode = new Map(MARKS.map((m) => [m.code, m]));
/** Marks above by their spacing accents; quotation marks of the same shape are something else. */
const bySpacing = new Map<number, number>();
for (const { code, spacing, anchor } of MARKS)
  for (const c of anchor === 'top' ? spacing : [])
    if (/[\p{Sk}\p{Lm}]/u.test(String.fromCodePoint(c))) bySpacing.set(c, code);

/** The combining character of what a glyph draws, combining or spacing, or in a form of its own (`acutecomb.case`). */
export function markCodeOf(project: Project, glyph: Glyph): number | undefined {
  const of = ({ unicodes }: Glyph) => unicodes.map((c) => (byCode.has(c) ? c : bySpacing.get(c))).find((c) => c);
  const stop = glyph.name.indexOf('.');
  const plain = stop > 0 ? glyphNamed(project, glyph.name.slice(0, stop)) : undefined;
  return of(glyph) ?? (plain && of(plain));
}

/** The mark with a combining character. */
export const markOf = (code: number): MarkKind | undefined => byCode.get(code);
