import type { Span } from './tree';

export type TokenKind = 'word' | 'escaped' | 'class' | 'cid' | 'number' | 'string' | 'symbol' | 'end';
export type Token = Span & { kind: TokenKind; text: string };
export type Tokens = {
  tokens: readonly Token[];
  comments: readonly Span[];
  faults: readonly (Span & { reason: string })[];
};

const PIECE = new RegExp(
  [
    '(?<space>[\\s\\u00a0\\ufeff]+)',
    '(?<comment>#[^\\n\\r]*)',
    '(?<string>"[^"]*"?)',
    '(?<class>@[A-Za-z0-9_.\\-]+)',
    '(?<cid>\\\\[0-9]+)',
    '(?<escaped>\\\\[A-Za-z_.][A-Za-z0-9_.+*:^~!\\-]*)',
    '(?<number>-?(?:0[xX][0-9A-Fa-f]+|[0-9]+(?:\\.[0-9]+)?|\\.[0-9]+)(?![A-Za-z_]))',
    '(?<word>[A-Za-z_.0-9][A-Za-z0-9_.+*:^~!\\-/]*)',
    "(?<symbol>[{}()\\[\\]<>;,='\\-:])",
  ].join('|'),
  'uy',
);

/** Faults of single characters beyond this are not told one by one. */
const MOST_FAULTS = 50;

/** Cuts feature text into its words, numbers and signs; what is none of these is told and passed over. */
export function tokensOf(text: string): Tokens {
  const tokens: Token[] = [];
  const comments: Span[] = [];
  const faults: (Span & { reason: string })[] = [];
  let at = 0;
  while (at < text.length) {
    PIECE.lastIndex = at;
    const found = PIECE.exec(text);
    if (!found) {
      const character = String.fromCodePoint(text.codePointAt(at)!);
      if (faults.length < MOST_FAULTS)
        faults.push({ from: at, to: at + character.length, reason: `“${shown(character)}” has no meaning here.` });
      at += character.length;
      continue;
    }
    const to = at + found[0].length;
    const kind = Object.entries(found.groups!).find(([, v]) => v !== undefined)![0];
    if (kind === 'comment') comments.push({ from: at, to });
    else if (kind === 'string' && (found[0].length < 2 || !found[0].endsWith('"'))) {
      faults.push({ from: at, to: at + 1, reason: 'A text in quotation marks begins here and does not end.' });
    } else if (kind !== 'space') tokens.push({ kind: kind as TokenKind, text: found[0], from: at, to });
    at = to;
  }
  tokens.push({ kind: 'end', text: '', from: text.length, to: text.length });
  return { tokens, comments, faults };
}

const shown = (character: string): string =>
  /\p{C}/u.test(character) ? `U+${character.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}` : character;
