import type { Token } from './tokens';
import type { Fault, Span } from './tree';

/** A fault on its way to the statement that it ends. */
export class FeatureFault extends Error {
  constructor(
    readonly reason: string,
    readonly at: Span,
  ) {
    super(reason);
  }
}

/** Walks over tokens, with the means to say what was expected. */
export class Cursor {
  private index = 0;
  readonly faults: Fault[] = [];

  constructor(
    private readonly tokens: readonly Token[],
    readonly text: string,
  ) {}

  get now(): Token {
    return this.tokens[this.index]!;
  }
  get after(): Token {
    return this.tokens[Math.min(this.index + 1, this.tokens.length - 1)]!;
  }
  /** Where the last token taken ends. */
  get end(): number {
    return this.index === 0 ? 0 : this.tokens[this.index - 1]!.to;
  }
  get isEnd(): boolean {
    return this.now.kind === 'end';
  }

  take(): Token {
    const token = this.now;
    if (token.kind !== 'end') this.index++;
    return token;
  }

  is(text: string): boolean {
    return this.now.text === text && this.now.kind !== 'string' && this.now.kind !== 'escaped';
  }

  /** Takes a word or sign if it comes next. */
  takes(text: string): boolean {
    if (!this.is(text)) return false;
    this.index++;
    return true;
  }

  expect(text: string, where: string): Token {
    if (this.is(text)) return this.take();
    return this.fail(`${where} needs “${text}”${this.found()}.`);
  }

  fail(reason: string, at: Span = this.now): never {
    throw new FeatureFault(reason, at);
  }

  /** What stands at this place, for a sentence. */
  found(): string {
    const { text } = this.now;
    return this.isEnd ? '; the text ends' : ` before “${text.length > 24 ? `${text.slice(0, 24)}…` : text}”`;
  }

  tell(reason: string, at: Span, severity: Fault['severity'] = 'error'): void {
    this.faults.push({ from: at.from, to: at.to, reason, severity });
  }

  word(what: string): Token {
    if (this.now.kind === 'word' || this.now.kind === 'escaped') return this.take();
    return this.fail(`${what} is missing${this.found()}.`);
  }

  number(what: string): number {
    if (this.now.kind !== 'number') this.fail(`${what} must be a number${this.found()}.`);
    return numberOf(this.take().text);
  }

  /** A whole number from a range. */
  integer(what: string, least: number, most: number): number {
    const at = this.now;
    const value = this.number(what);
    if (!Number.isInteger(value) || value < least || value > most)
      this.fail(`${what} must be a whole number from ${least} to ${most}.`, at);
    return value;
  }

  /** Goes on behind the statement that went wrong: behind its semicolon or block, but not out of the block around it. */
  recover(): void {
    let depth = 0;
    while (!this.isEnd) {
      if (depth === 0 && this.is('}')) return;
      const token = this.take();
      if (token.kind !== 'symbol') continue;
      if (token.text === '{') depth++;
      else if (token.text === '}') depth--;
      else if (token.text === ';' && depth === 0) return;
      if (token.text === '}' && depth === 0) {
        // A block’s name and semicolon go with it.
        if (this.now.kind === 'word' && this.after.text === ';') this.index += 2;
        return;
      }
    }
  }
}

/** A number as the language writes it: decimal, with a fraction, or hexadecimal. */
export const numberOf = (text: string): number => {
  const hex = /^(-?)0[xX]([0-9A-Fa-f]+)$/.exec(text);
  return hex ? Number.parseInt(hex[2]!, 16) * (hex[1] ? -1 : 1) : Number(text);
};
