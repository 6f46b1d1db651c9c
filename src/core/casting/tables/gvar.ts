import { refuse } from '../../base/result';
import { type PointDeltas, type VaryingGlyph, writeGvar } from '../../opentype/gvarWrite';
import type { GlyphId } from '../../project/model';
import { type CastPlan, type Entry, madeFor } from '../plan';
import type { CompositeShape, TrueTypeShape } from '../shape';
import { freeze, type Say, type Varying } from '../varying';

/** The shapes of a font that varies as the default has them, each of one kind in all masters, and what they vary by. */
export function varyingShapes(plan: CastPlan, varies: Varying): { shapes: TrueTypeShape[]; gvar: Uint8Array } {
  const shapes: TrueTypeShape[] = [];
  const glyphs = plan.entries.map((entry): VaryingGlyph | undefined => {
    const all = madeFor(entry, () => shapesOf(plan, entry, varies));
    shapes.push(all.main);
    if (all.others.length < 2) return undefined;
    const glyph = madeFor(entry, () => varyingGlyph(entry, all, varies));
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

/** Numbers of a shape’s points, across and up; of a composite the places of its parts; the four phantom points last. */
function coordinatesOf(shape: TrueTypeShape, advance: number): { xs: number[]; ys: number[] } {
  const xs: number[] = [];
  const ys: number[] = [];
  if (shape.kind === 'simple')
    for (const contour of shape.outline)
      for (const p of contour) {
        xs.push(p.x);
        ys.push(p.y);
      }
  else
    for (const { dx, dy } of shape.parts) {
      xs.push(dx);
      ys.push(dy);
    }
  // The origin and the advance; lines that run down do not vary.
  xs.push(0, advance, 0, 0);
  ys.push(0, 0, 0, 0);
  return { xs, ys };
}

function varyingGlyph({ advance }: Entry, { main, others, says }: Shapes, varies: Varying): VaryingGlyph | undefined {
  const own = coordinatesOf(main, advance);
  const all = others.map((shape, k) =>
    coordinatesOf(shape, Math.max(0, Math.min(65535, Math.round(says[k]!.drawing.advance)))),
  );
  if (all.some((o) => o.xs.length !== own.xs.length)) return undefined;
  const across = varies.rowsOfSays(
    says,
    all.map((o) => o.xs),
  );
  const up = varies.rowsOfSays(
    says,
    all.map((o) => o.ys),
  );
  const deltas = across.regions.map((region, r): PointDeltas => ({ region, dx: across.rows[r]!, dy: up.rows[r]! }));
  for (const { dx, dy } of deltas)
    for (const d of [dx, dy])
      for (const v of d)
        if (v < -32768 || v > 32767) refuse(`it varies by ${v.toLocaleString('en')} units; a font holds 32,767.`);
  let end = -1;
  const ends = main.kind === 'simple' ? main.outline.map((c) => (end += c.length)) : [];
  return { xs: own.xs, ys: own.ys, ends, deltas };
}
