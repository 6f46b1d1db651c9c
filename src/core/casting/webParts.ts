import type { Project } from '../project/model';
import { glyphsInOrder } from '../project/queries';
import type { Wanted } from './subset';

/** A part of a web font that a browser loads only for pages with its characters. */
export type WebPart = { name: string; range: string; has: Wanted };

/** Parts by what pages are written in; the first that has a character holds it. */
const PARTS: readonly (readonly [name: string, ranges: readonly (readonly [first: number, last: number])[]])[] = [
  [
    'latin',
    [
      [0x20, 0x7e],
      [0xa0, 0xff],
      [0x131, 0x131],
      [0x152, 0x153],
      [0x2c6, 0x2c7],
      [0x2d8, 0x2dd],
      [0x2010, 0x2015],
      [0x2018, 0x2022],
      [0x2026, 0x2026],
      [0x2030, 0x2030],
      [0x2039, 0x203a],
      [0x20ac, 0x20ac],
      [0x2122, 0x2122],
      [0x2212, 0x2212],
    ],
  ],
  [
    'latin-further',
    [
      [0x100, 0x24f],
      [0x250, 0x2ff],
      [0x300, 0x36f],
      [0x1d00, 0x1dff],
      [0x1e00, 0x1eff],
      [0x2c60, 0x2c7f],
      [0xa720, 0xa7ff],
    ],
  ],
  [
    'greek',
    [
      [0x370, 0x3ff],
      [0x1f00, 0x1fff],
    ],
  ],
  [
    'cyrillic',
    [
      [0x400, 0x52f],
      [0x1c80, 0x1c8f],
      [0x2de0, 0x2dff],
      [0xa640, 0xa69f],
    ],
  ],
  ['others', [[0, 0x10ffff]]],
];

const hex = (c: number): string => c.toString(16).toUpperCase().padStart(4, '0');

/** Code points as style sheets write them: `U+0041-005A, U+0061`. */
export function unicodeRange(codes: readonly number[]): string {
  const sorted = [...new Set(codes)].sort((a, b) => a - b);
  const runs: [number, number][] = [];
  for (const c of sorted) {
    const last = runs[runs.length - 1];
    if (last && last[1] === c - 1) last[1] = c;
    else runs.push([c, c]);
  }
  return runs.map(([a, b]) => (a === b ? `U+${hex(a)}` : `U+${hex(a)}-${hex(b)}`)).join(', ');
}

/** The parts that a project’s fonts come in, those without a character left out. */
export function webParts(project: Project): WebPart[] {
  const codes = glyphsInOrder(project).flatMap((g) => (g.cast ? g.unicodes : []));
  const taken = new Set<number>();
  return PARTS.flatMap(([name, ranges]): WebPart[] => {
    const own = codes.filter((c) => !taken.has(c) && ranges.some(([a, b]) => c >= a && c <= b));
    for (const c of own) taken.add(c);
    if (own.length === 0) return [];
    // Marks serve letters of every part.
    const marks = codes.filter((c) => c >= 0x300 && c <= 0x36f);
    return [{ name, range: unicodeRange(own), has: { codes: new Set([...own, ...marks]), names: new Set() } }];
  });
}
