import type { Span, Statement } from './tree';
import { treeOf } from './trees';

const BLANK = /[^\n]/g;

/**
 * A text without some features: their blocks become spaces, so that what stays keeps its lines. A lookup that stands in such a block
 * and is called elsewhere stays, by itself.
 */
export function withoutFeatures(text: string, tags: ReadonlySet<string>): string {
  const goes = treeOf(text).statements.filter(
    (s): s is Extract<Statement, { kind: 'feature' | 'variation' }> =>
      (s.kind === 'feature' || s.kind === 'variation') && tags.has(s.tag.trimEnd()),
  );
  const rest = goes.reduce((left, s) => blanked(left, s), text);
  let out = rest;
  for (const block of goes)
    for (const s of block.body) {
      if (s.kind !== 'lookup' || !new RegExp(`\\blookup\\s+${escaped(s.name)}\\b`).test(rest)) continue;
      out = out.slice(0, s.from) + text.slice(s.from, s.to) + out.slice(s.to);
    }
  return out;
}

const blanked = (text: string, { from, to }: Span): string =>
  text.slice(0, from) + text.slice(from, to).replace(BLANK, ' ') + text.slice(to);

const escaped = (name: string): string => name.replace(/[^\w]/g, '\\$&');
