/** An outline as charstrings see it: contours of lines (2 numbers) and cubics (6 numbers) from a start point. */
export type CffContour = { x: number; y: number; segments: readonly (readonly number[])[] };

/** Stem hints as pairs of edge and width, rising; negative widths mark single edges. */
export type CffHints = {
  horizontal: readonly (readonly [number, number])[];
  vertical: readonly (readonly [number, number])[];
};

const HSTEM = 1;
const VSTEM = 3;
export const RMOVETO = 21;
export const HMOVETO = 22;
export const VMOVETO = 4;
export const RLINETO = 5;
export const HLINETO = 6;
export const VLINETO = 7;
export const RRCURVETO = 8;
export const ENDCHAR = 14;
export const RCURVELINE = 24;
export const RLINECURVE = 25;
export const VVCURVETO = 26;
export const HHCURVETO = 27;
export const VHCURVETO = 30;
export const HVCURVETO = 31;
/** Arguments of one operator: the stack holds 48 (Adobe Technical Note 5177, appendix B), and a call among them needs a place. */
const STACK = 47;

type Step = { op: number; args: number[] };

/**
 * A Type 2 charstring for an outline (Adobe Technical Note 5177) in the fewest bytes that moves, lines and curves can be
 * written with. Whole coordinates come out exactly, fractions to the nearest 65,536th wherever they lie. `width` is the advance less nominalWidthX, or undefined where
 * the advance is defaultWidthX. Stem hints hold for the whole glyph.
 */
export function writeCharstring(
  contours: readonly CffContour[],
  width: number | undefined,
  hints?: CffHints,
): Uint8Array {
  const out: number[] = [];
  let x = 0;
  let y = 0;
  const lead = width === undefined ? [] : [width];
  let pending: number[] | undefined = lead;
  for (const [op, stems] of [
    [HSTEM, hints?.horizontal ?? []],
    [VSTEM, hints?.vertical ?? []],
  ] as const) {
    if (stems.length === 0) continue;
    const args: number[] = [...(pending ?? [])];
    let last = 0;
    for (const [edge, wide] of stems) {
      args.push(edge - last, wide);
      last = edge + wide;
    }
    emit(out, { op, args });
    pending = undefined;
  }
  for (const contour of contours) {
    const [startX, startY] = [fixed(contour.x), fixed(contour.y)];
    const dx = startX - x;
    const dy = startY - y;
    const move =
      dy === 0 ? { op: HMOVETO, args: [dx] } : dx === 0 ? { op: VMOVETO, args: [dy] } : { op: RMOVETO, args: [dx, dy] };
    emit(out, { op: move.op, args: [...(pending ?? []), ...move.args] });
    pending = undefined;
    x = startX;
    y = startY;
    const deltas = contour.segments.map((s) => {
      const delta: number[] = [];
      for (let i = 0; i < s.length; i += 2) {
        const [nextX, nextY] = [fixed(s[i]!), fixed(s[i + 1]!)];
        delta.push(nextX - x, nextY - y);
        x = nextX;
        y = nextY;
      }
      return delta;
    });
    for (const step of shortestSteps(deltas)) emit(out, step);
  }
  emit(out, { op: ENDCHAR, args: pending ?? [] });
  return Uint8Array.from(out);
}

/** The cheapest way on from a segment: an operator for the next `count` segments, and what all from here on costs in bytes. */
type Way = { cost: number; count: number; step: Step };

/**
 * Relative segments in the operators that take the fewest bytes in all: from the last segment back, each way on is weighed
 * with the cheapest way from where it ends (dynamic programming over all runs each operator can take).
 */
function shortestSteps(deltas: readonly number[][]): Step[] {
  const ways: Way[] = new Array(deltas.length);
  for (let i = deltas.length - 1; i >= 0; i--) {
    let best: Way | undefined;
    const offer = (op: number, args: readonly number[], bytes: number, count: number) => {
      const cost = bytes + 1 + (ways[i + count]?.cost ?? 0);
      // Of equals the longer run: there are fewer operators to carry out.
      if (!best || cost < best.cost || (cost === best.cost && count > best.count))
        best = { cost, count, step: { op, args: args.slice() } };
    };
    if (isCurve(deltas[i])) curveRuns(deltas, i, offer);
    else lineRuns(deltas, i, offer);
    ways[i] = best!;
  }
  const steps: Step[] = [];
  for (let i = 0; i < deltas.length; i += ways[i]!.count) steps.push(ways[i]!.step);
  return steps;
}

/** Weighs an operator for the next `count` segments; `bytes` is what its arguments take. */
type Offer = (op: number, args: readonly number[], bytes: number, count: number) => void;

/** Arguments with the bytes they take so far. */
class Arguments {
  readonly list: number[] = [];
  bytes = 0;
  add(...values: readonly number[]): void {
    for (const v of values) {
      this.list.push(v);
      this.bytes += sizeOf(v);
    }
  }
}

