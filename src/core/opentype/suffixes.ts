/** A stretch that stands in a text more than once: where it stands first in the order of suffixes, its length, how often. */
export type Repeat = { at: number; length: number; count: number };

/** Repeated stretches of a text; `deepest` is for each place the longest that begins there, `shorter` the next one within it (-1: none). */
export type Repeats = { list: Repeat[]; deepest: Int32Array; shorter: Int32Array };

/**
 * The order of all suffixes of a text of small numbers, by doubling the compared length (Manber and Myers, "Suffix arrays: a
 * new method for on-line string searches", 1993), each round sorted by counting.
 */
export function suffixOrder(text: Int32Array): Int32Array {
  const n = text.length;
  let rank: Int32Array = Int32Array.from(text);
  let order: Int32Array = countingOrder(
    rank,
    Int32Array.from({ length: n }, (_, i) => i),
  );
  rank = ranked(order, (a, b) => text[a] === text[b]);
  for (let reach = 1; reach < n; reach *= 2) {
    if (n === 0 || rank[order[n - 1]!] === n - 1) break;
    // By the second half: suffixes too short for one come first, then those whose second half comes next.
    const bySecond = new Int32Array(n);
    let filled = 0;
    for (let i = n - reach; i < n; i++) bySecond[filled++] = i;
    for (const i of order) if (i >= reach) bySecond[filled++] = i - reach;
    order = countingOrder(rank, bySecond);
    const half = rank;
    rank = ranked(
      order,
      (a, b) =>
        half[a] === half[b] && (a + reach < n ? half[a + reach] : -1) === (b + reach < n ? half[b + reach] : -1),
    );
  }
  return order;
}

/** Items in the order of their keys, those of one key as they stood. */
function countingOrder(keys: Int32Array, items: Int32Array): Int32Array {
  let most = 0;
  for (const k of keys) if (k > most) most = k;
  const starts = new Int32Array(most + 2);
  for (const k of keys) starts[k + 1]!++;
  for (let i = 1; i < starts.length; i++) starts[i]! += starts[i - 1]!;
  const out = new Int32Array(items.length);
  for (const i of items) out[starts[keys[i]!]!++] = i;
  return out;
}

function ranked(order: Int32Array, same: (a: number, b: number) => boolean): Int32Array {
  const rank = new Int32Array(order.length);
  for (let i = 1, r = 0; i < order.length; i++) {
    if (!same(order[i - 1]!, order[i]!)) r++;
    rank[order[i]!] = r;
  }
  return rank;
}

/** For each place in the order how much a suffix shares with the one before it (Kasai and others, 2001). */
export function sharedLengths(text: Int32Array, order: Int32Array): Int32Array {
  const n = text.length;
  const rank = new Int32Array(n);
  order.forEach((at, i) => {
    rank[at] = i;
  });
  const shared = new Int32Array(n);
  let length = 0;
  for (let at = 0; at < n; at++) {
    const r = rank[at]!;
    if (r === 0) {
      length = 0;
      continue;
    }
    const other = order[r - 1]!;
    while (at + length < n && other + length < n && text[at + length] === text[other + length]) length++;
    shared[r] = length;
    if (length > 0) length--;
  }
  return shared;
}

const NOTHING = -1;
const MIXED = -2;

/** The first and last of a chain of numbers; `after` holds which comes after which, NOTHING after the last. */
type Chain = [first: number, last: number];

function one(item: number, after: number[] | Int32Array): Chain {
  after[item] = NOTHING;
  return [item, item];
}

/** Puts a second chain behind the first; the second must not be used any more. */
function append(chain: Chain, second: Chain, after: number[] | Int32Array): void {
  if (second[0] === NOTHING) return;
  if (chain[0] === NOTHING) chain[0] = second[0];
  else after[chain[1]] = second[0];
  chain[1] = second[1];
}

/**
 * All stretches that repeat and cannot be made longer, to either side, without repeating less often (maximal repeats, found
 * as intervals of shared lengths: Abouelhoda, Kurtz and Ohlebusch, 2004). `wanted` leaves out those of no use.
 */
export function repeats(text: Int32Array, wanted: (repeat: Repeat) => boolean): Repeats {
  const n = text.length;
  const order = suffixOrder(text);
  const shared = sharedLengths(text, order);
  const list: Repeat[] = [];
  const shorter: number[] = [];
  const deepest = new Int32Array(n).fill(-1);
  // Open intervals, each deeper than the one below; children wait until it is known what they stand in. They and the leaves
  // are chains, handed down whole: a deep nest of intervals of no use hands them down at every level.
  // `left` is what stands before all of it so far, MIXED where that differs.
  type Open = { length: number; from: number; children: Chain; leaves: Chain; left: number };
  const begin = (length: number, from: number): Open => ({
    length,
    from,
    children: [NOTHING, NOTHING],
    leaves: [NOTHING, NOTHING],
    left: NOTHING,
  });
  const afterLeaf = new Int32Array(n);
  const afterChild: number[] = [];
  const joined = (a: number, b: number) => (a === NOTHING ? b : a === b ? a : MIXED);
  const open: Open[] = [begin(0, 0)];
  const close = (interval: Open, to: number, into: Open | undefined) => {
    const repeat = { at: order[interval.from]!, length: interval.length, count: to - interval.from };
    if (into) into.left = joined(into.left, interval.left);
    if (interval.length === 0 || interval.left !== MIXED || !wanted(repeat)) {
      if (into) append(into.children, interval.children, afterChild);
      if (into) append(into.leaves, interval.leaves, afterLeaf);
      return;
    }
    const id = list.push(repeat) - 1;
    shorter.push(-1);
    for (let c = interval.children[0]; c !== NOTHING; c = afterChild[c]!) shorter[c] = id;
    for (let leaf = interval.leaves[0]; leaf !== NOTHING; leaf = afterLeaf[leaf]!) deepest[leaf] = id;
    if (into) append(into.children, one(id, afterChild), afterChild);
  };
  for (let i = 1; i <= n; i++) {
    const length = i < n ? shared[i]! : 0;
    let from = i - 1;
    let last: Open | undefined;
    const own = order[i - 1]!;
    // The beginning of the text is like nothing else.
    const before = own > 0 ? text[own - 1]! : MIXED;
    // The suffix before hangs on the deeper of its two neighbours' intervals.
    if (length > open[open.length - 1]!.length) {
      const deeper = begin(length, from);
      deeper.leaves = one(own, afterLeaf);
      deeper.left = before;
      open.push(deeper);
      continue;
    }
    const top = open[open.length - 1]!;
    append(top.leaves, one(own, afterLeaf), afterLeaf);
    top.left = joined(top.left, before);
    while (open[open.length - 1]!.length > length) {
      last = open.pop()!;
      from = last.from;
      const below = open[open.length - 1]!;
      if (below.length < length) {
        const between = begin(length, from);
        open.push(between);
        close(last, i, between);
      } else close(last, i, below);
    }
  }
  return { list, deepest, shorter: Int32Array.from(shorter) };
}
