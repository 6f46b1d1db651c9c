import { listed } from '../../base/text';
import { CARRIED_TABLES } from '../../fontfacts/carried';

/** Tables that are read into the project, and made anew from it. */
const READ = new Set(
  'head hhea hmtx maxp name OS/2 post cmap glyf loca CFF CFF2 gasp GPOS fvar avar gvar HVAR VVAR MVAR STAT vhea vmtx VORG'.split(
    ' ',
  ),
);
/** Told where outlines are read, or part of what is told there. */
const INSTRUCTIONS = new Set('cvt fpgm prep cvar hdmx VDMX LTSH'.split(' '));

/** Tables that are left aside, in groups, with what a reader of the font would notice of it. */
const LEFT: readonly (readonly [tags: string, what: string])[] = [
  ['EBDT EBLC EBSC bdat bloc', 'pictures of glyphs for small sizes'],
  ['DSIG', 'a digital signature, which no changed file can have'],
  ['mort just bsln fmtx', 'substitutions and lines for older Macintosh programs'],
  ['Silt', 'notes of the program that made rules of Graphite'],
  ['PCLT', 'facts for printers of long ago'],
  ['FFTM PfEd TeX BDF', 'notes that its editor keeps'],
  ['TSI0 TSI1 TSI2 TSI3 TSI5 TSIB TSIC TSID TSIJ TSIP TSIS TSIV TTFA', 'sources of instructions'],
];

/**
 * What of a font’s tables does not come along, a sentence; undefined where everything does. `kept` are those that are carried as
 * they are.
 */
export function tablesLeft(tags: Iterable<string>, kept: ReadonlySet<string>): string | undefined {
  const carried: readonly string[] = CARRIED_TABLES;
  const left = [...tags]
    .map((tag) => tag.trim())
    .filter((tag) => !READ.has(tag) && !INSTRUCTIONS.has(tag) && !kept.has(tag));
  if (left.length === 0) return undefined;
  const known = LEFT.flatMap(([group, what]) => {
    const those = left.filter((tag) => group.split(' ').includes(tag));
    return those.length > 0 ? [`${what} (${those.join(', ')})`] : [];
  });
  const others = left.filter((tag) => !LEFT.some(([group]) => group.split(' ').includes(tag)));
  // What is usually carried, and cannot be here.
  const cannot = others.filter((tag) => carried.some((c) => c.trim() === tag));
  const unknown = others.filter((tag) => !cannot.includes(tag));
  const all = [
    ...known,
    ...(cannot.length > 0 ? [`what varies in ${cannot.join(', ')}`] : []),
    ...(unknown.length > 0 ? [`what is not known here (${unknown.join(', ')})`] : []),
  ];
  return `Left aside: ${listed(all, 20, '; ')}.`;
}
