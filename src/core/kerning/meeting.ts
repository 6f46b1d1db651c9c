import type { Glyph } from '../project/model';

/** What a character is in running text, as far as it decides beside what it can stand. */
export type TextKind = {
  /** Its script; '' for what all scripts share. */
  script: string;
  kind: 'capital' | 'small' | 'letter' | 'figure' | 'opening' | 'closing' | 'dash' | 'stop' | 'sign';
  /** How often text has such characters, from 1 for the plain alphabet down. */
  weight: number;
};

const SCRIPTS = [
  'Latin',
  'Greek',
  'Cyrillic',
  'Armenian',
  'Georgian',
  'Hebrew',
  'Arabic',
  'Devanagari',
  'Thai',
  'Ethiopic',
  'Cherokee',
].map((name) => [name, new RegExp(`\\p{Script=${name}}`, 'u')] as const);

/** Blocks of letters that whole languages write with; all others are for scholars and phoneticians. */
const COMMON: readonly (readonly [number, number, number])[] = [
  [0x20, 0x7e, 1],
  [0xa0, 0xff, 0.5],
  [0x100, 0x17f, 0.3],
  [0x386, 0x3ce, 0.5],
  [0x400, 0x45f, 0.5],
  [0x490, 0x4ff, 0.1],
  [0x218, 0x21b, 0.2],
  [0x1e80, 0x1e85, 0.1],
  [0x1ea0, 0x1ef9, 0.1],
  [0x2010, 0x2026, 0.5],
  [0x5d0, 0x6d3, 0.5],
];
const RARE = 0.01;

const known = new WeakMap<Glyph, TextKind>();

/** What a glyph is in running text; one without a character goes by nothing and stands beside nothing. */
export function textKind(glyph: Glyph): TextKind {
  let found = known.get(glyph);
  if (!found) {
    found = kindOf(glyph.unicodes[0] ?? 0x20);
    known.set(glyph, found);
  }
  return found;
}

function kindOf(code: number): TextKind {
  const character = String.fromCodePoint(code);
  const is = (property: RegExp) => property.test(character);
  const weight = COMMON.find(([from, to]) => code >= from && code <= to)?.[2] ?? RARE;
  const letter = is(/\p{L}/u);
  const script = letter ? (SCRIPTS.find(([, s]) => is(s))?.[0] ?? 'other') : '';
  const kind = letter
    ? is(/\p{Lu}|\p{Lt}/u)
      ? 'capital'
      : is(/\p{Ll}/u)
        ? 'small'
        : 'letter'
    : is(/\p{N}/u)
      ? 'figure'
      : is(/[\p{Ps}\p{Pi}¡¿‚„]/u)
        ? 'opening'
        : is(/[\p{Pe}\p{Pf}'"]/u)
          ? 'closing'
          : is(/\p{Pd}/u)
            ? 'dash'
            : is(/[.,…]/)
              ? 'stop'
              : 'sign';
  return { script, kind, weight };
}

const isLetter = ({ kind }: TextKind): boolean => kind === 'capital' || kind === 'small' || kind === 'letter';

/**
 * Can running text hold these two, one right after the other? Letters of one script, cases as they meet in words (no capital
 * after a small letter); letters and figures with the signs around them; not a phonetic letter
 * before a rare one.
 */
export function canMeet(a: TextKind, b: TextKind): boolean {
  if (isLetter(a) && isLetter(b)) {
    if (a.script !== b.script || (a.weight <= RARE && b.weight <= RARE)) return false;
    return !(a.kind === 'small' && b.kind === 'capital');
  }
  if (a.weight <= RARE && b.weight <= RARE) return false;
  if (a.kind === 'figure' && b.kind === 'figure') return true;
  if (a.kind === 'figure' || b.kind === 'figure') {
    const other = a.kind === 'figure' ? b : a;
    return isLetter(other) ? other.weight === 1 && other.kind === 'capital' : true;
  }
  if (isLetter(a)) return b.kind !== 'opening' || b.weight === 1;
  // A stop or a colon is followed by a space, but for initials: J.W.
  if (isLetter(b))
    return a.kind === 'stop' ? b.kind === 'capital' : a.kind !== 'sign' && (a.kind !== 'closing' || a.weight === 1);
  // Signs with signs: quotation marks with stops, quotation marks and brackets with each other.
  const around = (k: TextKind) => k.kind === 'opening' || k.kind === 'closing';
  if (a.weight <= RARE || b.weight <= RARE) return false;
  return around(a) ? around(b) || b.kind === 'stop' : a.kind === 'stop' && around(b);
}
