/** Words for units that may stand after a number; they change nothing. */
const UNITS = /(?:units?|u|px|%|°|degrees?|deg)$/i;

/**
 * Evaluates what was typed: a number, or a sum of any length with brackets (“64+8”, “(520-11)/2”, “.5*3”). Either minus, a
 * comma for the point, any kind of space around signs, × and ÷, and a word for a unit at the end are understood. Undefined
 * where it is none.
 */
export function readNumber(text: string): number | undefined {
  const plain = text.replace(/[−–]/g, '-').replace(/×/g, '*').replace(/÷/g, '/').replace(/,/g, '.').trim();
  const typed = plain.replace(UNITS, '').trim();
  // A space between two digits joins nothing: “1 2” is no number.
  if (typed === '' || typed.length > 200 || /[\d.]\s+[\d.]/.test(typed)) return undefined;
  const sum = new Sum(typed.replace(/\s/g, ''));
  const value = sum.read();
  return sum.isDone && Number.isFinite(value) ? value : undefined;
}

/** Reads a sum from left to right; not a number where it cannot be. */
class Sum {
  private at = 0;
  private depth = 0;
  constructor(private readonly text: string) {}

  get isDone(): boolean {
    return this.at === this.text.length;
  }

  read(): number {
    let value = this.product();
    for (let sign = this.take('+-'); sign; sign = this.take('+-')) {
      const next = this.product();
      value = sign === '+' ? value + next : value - next;
    }
    return value;
  }

  private product(): number {
    let value = this.factor(true);
    for (let sign = this.take('*/'); sign; sign = this.take('*/')) {
      const next = this.factor(true);
      value = sign === '*' ? value * next : value / next;
    }
    return value;
  }

  private factor(signed: boolean): number {
    const sign = signed ? this.take('+-') : undefined;
    if (sign) return sign === '-' ? -this.factor(false) : this.factor(false);
    if (this.take('(')) {
      if (++this.depth > 20) return Number.NaN;
      const value = this.read();
      this.depth--;
      return this.take(')') ? value : Number.NaN;
    }
    const digits = /^(?:\d+\.?\d*|\.\d+)/.exec(this.text.slice(this.at))?.[0];
    if (digits === undefined) return Number.NaN;
    this.at += digits.length;
    return Number(digits);
  }

  /** Takes the next sign if it is one of these. */
  private take(signs: string): string | undefined {
    const next = this.text[this.at];
    if (next === undefined || !signs.includes(next)) return undefined;
    this.at++;
    return next;
  }
}
