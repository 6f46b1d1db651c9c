import { codePointsForName } from '../project/glyphNames';
import type { Glyph, GlyphId, Project } from '../project/model';
import { glyphForCodePoint, glyphNamed } from '../project/queries';

/**
 * The glyphs of a text line by code point, before any shaping: characters, and glyph names written as `/name ` (the
 * space after a name ends it). Characters without a glyph come back as `missing`.
 */
export function glyphsOfLine(project: Project, line: string): { glyphs: GlyphId[]; missing: string[] } {
  const glyphs: GlyphId[] = [];
  const missing: string[] = [];
  const pattern = /\/([A-Za-z_.][A-Za-z0-9._-]+) ?|[\s\S]/gu;
  for (const match of line.matchAll(pattern)) {
    const named = match[1] === undefined ? undefined : glyphNamed(project, match[1]);
    if (named) {
      glyphs.push(named.id);
      continue;
    }
    for (const character of match[1] === undefined ? match[0] : match[0]) {
      const glyph = glyphForCodePoint(project, character.codePointAt(0)!);
      if (glyph) glyphs.push(glyph.id);
      else missing.push(character);
    }
  }
  return { glyphs, missing };
}

/** The pair of glyphs a glyph is judged between: n o for lowercase, H O for capitals, zero one for figures. */
export function controlsFor(glyph: Glyph): [straight: string, round: string] {
  const code = glyph.unicodes[0] ?? codePointsForName(glyph.name)[0];
  if (code === undefined) return ['n', 'o'];
  const character = String.fromCodePoint(code);
  if (/\p{Nd}/u.test(character)) return ['1', '0'];
  if (/\p{Lu}/u.test(character)) return ['H', 'O'];
  return ['n', 'o'];
}

/** How a glyph is written in a line: its character, or `/name ` when it has none. */
export const spellingOf = (glyph: Glyph): string => (glyph.unicodes[0] === undefined ? `/${glyph.name} ` : String.fromCodePoint(glyph.unicodes[0]));

/** A line with a glyph put in before the `index`-th glyph; the rest keeps its spelling. */
export function withGlyphAt(project: Project, line: string, index: number, glyph: Glyph): string {
  const before = glyphsOfLine(project, line).glyphs.map((id) => spellingOf(project.glyphs[id]!));
  return [...before.slice(0, index), spellingOf(glyph), ...before.slice(index)].join('');
}

/** Words for proofs, made up or plain, that among them hold every letter a few times. */
const WORDS =
  'anvil bakery cobbler dozen ember fjord gazette hamlet inkwell jigsaw kettle lantern meadow nozzle orchard pepper quarry rivet saddle timber umbrella velvet walnut xylem yonder zephyr bread chalk drift flock grove plank stream thrush waltz Anchor Bridge Canal Depot Engine Ferry Goods Halt Inn Junction Kiosk Lamp Market North Office Platform Quay River Signal Tower Upper Viaduct Wagon Xenon Yard Zone'.split(
    ' ',
  );

/** Words that hold a glyph's letter, at most so many; none for a glyph without a letter of its own. */
export function wordsWith(glyph: Glyph, most = 7): string[] {
  const code = glyph.unicodes[0];
  if (code === undefined) return [];
  const character = String.fromCodePoint(code);
  // An accented letter stands where its base does.
  const base = character.normalize('NFD')[0]!;
  return WORDS.filter((w) => w.includes(base))
    .slice(0, most)
    .map((w) => (base === character ? w : w.replaceAll(base, character)));
}

/** Control strings for a glyph: among straights, among rounds, and mixed. */
export function controlStrings(glyph: Glyph): string[] {
  const [straight, round] = controlsFor(glyph);
  const g = spellingOf(glyph);
  return [
    `${straight}${straight}${g}${straight}${g}${g}${straight}${straight}`,
    `${round}${round}${g}${round}${g}${g}${round}${round}`,
    `${straight}${g}${round}${round}${g}${straight}${g}${round}`,
  ];
}
