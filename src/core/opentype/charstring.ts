import { refuse } from '../base/result';

/** An outline as charstrings see it: contours of lines (2 numbers) and cubics (6 numbers) from a start point. */
export type CffContour = { x: number; y: number; segments: readonly (readonly number[])[] };

const RMOVETO = 21;
const HMOVETO = 22;
const VMOVETO = 4;
const RLINETO = 5;
const HLINETO = 6;
const VLINETO = 7;
const RRCURVETO = 8;
const ENDCHAR = 14;
const RCURVELINE = 24;
const RLINECURVE = 25;
const VVCURVETO = 26;
const HHCURVETO = 27;
const VHCURVETO = 30;
const HVCURVETO = 31;
/** Type 2 argument stack limit (Adobe Technical Note 5177, appendix B). */
const STACK = 48;

type Step = { op: number; args: number[] };

/**
 * A Type 2 charstring for an outline of whole-number coordinates (Adobe Technical Note 5177), in the shortest operators
 * that fit each step, runs merged up to the stack limit. `width` is the advance less nominalWidthX, or undefined where
 * the advance is defaultWidthX.
 */
export function writeCharstring(contours: readonly CffContour[], width: number | undefined): Uint8Array {
  const out: number[] = [];
  let x = 0;
  let y = 0;
  const lead = width === undefined ? [] : [width];
  let pending: number[] | undefined = lead;
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

/** What a charstring draws, with `width` as written (undefined where it takes defaultWidthX). */
export type Drawn = { contours: CffContour[]; width: number | undefined };

/**
 * Runs a Type 2 charstring; hints are passed over. Subroutine depth, steps and stack are bounded; a fault is refused
 * naming the glyph.
 */
export function readCharstring(bytes: Uint8Array, subroutines: { local: readonly Uint8Array[]; global: readonly Uint8Array[] }, where: string): Drawn {
  const state = new Interpreter(subroutines, where);
  state.run(bytes, 0);
  return { contours: state.contours, width: state.width };
}

class Interpreter {
  contours: { x: number; y: number; segments: number[][] }[] = [];
  width: number | undefined;
  private stack: number[] = [];
  private x = 0;
  private y = 0;
  private stems = 0;
  private widthSeen = false;
  private done = false;
  private budget = 200_000;

  constructor(
    private readonly subroutines: { local: readonly Uint8Array[]; global: readonly Uint8Array[] },
    private readonly where: string,
  ) {}

  run(bytes: Uint8Array, depth: number): void {
    if (depth > 10) refuse(`The charstring of ${this.where} calls subroutines more than 10 deep.`);
    for (let i = 0; i < bytes.length && !this.done; ) {
      if (this.budget-- <= 0) refuse(`The charstring of ${this.where} does not end.`);
      const b = bytes[i++]!;
      if (b >= 32 || b === 28) {
        i = this.number(bytes, b, i);
        continue;
      }
      if (b === 19 || b === 20) {
        this.hints();
        i += (this.stems + 7) >> 3;
      } else if (b === 12) this.escape(bytes[i++]!);
      else if (b === 10 || b === 29) this.call(b === 10 ? this.subroutines.local : this.subroutines.global, depth);
      else if (b === 11) return;
      else this.operator(b);
    }
  }

  private number(bytes: Uint8Array, b: number, i: number): number {
    const at = (k: number) => bytes[i + k] ?? refuse(`The charstring of ${this.where} is cut short.`);
    if (this.stack.length > 512) refuse(`The charstring of ${this.where} overflows its stack.`);
    if (b === 28) this.stack.push(((at(0) << 24) >> 16) | at(1));
    else if (b < 247) this.stack.push(b - 139);
    else if (b < 251) this.stack.push((b - 247) * 256 + at(0) + 108);
    else if (b < 255) this.stack.push(-(b - 251) * 256 - at(0) - 108);
    else this.stack.push(((at(0) << 24) | (at(1) << 16) | (at(2) << 8) | at(3)) / 65536);
    return i + (b === 28 ? 2 : b < 247 ? 0 : b < 255 ? 1 : 4);
  }

  private call(list: readonly Uint8Array[], depth: number): void {
    const bias = list.length < 1240 ? 107 : list.length < 33900 ? 1131 : 32768;
    const index = (this.stack.pop() ?? Number.NaN) + bias;
    const body = list[index] ?? refuse(`The charstring of ${this.where} calls a subroutine that is not there.`);
    this.run(body, depth + 1);
  }

  private takeWidth(expected: number, even = false): void {
    if (!this.widthSeen) {
      const extra = even ? this.stack.length % 2 === 1 : this.stack.length > expected;
      if (extra) this.width = this.stack.shift();
      this.widthSeen = true;
    }
  }

  private hints(): void {
    this.takeWidth(0, true);
    this.stems += this.stack.length >> 1;
    this.stack = [];
  }

  private move(dx: number, dy: number): void {
    this.x += dx;
    this.y += dy;
    this.contours.push({ x: this.x, y: this.y, segments: [] });
  }

  private line(dx: number, dy: number): void {
    this.x += dx;
    this.y += dy;
    this.current().push([this.x, this.y]);
  }

  private curve(a: number, b: number, c: number, d: number, e: number, f: number): void {
    const x1 = this.x + a;
    const y1 = this.y + b;
    const x2 = x1 + c;
    const y2 = y1 + d;
    this.x = x2 + e;
    this.y = y2 + f;
    this.current().push([x1, y1, x2, y2, this.x, this.y]);
  }

  private current(): number[][] {
    const contour = this.contours[this.contours.length - 1];
    return contour ? contour.segments : refuse(`The charstring of ${this.where} draws before it moves.`);
  }

  private operator(op: number): void {
    const s = this.stack;
    const at = (i: number) => s[i] ?? refuse(`The charstring of ${this.where} lacks an argument.`);
    if (op === 1 || op === 3 || op === 18 || op === 23) {
      this.hints();
      return;
    }
    if (op === RMOVETO) {
      this.takeWidth(2);
      this.move(at(0), at(1));
    } else if (op === HMOVETO || op === VMOVETO) {
      this.takeWidth(1);
      if (op === HMOVETO) this.move(at(0), 0);
      else this.move(0, at(0));
    } else if (op === ENDCHAR) {
      this.takeWidth(0);
      this.done = true;
    } else if (op === RLINETO) for (let i = 0; i + 1 < s.length; i += 2) this.line(at(i), at(i + 1));
    else if (op === HLINETO || op === VLINETO) {
      s.forEach((v, i) => {
        if ((i % 2 === 0) === (op === HLINETO)) this.line(v, 0);
        else this.line(0, v);
      });
    } else if (op === RRCURVETO || op === RCURVELINE) {
      let i = 0;
      for (; i + 6 <= s.length; i += 6) this.curve(at(i), at(i + 1), at(i + 2), at(i + 3), at(i + 4), at(i + 5));
      if (op === RCURVELINE) this.line(at(i), at(i + 1));
    } else if (op === RLINECURVE) {
      let i = 0;
      for (; i + 6 < s.length; i += 2) this.line(at(i), at(i + 1));
      this.curve(at(i), at(i + 1), at(i + 2), at(i + 3), at(i + 4), at(i + 5));
    } else if (op === HHCURVETO || op === VVCURVETO) this.parallel(op === HHCURVETO);
    else if (op === HVCURVETO || op === VHCURVETO) this.alternating(op === HVCURVETO);
    else refuse(`The charstring of ${this.where} holds the unknown operator ${op}.`);
    this.stack = [];
  }

  private parallel(level: boolean): void {
    const s = this.stack;
    let i = s.length % 4;
    let odd = i > 0 ? s[0]! : 0;
    for (; i + 4 <= s.length; i += 4) {
      if (level) this.curve(s[i]!, odd, s[i + 1]!, s[i + 2]!, s[i + 3]!, 0);
      else this.curve(odd, s[i]!, s[i + 1]!, s[i + 2]!, 0, s[i + 3]!);
      odd = 0;
    }
  }

  private alternating(startLevel: boolean): void {
    const s = this.stack;
    let level = startLevel;
    for (let i = 0; i + 4 <= s.length; i += 4) {
      const last = s.length - i === 5 ? s[i + 4]! : 0;
      if (level) this.curve(s[i]!, 0, s[i + 1]!, s[i + 2]!, last, s[i + 3]!);
      else this.curve(0, s[i]!, s[i + 1]!, s[i + 2]!, s[i + 3]!, last);
      level = !level;
    }
  }

  /** The flex operators; other escapes are not used by outlines. */
  private escape(op: number): void {
    const s = this.stack;
    const v = (i: number) => s[i] ?? 0;
    if (op === 35) {
      this.curve(v(0), v(1), v(2), v(3), v(4), v(5));
      this.curve(v(6), v(7), v(8), v(9), v(10), v(11));
    } else if (op === 34) {
      this.curve(v(0), 0, v(1), v(2), v(3), 0);
      this.curve(v(4), 0, v(5), -v(2), v(6), 0);
    } else if (op === 36) {
      this.curve(v(0), v(1), v(2), v(3), v(4), 0);
      this.curve(v(5), 0, v(6), v(7), v(8), -(v(1) + v(3) + v(7)));
    } else if (op === 37) {
      const dx = v(0) + v(2) + v(4) + v(6) + v(8);
      const dy = v(1) + v(3) + v(5) + v(7) + v(9);
      const wide = Math.abs(dx) > Math.abs(dy);
      this.curve(v(0), v(1), v(2), v(3), v(4), v(5));
      this.curve(v(6), v(7), v(8), v(9), wide ? v(10) : -dx, wide ? -dy : v(10));
    } else refuse(`The charstring of ${this.where} uses the arithmetic operator 12 ${op}, which outlines do not need.`);
    this.stack = [];
  }
}
