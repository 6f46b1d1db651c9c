import { refuse } from '../../base/result';
import { head } from '../../opentype/head';
import { hhea } from '../../opentype/hhea';
import { maxp } from '../../opentype/maxp';
import { type NameRecord, name } from '../../opentype/name';
import { type Os2, os2 } from '../../opentype/os2';
import { type Sfnt, tableOf } from '../../opentype/sfnt';
import { type ItemStore, readGdefStore } from '../../opentype/variations';

/** A font while it is read: its tables, the facts that all parts of the reading need, and what there is to be told. */
export type FontReading = {
  readonly font: Sfnt;
  readonly label: string;
  readonly notes: string[];
  readonly header: ReturnType<typeof head.read>;
  readonly numGlyphs: number;
  readonly names: readonly NameRecord[];
  readonly style: Partial<Os2>;
  readonly lines: ReturnType<typeof hhea.read>;
  /** Differences of kerning and anchors in a variable font. */
  readonly layoutStore: ItemStore | undefined;
};

/** Begins a reading; refuses (throws) a font without the tables that none can do without. */
export function fontReading(font: Sfnt, label: string): FontReading {
  const header = head.read(tableOf(font, 'head'));
  if (header.unitsPerEm < 16 || header.unitsPerEm > 16384)
    refuse(`The head table says the em is ${header.unitsPerEm} units; 16 to 16,384 are possible.`);
  const { numGlyphs } = maxp.read(tableOf(font, 'maxp'));
  if (numGlyphs === 0) refuse('The font holds no glyphs.');
  const { tables } = font;
  return {
    font,
    label,
    notes: [],
    header,
    numGlyphs,
    names: tables.has('name') ? name.read(tables.get('name')!) : [],
    style: tables.has('OS/2') ? os2.read(tables.get('OS/2')!) : {},
    lines: hhea.read(tableOf(font, 'hhea')),
    layoutStore: tables.has('fvar') && tables.has('GDEF') ? readGdefStore(tables.get('GDEF')!) : undefined,
  };
}
