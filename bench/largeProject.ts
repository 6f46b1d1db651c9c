import { buildStarter } from '../demo/starter';
import { transformContour } from '../src/core/geometry/contour';
import type { Drawing, Glyph, Project } from '../src/core/project/model';

/** A project of any size made of the demo's letters, each a little wider than the last so that no two are alike. */
export function largeProject(glyphCount: number, masterCount = 1): Project {
  const demo = buildStarter();
  const drawn = Object.values(demo.glyphs).filter((g) => g.drawings.m1!.contours.length > 0 && g.name !== '.notdef');
  const masters = Array.from({ length: masterCount }, (_, i) => ({
    ...demo.masters[0]!,
    id: `m${i + 1}`,
    name: i === 0 ? 'Regular' : `Master ${i + 1}`,
    place: { wght: 400 + i * 100 },
  }));
  const glyphs: Record<string, Glyph> = { g1: demo.glyphs.g1!, g2: demo.glyphs.g2! };
  const order = ['g1', 'g2'];
  const stretched = (d: Drawing, factor: number): Drawing => ({
    ...d,
    advance: Math.round(d.advance * factor),
    contours: d.contours.map((c) => transformContour(c, [factor, 0, 0, 1, 0, 0])),
  });
  for (let i = 0; order.length < glyphCount; i++) {
    const source = drawn[i % drawn.length]!;
    const round = Math.floor(i / drawn.length);
    const id = `g${i + 3}`;
    order.push(id);
    glyphs[id] = {
      ...source,
      id,
      name: round === 0 ? source.name : `${source.name}.v${round}`,
      unicodes: round === 0 ? source.unicodes : [],
      drawings: Object.fromEntries(masters.map((m, k) => [m.id, stretched(source.drawings.m1!, 1 + round * 0.01 + k * 0.003)])),
    };
  }
  const axes = masterCount > 1 ? [{ tag: 'wght', name: 'Weight', minimum: 400, default: 400, maximum: 300 + masterCount * 100, map: [], hidden: false, labels: {} }] : [];
  return { ...demo, axes, masters, glyphs, glyphOrder: order, nextId: glyphCount + 10 };
}
