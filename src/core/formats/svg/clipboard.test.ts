import fc from 'fast-check';
import { readyDemo } from '../../../../demo/ready';
import { refused } from '../../base/result';
import { contourBounds, curvesOf } from '../../geometry/contour';
import { boundsOf } from '../../geometry/curve';
import { closedContour } from '../../geometry/testShapes';
import { copiedOutline, pastedOutline } from './clipboard';

const place = { unitsPerEm: 1000, top: 740, bottom: -210 };
const taken = (result: ReturnType<typeof pastedOutline>) => {
  if (!result) return undefined;
  if (!result.ok) throw new Error(result.reason);
  return result.value.contours;
};

test('what is copied in Wendril is pasted to the letter, types, names and smoothness too', () => {
  const demo = readyDemo();
  for (const id of demo.glyphOrder) {
    const { contours, advance } = demo.glyphs[id]!.drawings.m1!;
    const { svg, exact } = copiedOutline(contours, advance, place);
    expect(taken(pastedOutline(svg, exact, place))).toEqual(contours);
  }
});

test('any outline travels as a picture, to thousandths, and stands where it stood', () => {
  fc.assert(
    fc.property(fc.array(closedContour, { minLength: 1, maxLength: 3 }), (contours) => {
      const { svg } = copiedOutline(contours, 600, place);
      const back = taken(pastedOutline(svg, '', place))!;
      const [was, is] = [contours, back].map((list) => boundsOf(list.flatMap((c) => [...curvesOf(c)])));
      for (const side of ['xMin', 'xMax', 'yMin', 'yMax'] as const)
        expect(Math.abs(was![side] - is![side])).toBeLessThan(0.01);
    }),
    { numRuns: 60, seed: 2 },
  );
});

test('damaged exact outlines give way to the picture beside them', () => {
  const { svg } = copiedOutline(
    [
      {
        closed: true,
        points: [
          [0, 0],
          [90, 0],
          [90, 50],
        ].map(([x, y]) => ({ x: x!, y: y!, type: 'line' })),
      },
    ],
    100,
    place,
  );
  for (const exact of ['{', '[{"closed":true,"points":[{"x":"one"}]}]', '"text"']) {
    expect(contourBounds(taken(pastedOutline(svg, exact, place))![0]!)).toEqual({
      xMin: 0,
      xMax: 90,
      yMin: 0,
      yMax: 50,
    });
  }
});

test('other text is left alone; a picture without outlines and damaged path data are told', () => {
  expect(pastedOutline('Dear Sir', '', place)).toBeUndefined();
  expect(pastedOutline('', '', place)).toBeUndefined();
  expect(pastedOutline('<svg viewBox="0 0 9 9"><text>a</text></svg>', '', place)).toEqual(
    refused('The picture on the clipboard holds no outlines.'),
  );
  expect(pastedOutline('<svg viewBox="0 0 9"><path d="M0 0h9"/></svg>', '', place)).toMatchObject(
    refused(expect.stringContaining('The clipboard, line 1: viewBox')),
  );
  expect(pastedOutline('M 1 1 Q', '', place)).toMatchObject({ ok: false });
});
