/** A set of characters by purpose, or by an older encoding. */
export type CharacterSet = { id: string; title: string; group: 'Purpose' | 'Code page'; codes: readonly number[] };

const codesIn = (text: string): number[] => [...new Set([...text.replace(/ /g, '')].map((c) => c.codePointAt(0)!))];
const range = (from: number, to: number): number[] => Array.from({ length: to - from + 1 }, (_, i) => from + i);

const PURPOSES: readonly (readonly [id: string, title: string, codes: readonly number[]])[] = [
  ['basic-latin', 'Basic Latin', range(0x20, 0x7e)],
  ['figures', 'Figures', codesIn('0123456789')],
  ['superiors', 'Superiors and inferiors', codesIn('⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻⁼⁽⁾ⁿ₀₁₂₃₄₅₆₇₈₉₊₋₌₍₎ªº')],
  ['fractions', 'Fractions', codesIn('⁄½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅐⅛⅜⅝⅞⅑⅒')],
  ['currency', 'Currency', codesIn('$¢£¥€¤ƒ₡₦₩₪₫₭₮₱₲₴₵₸₹₺₼₽₾₿')],
  ['quotes', 'Quotation marks', codesIn('\'"‘’‚‛“”„‟‹›«»')],
  ['dashes', 'Dashes and dots', codesIn('-‐‑‒–—―·•…')],
  ['mathematics', 'Mathematics', codesIn('+−±×÷=≠≈<>≤≥¬∞∂∑∏√∫∆Ωµ∕%‰^~|¦')],
  ['arrows', 'Arrows', codesIn('←↑→↓↔↕↖↗↘↙')],
  ['references', 'Reference marks', codesIn('*†‡§¶№©®™℠℗ªº°′″')],
  ['ligatures', 'Ligatures with a code point', codesIn('ﬀﬁﬂﬃﬄĲĳ')],
  ['roman', 'Roman numerals', codesIn('ⅠⅡⅢⅣⅤⅥⅦⅧⅨⅩⅪⅫ')],
  ['spaces', 'Spaces', [0x20, 0xa0, ...range(0x2000, 0x200a), 0x202f, 0x205f]],
];

/** Older encodings by the labels of the platform's decoders; those of Latin 1, 5 and Thai stand for others there, Latin 10 is not in all. */
const DECODED: readonly (readonly [label: string, title: string])[] = [
  ...([1250, 1251, 1252, 1253, 1254, 1255, 1256, 1257, 1258, 874] as const).map(
    (n) => [`windows-${n}`, `Windows ${n}`] as const,
  ),
  ...[2, 3, 4, 5, 6, 7, 8, 10, 13, 14, 15].map((n) => [`iso-8859-${n}`, `ISO 8859-${n}`] as const),
  ['macintosh', 'Mac Roman'],
];

/** The printable characters of a one-byte encoding, from the platform's own decoder. */
function decoded(label: string): number[] {
  const text = new TextDecoder(label).decode(Uint8Array.from(range(0x20, 0xff)));
  return codesIn(text).filter((c) => c !== 0xfffd && c > 0x20 && !(c >= 0x7f && c < 0xa0));
}

const latin1 = (): number[] => [...range(0x21, 0x7e), ...range(0xa0, 0xff)];
/** Latin 1 with six letters of Icelandic given to Turkish. */
const latin5 = (): number[] => [...latin1().filter((c) => !codesIn('ÐÝÞðýþ').includes(c)), ...codesIn('ĞİŞğış')];

/** Latin 10 of 2001 (ISO 8859-16), for the languages of the south-east of Europe. */
const latin10 = (): number[] => [
  ...range(0x21, 0x7e),
  0xa0,
  ...codesIn('ĄąŁ€„Š§š©Ș«Ź\u00adźŻ°±ČłŽ”¶·žčș»ŒœŸżÀÁÂĂÄĆÆÇÈÉÊËÌÍÎÏĐŃÒÓÔŐÖŚŰÙÚÛÜĘȚßàáâăäćæçèéêëìíîïđńòóôőöśűùúûüęțÿ'),
];

let sets: readonly CharacterSet[] | undefined;

/** All sets: by purpose first, then older encodings. */
export function characterSets(): readonly CharacterSet[] {
  const page = (id: string, title: string, codes: readonly number[]): CharacterSet => ({
    id,
    title,
    group: 'Code page',
    codes,
  });
  sets ??= [
    ...PURPOSES.map(([id, title, codes]): CharacterSet => ({ id, title, group: 'Purpose', codes })),
    ...DECODED.slice(0, 10).map(([label, title]) => page(label, title, decoded(label))),
    page('iso-8859-1', 'ISO 8859-1', latin1()),
    ...DECODED.slice(10, 17).map(([label, title]) => page(label, title, decoded(label))),
    page('iso-8859-9', 'ISO 8859-9', latin5()),
    page('iso-8859-10', 'ISO 8859-10', decoded('iso-8859-10')),
    page(
      'iso-8859-11',
      'ISO 8859-11',
      decoded('windows-874').filter((c) => c < 0x80 || c === 0xa0 || (c >= 0xe00 && c < 0xe80)),
    ),
    ...DECODED.slice(18).map(([label, title]) => page(label, title, decoded(label))),
    page('iso-8859-16', 'ISO 8859-16', latin10()),
  ];
  return sets;
}
