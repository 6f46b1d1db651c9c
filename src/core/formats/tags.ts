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
/** The one frequent name of a length and first letter. */
const frequentAt: string[] = [];
for (const name of FREQUENT) frequentAt[name.length * 128 + name.charCodeAt(0)] = name;

function nameAt(text: string, start: number, end: number): string {
  const name = end - start < 12 ? frequentAt[(end - start) * 128 + text.charCodeAt(start)] : undefined;
  return name !== undefined && text.startsWith(name, start) ? name : text.slice(start, end);
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
  /** How many attributes the tag has. */
  count = 0;

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

/**
 * Plain decimal numbers of up to 15 digits are summed up digit by digit. The digits and the power of ten are both exact,
 * so their quotient is the correctly rounded value; anything else goes through the language's own reading.
 */
function readNumber(text: string, start: number, end: number): number {
  const negative = text.charCodeAt(start) === 45;
  const first = negative ? start + 1 : start;
  let value = 0;
  let point = -1;
  if (first >= end || end - first > 16) return slowNumber(text, start, end);
  for (let at = first; at < end; at++) {
    const digit = text.charCodeAt(at) - 48;
    if (digit >= 0 && digit <= 9) value = value * 10 + digit;
    else if (digit === -2 && point < 0 && at > first && at < end - 1) point = at;
    else return slowNumber(text, start, end);
  }
  if (point >= 0) value /= 10 ** (end - point - 1);
  return negative ? -value || 0 : value;
}

function slowNumber(text: string, start: number, end: number): number {
  const part = text.slice(start, end);
  return part.trim() === '' ? Number.NaN : Number(part);
}

/**
 * What a tag scan tells: `offset` is where the current tag begins in the text; text is told only while it is wanted.
 * `readOn` may read tags by itself from an offset on, and says where it stopped (at the offset when it reads none).
 */
export type TagListener = {
  offset: number;
  wantsText(): boolean;
  readOn?(text: string, at: number): number;
  open(tag: Tag): void;
  close(name: string): void;
  text(text: string): void;
};

const SPACE = 32;
const QUOTE = 34;
const SLASH = 47;
const EQUALS = 61;
const GREATER = 62;

/** Letters, digits, underscore, colon, full stop and hyphen: the names font sources use. */
const isName = (c: number): boolean =>
  (c >= 97 && c <= 122) || (c >= 65 && c <= 90) || (c >= 45 && c <= 58 && c !== SLASH) || c === 95;

const REFERENCES: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

/** Text between tags as it is meant: line ends alike, XML's own five references resolved; undefined with any other. */
function meant(text: string): string | undefined {
  let plain = true;
  const resolved = text.replace(/\r\n?|&(?:(\w+);)?/g, (found, name: string | undefined) => {
    if (found[0] === '\r') return '\n';
    const character = name !== undefined && Object.hasOwn(REFERENCES, name) ? REFERENCES[name] : undefined;
    plain &&= character !== undefined;
    return character ?? '';
  });
  return plain ? resolved : undefined;
}

/**
 * A fast pass over XML made of nothing but plain tags, double-quoted attributes and text, as font sources are written.
 * Returns false as soon as it meets anything else (comments, references but the common five in texts, CDATA, an own DTD,
 * faults): the caller then reads the document from its beginning with a full parser.
 */
export function scanTags(text: string, listener: TagListener): boolean {
  const special = text.includes('&') || text.includes('\r');
  let at = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  if (text.startsWith('<?xml', at)) {
    const end = text.indexOf('?>', at);
    if (end < 0) return false;
    at = end + 2;
  }
  const doctype = /^\s*<!DOCTYPE[^[>]*>/.exec(text.slice(at, at + 300));
  if (doctype) at += doctype[0].length;
  let rooted = false;
  // Where the tag after the current one begins; no value may reach beyond it.
  let following = -1;
  const open: string[] = [];
  const tag = new Tag();
  while (at < text.length) {
    const next = following >= at ? following : text.indexOf('<', at);
    const end = next < 0 ? text.length : next;
    if (open.length === 0) {
      if (text.slice(at, end).trim() !== '') return false;
    } else if (special) {
      const said = meant(text.slice(at, end));
      if (said === undefined) return false;
      if (listener.wantsText()) listener.text(said);
    } else if (listener.wantsText()) listener.text(text.slice(at, end));
    if (next < 0) break;
    const reached = listener.readOn?.(text, next) ?? next;
    if (reached > next) {
      at = reached;
      continue;
    }
    listener.offset = next;
    following = text.indexOf('<', next + 1);
    const closing = text.charCodeAt(next + 1) === SLASH;
    const nameStart = next + (closing ? 2 : 1);
    at = nameStart;
    while (isName(text.charCodeAt(at))) at++;
    // A name begins with a letter or underscore.
    if (at === nameStart || text.charCodeAt(nameStart) < 65) return false;
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
      if ((following >= 0 && at > following) || tag.has(key)) return false;
      if (special && /[&\r]/.test(text.slice(valueAt, at))) return false;
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

/** Counts lines, from 1, for offsets asked for in rising order; each stretch of text is looked at once. */
export class LineCounter {
  private line = 1;
  private counted = 0;

  constructor(private readonly text: string) {}

  at(offset: number): number {
    for (let at = this.text.indexOf('\n', this.counted); at >= 0 && at < offset; at = this.text.indexOf('\n', at + 1)) {
      this.line++;
      this.counted = at + 1;
    }
    return this.line;
  }
}
