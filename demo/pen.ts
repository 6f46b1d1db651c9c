import type { Contour, Point } from '../src/core/geometry/contour';
import { withSmoothPoints } from '../src/core/geometry/smooth';

/** How far a bowl's handles reach towards their corner: a little fuller than a circle (0.552). */
export const FULLNESS = 0.575;

const r = (v: number) => Math.round(v);

/**
 * A pen for letter outlines. Quarter strokes are named by how they leave and arrive: `hv` leaves level and arrives
 * upright, so points fall on extremes by themselves. All coordinates are font units.
 */
export class Pen {
  private readonly points: Point[] = [];
  private x: number;
  private y: number;

  constructor(x: number, y: number) {
    this.x = x;
    this.y = y;
    this.points.push({ x: r(x), y: r(y), type: 'line' });
  }

  /** A straight stroke. */
  line(x: number, y: number): this {
    this.points.push({ x: r(x), y: r(y), type: 'line' });
    this.x = x;
    this.y = y;
    return this;
  }
  /** Straight up or down. */
  v(y: number): this {
    return this.line(this.x, y);
  }
  /** Straight along. */
  h(x: number): this {
    return this.line(x, this.y);
  }
  /** A curve with its handles said outright. */
  curve(x1: number, y1: number, x2: number, y2: number, x: number, y: number): this {
    this.points.push(
      { x: r(x1), y: r(y1), type: 'off' },
      { x: r(x2), y: r(y2), type: 'off' },
      { x: r(x), y: r(y), type: 'curve' },
    );
    this.x = x;
    this.y = y;
    return this;
  }
  /** A quarter that leaves level and arrives upright; `out` and `into` are the fullness at either end. */
  hv(x: number, y: number, out = FULLNESS, into = out): this {
    return this.curve(this.x + (x - this.x) * out, this.y, x, y + (this.y - y) * into, x, y);
  }
  /** A quarter that leaves upright and arrives level. */
  vh(x: number, y: number, out = FULLNESS, into = out): this {
    return this.curve(this.x, this.y + (y - this.y) * out, x + (this.x - x) * into, y, x, y);
  }
  /** The closed contour; the last point may repeat the first. Points whose handles run straight through are smooth. */
  close(): Contour {
    const first = this.points[0]!;
    const last = this.points[this.points.length - 1]!;
    const points = [...this.points];
    if (last.x === first.x && last.y === first.y && points.length > 1) {
      points.pop();
      points[0] = last;
    }
    return withSmoothPoints({ closed: true, points });
  }
}

export const pen = (x: number, y: number): Pen => new Pen(x, y);

/** A closed shape with straight sides. */
export function polygon(...corners: readonly (readonly [number, number])[]): Contour {
  return { closed: true, points: corners.map(([x, y]) => ({ x: r(x), y: r(y), type: 'line' })) };
}

export const bar = (left: number, bottom: number, right: number, top: number): Contour =>
  polygon([left, bottom], [right, bottom], [right, top], [left, top]);

/** An oval with points at its extremes. `tilt` shifts the heaviest places off the middle, against the clock. */
export function oval(left: number, bottom: number, right: number, top: number, fullness = FULLNESS, tilt = 0): Contour {
  const cx = (left + right) / 2;
  const cy = (bottom + top) / 2;
  return pen(right, cy + tilt)
    .vh(cx - tilt, top, fullness)
    .hv(left, cy - tilt, fullness)
    .vh(cx + tilt, bottom, fullness)
    .hv(right, cy + tilt, fullness)
    .close();
}

/** Contours mirrored about an upright line. */
export const mirrored = (contours: readonly Contour[], about: number): Contour[] =>
  contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, x: r(2 * about - p.x) })) }));

/** Contours turned upside down about a level line. */
export const flipped = (contours: readonly Contour[], about: number): Contour[] =>
  contours.map((c) => ({ ...c, points: c.points.map((p) => ({ ...p, y: r(2 * about - p.y) })) }));
