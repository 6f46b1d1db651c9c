import type { Facing } from './facing';
import { type Frame, farShare } from './frame';

/** Which unknown moves which knot: the two ends of an upright side move as one in x, those of a level side in y. */
export class Unknowns {
  readonly x: number[];
  readonly y: number[];
  readonly advance: number;
  readonly count: number;

  constructor(frame: Frame) {
    const n = frame.knots.length;
    const parent = Array.from({ length: 2 * n }, (_, i) => i);
    const root = (i: number): number => {
      let k = i;
      while (parent[k] !== k) k = parent[k]!;
      parent[i] = k;
      return k;
    };
    for (const side of frame.sides) {
      if (side.curve.length !== 4) continue;
      const [x0, y0, x1, y1] = side.curve as unknown as [number, number, number, number];
      if (Math.abs(x0 - x1) < 0.01) parent[root(side.from)] = root(side.to);
      if (Math.abs(y0 - y1) < 0.01) parent[root(n + side.from)] = root(n + side.to);
    }
    const numbers = new Map<number, number>();
    const numberOf = (i: number): number => {
      const r = root(i);
      if (!numbers.has(r)) numbers.set(r, numbers.size);
      return numbers.get(r)!;
    };
    this.x = frame.knots.map((_, i) => numberOf(i));
    this.y = frame.knots.map((_, i) => numberOf(n + i));
    this.advance = numbers.size;
    this.count = numbers.size + 1;
  }

  /** What the distance of two facing places changes by, as factors of unknowns. */
  row({ a, b, way, edge }: Facing): { which: number[]; factors: number[] } {
    const which: number[] = [];
    const factors: number[] = [];
    const add = (side: Facing['a']['side'], t: number, sign: number) => {
      const [fx, fy] = farShare(side, t);
      which.push(this.x[side.from]!, this.x[side.to]!, this.y[side.from]!, this.y[side.to]!);
      factors.push(sign * way[0] * (1 - fx), sign * way[0] * fx, sign * way[1] * (1 - fy), sign * way[1] * fy);
    };
    add(a.side, a.t, -1);
    if (b) add(b.side, b.t, 1);
    else if (edge === 'right') {
      which.push(this.advance);
      factors.push(1);
    }
    return { which, factors };
  }

  /** How far two facing places move apart. */
  apart(moves: Float64Array, facing: Facing): number {
    const { which, factors } = this.row(facing);
    return which.reduce((sum, w, i) => sum + moves[w]! * factors[i]!, 0);
  }
}
