import { tokensOf } from './tokens';
import type { Span } from './tree';

/** Names that feature text itself gives: classes (with their @) and lookups. */
export type SymbolKind = 'class' | 'lookup';
/** One place where such a name stands; its span is that of the name alone. */
export type SymbolPlace = Span & { kind: SymbolKind; name: string; defines: boolean };

/** Every class and lookup that a text names, in the order of the text; strings and comments are passed over. */
export function symbolsIn(text: string): SymbolPlace[] {
  const { tokens } = tokensOf(text);
  const out: SymbolPlace[] = [];
  /** Names of the blocks that are open; nothing for blocks that are no lookups. */
  const open: (string | undefined)[] = [];
  const is = (i: number, sign: string) => tokens[i]?.kind === 'symbol' && tokens[i].text === sign;
  const push = (i: number, kind: SymbolKind, defines: boolean) => {
    const { from, to, text: name } = tokens[i]!;
    out.push({ kind, name, from, to, defines });
  };
  for (let i = 0; i < tokens.length; i++) {
    const t = tokens[i]!;
    if (t.kind === 'class') {
      push(i, 'class', is(i + 1, '=') || closesMarkClass(tokens, i));
    } else if (t.kind === 'word' && t.text === 'lookup' && tokens[i + 1]?.kind === 'word') {
      const block = is(i + 2, '{') || (tokens[i + 2]?.text === 'useExtension' && is(i + 3, '{'));
      push(i + 1, 'lookup', block);
      if (block) {
        open.push(tokens[i + 1]!.text);
        i += is(i + 2, '{') ? 2 : 3;
      } else i++;
    } else if (is(i, '{')) open.push(undefined);
    else if (is(i, '}')) {
      const name = open.pop();
      if (name !== undefined && tokens[i + 1]?.text === name) push(++i, 'lookup', false);
    }
  }
  return out;
}

/** Whether the class at a token is the one that a `markClass` statement adds to: its last word. */
function closesMarkClass(tokens: ReturnType<typeof tokensOf>['tokens'], at: number): boolean {
  if (tokens[at + 1]?.text !== ';') return false;
  for (let i = at - 1; i >= 0 && tokens[i]!.text !== ';' && tokens[i]!.text !== '{' && tokens[i]!.text !== '}'; i--)
    if (tokens[i]!.kind === 'word' && tokens[i]!.text === 'markClass') return true;
  return false;
}

/** What is no rule: comments and strings. */
const ASIDE = /#[^\n]*|"[^"]*"/g;
const NAME = '[A-Za-z0-9_.-]+';
const DEFINED = new RegExp(
  `(@${NAME})\\s*=|\\bmarkClass\\b[^;{}]*?(@${NAME})\\s*;|\\blookup\\s+(${NAME})\\s*(?:useExtension\\s*)?\\{`,
  'g',
);

/** The classes and lookups that a text defines, each once, without reading all of its rules: of a million letters in some milliseconds. */
export function definedIn(text: string): Pick<SymbolPlace, 'kind' | 'name'>[] {
  const out = new Map<string, Pick<SymbolPlace, 'kind' | 'name'>>();
  for (const [, set, marks, lookup] of text.replace(ASIDE, ' ').matchAll(DEFINED)) {
    const name = set ?? marks ?? lookup!;
    out.set(`${lookup === undefined} ${name}`, { kind: lookup === undefined ? 'class' : 'lookup', name });
  }
  return [...out.values()];
}

/** The class or lookup whose name stands at a place of a text, its ends included. */
export function symbolAt(text: string, at: number): SymbolPlace | undefined {
  // Most words are neither, which their surroundings tell without reading the whole text.
  let from = at;
  while (from > 0 && /[A-Za-z0-9_.@-]/.test(text[from - 1]!)) from--;
  const isClass = text[from] === '@';
  if (!isClass && !/(\blookup|\})\s*$/.test(text.slice(Math.max(0, from - 200), from).replace(/#[^\n]*(\n|$)/g, ' ')))
    return undefined;
  return symbolsIn(text).find((s) => s.from <= at && at <= s.to);
}

/** Whether two places name the same thing: a lookup and a class are told apart. */
export const isSame = (a: Pick<SymbolPlace, 'kind' | 'name'>, b: Pick<SymbolPlace, 'kind' | 'name'>): boolean =>
  a.kind === b.kind && a.name === b.name;

/** A text with one class or lookup named otherwise throughout. */
export function withSymbol(text: string, symbol: Pick<SymbolPlace, 'kind' | 'name'>, to: string): string {
  let out = text;
  for (const s of symbolsIn(text).reverse()) if (isSame(s, symbol)) out = out.slice(0, s.from) + to + out.slice(s.to);
  return out;
}
