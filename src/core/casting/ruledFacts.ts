import { styleNames } from '../fontfacts/names';
import { emptyBox, stretchBox } from '../geometry/curve';
import type { Master, Project } from '../project/model';
import { drawingsOf, heightsOf } from '../project/outline';
import { drawingOf, glyphsInOrder } from '../project/queries';
import { lineMetrics } from './metrics';

/** What the rules give for each fact of a master's font, by its key, nothing being set outright. */
export function ruledFacts(project: Project, master: Master): Readonly<Record<string, number>> {
  const box = emptyBox();
  for (const { id } of project.masters) {
    const source = drawingsOf(project, id);
    for (const glyph of glyphsInOrder(project)) {
      const heights = glyph.cast ? heightsOf(drawingOf(glyph, id), source) : undefined;
      if (heights) for (const y of heights) stretchBox(box, 0, y);
    }
  }
  const names = styleNames(project, { name: master.name, info: {} });
  const em = project.unitsPerEm;
  return {
    ...lineMetrics({ ...master, verticalMetrics: {} }, box, em),
    weightClass: names.weightClass,
    widthClass: names.widthClass,
    underlinePosition: Math.round(-em * 0.1),
    underlineThickness: Math.round(em * 0.05),
    strikeoutPosition: Math.round(master.zones.xHeight.position * 0.6),
    strikeoutSize: Math.round(em * 0.05),
  };
}
