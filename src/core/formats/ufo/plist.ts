import { refuse } from '../../base/result';
import type { Lib, LibValue } from '../../project/model';
import { escapeXml, numberText, parseXml, type XmlElement } from '../xml';

/** Reads an XML property list whose top is a dictionary. Faults are refused with file and line. */
export function readPlistDict(text: string, file: string): Lib {
  const value = readPlist(text, file);
  if (!isDict(value)) refuse(`${file} should hold a dictionary.`);
  return value as Lib;
}

/** Reads an XML property list. */
export function readPlist(text: string, file: string): LibValue {
  const root = parseXml(text, file);
  const only = root.children[0];
  if (root.name !== 'plist' || !only) refuse(`${file} is not a property list.`);
  return plistValue(only as XmlElement, file);
}

/** The value of one property list element. */
export function plistValue(e: XmlElement, file: string): LibValue {
  const bad = (what: string): never => refuse(`${file}, line ${e.line}: ${what}`);
  switch (e.name) {
    case 'string':
      return e.text;
    case 'integer':
    case 'real': {
      const v = Number(e.text);
      return e.text.trim() !== '' && Number.isFinite(v) ? v : bad(`“${e.text.slice(0, 40)}” is not a number.`);
    }
    case 'true':
      return true;
    case 'false':
      return false;
    case 'date':
      return { [DATE]: e.text };
    case 'data':
      return base64ToBytes(e.text) ?? bad('the data is not base64.');
    case 'array':
      return e.children.map((c) => plistValue(c, file));
    case 'dict': {
      const dict: Record<string, LibValue> = {};
      for (let i = 0; i < e.children.length; i += 2) {
        const key = e.children[i]!;
        const value = e.children[i + 1];
        if (key.name !== 'key' || !value) return bad('a dictionary entry lacks its key or value.');
        // The one key that plain assignment would take for something else.
        if (key.text === '__proto__')
          Object.defineProperty(dict, key.text, {
            value: plistValue(value, file),
            enumerable: true,
            writable: true,
            configurable: true,
          });
        else dict[key.text] = plistValue(value, file);
      }
      return dict;
    }
    default:
      return bad(`<${e.name}> does not belong in a property list.`);
  }
}

export const isDict = (v: LibValue | undefined): v is Lib =>
  typeof v === 'object' && v !== null && !Array.isArray(v) && !(v instanceof Uint8Array);

/** The key that marks a dictionary as a date. */
const DATE = '$date';

/** A property list document; dictionary keys in the order they have. */
export function writePlist(value: LibValue): string {
  const head =
    '<?xml version="1.0" encoding="UTF-8"?>\n<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">\n';
  return `${head}<plist version="1.0">\n${plistElement(value, '  ')}\n</plist>\n`;
}

/** One value as an indented property list element. */
export function plistElement(v: LibValue, indent: string): string {
  if (typeof v === 'string') return `${indent}<string>${escapeXml(v)}</string>`;
  if (typeof v === 'number')
    return Number.isInteger(v) ? `${indent}<integer>${v}</integer>` : `${indent}<real>${plainDecimal(v)}</real>`;
  if (typeof v === 'boolean') return `${indent}<${v}/>`;
  if (v instanceof Uint8Array) return `${indent}<data>${bytesToBase64(v)}</data>`;
  if (Array.isArray(v)) {
    if (v.length === 0) return `${indent}<array/>`;
    return `${indent}<array>\n${v.map((item) => plistElement(item, `${indent}  `)).join('\n')}\n${indent}</array>`;
  }
  const dict = v as Lib;
  const date = dict[DATE];
  if (typeof date === 'string') return `${indent}<date>${escapeXml(date)}</date>`;
  const keys = Object.keys(dict);
  if (keys.length === 0) return `${indent}<dict/>`;
  const entries = keys.map((k) => `${indent}  <key>${escapeXml(k)}</key>\n${plistElement(dict[k]!, `${indent}  `)}`);
  return `${indent}<dict>\n${entries.join('\n')}\n${indent}</dict>`;
}

const plainDecimal = (v: number): string => (String(v).includes('e') ? numberText(v) : String(v));

const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

export function bytesToBase64(bytes: Uint8Array): string {
  let out = '';
  for (let i = 0; i < bytes.length; i += 3) {
    const b = [bytes[i]!, bytes[i + 1], bytes[i + 2]];
    const word = (b[0]! << 16) | ((b[1] ?? 0) << 8) | (b[2] ?? 0);
    out += DIGITS[word >> 18]! + DIGITS[(word >> 12) & 63]!;
    out += (b[1] === undefined ? '=' : DIGITS[(word >> 6) & 63]!) + (b[2] === undefined ? '=' : DIGITS[word & 63]!);
  }
  return out;
}

export function base64ToBytes(text: string): Uint8Array | undefined {
  const clean = text.replace(/\s+/g, '').replace(/=+$/, '');
  const out = new Uint8Array(Math.floor((clean.length * 3) / 4));
  let bits = 0;
  let word = 0;
  let at = 0;
  for (const c of clean) {
    const digit = DIGITS.indexOf(c);
    if (digit < 0) return undefined;
    word = (word << 6) | digit;
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      out[at++] = (word >> bits) & 255;
    }
  }
  return out;
}
