import type { Result } from '../../base/result';
import { createProject, defaultZones, emptyDrawing, newGlyph } from '../../project/create';
import { codePointsForName, nameForCodePoint } from '../../project/glyphNames';
import type { Project } from '../../project/model';
import { readSvg } from './svgRead';

const UNITS_PER_EM = 1000;

/**
 * An SVG picture as a project of one glyph. It is named `glyph` (a glyph name or a character); without that by the
 * picture's title or the file's name, whichever first is the name or the character of a letter, else `A`.
 */
export function projectFromSvg(
  text: string,
  label: string,
  glyph?: string,
): Result<{ project: Project; notes: string[] }> {
  const zones = defaultZones(UNITS_PER_EM);
  const read = readSvg(text, label, {
    unitsPerEm: UNITS_PER_EM,
    top: zones.ascender.position,
    bottom: zones.descender.position,
  });
  if (!read.ok) return read;
  const { contours, advance, title, notes } = read.value;
  const base = label.replace(/^.*[/\\]/, '').replace(/\.svg$/i, '');
  const name =
    glyph === undefined ? ([title, base].map(known).find((n) => n !== undefined) ?? 'A') : (known(glyph) ?? glyph);
  const empty = createProject({ family: base || 'Untitled', unitsPerEm: UNITS_PER_EM, created: 0 });
  const id = `g${empty.nextId}`;
  const codes = codePointsForName(name);
  const drawn = { ...newGlyph(id, name, codes.length === 1 && !name.includes('.') ? codes : [], empty.masters, 0) };
  const drawings = { [empty.masters[0]!.id]: { ...emptyDrawing(Math.min(65535, advance)), contours } };
  const project = {
    ...empty,
    nextId: empty.nextId + 1,
    glyphOrder: [...empty.glyphOrder, id],
    glyphs: { ...empty.glyphs, [id]: { ...drawn, drawings } },
  };
  return { ok: true, value: { project, notes } };
}

/** The standard name of a character, or a name that stands for one; undefined for other words. */
function known(word: string | undefined): string | undefined {
  if (!word) return undefined;
  if ([...word].length === 1) return nameForCodePoint(word.codePointAt(0)!);
  return codePointsForName(word).length > 0 ? word : undefined;
}
