import type { GreyPicture } from './picture';

const { floor, hypot, max, round } = Math;

/** A closed line of places in pixels, y down, ink on the left as it is seen: outer edges run counter-clockwise. */
export type Ring = { readonly xs: Float64Array; readonly ys: Float64Array };

const [LEFT, TOP, RIGHT, BOTTOM] = [0, 1, 2, 3] as const;

/**
 * The lines where a picture passes through a grey level, ink being darker: marching squares over the pixels' centres, crossings
 * placed between two pixels by their levels, so that edges of antialiased shapes come out finer than a pixel. Beyond the
 * picture it is white, so that every line closes. Source: Lorensen and Cline, "Marching Cubes", 1987, in two dimensions.
 */
export function inkEdges(picture: GreyPicture, threshold: number): Ring[] {
  const { width, height, pixels } = picture;
  const wide = width + 2;
  const level = (i: number, j: number) => (i < 0 || j < 0 || i >= width || j >= height ? 255 : pixels[j * width + i]!);
  // Of each crossing, by the pixel edge it lies on, the crossing that follows it. Even numbers: from a pixel to its right neighbour.
  const next = new Int32Array(2 * wide * (height + 2)).fill(-1);
  const across = (i: number, j: number) => 2 * ((j + 1) * wide + i + 1);
  for (let j = -1; j < height; j++) {
    let a = level(-1, j);
    let c = level(-1, j + 1);
    for (let i = -1; i < width; i++) {
      const b = level(i + 1, j);
      const d = level(i + 1, j + 1);
      const kind =
        (a < threshold ? 1 : 0) | (b < threshold ? 2 : 0) | (c < threshold ? 4 : 0) | (d < threshold ? 8 : 0);
      if (kind !== 0 && kind !== 15) {
        const top = across(i, j);
        const edges = [top + 1, top, top + 3, top + 2 * wide] as const;
        const joined = (a + b + c + d) / 4 < threshold;
        for (const [from, to] of PATHS[kind === 6 || kind === 9 ? kind + (joined ? 16 : 0) : kind]!)
          next[edges[from]] = edges[to];
      }
      a = b;
      c = d;
    }
  }
  return ringsOf(next, wide, level, threshold);
}

/** Ways through a cell, edge to edge, by which corners are ink: 1 top left, 2 top right, 4 bottom left, 8 bottom right; 16 more where two opposite ones join. */
const PATHS: Readonly<Record<number, readonly (readonly [0 | 1 | 2 | 3, 0 | 1 | 2 | 3])[]>> = (() => {
  const out: Record<number, (readonly [0 | 1 | 2 | 3, 0 | 1 | 2 | 3])[]> = {};
  for (let kind = 1; kind < 15; kind++) {
    const [a, b, c, d] = [1, 2, 4, 8].map((bit) => (kind & bit) !== 0) as [boolean, boolean, boolean, boolean];
    const ways = [
      [LEFT, a, c],
      [TOP, b, a],
      [RIGHT, d, b],
      [BOTTOM, c, d],
    ] as const;
    const enter = ways.find(([, on, off]) => on && !off)![0];
    const leave = ways.find(([, on, off]) => off && !on)![0];
    out[kind] = [[enter, leave]];
  }
  out[9] = [
    [LEFT, TOP],
    [RIGHT, BOTTOM],
  ];
  out[25] = [
    [LEFT, BOTTOM],
    [RIGHT, TOP],
  ];
  out[6] = [
    [TOP, RIGHT],
    [BOTTOM, LEFT],
  ];
  out[22] = [
    [TOP, LEFT],
    [BOTTOM, RIGHT],
  ];
  return out;
})();

function ringsOf(next: Int32Array, wide: number, level: (i: number, j: number) => number, threshold: number): Ring[] {
  const rings: Ring[] = [];
  for (let start = 0; start < next.length; start++) {
    if (next[start]! < 0) continue;
    const xs: number[] = [];
    const ys: number[] = [];
    let edge = start;
    while (next[edge]! >= 0) {
      const cell = edge >> 1;
      const [i, j] = [(cell % wide) - 1, floor(cell / wide) - 1];
      const level0 = level(i, j);
      const down = edge & 1;
      const share = (threshold - level0) / (level(down ? i : i + 1, down ? j + 1 : j) - level0);
      xs.push(i + 0.5 + (down ? 0 : share));
      ys.push(j + 0.5 + (down ? share : 0));
      const to = next[edge]!;
      next[edge] = -1;
      edge = to;
    }
    rings.push({ xs: Float64Array.from(xs), ys: Float64Array.from(ys) });
  }
  return rings;
}

/** Enclosed area in square pixels; positive when the ring goes counter-clockwise as it is seen, ink inside. */
export function ringArea({ xs, ys }: Ring): number {
  let area = 0;
  for (let i = 0, j = xs.length - 1; i < xs.length; j = i++) area += xs[i]! * ys[j]! - xs[j]! * ys[i]!;
  return area / 2;
}

/** The ring with its places a step apart, about a pixel, so that counting places measures length. */
export function evenSteps({ xs, ys }: Ring, step: number): Ring {
  const n = xs.length;
  const along = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) along[i + 1] = along[i]! + hypot(xs[(i + 1) % n]! - xs[i]!, ys[(i + 1) % n]! - ys[i]!);
  const count = max(8, round(along[n]! / step));
  const outX = new Float64Array(count);
  const outY = new Float64Array(count);
  let i = 0;
  for (let k = 0; k < count; k++) {
    const goal = (along[n]! * k) / count;
    while (along[i + 1]! < goal) i++;
    const length = along[i + 1]! - along[i]!;
    const t = length > 0 ? (goal - along[i]!) / length : 0;
    outX[k] = xs[i]! + (xs[(i + 1) % n]! - xs[i]!) * t;
    outY[k] = ys[i]! + (ys[(i + 1) % n]! - ys[i]!) * t;
  }
  return { xs: outX, ys: outY };
}
