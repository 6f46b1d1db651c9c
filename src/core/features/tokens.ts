import type { Span } from './tree';

export type TokenKind = 'word' | 'escaped' | 'class' | 'cid' | 'number' | 'string' | 'symbol' | 'end';
export type Token = Span & { kind: TokenKind; text: string };
export type Tokens = {
  tokens: readonly Token[];
  comments: readonly Span[];
  faults: readonly (Span & { reason: string })[];
};

/** What begins with a character of each kind, and how far it goes; words and spaces, which are most of a text, go by {@link CLASSES}. */
const NUMBER = /-?(?:0[xX][0-9A-Fa-f]+|[0-9]+(?:\.[0-9]+)?|\.[0-9]+)(?![A-Za-z_])/y;
const CLASS = /@[A-Za-z0-9_.-]+/y;
const CID = /\\[0-9]+/y;
const ESCAPED = /\\[A-Za-z_.][A-Za-z0-9_.+*:^~!-]*/y;
const COMMENT = /[^\n\r]*/y;
const STRING = /"[^"]*"/y;
const SYMBOLS = "{}()[]<>;,='-:";

const [SPACE, LETTER, FIGURE, IN_WORD] = [1, 2, 4, 8];
/** What characters below 128 are. */
const CLASSES = Uint8Array.from({ length: 128 }, (_, code) => {
  const c = String.fromCharCode(code);
  return (
    (/\s/.test(c) ? SPACE : 0) |
    (/[A-Za-z_]/.test(c) ? LETTER : 0) |
    (/[0-9]/.test(c) ? FIGURE : 0) |
    (/[A-Za-z0-9_.+*:^~!\-/]/.test(c) ? IN_WORD : 0)
  );
});
const is = (code: number, kind: number): boolean => code < 128 && (CLASSES[code]! & kind) !== 0;
const isSpace = (code: number): boolean =>
  code < 128
    ? (CLASSES[code]! & SPACE) !== 0
    : code === 0xa0 || code === 0xfeff || /\s/.test(String.fromCharCode(code));

/** Where a stretch of such characters that begins at a place ends. */
function wordEnd(text: string, at: number): number {
  let end = at;
  while (end < text.length && is(text.charCodeAt(end), IN_WORD)) end++;
  return end;
}

/** Kinds that signs begin, each tried in its order. */
const BY_START: Readonly<Record<string, readonly (readonly [TokenKind, RegExp])[]>> = {
  '@': [['class', CLASS]],
  '\\': [
    ['cid', CID],
    ['escaped', ESCAPED],
  ],
  '"': [['string', STRING]],
  '-': [['number', NUMBER]],
};
const NO_KINDS: readonly (readonly [TokenKind, RegExp])[] = [];

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
    const code = text.charCodeAt(at);
    if (isSpace(code)) {
      at++;
      continue;
    }
    const from = at;
    if (is(code, LETTER)) {
      at = wordEnd(text, at + 1);
      tokens.push({ kind: 'word', text: text.slice(from, at), from, to: at });
      continue;
    }
    const character = text[at]!;
    if (character === '#') {
      at = endOf(COMMENT, text, at);
      comments.push({ from, to: at });
      continue;
    }
    if (is(code, FIGURE) || character === '.') {
      const to = endOf(NUMBER, text, from);
      at = to > from ? to : wordEnd(text, from + 1);
      tokens.push({ kind: to > from ? 'number' : 'word', text: text.slice(from, at), from, to: at });
      continue;
    }
    for (const [kind, pattern] of BY_START[character] ?? NO_KINDS) {
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
