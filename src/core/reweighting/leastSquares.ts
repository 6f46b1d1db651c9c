/** Sums of unknowns that should come to a value, each with a weight; solved for the least sum of weighted squares. */
export class LeastSquares {
  constructor(
    readonly unknowns: number,
    private readonly matrix = new Float64Array(unknowns * unknowns),
    private readonly right = new Float64Array(unknowns),
  ) {}

  /** The same wants, to which others can be added. */
  copy(): LeastSquares {
    return new LeastSquares(this.unknowns, this.matrix.slice(), this.right.slice());
  }

  /** Wants Σ factors·unknowns to be `value`. */
  want(which: readonly number[], factors: readonly number[], value: number, weight: number): void {
    const n = this.unknowns;
    for (let i = 0; i < which.length; i++) {
      const row = which[i]! * n;
      const f = factors[i]! * weight;
      for (let j = 0; j < which.length; j++) this.matrix[row + which[j]!]! += f * factors[j]!;
      this.right[which[i]!]! += f * value;
    }
  }

  /** The unknowns, by Cholesky's factorisation of the normal equations; `still` is the weight that keeps each at 0. Done once: it works in place. */
  solve(still: number): Float64Array {
    const n = this.unknowns;
    const m = this.matrix;
    for (let i = 0; i < n; i++) m[i * n + i]! += still;
    for (let j = 0; j < n; j++) {
      const jn = j * n;
      let sum = m[jn + j]!;
      for (let k = 0; k < j; k++) sum -= m[jn + k]! * m[jn + k]!;
      const pivot = Math.sqrt(Math.max(sum, 1e-12));
      m[jn + j] = pivot;
      for (let i = j + 1; i < n; i++) {
        const row = i * n;
        let s = m[row + j]!;
        for (let k = 0; k < j; k++) s -= m[row + k]! * m[jn + k]!;
        m[row + j] = s / pivot;
      }
    }
    const x = Float64Array.from(this.right);
    for (let i = 0; i < n; i++) {
      let s = x[i]!;
      for (let k = 0; k < i; k++) s -= m[i * n + k]! * x[k]!;
      x[i] = s / m[i * n + i]!;
    }
    for (let i = n - 1; i >= 0; i--) {
      let s = x[i]!;
      for (let k = i + 1; k < n; k++) s -= m[k * n + i]! * x[k]!;
      x[i] = s / m[i * n + i]!;
    }
    return x;
  }
}
