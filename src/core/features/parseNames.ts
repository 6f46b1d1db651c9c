import type { Cursor } from './cursor';
import type { NameText, Statement } from './tree';

/** Platforms of the name table. */
const MAC = 1;
const WINDOWS = 3;

/** One name: platform, encoding and language (Windows, Unicode, American English where they are left out), and its text. */
export function name(c: Cursor): NameText {
  const { from } = c.now;
  let [platform, encoding, language] = [WINDOWS, 1, 0x409];
  if (c.now.kind === 'number') {
    platform = c.integer('The platform of a name', 0, 3);
    [encoding, language] = platform === MAC ? [0, 0] : [1, 0x409];
    if (c.now.kind === 'number') {
      encoding = c.integer('The encoding of a name', 0, 65535);
      language = c.integer('The language of a name', 0, 65535);
    }
  }
  if (c.now.kind !== 'string') c.fail(`A name stands in quotation marks${c.found()}.`);
  const text = unescaped(c.take().text.slice(1, -1), platform);
  return { platform, encoding, language, text, from, to: c.end };
}

/** Characters written by their numbers: four hexadecimal digits for Windows, two for Macintosh; line ends are left out. */
function unescaped(text: string, platform: number): string {
  const plain = text.replace(/[\r\n]+\s*/g, '');
  return platform === MAC
    ? plain.replace(/\\([0-9A-Fa-f]{2})/g, (_, hex) => macRoman(Number.parseInt(hex, 16)))
    : plain.replace(/\\([0-9A-Fa-f]{4})/g, (_, hex) => String.fromCharCode(Number.parseInt(hex, 16)));
}

const macRoman = (byte: number): string => new TextDecoder('macintosh').decode(Uint8Array.of(byte));

/** A block of names, or one `sizemenuname`. */
export function names(c: Cursor, single: boolean): Statement {
  const token = c.take();
  const of = token.text;
  const list: NameText[] = [];
  if (single) list.push(name(c));
  else {
    c.expect('{', `“${of}”`);
    while (!c.is('}') && !c.isEnd) {
      if (!c.takes('name')) c.fail(`A name begins with “name”${c.found()}.`);
      list.push(name(c));
      c.expect(';', 'A name');
    }
    c.expect('}', `“${of}”`);
  }
  c.expect(';', `“${of}”`);
  return { kind: 'names', of, names: list, from: token.from, to: c.end };
}
