import { type PointDeltas, type VaryingGlyph, writeGvar } from '../../opentype/gvarWrite';
import type { GlyphId } from '../../project/model';
import type { CastPlan, Entry } from '../plan';
import type { CompositeShape, TrueTypeShape } from '../shape';
import { freeze, type Say, type Varying } from '../varying';

type Point = { x: number; y: number };

/** The shapes of a font that varies as the default has them, each of one kind in all masters, and what they vary by. */
export function varyingShapes(plan: CastPlan, varies: Varying): { shapes: TrueTypeShape[]; gvar: Uint8Array } {
  const shapes: TrueTypeShape[] = [];
  const glyphs = plan.entries.map((entry): VaryingGlyph | undefined => {
    const all = shapesOf(plan, entry, varies);
    shapes.push(all.main);
    if (all.others.length < 2) return undefined;
    const glyph = varyingGlyph(entry, all, varies);
    if (!glyph) freeze(plan, varies, entry);
    return glyph;
  });
  return { shapes, gvar: writeGvar(glyphs, varies.axes.length) };
}

type Shapes = { main: TrueTypeShape; others: readonly TrueTypeShape[]; says: readonly Say[] };

/** A glyph’s shapes in all drawings that have a say: composites where all are and scale their parts alike, else drawn out in all. */
function shapesOf({ cache, index, source }: CastPlan, { glyph, drawing }: Entry, varies: Varying): Shapes {
  const made = (says: readonly Say[], isCast: (id: GlyphId) => boolean): Shapes => {
    const shape = (own: Pick<Say, 'drawing' | 'source'>) =>
      cache.trueTypeShape(
        own.drawing,
        own.source,
        true,
        isCast,
        says.filter((s) => s !== own),
      );
    const main = says.find((s) => s.drawing === drawing) ?? { drawing, source };
    return { main: shape(main), others: says.map(shape), says };
  };
  const own = varies.says(glyph);
  if (drawing.components.length === 0) return made(own, () => false);
  const all = made(own, (id) => index.has(id));
  const composites = all.others.filter((s): s is CompositeShape => s.kind === 'composite');
  return composites.length === all.others.length && composites.every((s) => alike(s, composites[0]!))
    ? all
    : made(varies.saysDrawnOut(glyph), () => false);
}

const alike = (a: CompositeShape, b: CompositeShape): boolean =>
  a.parts.length === b.parts.length &&
  a.parts.every((p, i) => p.base === b.parts[i]!.base && p.scale.every((v, k) => v === b.parts[i]!.scale[k]));

/** Points of a shape: those of its contours, or the places of its parts. */
const pointsOf = (shape: TrueTypeShape): Point[] =>
  shape.kind === 'simple' ? shape.outline.flat() : shape.parts.map(({ dx, dy }) => ({ x: dx, y: dy }));

function varyingGlyph({ advance }: Entry, { main, others, says }: Shapes, varies: Varying): VaryingGlyph | undefined {
  const own = pointsOf(main);
  const all = others.map(pointsOf);
  if (all.some((p) => p.length !== own.length)) return undefined;
  // Phantom points: the origin and the advance; lines that run down do not vary.
  const advances = says.map(({ drawing }) => Math.max(0, Math.min(65535, Math.round(drawing.advance))));
  const still = { x: 0, y: 0 };
  const whole = all.map((points, k) => [...points, still, { x: advances[k]!, y: 0 }, still, still]);
  const base = [...own, still, { x: advance, y: 0 }, still, still];
  const deltas: { region: PointDeltas['region']; dx: number[]; dy: number[] }[] = [];
  base.forEach((_, i) => {
    const found = (['x', 'y'] as const).map((key) => varies.ofSays(says, (_, k) => whole[k]![i]![key]).deltas);
    found[0]!.forEach(({ region, delta }, r) => {
      deltas[r] ??= { region, dx: [], dy: [] };
      deltas[r].dx.push(delta);
      deltas[r].dy.push(found[1]![r]!.delta);
    });
  });
  let end = -1;
  const ends = main.kind === 'simple' ? main.outline.map((c) => (end += c.length)) : [];
  return { xs: base.map((p) => p.x), ys: base.map((p) => p.y), ends, deltas };
}
