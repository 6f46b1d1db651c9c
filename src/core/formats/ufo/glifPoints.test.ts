import fc from 'fast-check';
import type { Point } from '../../geometry/contour';
import { readGlif } from './glif';
import { readPlainPoints } from './glifPoints';

const glif = (points: string) =>
  `<glyph name="a" format="2"><outline><contour>\n${points}\n</contour></outline></glyph>`;

/** Coordinates as sources write them, and some that only the thorough reader takes or refuses. */
const coordinate = fc.oneof(
  fc.integer({ min: -3000, max: 3000 }).map(String),
  fc.tuple(fc.integer({ min: -999, max: 999 }), fc.integer({ min: 0, max: 99999 })).map(([a, b]) => `${a}.${b}`),
  fc.constantFrom('-0', '0', '-0.5', '1000000', '1000000.5', '1e3', '007', '.5', '5.', '+3', '', '12345.678901'),
);
const point = fc.record({
  x: coordinate,
  y: coordinate,
  type: fc.constantFrom('', 'line', 'curve', 'qcurve', 'move', 'odd'),
  smooth: fc.constantFrom('', 'yes', 'no'),
  name: fc.constantFrom('', 'top'),
});

const told = (text: string): unknown => {
  try {
    return readGlif(text, 'a.glif').contours;
  } catch (error) {
    return (error as Error).message.replace(/line \d+/, 'line');
  }
};

test('points read in the quick way are those the full parser reads', () => {
  fc.assert(
    fc.property(fc.array(point, { maxLength: 12 }), (points) => {
      const text = points
        .map(
          (p) =>
            `<point x="${p.x}" y="${p.y}"${p.type && ` type="${p.type}"`}${p.smooth && ` smooth="${p.smooth}"`}${p.name && ` name="${p.name}"`}/>`,
        )
        .join('\n');
      // A comment sends the same document through the full parser.
      expect(told(glif(text))).toEqual(told(glif(`<!-- thorough -->${text}`)));
    }),
    { numRuns: 600 },
  );
});

test('the quick reader stops before what it does not know', () => {
  const points: Point[] = [];
  const text = '<point x="1.25" y="-2"/> <point x="3" y="4" type="curve" smooth="yes"/>\n<point y="1" x="2"/>';
  expect(readPlainPoints(text, 0, points)).toBe(text.lastIndexOf('<point'));
  expect(points).toEqual([
    { x: 1.25, y: -2, type: 'off' },
    { x: 3, y: 4, type: 'curve', smooth: true },
  ]);
});
