import { codePointsForName } from '../project/glyphNames';
import type { Glyph, GlyphId, Project } from '../project/model';
import { glyphForCodePoint, glyphNamed } from '../project/queries';

/** Stands for the glyph that is being fitted, in a designer's own lines. */
export const SLOT = '_';

/** A line in pieces: a character, a glyph name written as `/name ` (the space after it ends it), or a slot. */
const piecesOf = (line: string): string[] => line.match(/\/[A-Za-z_.][A-Za-z0-9._-]+ ?|[\s\S]/gu) ?? [];

/** Glyphs that a piece stands for: none where there is no such glyph; the characters of a name that no glyph has. */
function glyphsOfPiece(project: Project, piece: string, slot: Glyph | undefined): (Glyph | string)[] {
  if (piece === SLOT && slot) return [slot];
  const named = piece.length > 1 && piece.startsWith('/') ? glyphNamed(project, piece.slice(1).trimEnd()) : undefined;
  return named ? [named] : [...piece].map((c) => glyphForCodePoint(project, c.codePointAt(0)!) ?? c);
}

/**
 * The glyphs of a text line by code point, before any shaping: characters, glyph names written as `/name `, and with a glyph for
 * it the slot `_`. Characters without a glyph come back as `missing`.
 */
export function glyphsOfLine(project: Project, line: string, slot?: Glyph): { glyphs: GlyphId[]; missing: string[] } {
  const found = piecesOf(line).flatMap((piece) => glyphsOfPiece(project, piece, slot));
  return {
    glyphs: found.flatMap((g) => (typeof g === 'string' ? [] : [g.id])),
    missing: found.filter((g) => typeof g === 'string'),
  };
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
export const spellingOf = (glyph: Glyph): string =>
  glyph.unicodes[0] === undefined ? `/${glyph.name} ` : String.fromCodePoint(glyph.unicodes[0]);

/** A line with a glyph put in before the `index`-th glyph; the rest is left as it is written, slots too. */
export function withGlyphAt(project: Project, line: string, index: number, glyph: Glyph, slot?: Glyph): string {
  const pieces = piecesOf(line);
  let seen = 0;
  let at = 0;
  while (at < pieces.length && seen < index)
    seen += glyphsOfPiece(project, pieces[at++]!, slot).filter((g) => typeof g !== 'string').length;
  // What stands before ends with a space where a name does, or the next letter would be taken into it.
  const before = pieces.slice(0, at).map((p) => (/^\/.+[^ ]$/.test(p) ? `${p} ` : p));
  return [...before, spellingOf(glyph), ...pieces.slice(at)].join('');
}

/** Words for proofs, made up or plain, that among them hold every letter a few times. */
const WORDS =
  'anvil bakery cobbler dozen ember fjord gazette hamlet inkwell jigsaw kettle lantern meadow nozzle orchard pepper quarry rivet saddle timber umbrella velvet walnut xylem yonder zephyr bread chalk drift flock grove plank stream thrush waltz Anchor Bridge Canal Depot Engine Ferry Goods Halt Inn Junction Kiosk Lamp Market North Office Platform Quay River Signal Tower Upper Viaduct Wagon Xenon Yard Zone'.split(
    ' ',
  );

/** Words that hold two letters one after the other, at most so many, those of a text first. */
export const wordsWithPair = (first: string, second: string, text: string, most = 5): string[] =>
  [...new Set([...text.split(/\s+/), ...WORDS])].filter((w) => w.includes(first + second)).slice(0, most);

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

/** Sets that stand in other text than their letters: no other forms of them. */
const OTHER_SET = /\.(?:sc|smcp|c2sc|case|numr|dnom|sups|sinf|subs|key)$/;

/** A letter and the other forms of it, the plain one first; only itself where there are none. */
export function formsOf(project: Project, glyph: Glyph): Glyph[] {
  const plain = glyphNamed(project, glyph.name.replace(/(?<=.)\..*$/, '')) ?? glyph;
  const forms = project.glyphOrder.flatMap((id) => {
    const g = project.glyphs[id]!;
    return g.name.startsWith(`${plain.name}.`) && !OTHER_SET.test(g.name) ? [g] : [];
  });
  return [plain, ...forms];
}

/** Lines in which the forms of a letter stand side by side: among its controls, then the same words with each form in turn. */
export function formLines(project: Project, glyph: Glyph): string[] {
  const forms = formsOf(project, glyph);
  const [plain] = forms as [Glyph];
  const controls = controlsOf(project, plain);
  const n = controls ? spellingOf(controls.straight) : '';
  const o = controls ? spellingOf(controls.round) : '';
  const words = wordsWith(plain, 4).join(' ');
  return [
    `${n}${forms.map((f) => `${spellingOf(f)}${n}`).join('')}${o}${forms.map((f) => `${spellingOf(f)}${o}`).join('')}`,
    ...(words === '' ? [] : forms.map((f) => words.replaceAll(spellingOf(plain), spellingOf(f)))),
  ];
}

const SMALL_CAPITAL = /\.(?:sc|smcp|c2sc)$/;

/** The glyphs that a glyph is judged between: small capitals among their own H and O where those are, all others as {@link controlsFor} says. */
export function controlsOf(project: Project, glyph: Glyph): { straight: Glyph; round: Glyph } | undefined {
  const suffix = SMALL_CAPITAL.exec(glyph.name)?.[0];
  const small = (name: string) =>
    suffix ? (glyphNamed(project, name.toLowerCase() + suffix) ?? glyphNamed(project, name + suffix)) : undefined;
  const [h, o] = [small('H'), small('O')];
  if (h && o) return { straight: h, round: o };
  const [straight, round] = controlsFor(glyph).map((c) => glyphForCodePoint(project, c.codePointAt(0)!));
  return straight && round && { straight, round };
}

/** Control strings for a glyph: among straights, among rounds, and mixed; small capitals against capitals too. */
export function controlStrings(project: Project, glyph: Glyph): string[] {
  const controls = controlsOf(project, glyph);
  const [straight, round] = controls ? [spellingOf(controls.straight), spellingOf(controls.round)] : controlsFor(glyph);
  const g = spellingOf(glyph);
  return [
    `${straight}${straight}${g}${straight}${g}${g}${straight}${straight}`,
    `${round}${round}${g}${round}${g}${g}${round}${round}`,
    `${straight}${g}${round}${round}${g}${straight}${g}${round}`,
    ...(SMALL_CAPITAL.test(glyph.name) ? [`H${g}O${g}H${g}${g}O`] : []),
  ];
}
