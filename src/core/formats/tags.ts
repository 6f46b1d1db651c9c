/** A start tag; the scan hands over the same object every time, so it is read at once and not kept. */
export class Tag {
  name = '';
  private readonly keys: string[] = [];
  private readonly values: string[] = [];
  private count = 0;

  /** The value of an attribute, if the tag has it. */
  get(key: string): string | undefined {
    for (let i = 0; i < this.count; i++) if (this.keys[i] === key) return this.values[i];
    return undefined;
  }
  begin(name: string): this {
    this.name = name;
    this.count = 0;
    return this;
  }
  add(key: string, value: string): void {
    this.keys[this.count] = key;
    this.values[this.count++] = value;
  }
}

/** What a tag scan tells: `line` is set before each call; text is told only while it is wanted. */
export type TagListener = { line: number; wantsText(): boolean; open(tag: Tag): void; close(name: string): void; text(text: string): void };

const LF = 10;
const SPACE = 32;
const QUOTE = 34;
const SLASH = 47;
const EQUALS = 61;
const GREATER = 62;

/** Letters, digits, underscore, colon, full stop and hyphen: the names font sources use. */
const isName = (c: number): boolean => (c >= 97 && c <= 122) || (c >= 65 && c <= 90) || (c >= 45 && c <= 58 && c !== SLASH) || c === 95;

/**
 * A fast pass over XML made of nothing but plain tags, double-quoted attributes and text without references, as font
 * sources are written. Returns false as soon as it meets anything else (comments, references, CDATA, faults): the caller
 * then reads the document from its beginning with a full parser.
 */
export function scanTags(text: string, listener: TagListener): boolean {
  if (text.includes('&')) return false;
  let at = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  if (text.startsWith('<?xml', at)) at = text.indexOf('?>', at) + 2;
  if (at < 2) return false;
  const open: string[] = [];
  const tag = new Tag();
  while (at < text.length) {
    const next = text.indexOf('<', at);
    const end = next < 0 ? text.length : next;
    let blank = true;
    for (let i = at; i < end; i++) {
      const c = text.charCodeAt(i);
      if (c === LF) listener.line++;
      if (c > SPACE) blank = false;
    }
    if (open.length > 0 && listener.wantsText()) listener.text(text.slice(at, end));
    else if (!blank && open.length === 0) return false;
    if (next < 0) break;
    const closing = text.charCodeAt(next + 1) === SLASH;
    const nameAt = next + (closing ? 2 : 1);
    at = nameAt;
    while (isName(text.charCodeAt(at))) at++;
    if (at === nameAt) return false;
    const name = text.slice(nameAt, at);
    if (closing) {
      if (text.charCodeAt(at) !== GREATER || open.pop() !== name) return false;
      at++;
      listener.close(name);
      continue;
    }
    tag.begin(name);
    let c = text.charCodeAt(at);
    for (;;) {
      while (c <= SPACE) {
        if (c === LF) listener.line++;
        c = text.charCodeAt(++at);
      }
      if (!isName(c)) break;
      const keyAt = at;
      while (isName(c)) c = text.charCodeAt(++at);
      if (c !== EQUALS || text.charCodeAt(at + 1) !== QUOTE) return false;
      const key = text.slice(keyAt, at);
      const valueAt = at + 2;
      at = text.indexOf('"', valueAt);
      if (at < 0) return false;
      const value = text.slice(valueAt, at);
      if (value.includes('<') || tag.get(key) !== undefined) return false;
      tag.add(key, value);
      c = text.charCodeAt(++at);
    }
    const empty = c === SLASH;
    if (text.charCodeAt(empty ? at + 1 : at) !== GREATER) return false;
    at += empty ? 2 : 1;
    listener.open(tag);
    if (empty) listener.close(name);
    else open.push(name);
  }
  return open.length === 0;
}
