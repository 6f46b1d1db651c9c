import { SaxesParser } from 'saxes';
import { refuse } from '../base/result';
import { LineCounter, scanTags, type Tag, type TagListener } from './tags';

export type XmlAttributes = Readonly<Record<string, string>>;

/** An element with its text (children's text not included) and child elements in order. */
export type XmlElement = {
  name: string;
  attributes: XmlAttributes;
  children: XmlElement[];
  text: string;
  line: number;
};

const DEEPEST = 64;
const decoder = new TextDecoder('utf-8', { fatal: true });

/** UTF-8 text of a file, or a refusal naming it. */
export function textOf(bytes: Uint8Array, file: string): string {
  try {
    return decoder.decode(bytes);
  } catch {
    return refuse(`${file} is not UTF-8 text.`);
  }
}

/**
 * Parses a document into elements. Own entities are never expanded, depth is bounded, and a fault is refused with file
 * and line.
 */
export function parseXml(text: string, file: string): XmlElement {
  return parsed(text, file).root;
}

/** The name of an element that stands for a comment. */
export const COMMENT = '#comment';

/** As {@link parseXml}, comments among the children of elements; those before and behind the whole beside it. */
export function parseXmlWithComments(
  text: string,
  file: string,
): { root: XmlElement; before: string[]; after: string[] } {
  return parsed(text, file, true);
}

function parsed(text: string, file: string, comments = false): { root: XmlElement; before: string[]; after: string[] } {
  const [before, after]: [string[], string[]] = [[], []];
  const quick = new TreeBuilder(file, text);
  // The quick scan leaves off at comments.
  if (scanTags(text, quick) && quick.root) return { root: quick.root, before, after };
  const tree = new TreeBuilder(file, text);
  const parser = new SaxesParser();
  parser.on('error', (error) => refuseXml(error.message, file));
  parser.on('opentag', (tag) => {
    tree.line = parser.line;
    tree.begin(tag.name, tag.attributes as XmlAttributes);
  });
  parser.on('text', (t) => tree.text(t));
  parser.on('cdata', (t) => tree.text(t));
  parser.on('closetag', () => tree.close());
  if (comments)
    parser.on('comment', (said) => {
      if (!tree.root) before.push(said);
      else if (!tree.comment(said)) after.push(said);
    });
  parser.write(text).close();
  return { root: tree.root ?? refuse(`${file} holds no XML element.`), before, after };
}

/** Collects elements into a tree, from the fast scan or from the full parser. */
class TreeBuilder implements TagListener {
  offset = 0;
  line = 1;
  private readonly lines: LineCounter;
  root: XmlElement | undefined;
  private readonly stack: XmlElement[] = [];

  constructor(
    private readonly file: string,
    source: string,
  ) {
    this.lines = new LineCounter(source);
  }

  wantsText(): boolean {
    return true;
  }
  open(tag: Tag): void {
    this.line = this.lines.at(this.offset);
    this.begin(tag.name, tag.all());
  }
  begin(name: string, attributes: XmlAttributes): void {
    const element: XmlElement = { name, attributes, children: [], text: '', line: this.line };
    const parent = this.stack[this.stack.length - 1];
    if (parent) parent.children.push(element);
    else this.root = element;
    if (this.stack.push(element) > DEEPEST)
      refuse(`${this.file}, line ${this.line}: elements are nested more than ${DEEPEST} deep.`);
  }
  text(t: string): void {
    const current = this.stack[this.stack.length - 1];
    if (current) current.text += t;
  }
  /** Puts a comment into the element that is open; whether there is one. */
  comment(text: string): boolean {
    const current = this.stack[this.stack.length - 1];
    current?.children.push({ name: COMMENT, attributes: {}, children: [], text, line: this.line });
    return current !== undefined;
  }
  close(): void {
    this.stack.pop();
  }
}

/** Refuses a document for a fault as the XML parser words it ("3:14: unclosed tag: x"), naming file and line. */
export function refuseXml(message: string, file: string): never {
  const match = /^(\d+):\d+: ([\s\S]*?)\.?$/.exec(message);
  return refuse(`${file}, line ${match?.[1] ?? 1}: ${match?.[2] ?? message}.`);
}

/** Text made safe for element content and attribute values. */
export const escapeXml = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => (c === '&' ? '&amp;' : c === '<' ? '&lt;' : c === '>' ? '&gt;' : '&quot;'));

/** A number as UFO files write it: all its digits, no exponent, no minus before 0; what is nearer to 0 than 1e-9 is 0. */
export function numberText(v: number): string {
  if (Number.isInteger(v)) return String(v === 0 ? 0 : v);
  if (Math.abs(v) < 1e-9) return '0';
  const text = String(v);
  return text.includes('e') ? v.toFixed(12).replace(/0+$/, '').replace(/\.$/, '') : text;
}

/** A number attribute; missing gives `fallback`, anything that is not a finite number is refused with file and line. */
export function numberAttribute(
  element: { attributes: XmlAttributes; name: string; line: number },
  key: string,
  fallback: number | undefined,
  file: string,
): number {
  const text = element.attributes[key];
  if (text === undefined) return fallback ?? refuse(`${file}, line ${element.line}: <${element.name}> has no ${key}.`);
  const v = Number(text);
  if (text.trim() === '' || !Number.isFinite(v) || Math.abs(v) > 1e6) {
    return refuse(
      `${file}, line ${element.line}: ${key}="${text.slice(0, 40)}" of <${element.name}> is not a number that fits.`,
    );
  }
  return v;
}

/** An element as text again, without the white space between its children. */
export function elementText(e: XmlElement): string {
  const attributes = Object.entries(e.attributes).map(([key, value]) => ` ${key}="${escapeXml(value)}"`);
  const inner = escapeXml(e.text.trim()) + e.children.map(elementText).join('');
  return inner === '' ? `<${e.name}${attributes.join('')}/>` : `<${e.name}${attributes.join('')}>${inner}</${e.name}>`;
}

/** An element as text again, each child on a line of its own; an element that holds text stays on one line. */
export function indentedXml(e: XmlElement, indent = ''): string {
  if (e.name === COMMENT) return `${indent}<!--${e.text}-->\n`;
  const attributes = Object.entries(e.attributes).map(([key, value]) => ` ${key}="${escapeXml(value)}"`);
  const head = `${indent}<${e.name}${attributes.join('')}`;
  if (e.children.length === 0 && e.text === '') return `${head}/>\n`;
  if (e.children.every((c) => c.name === COMMENT) && (e.text.trim() !== '' || e.children.length === 0)) {
    const said = e.children.map((c) => `<!--${c.text}-->`).join('');
    return `${head}>${escapeXml(e.text)}${said}</${e.name}>\n`;
  }
  return `${head}>\n${e.children.map((c) => indentedXml(c, `${indent}  `)).join('')}${indent}</${e.name}>\n`;
}
