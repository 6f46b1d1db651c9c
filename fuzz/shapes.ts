import { type Contour, curvesOf, signedArea } from '../src/core/geometry/contour';
import { differingLength, inkedStretches, NON_ZERO } from '../src/core/geometry/coverage';
import { boundsOf, type Curve, isEmptyBox, lengthOf } from '../src/core/geometry/curve';
import { combineShapes, FILLED, removeOverlaps, type ShapeOperation } from '../src/core/geometry/overlaps';

/** Area, in square units, that is in just one of a result and of what it should cover: level lines `step` apart. */
export function wrongArea(
  first: readonly Contour[],
  second: readonly Contour[],
  operation: ShapeOperation,
  result: readonly Contour[],
  step: number,
): number {
  const [a, b, c] = [first, second, result].map((list) => list.flatMap((one) => [...curvesOf(one)])) as [
    Curve[],
    Curve[],
    Curve[],
  ];
  const box = boundsOf([...a, ...b, ...c]);
  if (isEmptyBox(box)) return 0;
  let area = 0;
  for (let y = box.yMin + step * 0.3819; y < box.yMax; y += step)
    area += differingLength(inkedStretches(a, b, FILLED[operation], y), inkedStretches(c, [], NON_ZERO, y)) * step;
  return area;
}

export const OPERATIONS: readonly ShapeOperation[] = ['unite', 'subtract', 'intersect', 'exclude'];

/** What is wrong with a result, in a word or two; undefined when nothing is. */
export function faultOf(
  first: readonly Contour[],
  second: readonly Contour[],
  operation: ShapeOperation,
): string | undefined {
  const result = second.length === 0 ? removeOverlaps(first) : combineShapes(first, second, operation);
  if (result.failed) return 'failed';
  for (const c of result.contours) {
    const curves = curvesOf(c);
    if (curves.some((one) => lengthOf(one) < 0.02)) return 'stray point';
    if (Math.abs(signedArea(c)) < 0.002 * curves.reduce((sum, one) => sum + lengthOf(one), 0)) return 'sliver';
  }
  // A hundredth of a percent of an em square of 1,000 units; a level edge may lie just beside a coarse line.
  if (wrongArea(first, second, operation, result.contours, 2) < 60) return undefined;
  const wrong = wrongArea(first, second, operation, result.contours, 0.1);
  return wrong > 100 ? `wrong by ${Math.round(wrong)} square units` : undefined;
}
