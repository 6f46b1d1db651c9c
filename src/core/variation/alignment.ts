import { type Contour, type Point, segmentsOf } from '../geometry/contour';
import { asCubic, type Curve, lengthOf, partOf, splitAt } from '../geometry/curve';
import { tidy } from '../geometry/tidy';
import { nodesOf } from './matching';

/** A contour as nodes and the curves between them, each from its node to the next. */
type Chain = { nodes: readonly Point[]; curves: readonly Curve[] };

/** Points of no use for aligning: more of them than this are left alone. */
const MOST_NODES = 160;
/** What it costs to leave a node without a fellow, as a squared share of the box. */
const ALONE = 0.03;

/**
 * A closed contour of lines and curves, from its start on; points that a run of quadratics only implies are nodes like others. Undefined
 * for an open one, and where there are too many nodes.
 */
function chainOf(contour: Contour): Chain | undefined {
  if (!contour.closed) return undefined;
  const nodes: Point[] = [];
  const curves: Curve[] = [];
  for (const s of segmentsOf(contour))
    s.curves.forEach((c, i) => {
      const own = i === 0 && s.from >= 0 ? contour.points[s.from]! : undefined;
      nodes.push(own ?? { x: tidy(c[0]!), y: tidy(c[1]!), type: 'qcurve', smooth: true });
      curves.push(c);
    });
  return nodes.length < 2 || nodes.length > MOST_NODES ? undefined : { nodes, curves };
}

/** What the end of a curve is: of a line, of a quadratic, of a cubic. */
const endType = (c: Curve): Point['type'] => (c.length === 4 ? 'line' : c.length === 6 ? 'qcurve' : 'curve');

function contourOf({ nodes, curves }: Chain, like: Contour): Contour {
  const n = nodes.length;
  const typed = (i: number): Point => {
    const { smooth, ...rest } = nodes[i]!;
    const type = endType(curves[(i + n - 1) % n]!);
    const handles = type !== 'line' || curves[i]!.length > 4;
    return { ...rest, type, ...(smooth && handles && { smooth }) };
  };
  const points: Point[] = [];
  for (let i = 0; i < n; i++) {
    points.push(typed(i));
    const c = curves[i]!;
    for (let k = 2; k < c.length - 2; k += 2) points.push({ x: tidy(c[k]!), y: tidy(c[k + 1]!), type: 'off' });
  }
  return { ...like, points };
}

/**
 * Which nodes of two closed contours belong together, by place: pairs in the order of the first, whose start has a fellow. Nodes are
 * paired without crossing, some left alone, as costs least (dynamic programming over every start of the second).
 */
function pairedNodes(a: Contour, b: Contour): (readonly [a: number, b: number])[] {
  const [na, nb] = [nodesOf(a), nodesOf(b)];
  const [n, m] = [na.length, nb.length];
  let best: { cost: number; pairs: (readonly [number, number])[] } | undefined;
  const cost = new Float64Array((n + 1) * (m + 1));
  const how = new Uint8Array((n + 1) * (m + 1));
  const at = (i: number, k: number) => i * (m + 1) + k;
  for (let turn = 0; turn < m; turn++) {
    const apart = (i: number, k: number) => {
      const [p, q] = [na[i]!, nb[(turn + k) % m]!];
      return (p.x - q.x) ** 2 + (p.y - q.y) ** 2;
    };
    cost.fill(Number.POSITIVE_INFINITY);
    cost[at(1, 1)] = apart(0, 0);
    for (let i = 1; i <= n; i++)
      for (let k = 1; k <= m; k++) {
        if (i === 1 && k === 1) continue;
        const options = [
          i > 1 && k > 1 ? cost[at(i - 1, k - 1)]! + apart(i - 1, k - 1) : Number.POSITIVE_INFINITY,
          i > 1 ? cost[at(i - 1, k)]! + ALONE : Number.POSITIVE_INFINITY,
          k > 1 ? cost[at(i, k - 1)]! + ALONE : Number.POSITIVE_INFINITY,
        ];
        const least = options.indexOf(Math.min(...options));
        cost[at(i, k)] = options[least]!;
        how[at(i, k)] = least;
      }
    const total = cost[at(n, m)]!;
    if (best && total >= best.cost) continue;
    const pairs: (readonly [number, number])[] = [];
    for (let i = n, k = m; i > 1 || k > 1; ) {
      const step = how[at(i, k)]!;
      if (step === 0) pairs.push([i - 1, (turn + k - 1) % m]);
      if (step !== 2) i--;
      if (step !== 1) k--;
    }
    pairs.push([0, turn % m]);
    best = { cost: total, pairs: pairs.reverse() };
  }
  return best?.pairs ?? [];
}

