import { signedArea } from '../src/core/geometry/contour';
import { sameStructure } from '../src/core/project/structure';
import { agreeing } from './agree';
import { capitals } from './capitals';
import { figures } from './figures';
import { type Letter, sided, span } from './letter';
import { lowercase } from './lowercase';
import { bar, oval, pen, polygon } from './pen';
import { ruled } from './ruler';
import { across, kay, level, open, vee, wave } from './strokes';
import {
  capitalMeasure,
  lowerMeasure,
  type Measure,
  REGULAR,
  STYLES,
  type Style,
  smallCapMeasure,
  smallMeasure,
} from './style';

const styled = (name: string): Style => STYLES.find((s) => s.name === name)!;
const plain = lowerMeasure(REGULAR);

/** How wide the ink is where a level line crosses a letter: the lengths of its stretches from left to right. */
function stretches(letter: Letter, y: number): number[] {
  const xs: number[] = [];
  for (const { points } of letter.contours) {
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length]!;
      if (p.type === 'off' || q.type === 'off') return;
      if (p.y <= y !== q.y <= y) xs.push(p.x + ((y - p.y) / (q.y - p.y)) * (q.x - p.x));
    });
  }
  xs.sort((a, b) => a - b);
  return Array.from({ length: xs.length / 2 }, (_, i) => Math.round(xs[2 * i + 1]! - xs[2 * i]!));
}

test('at the Regular a ruled letter is the drawing itself', () => {
  const drawing = [
    pen(72, 0)
      .h(156)
      .v(336)
      .vh(290, 455, 0.6, 0.5)
      .hv(396, 324, 0.6, 0.56)
      .v(0)
      .h(480)
      .v(330)
      .vh(311, 531)
      .curve(243, 531, 180, 494, 155, 434)
      .line(150, 520)
      .h(72)
      .close(),
  ];
  const { advance, contours } = ruled(
    {
      advance: 546,
      x: [
        [72, 156],
        [396, 480],
      ],
      y: [[455, 531]],
    },
    drawing,
  )(plain);
  expect(advance).toBe(546);
  expect(contours).toEqual(drawing);
});

test.each(STYLES.map((s) => s.name))('stems of %s are as wide as its style says', (name) => {
  const s = styled(name);
  const lower = lowerMeasure(s);
  for (const letter of ['n', 'h', 'b', 'p', 'l'] as const)
    expect([letter, stretches(lowercase[letter]!(lower), letter === 'l' ? 300 : 40)[0]]).toEqual([letter, s.stem]);
  const [left, right] = stretches(lowercase.n!(lower), 100);
  expect([left, right]).toEqual([s.stem, s.stem]);
  for (const letter of ['H', 'E', 'D', 'F', 'L'] as const)
    expect([letter, stretches(capitals[letter]!(capitalMeasure(s)), 150)[0]]).toEqual([letter, s.capStem]);
});

test.each(STYLES.map((s) => s.name))(
  'letters of %s stand on its lines and reach past them by its overshoot',
  (name) => {
    const s = styled(name);
    const heights = (letter: string) => span(lowercase[letter]!(lowerMeasure(s)).contours, 'y');
    expect(heights('o')).toEqual([-s.over, s.xHeight + s.over]);
    expect(heights('x')).toEqual([0, s.xHeight]);
    expect(heights('l')[1]).toBe(742);
    expect(span(capitals.O!(capitalMeasure(s)).contours, 'y')).toEqual([-s.over, 700 + s.over]);
    expect(span(capitals.H!(capitalMeasure(s)).contours, 'y')).toEqual([0, 700]);
    expect(span(figures.zero!(capitalMeasure(s)).contours, 'y')).toEqual([-s.over, 690 + s.over]);
    // A nine is a six turned about, on the same lines.
    expect(span(figures.nine!(capitalMeasure(s)).contours, 'y')).toEqual([0, 690 + s.over]);
  },
);

test('strokes grow inward from lines that hold; lighter styles take their whole weight off whatever the share', () => {
  const draw = ruled(
    {
      advance: 400,
      x: [[50, 150, 0.5]],
      y: [
        [0, 80],
        [620, 700, 0.5],
      ],
    },
    [bar(50, 0, 350, 700), polygon([150, 80], [150, 620], [300, 620], [300, 80])],
  );
  const at = (stemBy: number, levelBy: number): Measure => ({ ...plain, stemBy, levelBy });
  const inner = (m: Measure) => draw(m).contours[1]!.points.map((p) => [p.x, p.y]);
  expect(inner(plain)[0]).toEqual([150, 80]);
  const heavy = inner(at(2, 1.5));
  expect(heavy[0]).toEqual([200, 120]);
  expect(heavy[1]).toEqual([200, 700 - 80 * 1.25]);
  const light = inner(at(0.5, 0.5));
  expect(light[0]).toEqual([100, 40]);
  expect(light[1]).toEqual([100, 660]);
});

