import fc from 'fast-check';
import { buildStarter } from '../../../../demo/starter';
import { refused } from '../../base/result';
import { type Contour, contourBounds, curvesOf, signedArea } from '../../geometry/contour';
import { filledLength } from '../../geometry/coverage';
import { boundsOf, lengthOf } from '../../geometry/curve';
import { drawingsOf, flattened } from '../../project/outline';
import { defaultMaster, drawingOf } from '../../project/queries';
import { openAny } from '../openFile';
import { writeSvg } from './svg';
import { isPathData, isSvg, readPathData, readSvg } from './svgRead';

const place = { unitsPerEm: 1000, top: 750, bottom: -250 };
const page = (inner: string, attributes = 'viewBox="0 0 1000 1000"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inner}</svg>`;
const read = (text: string) => {
  const result = readSvg(text, 'mark.svg', place);
  if (!result.ok) throw new Error(result.reason);
  return result.value;
};
const refusal = (text: string) => {
  const result = readSvg(text, 'mark.svg', place);
  return result.ok ? 'accepted' : result.reason;
};
const area = (contours: readonly Contour[]) => contours.reduce((sum, c) => sum + signedArea(c), 0);
const inked = (contours: readonly Contour[]) => {
  const curves = contours.flatMap(curvesOf);
  const { yMin, yMax } = boundsOf(curves);
  const lines = 2000;
  let sum = 0;
  for (let i = 0; i < lines; i++) sum += filledLength(curves, yMin + ((i + 0.5) / lines) * (yMax - yMin));
  return (sum * (yMax - yMin)) / lines;
};
const box = (contours: readonly Contour[]) => boundsOf(contours.flatMap(curvesOf));

describe('placing the page', () => {
  test('a page as tall as the em comes in one to one, its foot at the bottom line', () => {
    const { contours, advance } = read(page('<path d="M100 200H300V1000H100Z"/>', 'viewBox="0 0 640 1000"'));
    expect(advance).toBe(640);
    expect(contourBounds(contours[0]!)).toEqual({ xMin: 100, xMax: 300, yMin: -250, yMax: 550 });
  });

  test('any other page is fitted to the line', () => {
    const { contours, advance } = read(page('<rect width="24" height="24"/>', 'width="24" height="24"'));
    expect(advance).toBe(1000);
    expect(contourBounds(contours[0]!)).toEqual({ xMin: 0, xMax: 1000, yMin: -250, yMax: 750 });
  });

  test('the origin of the viewBox counts, and units of length do', () => {
    expect(
      box(read(page('<rect x="-10" y="10" width="20" height="20"/>', 'viewBox="-10 10 50 100"')).contours),
    ).toEqual({ xMin: 0, xMax: 200, yMin: 550, yMax: 750 });
    // A page about its own zero has the baseline there.
    expect(box(read(page('<rect y="-500" width="20" height="500"/>', 'viewBox="0 -740 300 940"')).contours)).toEqual({
      xMin: 0,
      xMax: 20,
      yMin: 0,
      yMax: 500,
    });
    expect(box(read(page('<rect x="1in" y="25%" width="72pt" height="25.4mm"/>')).contours)).toEqual({
      xMin: 96,
      xMax: 192,
      yMin: 404,
      yMax: 500,
    });
  });
});

describe('shapes', () => {
  test('ovals and rounded corners have their area, points at the extremes, and curves', () => {
    const { contours } = read(
      page(
        '<circle cx="300" cy="300" r="200"/><ellipse cx="700" cy="300" rx="80" ry="150"/><rect x="100" y="600" width="400" height="200" rx="50"/>',
      ),
    );
    const [round, oval, rounded] = contours as [Contour, Contour, Contour];
    expect(Math.abs(signedArea(round) - Math.PI * 40000)).toBeLessThan(40);
    expect(Math.abs(signedArea(oval) - Math.PI * 80 * 150)).toBeLessThan(12);
    expect(Math.abs(signedArea(rounded) - (80000 - (4 - Math.PI) * 2500))).toBeLessThan(5);
    expect(round.points.filter((p) => p.type === 'curve')).toHaveLength(4);
    expect(round.points.every((p) => p.type === 'off' || p.smooth)).toBe(true);
    expect(rounded.points.filter((p) => p.type === 'line')).toHaveLength(4);
  });

  test('relative, short and arc commands trace what their long forms do', () => {
    const long = read(
      page(
        '<path d="M100 500 C100 300 300 300 300 500 C300 700 500 700 500 500 Q600 300 700 500 Q800 700 900 500 L900 800 L100 800 Z"/>',
      ),
    ).contours;
    const short = read(
      page('<path d="m100 500c0-200 200-200 200 0s200 200 200 0q100-200 200 0t200 0v300h-800z"/>'),
    ).contours;
    expect(short).toEqual(long);
    const arc = read(page('<path d="M200 500A300 300 0 1 1 200 501Z"/>')).contours;
    expect(Math.abs(area(arc) - Math.PI * 90000)).toBeLessThan(700);
  });

  test('polygons close; lines and strokes without fill come in open, and are told', () => {
    const { contours, notes } = read(
      page(
        '<polygon points="0,0 100,0 100,100"/><line x1="0" y1="0" x2="50" y2="50" stroke="black"/><path d="M0 0L9 9" fill="none" stroke="red"/>',
      ),
    );
    expect(contours.map((c) => c.closed)).toEqual([true, false, false]);
    expect(notes).toEqual(['2 strokes without fill came in as open contours.']);
  });

  test('what is hidden or never painted stays out; what cannot be taken is named and counted', () => {
    const { contours, notes } = read(
      page(
        '<defs><rect id="a" width="9" height="9"/></defs><g style="display: none"><rect width="5" height="5"/></g><rect width="4" height="4" fill="none"/><text>word</text><text>word</text><image/><rect width="7" height="7" clip-path="url(#c)"/>',
      ),
    );
    expect(contours).toHaveLength(1);
    expect(notes).toEqual(['Left out: text (2).', 'Left out: pictures (1).', 'Left out: clips and masks (1).']);
  });

  test('an even-odd fill keeps its holes under the non-zero rule', () => {
    const both = 'M0 0H400V400H0ZM100 100H300V300H100ZM150 150H250V250H150Z';
    expect(inked(read(page(`<path fill-rule="evenodd" d="${both}"/>`)).contours)).toBeCloseTo(
      160000 - 40000 + 10000,
      -1,
    );
    expect(inked(read(page(`<path d="${both}"/>`)).contours)).toBeCloseTo(160000, -1);
  });
});

describe('groups, transforms, references', () => {
  test('transforms apply from the inside out', () => {
    const { contours } = read(
      page(
        '<g transform="translate(100 200)"><g transform="scale(2, 3) rotate(90)"><rect width="10" height="20" transform="translate(5)"/></g></g>',
      ),
    );
    // (x, y) → +5 → (−y, x) → scaled (2, 3) → moved: x from 100 − 40, y from 200 + 15 to 200 + 45, then the page's 750 − y.
    expect(box(contours)).toEqual({ xMin: 60, xMax: 100, yMin: 505, yMax: 535 });
  });

  test('a shape used twice, a symbol fitted to its place', () => {
    const { contours } = read(
      page(
        '<defs><rect id="r" width="10" height="10"/><symbol id="s" viewBox="0 0 10 20"><rect width="10" height="20"/></symbol></defs><use href="#r" x="50"/><use xlink:href="#r" y="90"/><use href="#s" x="100" width="50" height="50"/>',
      ),
    );
    expect(contours.map((c) => contourBounds(c).xMin)).toEqual([50, 0, 112.5]);
    expect(contourBounds(contours[2]!)).toMatchObject({ xMax: 137.5, yMin: 700, yMax: 750 });
  });

  test('a nested page has its own units', () => {
    const { contours } = read(
      page(
        '<svg x="100" y="100" width="200" height="100" viewBox="0 0 10 10" preserveAspectRatio="none"><rect width="10" height="10"/></svg>',
      ),
    );
    expect(box(contours)).toEqual({ xMin: 100, xMax: 300, yMin: 550, yMax: 650 });
  });

  test('any affine transform multiplies the area by its determinant', () => {
    const factor = fc.double({ min: -2, max: 2, noNaN: true }).filter((v) => Math.abs(v) > 0.05);
    fc.assert(
      fc.property(factor, factor, factor, factor, (a, b, c, d) => {
        const { contours } = read(
          page(
            `<path transform="matrix(${[a, b, c, d, 500, 500].map((v) => v.toFixed(6)).join(' ')})" d="M0 0H100C150 40 150 80 100 100H0Z"/>`,
          ),
        );
        const plain = area(read(page('<path d="M0 0H100C150 40 150 80 100 100H0Z"/>')).contours);
        expect(Math.abs(Math.abs(area(contours)) - plain * Math.abs(a * d - b * c))).toBeLessThan(3);
      }),
      { numRuns: 60 },
    );
  });
});

describe('bad pictures', () => {
  test.each([
    ['<html/>', /not an SVG picture; it begins with <html>/],
    [page('<path d="M0 0L10"/>'), /mark\.svg, line 1: <path> has path data that cannot be read/],
    [page('<rect width="1e99" height="4"/>'), /width="1e99" of <rect> is not a length that fits/],
    [page('<g transform="spin(4)"/>'), /transform="spin\(4\)" of <g> cannot be read/],
    [page('', 'viewBox="0 0 0 10"'), /viewBox="0 0 0 10" is not four numbers with a width and a height/],
    [page('<use id="u" href="#u"/>'), /leads more than 12 steps on, or back to itself/],
    [page('<path d="M0 0L99999999 1 5 5Z"/>'), /coordinates that do not fit/],
    ['<svg', /mark\.svg, line 1/],
  ])('%s', (text, reason) => {
    expect(refusal(text)).toMatch(reason);
  });

  test('uses of uses do not grow without end', () => {
    const doubled = Array.from(
      { length: 11 },
      (_, i) => `<g id="g${i + 1}"><use href="#g${i}"/><use href="#g${i}"/><use href="#g${i}"/></g>`,
    ).join('');
    expect(refusal(page(`<rect id="g0" width="1" height="1"/>${doubled}`))).toMatch(
      /more than 20000 elements are shown/,
    );
  });
});

/** Curves of a contour but those without length. */
const sides = (c: Contour) => curvesOf(c).filter((curve) => lengthOf(curve) > 0.02).length;

test('every glyph of a project comes back from its own picture', () => {
  const project = buildStarter();
  const { id } = defaultMaster(project);
  for (const glyph of project.glyphOrder) {
    const drawing = drawingOf(project.glyphs[glyph]!, id);
    const outline = flattened(drawing, drawingsOf(project, id));
    const back = readSvg(writeSvg(project, glyph, id), 'glyph.svg', { unitsPerEm: 1000, top: 800, bottom: -300 });
    if (!back.ok) throw new Error(back.reason);
    expect(back.value.advance).toBe(drawing.advance);
    expect(back.value.title).toBe(project.glyphs[glyph]!.name);
    expect(back.value.contours.map(sides)).toEqual(outline.map(sides));
    expect(Math.abs(area(back.value.contours) - Math.abs(area(outline)))).toBeLessThan(2);
    if (outline.length > 0)
      for (const side of ['xMin', 'xMax', 'yMin', 'yMax'] as const)
        expect(box(back.value.contours)[side]).toBeCloseTo(box(outline)[side], 2);
  }
});

test('path data by itself, told from other text', () => {
  expect([
    isPathData(' m 10,10 5 5'),
    isPathData('Moo'),
    isSvg('<?xml version="1.0"?>\n<!-- x -->\n<svg >'),
    isSvg('<svgx>'),
    isSvg('<plist>'),
  ]).toEqual([true, false, true, false, true].map((v, i) => (i === 4 ? false : v)));
  const result = readPathData('M0 50h100v100h-100z', 750);
  expect(result.ok && contourBounds(result.value[0]!)).toEqual({ xMin: 0, xMax: 100, yMin: 600, yMax: 700 });
  expect(readPathData('M0 0L', 0)).toMatchObject(
    refused(expect.stringContaining('The path has path data that cannot be read')),
  );
});

test('a picture opens as a project of one glyph, named by its file', async () => {
  const open = async (label: string, glyph?: string) => {
    const result = await openAny(
      new TextEncoder().encode(page('<rect width="500" height="700"/>')),
      label,
      glyph === undefined ? {} : { glyph },
    );
    if (!result.ok) throw new Error(result.reason);
    return Object.values(result.value.project.glyphs).find((g) => g.name !== '.notdef' && g.name !== 'space')!;
  };
  expect(await open('ampersand.svg')).toMatchObject({ name: 'ampersand', unicodes: [0x26] });
  expect(await open('my mark.svg')).toMatchObject({ name: 'A', unicodes: [0x41] });
  expect(await open('x.svg', 'g.alt')).toMatchObject({ name: 'g.alt', unicodes: [] });
});
