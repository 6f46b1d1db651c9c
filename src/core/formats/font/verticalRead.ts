import { VERTICAL_ORIGIN } from '../../fontfacts/stated';
import { isEmptyBox } from '../../geometry/curve';
import { hmtx } from '../../opentype/hmtx';
import { tableOf } from '../../opentype/sfnt';
import { readHvar } from '../../opentype/variations';
import { vhea } from '../../opentype/vhea';
import { readVorg } from '../../opentype/vorg';
import type { Drawing, Glyph, Project } from '../../project/model';
import { drawingBounds, drawingsOf } from '../../project/outline';
import type { Place } from './places';
import type { FontReading } from './reading';

/**
 * Metrics of lines that run down (`vmtx`, `VORG`, `VVAR`), put into the drawings where they are not what the rule gives: an em to a
 * glyph, from the ascender on.
 */
export function withVerticalMetrics(r: FontReading, project: Project, places: readonly Place[]): Project {
  const { tables } = r.font;
  if (!tables.has('vhea') || !tables.has('vmtx')) return project;
  const { numOfLongVerMetrics } = vhea.read(tableOf(r.font, 'vhea'));
  const metrics = hmtx.read(tableOf(r.font, 'vmtx'), numOfLongVerMetrics, r.numGlyphs);
  const vorg = tables.has('VORG') ? readVorg(tableOf(r.font, 'VORG')) : undefined;
  const vvar = tables.has('VVAR') ? readHvar(tableOf(r.font, 'VVAR')) : undefined;
  const main = project.masters[0]!;
  const source = drawingsOf(project, main.id);
  const usual = main.verticalMetrics.typoAscender;
  const glyphs = { ...project.glyphs };
  project.glyphOrder.forEach((id, index) => {
    const glyph = glyphs[id]!;
    const metric = metrics[index];
    if (!metric) return;
    const box = drawingBounds(glyph.drawings[main.id]!, source);
    const origin = vorg?.(index) ?? (isEmptyBox(box) ? usual : metric.lsb + Math.ceil(box.yMax - 1e-6));
    const drawings = project.masters.flatMap((m, i): [string, Drawing][] => {
      const drawing = glyph.drawings[m.id];
      if (!drawing) return [];
      const advance = metric.advanceWidth + Math.round(vvar?.advance(index, places[i]!.at) ?? 0);
      return [
        [
          m.id,
          standing(
            drawing,
            advance === project.unitsPerEm ? undefined : advance,
            origin === usual ? undefined : origin,
          ),
        ],
      ];
    });
    glyphs[id] = { ...glyph, drawings: Object.fromEntries(drawings) } satisfies Glyph;
  });
  return { ...project, glyphs };
}

const standing = (drawing: Drawing, advance: number | undefined, origin: number | undefined): Drawing => ({
  ...drawing,
  ...(advance !== undefined && { verticalAdvance: advance }),
  ...(origin !== undefined && { lib: { ...drawing.lib, [VERTICAL_ORIGIN]: origin } }),
});
