import type { Span } from './tree';

/** A place where what was looked for stands, with the line around it. */
export type FoundPlace = Span & { id: string; line: number; before: string; found: string; after: string };
export type FoundPlaces = {
  places: readonly FoundPlace[];
  /** How many there are, though not all are listed. */
  count: number;
  /** Only whole names were looked for, since one stands there. */
  whole: boolean;
};

/** Places beyond this are counted. */
const MOST = 400;
/** So much of a line is shown around what was found. */
const AROUND = 28;

const IN_NAME = /[A-Za-z0-9_.@-]/;

/**
 * Where a text stands in sections; names tell capitals from small letters, and so does this. Where it is a whole name (of a glyph, a
 * class …) somewhere, only whole names count, unless `parts` are wanted too.
 */
export function findIn(texts: readonly { id: string; text: string }[], wanted: string, parts = false): FoundPlaces {
  if (wanted === '') return { places: [], count: 0, whole: false };
  const all = texts.flatMap(({ id, text }) => placesOf(text, wanted).map((from) => ({ id, text, from })));
  const names = all.filter(({ text, from }) => isWhole(text, from, from + wanted.length));
  const whole = names.length > 0 && names.length < all.length && !parts;
  const found = whole ? names : all;
  return {
    count: found.length,
    whole,
    places: found.slice(0, MOST).map(({ id, text, from }) => {
      const to = from + wanted.length;
      const start = text.lastIndexOf('\n', from - 1) + 1;
      const end = text.indexOf('\n', to) < 0 ? text.length : text.indexOf('\n', to);
      return {
        id,
        from,
        to,
        line: text.slice(0, from).split('\n').length,
        before: text.slice(Math.max(start, from - AROUND), from).trimStart(),
        found: text.slice(from, to),
        after: text.slice(to, Math.min(end, to + AROUND)),
      };
    }),
  };
}

function placesOf(text: string, wanted: string): number[] {
  const out: number[] = [];
  for (let at = text.indexOf(wanted); at >= 0; at = text.indexOf(wanted, at + wanted.length)) out.push(at);
  return out;
}

const isWhole = (text: string, from: number, to: number): boolean =>
  !IN_NAME.test(text[from - 1] ?? ' ') && !IN_NAME.test(text[to] ?? ' ');
