import { readyDemo } from '../demo/ready';
import { transformContour } from '../src/core/geometry/contour';
import type { Drawing, Glyph, Project } from '../src/core/project/model';

/** The demo with so many glyphs, no two alike, in the four masters at its corners: kerning, rules and anchors as they are. */
export function largeFamily(count: number): Project {
  const demo = readyDemo();
  // The four corners of weight and width.
  const masters = demo.masters.filter((m) => /Light|Heavy/.test(m.name));
  const kept = new Set(masters.map((m) => m.id));
  const only = (g: Glyph, factor: number, id: string, name: string, first: boolean): Glyph => ({
    ...g,
    id,
    name,
    unicodes: first ? g.unicodes : [],
    drawings: Object.fromEntries(
      Object.entries(g.drawings).flatMap(([m, d]): [string, Drawing][] =>
        kept.has(m)
          ? [
              [
                m,
                factor === 1
                  ? d
                  : { ...d, contours: d.contours.map((c) => transformContour(c, [factor, 0, 0, 1, 0, 0])) },
              ],
            ]
          : [],
      ),
    ),
  });
  const glyphs: Record<string, Glyph> = {};
  const order: string[] = [];
  for (let round = 0; order.length < count; round++)
    for (const id of demo.glyphOrder) {
      if (order.length >= count) break;
      const g = demo.glyphs[id]!;
      const own = round === 0 ? id : `${id}v${round}`;
      glyphs[own] = only(g, 1 + round * 0.01, own, round === 0 ? g.name : `${g.name}.v${round}`, round === 0);
      order.push(own);
    }
  return { ...demo, masters, glyphs, glyphOrder: order };
}
