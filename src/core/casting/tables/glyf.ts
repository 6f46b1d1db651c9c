import { type Box, emptyBox, isEmptyBox, stretchBox } from '../../geometry/curve';
import { joinGlyphs, writeCompositeGlyph } from '../../opentype/glyf';
import { maxp } from '../../opentype/maxp';
import type { Glyph, GlyphId } from '../../project/model';
import { type CastPlan, madeFor } from '../plan';
import { type CompositeShape, roundedBox, type Sibling, type SimpleShape, type TrueTypeShape } from '../shape';
import { varyingShapes } from './gvar';
import type { Outlines } from './outlines';

/** TrueType outlines: quadratics, components kept where the format allows, no instructions but dropout control. */
export function trueTypeOutlines(plan: CastPlan): Outlines {
  const { entries, index, keepOverlaps, cache, source } = plan;
  if (plan.varies) {
    const { shapes, gvar } = varyingShapes(plan, plan.varies);
    const fixed = outlinesOf(plan, shapes);
    return { ...fixed, tables: [...fixed.tables, ['gvar', gvar]] };
  }
  const isCast = (id: GlyphId) => index.has(id);
  const others = keepOverlaps ? plan.others : [];
  const siblings = (glyph: Glyph): Sibling[] =>
    others.flatMap(({ id, source: there }) => {
      const drawing = glyph.drawings[id];
      return drawing ? [{ drawing, source: there }] : [];
    });
  return outlinesOf(
    plan,
    entries.map((e) =>
      madeFor(e, () => cache.trueTypeShape(e.drawing, source, keepOverlaps, isCast, siblings(e.glyph))),
    ),
  );
}

function outlinesOf({ entries, index, keepOverlaps }: CastPlan, shapes: readonly TrueTypeShape[]): Outlines {
  const totals = compositeTotals(shapes, index);
  const records = shapes.map((s, i) =>
    s.kind === 'simple' ? s.record : compositeRecord(s, index, totals[i]!.box, keepOverlaps),
  );
  const { glyf, loca, indexToLocFormat } = joinGlyphs(records);
  const simple = shapes.filter((s): s is SimpleShape => s.kind === 'simple');
  const most = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b), 0);
  const composites = totals.filter((t) => t.depth > 0);
  // Turns dropout control on (SCANCTRL, SCANTYPE).
  const prep = Uint8Array.of(0xb8, 0x01, 0xff, 0x85, 0xb0, 0x04, 0x8d);
  return {
    tables: [
      ['glyf', glyf],
      ['loca', loca],
      ['prep', prep],
      [
        'maxp',
        maxp.write({
          version: maxp.VERSION_TRUETYPE,
          numGlyphs: entries.length,
          maxPoints: most(simple.map((s) => s.points)),
          maxContours: most(simple.map((s) => s.contours)),
          maxCompositePoints: most(composites.map((t) => t.points)),
          maxCompositeContours: most(composites.map((t) => t.contours)),
          maxZones: 1,
          maxTwilightPoints: 0,
          maxStorage: 0,
          maxFunctionDefs: 0,
          maxInstructionDefs: 0,
          maxStackElements: 1,
          maxSizeOfInstructions: 0,
          maxComponentElements: most(shapes.map((s) => (s.kind === 'composite' ? s.parts.length : 0))),
          maxComponentDepth: most(totals.map((t) => t.depth)),
        }),
      ],
    ],
    boxes: totals.map((t) => t.box),
    indexToLocFormat,
    error: most(simple.map((s) => s.error)),
    overlapsKept: entries
      .filter((_, i) => {
        const s = shapes[i]!;
        return s.kind === 'simple' && s.overlapFailed;
      })
      .map((e) => e.glyph.name),
  };
}

type Totals = { box: Box; points: number; contours: number; depth: number };

/** Box, points, contours and depth of every glyph with its components drawn out. */
function compositeTotals(shapes: readonly TrueTypeShape[], index: ReadonlyMap<GlyphId, number>): Totals[] {
  const done: (Totals | undefined)[] = shapes.map(() => undefined);
  const visit = (i: number): Totals => {
    const known = done[i];
    if (known) return known;
    const shape = shapes[i]!;
    if (shape.kind === 'simple') {
      const own = { box: shape.box, points: shape.points, contours: shape.contours, depth: 0 };
      done[i] = own;
      return own;
    }
    const total: Totals = { box: emptyBox(), points: 0, contours: 0, depth: 0 };
    for (const part of shape.parts) {
      const base = visit(index.get(part.base)!);
      total.points += base.points;
      total.contours += base.contours;
      total.depth = Math.max(total.depth, base.depth + 1);
      if (isEmptyBox(base.box)) continue;
      const [xx, xy, yx, yy] = part.scale;
      for (const [x, y] of [
        [base.box.xMin, base.box.yMin],
        [base.box.xMax, base.box.yMin],
        [base.box.xMin, base.box.yMax],
        [base.box.xMax, base.box.yMax],
      ] as const) {
        stretchBox(total.box, Math.round(xx * x + yx * y) + part.dx, Math.round(xy * x + yy * y) + part.dy);
      }
    }
    done[i] = total;
    return total;
  };
  return shapes.map((_, i) => visit(i));
}

function compositeRecord(
  shape: CompositeShape,
  index: ReadonlyMap<GlyphId, number>,
  box: Box,
  keepOverlaps: boolean,
): Uint8Array {
  const parts = shape.parts.map(({ base, ...rest }) => ({ ...rest, glyph: index.get(base)! }));
  return writeCompositeGlyph(parts, roundedBox(box), keepOverlaps);
}
