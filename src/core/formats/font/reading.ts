import { refuse } from '../../base/result';
import { cmap } from '../../opentype/cmap';
import { soundGdef } from '../../opentype/gdefHeader';
import { head } from '../../opentype/head';
import { hhea } from '../../opentype/hhea';
import { type HorizontalMetric, hmtx } from '../../opentype/hmtx';
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
  readonly metrics: readonly HorizontalMetric[];
  /** Glyph numbers by code point; none where the font reaches no glyph by Unicode. */
  readonly characters: ReadonlyMap<number, number>;
  /** Differences of kerning and anchors in a variable font. */
  readonly layoutStore: ItemStore | undefined;
};

/** Begins a reading; refuses (throws) a font without the tables that none can do without. */
export function fontReading(file: Sfnt, label: string): FontReading {
  const notes: string[] = [];
  const font = withSoundGdef(file, notes);
  const header = head.read(tableOf(font, 'head'));
  if (header.unitsPerEm < 16 || header.unitsPerEm > 16384)
    refuse(`The head table says the em is ${header.unitsPerEm} units; 16 to 16,384 are possible.`);
  const { numGlyphs } = maxp.read(tableOf(font, 'maxp'));
  if (numGlyphs === 0) refuse('The font holds no glyphs.');
  const { tables } = font;
  const lines = hhea.read(tableOf(font, 'hhea'));
  return {
    font,
    label,
    notes,
    header,
    numGlyphs,
    names: tables.has('name') ? name.read(tables.get('name')!) : [],
    style: tables.has('OS/2') ? os2.read(tables.get('OS/2')!) : {},
    lines,
    metrics: hmtx.read(tableOf(font, 'hmtx'), lines.numberOfHMetrics, numGlyphs),
    characters: tables.has('cmap') ? cmap.read(tables.get('cmap')!) : new Map(),
    layoutStore: tables.has('fvar') && tables.has('GDEF') ? readGdefStore(tables.get('GDEF')!) : undefined,
  };
}

/** The font with definitions that browsers take; without them, which is noted, where they are damaged. */
function withSoundGdef(font: Sfnt, notes: string[]): Sfnt {
  const gdef = font.tables.get('GDEF');
  const sound = gdef && soundGdef(gdef);
  if (sound === gdef) return font;
  if (sound) return { ...font, tables: new Map(font.tables).set('GDEF', sound) };
  notes.push(
    'Left aside: classes of glyphs and carets of ligatures (GDEF), whose table is damaged; browsers refuse fonts with it.',
  );
  return { ...font, tables: new Map([...font.tables].filter(([tag]) => tag !== 'GDEF')) };
}
