import { type Refusal, refused } from '../base/result';
import type { Project } from '../project/model';
import { positionsPrint } from './positions';

/** What a font is made as: at the place of a master, between masters, or over all of its axes. */
export type CarriedFor = 'at a master' | 'between' | 'over all';

/**
 * Tables that are carried from a font that was opened, as they are, with what a reader would notice of each that is not there. All
 * but the last few speak of glyphs by number.
 */
const TABLES = {
  GSUB: 'ligatures, small capitals and other substitutions',
  GDEF: 'classes of glyphs and carets of ligatures',
  GPOS: 'positions',
  kern: 'kerning for older programs',
  kerx: 'kerning for older Macintosh programs',
  ankr: 'anchors for older Macintosh programs',
  BASE: 'baselines of other scripts',
  JSTF: 'justification',
  MATH: 'the layout of formulas',
  COLR: 'layers of colour',
  CPAL: 'palettes of colours',
  'SVG ': 'coloured drawings',
  sbix: 'pictures of glyphs',
  CBDT: 'coloured pictures of glyphs',
  CBLC: 'the places of coloured pictures',
  morx: 'substitutions for older Macintosh programs',
  feat: 'names of features for older Macintosh programs',
  prop: 'kinds of glyphs for older Macintosh programs',
  lcar: 'carets for older Macintosh programs',
  opbd: 'optical margins',
  Silf: 'rules of Graphite',
  Glat: 'glyphs’ attributes for Graphite',
  Gloc: 'the places of attributes for Graphite',
  Feat: 'names of features for Graphite',
  Sill: 'languages for Graphite',
  meta: 'languages that the font is made for',
  trak: 'tracking by size',
} as const;
export type CarriedTag = keyof typeof TABLES;
export const CARRIED_TABLES = Object.keys(TABLES) as CarriedTag[];
/** These are made of kerning and anchors, and hold as long as those do. */
const POSITIONS: readonly string[] = ['GPOS', 'kern', 'kerx', 'ankr'];
export const isPositions = (tag: string): boolean => POSITIONS.includes(tag);

/** These hold whatever becomes of glyphs. */
const OF_NO_GLYPH: readonly CarriedTag[] = ['meta', 'trak'];

/** These speak of the glyphs that they name only, so that others may follow behind; the rest counts all glyphs of the font. */
const WITH_MORE: readonly CarriedTag[] = [
  ...OF_NO_GLYPH,
  'GSUB',
  'GDEF',
  'GPOS',
  'kern',
  'BASE',
  'JSTF',
  'MATH',
  'COLR',
  'CPAL',
  'SVG ',
  'CBDT',
  'CBLC',
];

/** Where the names of the glyphs stand, in the order the carried tables know them by. */
export const CARRIED = 'org.wendril.carried';

/** Which axes carried substitutions change with, where they do. */
export const CARRIED_AXES = 'org.wendril.carriedAxes';

/** What carried positions were made from, as a number: see {@link positionsPrint}. */
export const CARRIED_POSITIONS = 'org.wendril.carriedPositions';

/** Axes as what is normalised over them sees them. */
export const axesKey = (axes: Project['axes']): string =>
  JSON.stringify(axes.map((a) => [a.tag, a.minimum, a.default, a.maximum, a.map]));

export const carriedPath = (tag: string): string => `carried/${tag}.table`;

/**
 * The carried tables, as long as the glyphs that are cast begin with those, in that order, that the tables were made for; when they do
 * not, the tables would speak of other glyphs, so they are left out, and a note says what goes with them. Behind them more glyphs may
 * follow where a table bears it, but no marks: the definitions that are carried do not know them as such.
 */
