/** An outline as charstrings see it: contours of lines (2 numbers) and cubics (6 numbers) from a start point. */
export type CffContour = { x: number; y: number; segments: readonly (readonly number[])[] };

/** Stem hints as pairs of edge and width, rising; negative widths mark single edges. */
export type CffHints = { horizontal: readonly (readonly [number, number])[]; vertical: readonly (readonly [number, number])[] };

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
/** Type 2 argument stack limit (Adobe Technical Note 5177, appendix B). */
const STACK = 48;

type Step = { op: number; args: number[] };

/**
 * A Type 2 charstring for an outline of whole-number coordinates (Adobe Technical Note 5177), in the shortest operators
 * that fit each step, runs merged up to the stack limit. `width` is the advance less nominalWidthX, or undefined where
 * the advance is defaultWidthX. Stem hints hold for the whole glyph.
 */
export function writeCharstring(contours: readonly CffContour[], width: number | undefined, hints?: CffHints): Uint8Array {
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
    const dx = contour.x - x;
    const dy = contour.y - y;
    const move = dy === 0 ? { op: HMOVETO, args: [dx] } : dx === 0 ? { op: VMOVETO, args: [dy] } : { op: RMOVETO, args: [dx, dy] };
    emit(out, { op: move.op, args: [...(pending ?? []), ...move.args] });
    pending = undefined;
    x = contour.x;
    y = contour.y;
    const deltas = contour.segments.map((s) => {
      const delta: number[] = [];
      for (let i = 0; i < s.length; i += 2) {
        delta.push(s[i]! - x, s[i + 1]! - y);
        x = s[i]!;
        y = s[i + 1]!;
      }
      return delta;
    });
    for (const step of mergeRuns(deltas)) emit(out, step);
  }
  emit(out, { op: ENDCHAR, args: pending ?? [] });
  return Uint8Array.from(out);
}

/** Joins relative segments into as few operators as their shapes allow. */
function mergeRuns(deltas: readonly number[][]): Step[] {
  const steps: Step[] = [];
  for (let i = 0; i < deltas.length; ) {
    const d = deltas[i]!;
    const taken = d.length === 2 ? takeLines(deltas, i) : takeCurves(deltas, i);
    steps.push(taken.step);
    i += taken.count;
  }
  return joinCurvesAndLines(steps);
}

function takeLines(deltas: readonly number[][], i: number): { step: Step; count: number } {
  const level = (d: number[] | undefined) => d?.length === 2 && d[1] === 0;
  const upright = (d: number[] | undefined) => d?.length === 2 && d[0] === 0;
  const first = deltas[i]!;
  if (level(first) || upright(first)) {
    const args: number[] = [];
    let wantLevel = level(first);
    const op = wantLevel ? HLINETO : VLINETO;
    while (args.length < STACK && (wantLevel ? level(deltas[i + args.length]) : upright(deltas[i + args.length]))) {
      args.push(deltas[i + args.length]![wantLevel ? 0 : 1]!);
      wantLevel = !wantLevel;
    }
    return { step: { op, args }, count: args.length };
  }
  const args: number[] = [];
  let count = 0;
  for (let d = first; d && d.length === 2 && d[0] !== 0 && d[1] !== 0 && args.length + 2 <= STACK; d = deltas[i + count]!) {
    args.push(...d);
    count++;
  }
  return { step: { op: RLINETO, args }, count };
}

const startsLevel = (d: readonly number[]) => d[1] === 0;
const startsUpright = (d: readonly number[]) => d[0] === 0;
const endsLevel = (d: readonly number[]) => d[5] === 0;
const endsUpright = (d: readonly number[]) => d[4] === 0;
const isCurve = (d: readonly number[] | undefined): d is number[] => d?.length === 6;

