/**
 * The cheapest way to give every row a column of its own, for a square table of costs: for each row its column. Shortest augmenting
 * paths with potentials (Jonker and Volgenant, 1987, in the form of the Hungarian method), cubic in the number of rows.
 */
export function cheapestAssignment(costs: readonly (readonly number[])[]): number[] {
  const n = costs.length;
  const [rowPrice, columnPrice] = [new Float64Array(n + 1), new Float64Array(n + 1)];
  /** The row that has each column; rows and columns count from 1, 0 is nobody. */
  const owner = new Int32Array(n + 1);
  for (let row = 1; row <= n; row++) {
    const least = new Float64Array(n + 1).fill(Number.POSITIVE_INFINITY);
    const cameFrom = new Int32Array(n + 1);
    const seen = new Uint8Array(n + 1);
    owner[0] = row;
    let column = 0;
    do {
      seen[column] = 1;
      const own = owner[column]!;
      let step = Number.POSITIVE_INFINITY;
      let next = 0;
      for (let c = 1; c <= n; c++) {
        if (seen[c]) continue;
        const cost = costs[own - 1]![c - 1]! - rowPrice[own]! - columnPrice[c]!;
        if (cost < least[c]!) {
          least[c] = cost;
          cameFrom[c] = column;
        }
        if (least[c]! < step) {
          step = least[c]!;
          next = c;
        }
      }
      for (let c = 0; c <= n; c++)
        if (seen[c]) {
          rowPrice[owner[c]!]! += step;
          columnPrice[c]! -= step;
        } else least[c]! -= step;
      column = next;
    } while (owner[column] !== 0);
    while (column !== 0) {
      owner[column] = owner[cameFrom[column]!]!;
      column = cameFrom[column]!;
    }
  }
  const out = new Array<number>(n).fill(0);
  for (let c = 1; c <= n; c++) out[owner[c]! - 1] = c - 1;
  return out;
}
