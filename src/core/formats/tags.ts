export type Tag = { name: string; attributes: Readonly<Record<string, string>> };

/** What a tag scan tells: `line` is set before each call. */
export type TagListener = { line: number; open(tag: Tag): void; close(name: string): void; text(text: string): void };

const NAME = /[A-Za-z][\w:.-]*/y;
const ATTRIBUTE = /\s+([A-Za-z][\w:.-]*)="([^"<&]*)"/y;

/**
 * A fast pass over XML made of nothing but plain tags, double-quoted attributes and text without references, as font
 * sources are written. Returns false as soon as it meets anything else (comments, references, CDATA, faults): the caller
 * then reads the document from its beginning with a full parser.
 */
export function scanTags(text: string, listener: TagListener): boolean {
  let at = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  if (text.startsWith('<?xml', at)) at = text.indexOf('?>', at) + 2;
  if (at < 2) return false;
  const open: string[] = [];
  let counted = 0;
  while (at < text.length) {
    const next = text.indexOf('<', at);
    const end = next < 0 ? text.length : next;
    if (end > at) {
      const between = text.slice(at, end);
      if (between.includes('&') || between.includes(']]>')) return false;
      if (open.length > 0) listener.text(between);
      else if (between.trim() !== '') return false;
    }
    if (next < 0) break;
    for (let nl = text.indexOf('\n', counted); nl >= 0 && nl < next; nl = text.indexOf('\n', counted)) {
      listener.line++;
      counted = nl + 1;
    }
    const closing = text.charCodeAt(next + 1) === 47;
    NAME.lastIndex = next + (closing ? 2 : 1);
    const name = NAME.exec(text)?.[0];
    if (name === undefined) return false;
    at = NAME.lastIndex;
    if (closing) {
      if (text.charCodeAt(at) !== 62 || open.pop() !== name) return false;
      at++;
      listener.close(name);
      continue;
    }
    const attributes: Record<string, string> = {};
    ATTRIBUTE.lastIndex = at;
    for (let m = ATTRIBUTE.exec(text); m; m = ATTRIBUTE.exec(text)) {
      attributes[m[1]!] = m[2]!;
      at = ATTRIBUTE.lastIndex;
    }
    while (text.charCodeAt(at) <= 32) at++;
    const empty = text.charCodeAt(at) === 47;
    if (text.charCodeAt(empty ? at + 1 : at) !== 62) return false;
    at += empty ? 2 : 1;
    listener.open({ name, attributes });
    if (empty) listener.close(name);
    else open.push(name);
  }
  return open.length === 0;
}