const isCurve = (d: readonly number[] | undefined): boolean => d?.length === 6;

/** rlineto, hlineto, vlineto; rlinecurve where a curve follows. */
function lineRuns(deltas: readonly number[][], i: number, offer: Offer): void {
  const any = new Arguments();
  for (let k = 0; any.list.length + 2 <= STACK; k++) {
    const d = deltas[i + k];
    if (!d) break;
    if (isCurve(d)) {
      if (any.list.length + 6 <= STACK) {
        any.add(...d);
        offer(RLINECURVE, any.list, any.bytes, k + 1);
      }
      break;
    }
    any.add(...d);
    offer(RLINETO, any.list, any.bytes, k + 1);
  }
  for (const startsLevel of [true, false]) {
    const turns = new Arguments();
    for (let k = 0; k < STACK; k++) {
      const d = deltas[i + k];
      const level = startsLevel === (k % 2 === 0);
      if (d?.length !== 2 || d[level ? 1 : 0] !== 0) break;
      turns.add(d[level ? 0 : 1]!);
      offer(startsLevel ? HLINETO : VLINETO, turns.list, turns.bytes, k + 1);
    }
  }
}

/** rrcurveto and rcurveline, then the operators for curves that are level or upright at an end. */
function curveRuns(deltas: readonly number[][], i: number, offer: Offer): void {
  const any = new Arguments();
  for (let k = 0; any.list.length + 2 <= STACK; k++) {
    const d = deltas[i + k];
    if (!d || (isCurve(d) && any.list.length + 6 > STACK)) break;
    any.add(...d);
    if (!isCurve(d)) {
      offer(RCURVELINE, any.list, any.bytes, k + 1);
      break;
    }
    offer(RRCURVETO, any.list, any.bytes, k + 1);
  }
  for (const level of [true, false]) {
    parallelRun(deltas, i, level, offer);
    alternatingRun(deltas, i, level, offer);
  }
}

/** hhcurveto and vvcurveto: curves that leave and arrive level (or upright), the first allowed one odd value. */
function parallelRun(deltas: readonly number[][], i: number, level: boolean, offer: Offer): void {
  const run = new Arguments();
  const [along, across] = level ? [0, 1] : [1, 0];
  for (let k = 0; run.list.length + 5 <= STACK; k++) {
    const d = deltas[i + k];
    if (d?.length !== 6 || d[4 + across] !== 0) break;
    const odd = d[across]!;
    if (odd !== 0) {
      if (k > 0) break;
      run.add(odd);
    }
    run.add(d[along]!, d[2]!, d[3]!, d[4 + along]!);
    offer(level ? HHCURVETO : VVCURVETO, run.list, run.bytes, k + 1);
  }
}

/** hvcurveto and vhcurveto: curves that leave level and arrive upright, then the other way, in turn; the last one may miss. */
function alternatingRun(deltas: readonly number[][], i: number, startsLevel: boolean, offer: Offer): void {
  const op = startsLevel ? HVCURVETO : VHCURVETO;
  const run = new Arguments();
  let level = startsLevel;
  for (let k = 0; run.list.length + 4 <= STACK; k++) {
    const d = deltas[i + k];
    const [along, across] = level ? [0, 1] : [1, 0];
    if (d?.length !== 6 || d[across] !== 0) break;
    run.add(d[along]!, d[2]!, d[3]!, d[4 + across]!);
    const miss = d[4 + along]!;
    if (miss !== 0) {
      if (run.list.length + 1 > STACK) break;
      run.add(miss);
      offer(op, run.list, run.bytes, k + 1);
      break;
    }
    offer(op, run.list, run.bytes, k + 1);
    level = !level;
  }
}

function emit(out: number[], step: Step): void {
  for (const v of step.args) pushNumber(out, v);
  out.push(step.op);
}

/** The nearest 16.16 number: steps between such add up without error. */
const fixed = (v: number): number => (Number.isInteger(v) ? v : Math.round(v * 65536) / 65536);

/** How many bytes a number takes. */
const sizeOf = (v: number): number =>
  !Number.isInteger(v) ? 5 : v >= -107 && v <= 107 ? 1 : v >= -1131 && v <= 1131 ? 2 : 3;

/** A number in the shortest charstring or dictionary-like encoding; fractions as 16.16. */
function pushNumber(out: number[], v: number): void {
  if (!Number.isInteger(v)) {
    const whole = Math.round(v * 65536);
    out.push(255, (whole >> 24) & 255, (whole >> 16) & 255, (whole >> 8) & 255, whole & 255);
  } else if (v >= -107 && v <= 107) out.push(v + 139);
  else if (v >= 108 && v <= 1131) out.push(247 + ((v - 108) >> 8), (v - 108) & 255);
  else if (v >= -1131 && v <= -108) out.push(251 + ((-v - 108) >> 8), (-v - 108) & 255);
  else out.push(28, (v >> 8) & 255, v & 255);
}
