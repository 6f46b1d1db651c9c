import { counted } from '../../base/notation';
import { refuse } from '../../base/result';
import { type PointDeltas, type VaryingGlyph, writeGvar } from '../../opentype/gvarWrite';
import type { GlyphId } from '../../project/model';
import { type CastPlan, type Entry, madeFor } from '../plan';
import type { FamilyShape, MasterPoints, TrueTypeShape } from '../shape';
import { freeze, type Say, type Varying } from '../varying';

/** The shapes of a font that varies as the default has them, each of one kind in all masters, and what they vary by. */
export function varyingShapes(plan: CastPlan, varies: Varying): { shapes: TrueTypeShape[]; gvar: Uint8Array } {
  const shapes: TrueTypeShape[] = [];
  const glyphs = plan.entries.map((entry): VaryingGlyph | undefined => {
    const { main, all, says } = madeFor(entry, () => shapesOf(plan, entry, varies));
    shapes.push(main);
    if (says.length < 2) return undefined;
    if (!all) {
      freeze(plan, varies, entry);
      return undefined;
    }
    return madeFor(entry, () => varyingGlyph(entry, main, { points: all, says, varies }));
  });
  return { shapes, gvar: writeGvar(glyphs, varies.axes.length) };
}

/** A glyph’s shape and its points in all drawings that have a say. */
type Shapes = FamilyShape & { readonly says: readonly Say[] };

/** Composites where all are and scale their parts alike, else drawn out in all. */
function shapesOf({ cache, index, source }: CastPlan, { glyph, drawing }: Entry, varies: Varying): Shapes {
  const own = varies.says(glyph);
  const at = (says: readonly Say[]) => says.findIndex((s) => s.drawing === drawing);
  // What stands in for a glyph that is not drawn is one in no master.
  if (at(own) < 0) return { main: cache.trueTypeShape(drawing, source, true, () => false), says: own };
  const whole = cache.familyShape(own, at(own), (id: GlyphId) => index.has(id));
  if (whole) return { ...whole, says: own };
  const says = varies.saysDrawnOut(glyph);
  return { ...cache.drawnOutShape(says, at(says)), says };
}

/** What all points of a glyph move by, the four phantom points last. */
function varyingGlyph(
  { drawing, advance }: Entry,
  main: TrueTypeShape,
  { points, says, varies }: { points: MasterPoints; says: readonly Say[]; varies: Varying },
): VaryingGlyph {
  const advances = says.map((s) => Math.max(0, Math.min(65535, Math.round(s.drawing.advance))));
  // The origin and the advance; lines that run down do not vary.
  const across = varies.rowsOfSays(
    says,
    points.xs.map((row, k) => [...row, 0, advances[k]!, 0, 0]),
  );
  const up = varies.rowsOfSays(
    says,
    points.ys.map((row) => [...row, 0, 0, 0, 0]),
  );
  const deltas = across.regions.map((region, r): PointDeltas => ({ region, dx: across.rows[r]!, dy: up.rows[r]! }));
  for (const { dx, dy } of deltas)
    for (const d of [dx, dy])
      for (const v of d) if (v < -32768 || v > 32767) refuse(`it varies by ${counted(v)} units; a font holds 32,767.`);
  let end = -1;
  const ends = main.kind === 'simple' ? main.outline.map((c) => (end += c.length)) : [];
  const own = says.findIndex((s) => s.drawing === drawing);
  return { xs: [...points.xs[own]!, 0, advance, 0, 0], ys: [...points.ys[own]!, 0, 0, 0, 0], ends, deltas };
}
