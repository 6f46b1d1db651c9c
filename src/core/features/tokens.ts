import type { Span } from './tree';

export type TokenKind = 'word' | 'escaped' | 'class' | 'cid' | 'number' | 'string' | 'symbol' | 'end';
export type Token = Span & { kind: TokenKind; text: string };
export type Tokens = {
  tokens: readonly Token[];
  comments: readonly Span[];
  faults: readonly (Span & { reason: string })[];
};

/** What begins with a character of each kind, and how far it goes. */
const NUMBER = /-?(?:0[xX][0-9A-Fa-f]+|[0-9]+(?:\.[0-9]+)?|\.[0-9]+)(?![A-Za-z_])/y;
const WORD = /[A-Za-z_.0-9][A-Za-z0-9_.+*:^~!\-/]*/y;
const CLASS = /@[A-Za-z0-9_.-]+/y;
const CID = /\\[0-9]+/y;
const ESCAPED = /\\[A-Za-z_.][A-Za-z0-9_.+*:^~!-]*/y;
const SPACE = /[\s\u00a0\ufeff]+/y;
const COMMENT = /[^\n\r]*/y;
const STRING = /"[^"]*"/y;
const SYMBOLS = "{}()[]<>;,='-:";

const BY_START: Readonly<Record<string, readonly (readonly [TokenKind, RegExp])[]>> = {
  '@': [['class', CLASS]],
  '\\': [
    ['cid', CID],
    ['escaped', ESCAPED],
  ],
  '"': [['string', STRING]],
  '-': [['number', NUMBER]],
  '.': [
    ['number', NUMBER],
    ['word', WORD],
  ],
};
const WORDS = [['word', WORD]] as const;
const FIGURES = [
  ['number', NUMBER],
  ['word', WORD],
] as const;

/** The kinds that may begin with a character. */
function kindsAt(character: string): readonly (readonly [TokenKind, RegExp])[] {
  if ((character >= 'a' && character <= 'z') || (character >= 'A' && character <= 'Z') || character === '_')
    return WORDS;
  if (character >= '0' && character <= '9') return FIGURES;
  return BY_START[character] ?? [];
}

/** Where a pattern that begins at a place ends; the place itself where it does not fit. */
function endOf(pattern: RegExp, text: string, at: number): number {
  pattern.lastIndex = at;
  return pattern.test(text) ? pattern.lastIndex : at;
}

/** Faults of single characters beyond this are not told one by one. */
const MOST_FAULTS = 50;

/** Cuts feature text into its words, numbers and signs; what is none of these is told and passed over. */
export function tokensOf(text: string): Tokens {
  const tokens: Token[] = [];
  const comments: Span[] = [];
  const faults: (Span & { reason: string })[] = [];
  let at = 0;
  while (at < text.length) {
    const character = text[at]!;
    const behind = endOf(SPACE, text, at);
    if (behind > at) {
      at = behind;
      continue;
    }
    if (character === '#') {
      const to = endOf(COMMENT, text, at);
      comments.push({ from: at, to });
      at = to;
      continue;
    }
    const from = at;
    for (const [kind, pattern] of kindsAt(character)) {
      const to = endOf(pattern, text, from);
      if (to === from) continue;
      tokens.push({ kind, text: text.slice(from, to), from, to });
      at = to;
      break;
    }
    if (at > from) continue;
    if (SYMBOLS.includes(character)) {
      tokens.push({ kind: 'symbol', text: character, from, to: from + 1 });
      at++;
    } else if (character === '"') {
      faults.push({ from, to: from + 1, reason: 'A text in quotation marks begins here and does not end.' });
      at = text.length;
    } else {
      const whole = String.fromCodePoint(text.codePointAt(at)!);
      if (faults.length < MOST_FAULTS)
        faults.push({ from, to: from + whole.length, reason: `“${shown(whole)}” has no meaning here.` });
      at += whole.length;
    }
  }
  tokens.push({ kind: 'end', text: '', from: text.length, to: text.length });
  return { tokens, comments, faults };
}

const shown = (character: string): string =>
  /\p{C}/u.test(character) ? `U+${character.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}` : character;
