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
      drawings: Object.fromEntries(
        masters.map((m, k) => [m.id, stretched(source.drawings.m1!, 1 + round * 0.01 + k * 0.003)]),
      ),
    };
  }
  // One glyph of 500 points with the other masters behind it.
  const n = drawn.find((g) => g.name === 'n')!.drawings.m1!;
  const o = drawn.find((g) => g.name === 'o')!.drawings.m1!;
  const crowd = (m: number): Drawing => ({
    ...n,
    contours: [
      ...n.contours,
      ...Array.from({ length: 20 }, (_, k) =>
        o.contours.map((c) =>
          transformContour(c, [0.2, 0, 0, 0.2, 40 + (k % 5) * 120 + m, 540 + Math.floor(k / 5) * 130]),
        ),
      ).flat(),
    ],
    backdrops:
      m > 0
        ? []
        : masters.slice(1).map((other, i) => ({
            id: `b${i + 1}`,
            picture: '',
            outline: { kind: 'master' as const, master: other.id },
            transform: [1, 0, 0, 1, 0, 0] as const,
            strength: 0.3,
            locked: true,
            visible: true,
          })),
  });
  const last = order[order.length - 1]!;
  glyphs[last] = {
    ...glyphs[last]!,
    name: 'crowded',
    unicodes: [],
    drawings: Object.fromEntries(masters.map((m, i) => [m.id, crowd(i)])),
  };
  const axes =
    masterCount > 1
      ? [
          {
            tag: 'wght',
            name: 'Weight',
            minimum: 400,
            default: 400,
            maximum: 300 + masterCount * 100,
            map: [],
            hidden: false,
            labels: {},
          },
        ]
      : [];
  return { ...demo, axes, masters, glyphs, glyphOrder: order, nextId: glyphCount + 10 };
}
