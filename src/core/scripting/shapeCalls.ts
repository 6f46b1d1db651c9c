import { z } from 'zod';
import { refuse } from '../base/result';
import { type Contour, contourBounds, reverseContour, signedArea, transformContour } from '../geometry/contour';
import { emptyBox, isEmptyBox, stretchBox } from '../geometry/curve';
import { combineShapes, removeOverlaps, type ShapeOperation } from '../geometry/overlaps';
import { directedByNesting } from '../geometry/winding';
import { type Call, method } from './call';
import { contoursOf, numberOf } from './given';

const combined = (name: string, operation: ShapeOperation, does: string): Call =>
  method(
    'shapes',
    name,
    { first: contoursOf, second: contoursOf },
    { gives: 'Contours', does },
    (_, { first, second }) => {
      const { contours, failed } = combineShapes(first, second, operation);
      return failed
        ? refuse('These outlines lie on each other so closely that nothing sound could be made of them.')
        : contours;
    },
  );

const each = (change: (c: Contour) => Contour, contours: readonly Contour[]) => contours.map(change);
const turn = (degrees: number) => (degrees * Math.PI) / 180;

/** What a script can do with outlines, which are plain values. */
export const SHAPE_CALLS: readonly Call[] = [
  combined('unite', 'unite', 'What two shapes cover together.'),
  combined('subtract', 'subtract', 'What the first covers and the second does not.'),
  combined('intersect', 'intersect', 'What both cover.'),
  method(
    'shapes',
    'simple',
    { contours: contoursOf },
    {
      gives: 'Contours',
      does: 'The same shape without overlaps.',
      example: 'drawing.contours = shapes.simple(drawing.contours)',
    },
    (_, { contours }) => {
      const done = removeOverlaps(contours);
      return done.failed ? refuse('These outlines are too tangled to be made simple.') : done.contours;
    },
  ),
  method(
    'shapes',
    'directed',
    { contours: contoursOf },
    { gives: 'Contours', does: 'Directions by nesting: outer contours one way, counters the other.' },
    (_, { contours }) => directedByNesting(contours),
  ),
  method(
    'shapes',
    'reversed',
    { contours: contoursOf },
    { gives: 'Contours', does: 'Every contour the other way round.' },
    (_, { contours }) => each(reverseContour, contours),
  ),
  method(
    'shapes',
    'moved',
    { contours: contoursOf, dx: numberOf, dy: numberOf },
    { gives: 'Contours', does: 'Moved, in font units.' },
    (_, { contours, dx, dy }) => each((c) => transformContour(c, [1, 0, 0, 1, dx, dy]), contours),
  ),
  method(
    'shapes',
    'scaled',
    { contours: contoursOf, x: numberOf, y: numberOf },
    { gives: 'Contours', does: 'Scaled about the origin; 1 is as it is.' },
    (_, { contours, x, y }) => each((c) => transformContour(c, [x, 0, 0, y, 0, 0]), contours),
  ),
  method(
    'shapes',
    'turned',
    { contours: contoursOf, degrees: numberOf },
    { gives: 'Contours', does: 'Turned about the origin, against the clock.' },
    (_, { contours, degrees }) => {
      const [c, s] = [Math.cos(turn(degrees)), Math.sin(turn(degrees))];
      return each((k) => transformContour(k, [c, s, -s, c, 0, 0]), contours);
    },
  ),
  method(
    'shapes',
    'slanted',
    { contours: contoursOf, degrees: ['number', z.number().min(-80).max(80)] },
    { gives: 'Contours', does: 'Leaning to the right by so many degrees, from -80 to 80.' },
    (_, { contours, degrees }) => each((c) => transformContour(c, [1, 0, Math.tan(turn(degrees)), 1, 0, 0]), contours),
  ),
  method(
    'shapes',
    'area',
    { contours: contoursOf },
    { gives: 'number', does: 'The area of closed contours, counters taken off, in square units.' },
    (_, { contours }) => Math.abs(contours.reduce((sum, c) => sum + (c.closed ? signedArea(c) : 0), 0)),
  ),
  method(
    'shapes',
    'box',
    { contours: contoursOf },
    { gives: 'Box | undefined', does: 'What they cover; nothing where there are none.' },
    (_, { contours }) => {
      const box = emptyBox();
      for (const { xMin, yMin, xMax, yMax } of contours.map(contourBounds)) {
        stretchBox(box, xMin, yMin);
        stretchBox(box, xMax, yMax);
      }
      return isEmptyBox(box) ? undefined : box;
    },
  ),
];
