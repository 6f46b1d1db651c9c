import type { Contour } from '../../src/core/geometry/contour';
import { curvesOf } from '../../src/core/geometry/contour';
import { pointAt } from '../../src/core/geometry/curve';

const { ceil, floor, imul, max, min } = Math;

/** Grey levels, 0 black to 255 white, row by row from the top. */
export type Grey = { width: number; height: number; pixels: Uint8Array };

export type Place = (x: number, y: number) => readonly [number, number];

const ROWS = 5;

/**
 * How much of every pixel the contours cover, 0 to 1, filled by non-zero winding: exact along each of five lines to a pixel
 * row. `place` takes font units to pixels, y down.
 */
export function coverage(contours: readonly Contour[], place: Place, width: number, height: number): Float32Array {
  const out = new Float32Array(width * height);
  const crossings: [x: number, turn: number][][] = Array.from({ length: height * ROWS }, () => []);
  for (const contour of contours) {
    for (const curve of curvesOf(contour)) {
      const steps = curve.length === 4 ? 1 : 24;
      let [x0, y0] = place(curve[0]!, curve[1]!);
      for (let k = 1; k <= steps; k++) {
        const [x1, y1] = place(...pointAt(curve, k / steps));
        edge(crossings, x0, y0 * ROWS, x1, y1 * ROWS);
        [x0, y0] = [x1, y1];
      }
    }
  }
  crossings.forEach((line, row) => {
    line.sort((a, b) => a[0] - b[0]);
    let winding = 0;
    for (let i = 0; i + 1 < line.length; i++) {
      winding += line[i]![1];
      if (winding !== 0) span(out, floor(row / ROWS) * width, width, line[i]![0], line[i + 1]![0]);
    }
  });
  return out;
}

/** Where an edge crosses the middle of each line between its ends. */
function edge(crossings: [number, number][][], x0: number, y0: number, x1: number, y1: number): void {
  if (y0 === y1) return;
  const turn = y0 < y1 ? 1 : -1;
  const [top, bottom] = turn > 0 ? [y0, y1] : [y1, y0];
  for (let row = max(0, ceil(top - 0.5)); row < min(crossings.length, bottom - 0.5); row++) {
    crossings[row]!.push([x0 + ((row + 0.5 - y0) / (y1 - y0)) * (x1 - x0), turn]);
  }
}

/** Adds one line's share of a stretch from `from` to `to` to the pixels it touches. */
function span(out: Float32Array, start: number, width: number, from: number, to: number): void {
  const last = min(width - 1, floor(to));
  for (let x = max(0, floor(from)); x <= last; x++) {
    out[start + x]! += max(0, min(to, x + 1) - max(from, x)) / ROWS;
  }
}

const ease = (t: number): number => t * t * (3 - 2 * t);

/** A fixed number between -1 and 1 for every whole place. */
function grain(x: number, y: number, seed: number): number {
  let h = imul(x, 374761393) ^ imul(y, 668265263) ^ imul(seed, 2147483647);
  h = imul(h ^ (h >>> 13), 1274126177);
  return ((h ^ (h >>> 16)) >>> 0) / 2147483648 - 1;
}

/** Repeatable noise between -1 and 1 at whole places, smooth between them. */
export function noise(x: number, y: number, seed: number): number {
  const ix = floor(x);
  const iy = floor(y);
  const fx = ease(x - ix);
  const fy = ease(y - iy);
  const top = grain(ix, iy, seed) * (1 - fx) + grain(ix + 1, iy, seed) * fx;
  const bottom = grain(ix, iy + 1, seed) * (1 - fx) + grain(ix + 1, iy + 1, seed) * fx;
  return top + (bottom - top) * fy;
}