/** A stretch of a chain between two nodes: its curves, the nodes within with their share of its length. */
function stretch(chain: Chain, from: number, to: number) {
  const n = chain.nodes.length;
  const count = (to - from + n) % n || n;
  const curves = Array.from({ length: count }, (_, i) => chain.curves[(from + i) % n]!);
  const lengths = curves.map(lengthOf);
  const whole = lengths.reduce((sum, l) => sum + l, 0) || 1;
  let walked = 0;
  const within = lengths.slice(0, -1).map((l, i) => {
    walked += l;
    return { node: chain.nodes[(from + i + 1) % n]!, share: walked / whole };
  });
  return { first: chain.nodes[from]!, curves, lengths, whole, within };
}

/** Where on a curve a share of its length is reached. */
function shareAt(curve: Curve, share: number): number {
  if (curve.length === 4) return share;
  const goal = lengthOf(curve) * share;
  let [low, high] = [0, 1];
  for (let i = 0; i < 24; i++) {
    const middle = (low + high) / 2;
    if (lengthOf(partOf(curve, 0, middle)) < goal) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** A stretch with nodes added at shares of its length, the shape staying. */
function withNodes(s: ReturnType<typeof stretch>, shares: readonly number[]): Chain {
  const nodes: Point[] = [s.first];
  const curves: Curve[] = [];
  let walked = 0;
  const left = [...shares].sort((p, q) => p - q);
  s.curves.forEach((curve, i) => {
    const end = walked + s.lengths[i]! / s.whole;
    let rest = curve;
    let from = walked;
    while (left.length > 0 && (left[0]! < end - 1e-9 || i === s.curves.length - 1)) {
      const share = Math.min(Math.max((left.shift()! - from) / Math.max(1e-9, end - from), 0.02), 0.98);
      const [head, tail] = splitAt(rest, shareAt(rest, share));
      curves.push(head);
      nodes.push({
        x: tidy(tail[0]!),
        y: tidy(tail[1]!),
        type: endType(rest),
        ...(rest.length > 4 && { smooth: true }),
      });
      from += share * (end - from);
      rest = tail;
    }
    curves.push(rest);
    if (i < s.curves.length - 1) nodes.push(s.within[i]!.node);
    walked = end;
  });
  return { nodes, curves };
}

/** A curve of the kind that both can be: lines as quadratics beside quadratics, anything as a cubic beside a cubic. */
function alike(c: Curve, other: Curve): Curve {
  if (c.length === other.length || (c.length === 6 && other.length === 4)) return c;
  if (c.length === 4 && other.length === 6) {
    const [x0, y0, x1, y1] = c as [number, number, number, number];
    return [x0, y0, (x0 + x1) / 2, (y0 + y1) / 2, x1, y1];
  }
  return asCubic(c);
}

/**
 * Two closed contours of lines and curves with as many points of the same kinds, the second starting where the first does: points are
 * put in where the fellow has one, lines become curves where the fellow has a curve. Shapes stay. Undefined for open contours.
 */
export function aligned(a: Contour, b: Contour): [Contour, Contour] | undefined {
  const [ca, cb] = [chainOf(a), chainOf(b)];
  if (!ca || !cb) return undefined;
  // Nodes are counted from the start, as chains are.
  const pairs = pairedNodes(contourOf(ca, a), contourOf(cb, b));
  const out: [Point[], Curve[], Point[], Curve[]] = [[], [], [], []];
  pairs.forEach(([i, k], p) => {
    const [ni, nk] = pairs[(p + 1) % pairs.length]!;
    const [sa, sb] = [stretch(ca, i, ni), stretch(cb, k, nk)];
    const wa = withNodes(
      sa,
      sb.within.map((w) => w.share),
    );
    const wb = withNodes(
      sb,
      sa.within.map((w) => w.share),
    );
    out[0].push(...wa.nodes);
    out[1].push(...wa.curves);
    out[2].push(...wb.nodes);
    out[3].push(...wb.curves);
  });
  if (out[1].length !== out[3].length) return undefined;
  const both = out[1].map((c, i) => [c, out[3][i]!] as const);
  return [
    contourOf({ nodes: out[0], curves: both.map(([c, o]) => alike(c, o)) }, a),
    contourOf({ nodes: out[2], curves: both.map(([c, o]) => alike(o, c)) }, b),
  ];
}
