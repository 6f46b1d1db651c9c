/** Repeatable random numbers, 0 to 1 (mulberry32). */
export function random(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const TELLING = [0, 1, 0x7f, 0x80, 0xff, 0x7fff, 0x8000, 0xffff, 0x7fffffff, 0x80000000, 0xffffffff];

/** A damaged copy: cut short, bytes turned, numbers set to telling values, stretches copied elsewhere; headers are hit more often. */
export function mutated(bytes: Uint8Array, seed: number): Uint8Array {
  const next = random(seed);
  const out = bytes.slice(0, next() < 0.12 ? Math.floor(next() * bytes.length) : bytes.length);
  const view = new DataView(out.buffer);
  const place = () => Math.floor(next() * (next() < 0.4 ? Math.min(out.length, 600) : out.length));
  const times = 1 + Math.floor(next() * next() * 24);
  for (let i = 0; i < times && out.length > 8; i++) {
    const at = Math.min(place(), out.length - 4);
    const value = TELLING[Math.floor(next() * TELLING.length)]!;
    const kind = next();
    if (kind < 0.35) out[at] = Math.floor(next() * 256);
    else if (kind < 0.65) view.setUint16(at, value & 0xffff);
    else if (kind < 0.85) view.setUint32(at, value >>> 0);
    else out.copyWithin(at, place(), Math.min(out.length, place() + 64));
  }
  return out;
}

const WORDS = [
  '1e999',
  '-',
  'NaN',
  '99999999999999',
  '',
  '-0',
  '0x10',
  '<',
  '>',
  '&',
  '&#0;',
  '&lol;',
  ']]>',
  '"',
  '<!--',
  '<!DOCTYPE a [<!ENTITY b "c">]>',
  '<dict>',
  '</dict>',
  '<array>',
  '../..',
  '\u0000',
  'curve',
];

/** A damaged copy of text: cut short, stretches doubled, taken out or moved, numbers and words changed for telling ones. */
export function mutatedText(bytes: Uint8Array, seed: number): Uint8Array {
  const next = random(seed);
  let text = new TextDecoder().decode(bytes);
  const place = () => Math.floor(next() * text.length);
  const times = 1 + Math.floor(next() * next() * 8);
  for (let i = 0; i < times; i++) {
    const at = place();
    const end = Math.min(text.length, at + 1 + Math.floor(next() * next() * 200));
    const word = WORDS[Math.floor(next() * WORDS.length)]!;
    const kind = next();
    if (kind < 0.1) text = text.slice(0, at);
    else if (kind < 0.25) text = text.slice(0, at) + text.slice(end);
    else if (kind < 0.4) text = text.slice(0, end) + text.slice(at);
    else if (kind < 0.7) text = text.slice(0, at) + text.slice(at).replace(/-?\d+(\.\d+)?/, word);
    else if (kind < 0.85) text = text.slice(0, at) + text.slice(at).replace(/"[^"]*"/, `"${word}"`);
    else text = text.slice(0, at) + word + text.slice(at);
  }
  return new TextEncoder().encode(text);
}
