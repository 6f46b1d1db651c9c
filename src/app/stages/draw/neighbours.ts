import { glyphsOfLine } from '../../../core/fitting/lines';
import type { Glyph, GlyphId, Project } from '../../../core/project/model';
import { glyphForCodePoint, masterOf } from '../../../core/project/queries';
import { placed } from '../../ui/placed';

/** Glyphs beside the one on the bench, each with where its left edge stands, in font units from that glyph's own. */
export type Beside = { glyph: Glyph; x: number };

/** The glyphs beside a glyph: of the words given, or else where the galley's text first has it; n and o where neither has it. */
export function company(project: Project, glyph: Glyph, master: string, words: string): Beside[] {
  const { before, after } = words.trim() === '' ? inGalley(project, glyph) : inWords(project, glyph, words);
  const { glyphs } = placed(project, masterOf(project, master)!, [...before, glyph.id, ...after], true);
  const own = glyphs[before.length]!.x;
  return glyphs.flatMap(({ id, x }, i) => (i === before.length ? [] : [{ glyph: project.glyphs[id]!, x: x - own }]));
}

type Sides = { before: GlyphId[]; after: GlyphId[] };

function inGalley(project: Project, glyph: Glyph): Sides {
  const line = glyphsOfLine(project, project.texts.galley).glyphs;
  const at = line.indexOf(glyph.id);
  const pick = (id: string | undefined, fallback: string) => {
    const own = id ? project.glyphs[id] : undefined;
    const found = own && !own.unicodes.includes(0x20) ? own : glyphForCodePoint(project, fallback.codePointAt(0)!);
    return found ? [found.id] : [];
  };
  return { before: pick(line[at - 1], 'n'), after: pick(at < 0 ? undefined : line[at + 1], 'o') };
}

/** The words around the glyph's first place in them; where it has none, it stands in their middle. */
function inWords(project: Project, glyph: Glyph, words: string): Sides {
  const line = glyphsOfLine(project, words.slice(0, 60)).glyphs;
  const at = line.indexOf(glyph.id);
  if (at >= 0) return { before: line.slice(0, at), after: line.slice(at + 1) };
  const middle = Math.ceil(line.length / 2);
  return { before: line.slice(0, middle), after: line.slice(middle) };
}