test('handles keep their share of the way, and slanted smooth points stay straight in one proportion', () => {
  const wavy = pen(0, 0)
    .line(100, 0)
    .curve(160, 40, 200, 100, 240, 160)
    .curve(300, 250, 340, 300, 440, 340)
    .line(0, 340)
    .close();
  const slanted = wavy.points.findIndex((p) => p.x === 240);
  expect(wavy.points[slanted]!.smooth).toBe(true);
  const draw = ruled(
    {
      advance: 460,
      x: [
        [0, 100],
        [200, 280],
      ],
      y: [[100, 200]],
    },
    [wavy],
  );
  for (const m of [
    plain,
    { ...plain, stemBy: 1.9, levelBy: 1.6, gapBy: 0.7 },
    { ...plain, stemBy: 0.6, levelBy: 0.6, gapBy: 0.8, square: 0.2 },
  ]) {
    const { points } = draw(m).contours[0]!;
    const [a, p, b] = [points[slanted - 1]!, points[slanted]!, points[slanted + 1]!];
    const turn = Math.atan2(
      (p.x - a.x) * (b.y - p.y) - (p.y - a.y) * (b.x - p.x),
      (p.x - a.x) * (b.x - p.x) + (p.y - a.y) * (b.y - p.y),
    );
    expect(Math.abs(turn)).toBeLessThan(0.03);
    const ratio = Math.hypot(b.x - p.x, b.y - p.y) / Math.hypot(p.x - a.x, p.y - a.y);
    expect(ratio).toBeCloseTo(Math.hypot(60, 90) / Math.hypot(40, 60), 1);
  }
});

test('slanted letters keep their parts in order at every style', () => {
  for (const s of STYLES) {
    const m = lowerMeasure(s);
    const v = vee(m, { arm: 90, foot: 94, gap: 296, top: 520 });
    expect(signedArea(v)).toBeGreaterThan(0);
    const crotch = v.points[5]!;
    expect(crotch.y).toBeGreaterThan(0);
    expect(crotch.y).toBeLessThan(s.xHeight * 0.7);
    const w = wave(m, { arm: 88, foot: 88, gap: 233, top: 520, peak: 90 });
    expect(w.points[0]!.x + w.points[6]!.x).toBeCloseTo(w.points[3]!.x * 2, -1);
    const k = kay(m, {
      stem: 84,
      arm: 102,
      leg: 102,
      reach: 320,
      spread: 350,
      top: 520,
      tall: 742,
      upper: 0.558,
      lower: 0.365,
    });
    const xs = k.points.map((p) => p.x);
    expect(Math.min(...xs)).toBe(0);
    // The leg stands right of the stem, and its foot is as wide as a stroke.
    expect(k.points[4]!.x).toBeGreaterThan(k.points[1]!.x);
    expect(k.points[5]!.x - k.points[4]!.x).toBeGreaterThan(s.stem * 0.8);
  }
});

test('measures of strokes: across and level by their weights, open by the counters', () => {
  const m: Measure = { ...plain, stemBy: 2, levelBy: 1.5, gapBy: 0.5 };
  expect(across(m, 100, 1)).toBe(200);
  expect(across(m, 100, 0.5)).toBe(150);
  expect(level(m, 100)).toBe(150);
  expect(open(m, 100)).toBe(50);
  expect(open(m, 100, 0.5)).toBe(75);
});

test('small capitals are as heavy as the lowercase, small figures lighter than large ones but not as much as they are smaller', () => {
  for (const s of STYLES) {
    const cap = stretches(capitals.H!(smallCapMeasure(s)), 100)[0]!;
    expect(Math.abs(cap - s.stem)).toBeLessThanOrEqual(2);
    expect(span(capitals.H!(smallCapMeasure(s)).contours, 'y')[1]).toBe(s.xHeight + 22);
    const large = stretches(figures.one!(capitalMeasure(s)), 200)[0]!;
    const small = stretches(figures.one!(smallMeasure(s, 0)), 120)[0]!;
    expect(small / large).toBeGreaterThan(0.6);
    expect(small / large).toBeLessThan(0.75);
    expect(span(figures.one!(smallMeasure(s, 276)).contours, 'y')[0]).toBe(276);
  }
});

test('side bearings are set from the ink, scaled by the style', () => {
  const box = [bar(500, 0, 600, 700)];
  expect(sided({ ...plain, sideBy: 0.5 }, box, 80, 60)).toMatchObject({
    advance: 170,
    contours: [{ points: [{ x: 40 }, { x: 140 }, { x: 140 }, { x: 40 }] }],
  });
});

test('masters are brought to agree as the first of them is: start, direction, smoothness', () => {
  const one: Letter = { advance: 500, contours: [oval(0, 0, 400, 400), { ...oval(100, 100, 300, 300) }] };
  // A second master whose counter lies lower and whose lowest point would be another.
  const other: Letter = { advance: 520, contours: [oval(0, 10, 420, 380), oval(90, 60, 330, 310, 0.5, 20)] };
  const [a, b] = agreeing([one, other]);
  const drawing = (l: Letter) => ({
    advance: l.advance,
    contours: l.contours,
    components: [],
    anchors: [],
    guides: [],
    backdrops: [],
  });
  expect(sameStructure([drawing(a!), drawing(b!)])).toBe(true);
  for (const l of [a!, b!]) expect(l.contours.map((c) => Math.sign(signedArea(c)))).toEqual([1, -1]);
  expect(a!.contours[0]!.points[0]).toMatchObject({ x: 200, y: 0 });
  expect(b!.contours[0]!.points.map((p) => p.smooth ?? false)).toEqual(
    a!.contours[0]!.points.map((p) => p.smooth ?? false),
  );
  expect(() => agreeing([one, { advance: 1, contours: [bar(0, 0, 1, 1), bar(0, 0, 1, 1)] }])).toThrow(
    /contour 0 has 4 points, not 12/,
  );
});
