import { ellipse, rectangle } from '../src/core/drawing/shapes';
import { type Contour, type Point, reverseContour, transformContour } from '../src/core/geometry/contour';
import { random } from './mutate';

/** Two operands to put together; coordinates stay within about one em of 1,000 units. */
export type ShapeCase = { kind: string; first: readonly Contour[]; second: readonly Contour[] };

type Random = () => number;

const whole = (r: Random, low: number, high: number): number => Math.round(low + r() * (high - low));
const pick = <T>(r: Random, list: readonly T[]): T => list[Math.floor(r() * list.length)]!;

/** Any closed contour: lines, cubics and quadratics between any points of a field `size` wide, crossing itself at will. */
function tangle(r: Random, size: number, kinds: readonly Point['type'][], count = whole(r, 3, 7)): Contour {
  const points: Point[] = [];
  const at = () => ({ x: whole(r, 0, size), y: whole(r, 0, size) });
  for (let i = 0; i < count; i++) {
    const kind = pick(r, kinds);
    points.push({ ...at(), type: kind });
    const next = pick(r, kinds);
    if (next !== 'line') points.push({ ...at(), type: 'off' }, { ...at(), type: 'off' });
    points.push({ ...at(), type: next });
  }
  // The first point ends the closing segment, which is a line unless handles lead to it.
  return {
    closed: true,
    points: [
      { ...points[0]!, type: 'line' },
      ...points
        .slice(1)
        .map((p, i, all): Point => (p.type === 'off' || all[i - 1]?.type === 'off' ? p : { ...p, type: 'line' })),
    ],
  };
}

/** A stroke with round or square ends, at any angle, as the parts of letters are. */
function stroke(r: Random, size: number): Contour {
  const width = whole(r, 20, 140);
  const length = whole(r, width + 10, size);
  const body = r() < 0.5 ? rectangle(0, 0, length, width) : ellipse(0, 0, length, width);
  const angle = pick(r, [0, 0, Math.PI / 2, Math.PI / 4, r() * Math.PI]);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const turned = transformContour(body, [c, s, -s, c, whole(r, 0, size), whole(r, 0, size)]);
  const exact = r() < 0.3 ? turned : transformedPoints(turned, Math.round);
  return r() < 0.2 ? reverseContour(exact) : exact;
}

const transformedPoints = (c: Contour, f: (v: number) => number): Contour => ({
  ...c,
  points: c.points.map((p) => ({ ...p, x: f(p.x), y: f(p.y) })),
});
const moved = (list: readonly Contour[], dx: number, dy: number): Contour[] =>
  list.map((c) => transformContour(c, [1, 0, 0, 1, dx, dy]));

const ANY: readonly Point['type'][] = ['line', 'curve', 'qcurve'];
const some = (r: Random, make: () => Contour): Contour[] => Array.from({ length: whole(r, 1, 3) }, make);

/** Rectangles and ovals on a coarse grid: edges shared wholly, partly, and corner on corner. */
function onGrid(r: Random): Contour[] {
  const step = 50;
  return some(r, () => {
    const [x, y] = [whole(r, 0, 12) * step, whole(r, 0, 12) * step];
    const [w, h] = [whole(r, 1, 8) * step, whole(r, 1, 8) * step];
    const shape = r() < 0.6 ? rectangle(x, y, x + w, y + h) : ellipse(x, y, x + w, y + h);
    return r() < 0.25 ? reverseContour(shape) : shape;
  });
}

/** An S-shaped contour with a cusp or a loop in one side. */
function cusp(r: Random): Contour {
  const [x, y, d] = [whole(r, 100, 600), whole(r, 100, 600), whole(r, 50, 400)];
  const over = pick(r, [1, 1, 1.2, 2]) * d;
  return {
    closed: true,
    points: [
      { x, y, type: 'line' },
      { x: x + over, y: y + d, type: 'off' },
      { x: x + d - over, y: y + d, type: 'off' },
      { x: x + d, y, type: 'curve' },
      { x: x + d, y: y - whole(r, 1, 200), type: 'line' },
      { x, y: y - whole(r, 1, 200), type: 'line' },
    ],
  };
}

const CLOSE = [0.001, 0.005, 0.01, 0.02, 0.03, 0.05, 0.1, 0.3, 1];

/** How the cases of each kind are made; `letters` are the outlines of real glyphs. */
const KINDS: Readonly<
  Record<string, (r: Random, letters: readonly (readonly Contour[])[]) => Omit<ShapeCase, 'kind'>>
> = {
  'lines crossing themselves': (r) => ({ first: [tangle(r, 900, ['line'])], second: [tangle(r, 900, ['line'])] }),
  'curves crossing themselves': (r) => ({ first: [tangle(r, 900, ANY)], second: some(r, () => tangle(r, 900, ANY)) }),
  strokes: (r) => ({ first: some(r, () => stroke(r, 700)), second: some(r, () => stroke(r, 700)) }),
  'shared edges': (r) => ({ first: onGrid(r), second: onGrid(r) }),
  'tangent curves': (r) => {
    const [size, gap] = [whole(r, 50, 300), pick(r, [0, 0, 0, 0.01, -0.01, 1])];
    const round = ellipse(100, 100, 100 + size, 100 + size);
    const other = whole(r, 50, 300);
    const beside =
      r() < 0.5
        ? ellipse(100 + size + gap, 100 + (size - other) / 2, 100 + size + gap + other, 100 + (size + other) / 2)
        : ellipse(100 - gap, 100, 100 - gap + other, 100 + other);
    return { first: [round], second: [beside] };
  },
  'cusps and loops': (r) => ({ first: [cusp(r)], second: [r() < 0.5 ? cusp(r) : stroke(r, 600)] }),
  'nearly the same': (r) => {
    const shape = some(r, () => (r() < 0.5 ? stroke(r, 600) : tangle(r, 800, ANY, 3)));
    return {
      first: shape,
      second: moved(shape, (r() < 0.5 ? 1 : -1) * pick(r, CLOSE), r() < 0.5 ? 0 : pick(r, CLOSE)),
    };
  },
  slivers: (r) => {
    const [x, y, w] = [whole(r, 0, 300), whole(r, 0, 300), whole(r, 100, 600)];
    const thin = pick(r, [0.03, 0.1, 0.5, 1, 2]);
    const shape = r() < 0.5 ? rectangle(x, y, x + w, y + thin) : ellipse(x, y, x + w, y + thin);
    return { first: [shape, stroke(r, 600)], second: [rectangle(x + w / 3, y - 50, x + w / 3 + thin, y + 200)] };
  },
  'letters over letters': (r, letters) => {
    const place = () => [pick(r, [0, 0, whole(r, -200, 200)]), pick(r, [0, 0, whole(r, -200, 200)])] as const;
    return { first: moved(pick(r, letters), ...place()), second: moved(pick(r, letters), ...place()) };
  },
  'a letter moved a little': (r, letters) => {
    const letter = pick(r, letters);
    return { first: letter, second: moved(letter, whole(r, -3, 3), whole(r, -3, 3)) };
  },
};

/** The `n`th case; the same for the same number, whatever ran before. */
export function shapeCase(n: number, letters: readonly (readonly Contour[])[]): ShapeCase {
  const names = Object.keys(KINDS);
  const kind = names[n % names.length]!;
  return { kind, ...KINDS[kind]!(random(n * 7919 + 1), letters) };
}
