import { isEmptyBox } from '../geometry/curve';
import type { Anchor, Glyph, GlyphId, Master, Project } from '../project/model';
import { drawingBounds, drawingsOf } from '../project/outline';
import { drawingOf, glyphForCodePoint, glyphNamed } from '../project/queries';

/**
 * The letters that a ligature stands for: by its name (`f_f_i`, with or without a suffix), else by the compatibility
 * decomposition of its character; undefined for what is no ligature, or of letters that are not here.
 */
export function lettersOf(project: Project, glyph: Glyph): GlyphId[] | undefined {
  const [plain] = glyph.name.split('.', 1) as [string];
  const code = glyph.unicodes[0];
  const spelt = code === undefined ? '' : String.fromCodePoint(code).normalize('NFKD');
  const letters =
    plain.includes('_') && !plain.startsWith('_')
      ? plain.split('_').map((n) => glyphNamed(project, n))
      : /^\p{L}{2,}$/u.test(spelt)
        ? [...spelt].map((c) => glyphForCodePoint(project, c.codePointAt(0)!))
        : [];
  const found = letters.filter((g): g is Glyph => g !== undefined);
  return found.length >= 2 && found.length === letters.length ? found.map((g) => g.id) : undefined;
}

/**
 * Carets between the letters of a ligature, and anchors of each letter for marks above and below, numbered from 1: the
 * letters' own widths and anchors, drawn together to the width of the ligature.
 */
export function ligatureAnchors(project: Project, glyph: Glyph, master: Master): Anchor[] {
  const letters = lettersOf(project, glyph);
  const own = drawingOf(glyph, master.id);
  if (!letters || isEmptyBox(drawingBounds(own, drawingsOf(project, master.id)))) return [];
  const drawings = letters.map((id) => drawingOf(project.glyphs[id]!, master.id));
  const whole = drawings.reduce((sum, d) => sum + d.advance, 0);
  if (whole <= 0) return [];
  const share = own.advance / whole;
  const out: Anchor[] = [];
  let x = 0;
  drawings.forEach((d, i) => {
    for (const name of ['top', 'bottom']) {
      const at = d.anchors.find((a) => a.name === name);
      if (at) out.push({ name: `${name}_${i + 1}`, x: Math.round((x + at.x) * share), y: at.y, role: 'takesMark' });
    }
    x += d.advance;
    if (i < drawings.length - 1) out.push({ name: `caret_${i + 1}`, x: Math.round(x * share), y: 0, role: 'caret' });
  });
  return out;
}
