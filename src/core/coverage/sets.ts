import { addTo } from '../base/grouping';
import type { Language } from './languages';

/** Kinds of sets, in the order in which they are shown. */
export const SET_GROUPS = [
  { group: 'Purpose', title: 'By purpose' },
  { group: 'Forms', title: 'Forms of letters and figures' },
  { group: 'Quotes', title: 'Quotation marks of languages' },
  { group: 'Block', title: 'Blocks of Unicode' },
  { group: 'Code page', title: 'Older code pages' },
] as const;
export type SetGroup = (typeof SET_GROUPS)[number]['group'];

/** A set of characters, or of glyphs that have none, by their names. */
export type CharacterSet = {
  id: string;
  title: string;
  group: SetGroup;
  codes: readonly number[];
  names?: readonly string[];
};

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

const FIGURES = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
const SMALL = [...'abcdefghijklmnopqrstuvwxyz'];
/** What stands beside capitals and is drawn higher there. */
const BESIDE_CAPITALS =
  'hyphen endash emdash bullet periodcentered guilsinglleft guilsinglright guillemotleft guillemotright parenleft parenright bracketleft bracketright braceleft braceright at exclamdown questiondown colon'.split(
    ' ',
  );

/** Forms that a feature brings, named by its tag behind a dot. */
const FORMS: readonly (readonly [id: string, title: string, names: readonly string[]])[] = [
  ['lnum', 'Figures as tall as capitals', FIGURES.map((n) => `${n}.lnum`)],
  ['onum', 'Figures with ascenders and descenders', FIGURES.map((n) => `${n}.onum`)],
  ['pnum', 'Figures as wide as they need', FIGURES.map((n) => `${n}.pnum`)],
  ['tnum', 'Figures of one width', FIGURES.map((n) => `${n}.tnum`)],
  ['numr', 'Numerators', FIGURES.map((n) => `${n}.numr`)],
  ['dnom', 'Denominators', FIGURES.map((n) => `${n}.dnom`)],
  ['sinf', 'Figures of formulas, low', FIGURES.map((n) => `${n}.sinf`)],
  ['zero', 'Zero told from O', ['zero.zero']],
  ['small-caps', 'Small capitals', SMALL.map((n) => `${n}.sc`)],
  ['case', 'Signs beside capitals', BESIDE_CAPITALS.map((n) => `${n}.case`)],
  ['ligature-names', 'Ligatures of f', ['f_f', 'f_i', 'f_l', 'f_f_i', 'f_f_l', 'f_b', 'f_h', 'f_j', 'f_k', 'f_t']],
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

/** The sets that are always there: by purpose, by form, older encodings. */
export function characterSets(): readonly CharacterSet[] {
  const page = (id: string, title: string, codes: readonly number[]): CharacterSet => ({
    id,
    title,
    group: 'Code page',
    codes,
  });
  sets ??= [
    ...PURPOSES.map(([id, title, codes]): CharacterSet => ({ id, title, group: 'Purpose', codes })),
    ...FORMS.map(([id, title, names]): CharacterSet => ({ id, title, group: 'Forms', codes: [], names })),
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

/** Quotation marks of languages, a set each; languages that have the same are told together. */
export function quoteSets(languages: readonly Language[]): CharacterSet[] {
  const by = new Map<string, string[]>();
  for (const { quotes, name } of languages) if (quotes) addTo(by, quotes, name);
  return [...by].map(([quotes, names]) => ({
    id: `quotes-${quotes}`,
    title: names.join(', '),
    group: 'Quotes',
    codes: codesIn(quotes),
  }));
}

let blocks: Promise<readonly CharacterSet[]> | undefined;

/** The blocks of Unicode 16 with the characters assigned in them (Unicode License 3.0), loaded when first asked for. */
export function loadBlocks(): Promise<readonly CharacterSet[]> {
  blocks ??= import('./blocks.json').then(({ default: rows }) =>
    (rows as unknown as readonly [string, number, number][]).map(
      ([title, first, last]): CharacterSet => ({
        id: `block-${first.toString(16)}`,
        title,
        group: 'Block',
        codes: range(first, last).filter((c) => !/[\p{Cn}\p{Cc}]/u.test(String.fromCodePoint(c))),
      }),
    ),
  );
  return blocks;
}
