/** Names that font sources repeat thousands of times; the scan makes no new string for these. */
const FREQUENT = [
  'x',
  'y',
  'type',
  'smooth',
  'name',
  'point',
  'contour',
  'outline',
  'component',
  'base',
  'xOffset',
  'yOffset',
  'advance',
  'width',
  'unicode',
  'hex',
  'glyph',
  'format',
  'anchor',
  'identifier',
];
const byLength: string[][] = [];
for (const name of FREQUENT) {
  byLength[name.length] ??= [];
  byLength[name.length]!.push(name);
}

function nameAt(text: string, start: number, end: number): string {
  for (const name of byLength[end - start] ?? []) if (text.startsWith(name, start)) return name;
  return text.slice(start, end);
}

/**
 * A start tag. The scan hands over the same object every time, so it is read at once and not kept. Values are cut out of
 * the text, or read as numbers in place, only when they are asked for.
 */
export class Tag {
  name = '';
  private text = '';
  private readonly keys: string[] = [];
  private readonly starts: number[] = [];
  private readonly ends: number[] = [];
  private count = 0;

  private find(key: string): number {
    for (let i = 0; i < this.count; i++) if (this.keys[i] === key) return i;
    return -1;
  }
  /** The value of an attribute, if the tag has it. */
  get(key: string): string | undefined {
    const i = this.find(key);
    return i < 0 ? undefined : this.text.slice(this.starts[i], this.ends[i]);
  }
  /** Every attribute with its value. */
  all(): Record<string, string> {
    const out: Record<string, string> = {};
    for (let i = 0; i < this.count; i++) out[this.keys[i]!] = this.text.slice(this.starts[i], this.ends[i]);
    return out;
  }
  has(key: string): boolean {
    return this.find(key) >= 0;
  }
  /** The value as a number: undefined when the tag has no such attribute, NaN when it is not a number. */
  number(key: string): number | undefined {
    const i = this.find(key);
    return i < 0 ? undefined : readNumber(this.text, this.starts[i]!, this.ends[i]!);
  }
  begin(name: string, text: string): this {
    this.name = name;
    this.text = text;
    this.count = 0;
    return this;
  }
  /** An attribute whose value lies in the text from `start` to `end`. */
  add(key: string, start: number, end: number): void {
    this.keys[this.count] = key;
    this.starts[this.count] = start;
    this.ends[this.count++] = end;
  }
}

/** Plain whole numbers are summed up digit by digit; anything else goes through the language's own reading. */
function readNumber(text: string, start: number, end: number): number {
  const negative = text.charCodeAt(start) === 45;
  let value = 0;
  let at = negative ? start + 1 : start;
  if (at === end || end - at > 9) return slowNumber(text, start, end);
  for (; at < end; at++) {
    const digit = text.charCodeAt(at) - 48;
    if (digit < 0 || digit > 9) return slowNumber(text, start, end);
    value = value * 10 + digit;
  }
  return negative ? -value || 0 : value;
}

function slowNumber(text: string, start: number, end: number): number {
  const part = text.slice(start, end);
  return part.trim() === '' ? Number.NaN : Number(part);
}

/** What a tag scan tells: `offset` is where the current tag begins in the text; text is told only while it is wanted. */
export type TagListener = { offset: number; wantsText(): boolean; open(tag: Tag): void; close(name: string): void; text(text: string): void };

const SPACE = 32;
const QUOTE = 34;
const SLASH = 47;
const LESS = 60;
const EQUALS = 61;
const GREATER = 62;

/** Letters, digits, underscore, colon, full stop and hyphen: the names font sources use. */
const isName = (c: number): boolean => (c >= 97 && c <= 122) || (c >= 65 && c <= 90) || (c >= 45 && c <= 58 && c !== SLASH) || c === 95;

/**
 * A fast pass over XML made of nothing but plain tags, double-quoted attributes and text without references, as font
 * sources are written. Returns false as soon as it meets anything else (comments, references, CDATA, an own DTD, faults): the caller
 * then reads the document from its beginning with a full parser.
 */
export function scanTags(text: string, listener: TagListener): boolean {
  if (text.includes('&')) return false;
  let at = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  if (text.startsWith('<?xml', at)) {
    const end = text.indexOf('?>', at);
    if (end < 0) return false;
    at = end + 2;
  }
  const doctype = /^\s*<!DOCTYPE[^[>]*>/.exec(text.slice(at, at + 300));
  if (doctype) at += doctype[0].length;
  let rooted = false;
  const open: string[] = [];
  const tag = new Tag();
  while (at < text.length) {
    const next = text.indexOf('<', at);
    const end = next < 0 ? text.length : next;
    if (open.length === 0) {
      if (text.slice(at, end).trim() !== '') return false;
    } else if (listener.wantsText()) listener.text(text.slice(at, end));
    if (next < 0) break;
    listener.offset = next;
    const closing = text.charCodeAt(next + 1) === SLASH;
    const nameStart = next + (closing ? 2 : 1);
    at = nameStart;
    while (isName(text.charCodeAt(at))) at++;
    if (at === nameStart) return false;
    const name = nameAt(text, nameStart, at);
    if (closing) {
      if (text.charCodeAt(at) !== GREATER || open.pop() !== name) return false;
      at++;
      listener.close(name);
      continue;
    }
    if (open.length === 0 && rooted) return false;
    rooted = true;
    tag.begin(name, text);
    let c = text.charCodeAt(at);
    for (;;) {
      while (c <= SPACE) {
        c = text.charCodeAt(++at);
      }
      if (!isName(c)) break;
      const keyAt = at;
      while (isName(c)) c = text.charCodeAt(++at);
      if (c !== EQUALS || text.charCodeAt(at + 1) !== QUOTE) return false;
      const key = nameAt(text, keyAt, at);
      const valueAt = at + 2;
      at = text.indexOf('"', valueAt);
      if (at < 0) return false;
      for (let i = valueAt; i < at; i++) if (text.charCodeAt(i) === LESS) return false;
      if (tag.has(key)) return false;
      tag.add(key, valueAt, at);
      c = text.charCodeAt(++at);
    }
    const empty = c === SLASH;
    if (text.charCodeAt(empty ? at + 1 : at) !== GREATER) return false;
    at += empty ? 2 : 1;
    listener.open(tag);
    if (empty) listener.close(name);
    else open.push(name);
  }
  return rooted && open.length === 0;
}

/** The line, counted from 1, that an offset lies on. */
export function lineAt(text: string, offset: number): number {
  let line = 1;
  for (let at = text.indexOf('\n'); at >= 0 && at < offset; at = text.indexOf('\n', at + 1)) line++;
  return line;
}
