import { refuse } from '../base/result';
import {
  type CffContour,
  ENDCHAR,
  HHCURVETO,
  HLINETO,
  HMOVETO,
  HVCURVETO,
  RCURVELINE,
  RLINECURVE,
  RLINETO,
  RMOVETO,
  RRCURVETO,
  VHCURVETO,
  VLINETO,
  VMOVETO,
  VVCURVETO,
} from './charstring';

/** What a charstring draws, with `width` as written (undefined where it takes defaultWidthX). */
export type Drawn = { contours: CffContour[]; width: number | undefined; hints: number; accent?: Accent };

/** Two other glyphs, by their codes in the standard encoding, that make this one; the mark is moved. */
export type Accent = { base: number; mark: number; dx: number; dy: number };

export type Subroutines = { local: readonly Uint8Array[]; global: readonly Uint8Array[] };

/** How much each region of an item of the variation store applies where a CFF2 charstring is run. */
export type Blend = { vsindex: number; scalars(vsindex: number): readonly number[] };

/**
 * Runs a Type 2 charstring, or with `blend` one of CFF2 at a place on the axes; hints are passed over. Subroutine depth, steps and stack are bounded; a fault is refused
 * naming the glyph.
 */
export function readCharstring(bytes: Uint8Array, subroutines: Subroutines, where: string, blend?: Blend): Drawn {
  const state = new Interpreter(subroutines, where, blend);
  state.run(bytes, 0);
  return {
    contours: state.contours,
    width: state.width,
    hints: state.stems,
    ...(state.accent && { accent: state.accent }),
  };
}

class Interpreter {
  contours: { x: number; y: number; segments: number[][] }[] = [];
  width: number | undefined;
  accent: Accent | undefined;
  private stack: number[] = [];
  private x = 0;
  private y = 0;
  stems = 0;
  private widthSeen = false;
  private done = false;
  private budget = 200_000;

  private vsindex: number;

  constructor(
    private readonly subroutines: Subroutines,
    private readonly where: string,
    private readonly blending?: Blend,
  ) {
    this.vsindex = blending?.vsindex ?? 0;
    // CFF2 keeps widths elsewhere.
    this.widthSeen = blending !== undefined;
  }

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
    if (this.blending && op === 16) {
      this.blend(this.blending);
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
      this.takeWidth(s.length >= 4 ? 4 : 0);
      const last = this.stack;
      if (last.length === 4) this.accent = { dx: last[0]!, dy: last[1]!, base: last[2]!, mark: last[3]! };
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
    else if (this.blending && op === 15) this.vsindex = at(0);
    else refuse(`The charstring of ${this.where} holds the unknown operator ${op}.`);
    this.stack = [];
  }

  /** Takes n values and n times as many differences as there are regions; leaves the n blended values. */
  private blend(blending: Blend): void {
    const s = this.stack;
    const n = s.pop() ?? 0;
    const scalars = blending.scalars(this.vsindex);
    const start = s.length - n * (scalars.length + 1);
    if (!Number.isInteger(n) || n < 0 || start < 0)
      refuse(`The charstring of ${this.where} blends more values than it has.`);
    for (let i = 0; i < n; i++) {
      for (let k = 0; k < scalars.length; k++) s[start + i]! += s[start + n + i * scalars.length + k]! * scalars[k]!;
    }
    s.length = start + n;
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