function takeCurves(deltas: readonly number[][], i: number): { step: Step; count: number } {
  const options = [takeAlternating(deltas, i), takeParallel(deltas, i, true), takeParallel(deltas, i, false)];
  const best = options.reduce((a, b) => (b.count > a.count ? b : a));
  if (best.count > 0) return best;
  const args: number[] = [];
  let count = 0;
  while (args.length + 6 <= STACK) {
    const d = deltas[i + count];
    if (!isCurve(d) || (count > 0 && (startsLevel(d) || startsUpright(d)) && (endsLevel(d) || endsUpright(d)))) break;
    args.push(...d);
    count++;
  }
  return { step: { op: RRCURVETO, args }, count };
}

/** hvcurveto and vhcurveto: curves that leave level and arrive upright, then the other way, in turn. */
function takeAlternating(deltas: readonly number[][], i: number): { step: Step; count: number } {
  const first = deltas[i]!;
  let level = startsLevel(first) && !(startsUpright(first) && endsLevel(first));
  const op = level ? HVCURVETO : VHCURVETO;
  const args: number[] = [];
  let count = 0;
  for (let d = deltas[i]; isCurve(d) && args.length + 4 <= STACK; d = deltas[i + count]) {
    if (!(level ? startsLevel(d) : startsUpright(d))) break;
    const closes = level ? endsUpright(d) : endsLevel(d);
    const lead = level ? d[0]! : d[1]!;
    const tail = level ? d[5]! : d[4]!;
    if (!closes) {
      if (args.length + 5 > STACK) break;
      args.push(lead, d[2]!, d[3]!, tail, level ? d[4]! : d[5]!);
      count++;
      break;
    }
    args.push(lead, d[2]!, d[3]!, tail);
    count++;
    level = !level;
  }
  return { step: { op, args }, count };
}

/** hhcurveto and vvcurveto: curves that leave and arrive level (or upright), the first allowed one odd value. */
function takeParallel(deltas: readonly number[][], i: number, level: boolean): { step: Step; count: number } {
  const args: number[] = [];
  let count = 0;
  for (let d = deltas[i]; isCurve(d) && args.length + 5 <= STACK; d = deltas[i + count]) {
    if (!(level ? endsLevel(d) : endsUpright(d))) break;
    const odd = level ? d[1]! : d[0]!;
    if (odd !== 0) {
      if (count > 0) break;
      args.push(odd);
    }
    args.push(level ? d[0]! : d[1]!, d[2]!, d[3]!, level ? d[4]! : d[5]!);
    count++;
  }
  return { step: { op: level ? HHCURVETO : VVCURVETO, args }, count };
}

/** rcurveline and rlinecurve: a general run followed by one of the other kind. */
function joinCurvesAndLines(steps: readonly Step[]): Step[] {
  const out: Step[] = [];
  for (const step of steps) {
    const last = out[out.length - 1];
    if (last?.op === RRCURVETO && step.op === RLINETO && step.args.length === 2 && last.args.length + 2 <= STACK) {
      out[out.length - 1] = { op: RCURVELINE, args: [...last.args, ...step.args] };
    } else if (last?.op === RLINETO && step.op === RRCURVETO && step.args.length === 6 && last.args.length + 6 <= STACK) {
      out[out.length - 1] = { op: RLINECURVE, args: [...last.args, ...step.args] };
    } else out.push(step);
  }
  return out;
}

function emit(out: number[], step: Step): void {
  for (const v of step.args) pushNumber(out, v);
  out.push(step.op);
}

/** A number in the shortest charstring or dictionary-like encoding; fractions as 16.16. */
function pushNumber(out: number[], v: number): void {
  if (!Number.isInteger(v)) {
    const fixed = Math.round(v * 65536);
    out.push(255, (fixed >> 24) & 255, (fixed >> 16) & 255, (fixed >> 8) & 255, fixed & 255);
  } else if (v >= -107 && v <= 107) out.push(v + 139);
  else if (v >= 108 && v <= 1131) out.push(247 + ((v - 108) >> 8), (v - 108) & 255);
  else if (v >= -1131 && v <= -108) out.push(251 + ((-v - 108) >> 8), (-v - 108) & 255);
  else out.push(28, (v >> 8) & 255, v & 255);
}