export function carriedTables(
  project: Project,
  glyphNames: readonly string[],
  font: { kind: CarriedFor; isWhole: boolean; marksFrom: (index: number) => boolean },
): { tables: [tag: string, bytes: Uint8Array][]; notes: Refusal[] } {
  const order = project.lib[CARRIED];
  const kept = CARRIED_TABLES.flatMap((tag) => {
    const bytes = project.kept[carriedPath(tag)];
    return bytes ? [[tag, bytes] as [CarriedTag, Uint8Array]] : [];
  });
  if (kept.length === 0) return { tables: [], notes: [] };
  const { bears, why } = bearing(Array.isArray(order) ? order : undefined, glyphNames, font.marksFrom);
  const stay = kept.filter(([tag]) => bears.includes(tag));
  // Positions that go are made anew from kerning, anchors and rules.
  const gone = kept.filter(([tag]) => !bears.includes(tag) && !isPositions(tag));
  const positions = positionsAt(project, stay, font);
  const found = substitutionsAt(project, positions.tables, font.kind === 'over all');
  const notes = [...positions.notes, ...found.notes];
  if (gone.length > 0) {
    const lost = gone.map(([tag]) => `${TABLES[tag]} (${tag.trim()})`).join('; ');
    notes.push(
      refused(
        `Left out since ${why}: ${lost} of the font that was opened.`,
        { table: gone.map(([tag]) => tag.trim()).join(', ') },
        'attention',
      ),
    );
  }
  return { tables: found.tables, notes };
}

/** Which tables hold for the glyphs that are cast, and why the others do not. */
function bearing(
  order: readonly unknown[] | undefined,
  glyphNames: readonly string[],
  marksFrom: (index: number) => boolean,
): { bears: readonly CarriedTag[]; why: string } {
  if (!order?.every((n, i) => n === glyphNames[i]))
    return { bears: OF_NO_GLYPH, why: 'glyphs were added, removed, renamed or ordered anew' };
  if (order.length === glyphNames.length) return { bears: CARRIED_TABLES, why: '' };
  return marksFrom(order.length)
    ? { bears: OF_NO_GLYPH, why: 'marks were added' }
    : { bears: WITH_MORE, why: 'glyphs were added' };
}

/**
 * Positions as the font had them, as long as what they were made from is the same. Those of a font that varies hold over its axes
 * only, together with the definitions that hold what they vary by.
 */
function positionsAt(
  project: Project,
  kept: readonly [tag: CarriedTag, bytes: Uint8Array][],
  { kind, isWhole }: { kind: CarriedFor; isWhole: boolean },
): { tables: [tag: string, bytes: Uint8Array][]; notes: Refusal[] } {
  const others = kept.filter(([tag]) => !isPositions(tag)).map(([tag, bytes]): [string, Uint8Array] => [tag, bytes]);
  if (others.length === kept.length) return { tables: others, notes: [] };
  const isVariable = project.axes.length > 0 || kind === 'between';
  // Of a table that is carried no feature can be left out.
  if (!isWhole || (isVariable && kind !== 'over all')) return { tables: others.map(withoutStore), notes: [] };
  if (project.lib[CARRIED_POSITIONS] !== positionsPrint(project))
    return {
      tables: others.map(withoutStore),
      notes: [
        refused(
          'Kerning, anchors or rules are others than in the font that was opened, so its positions (GPOS) are made anew from them.',
          { table: 'GPOS' },
          'note',
        ),
      ],
    };
  return { tables: [...kept], notes: [] };
}

/** Definitions without what values vary by, where they have it. */
const withoutStore = ([tag, bytes]: [string, Uint8Array]): [string, Uint8Array] => {
  if (tag !== 'GDEF' || bytes.length < 4 || bytes[3]! < 3) return [tag, bytes];
  const plain = bytes.slice();
  plain[3] = 2;
  return [tag, plain];
};

/** Substitutions with what they change by over the axes, for a font that varies over the same; else as the default has them. */
function substitutionsAt(
  project: Project,
  kept: readonly [tag: string, bytes: Uint8Array][],
  variable: boolean,
): { tables: [tag: string, bytes: Uint8Array][]; notes: Refusal[] } {
  const told = project.lib[CARRIED_AXES];
  if (told === undefined || (variable && told === axesKey(project.axes))) return { tables: [...kept], notes: [] };
  const tables = kept.map(([tag, bytes]): [string, Uint8Array] => {
    if (tag !== 'GSUB' || bytes.length < 4) return [tag, bytes];
    const plain = bytes.slice();
    plain[3] = 0;
    return [tag, plain];
  });
  const why =
    'Substitutions that changed with the axes of the font that was opened are as its default has them: the axes are others now.';
  return { tables, notes: variable ? [refused(why, { table: 'GSUB' }, 'attention')] : [] };
}
