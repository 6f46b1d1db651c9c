import type { Anchor } from '../src/core/project/model';
import { type Letter, span } from './letter';
import type { Style } from './style';

/** Where marks sit on a letter, as shares of its ink's width from the left; the middle where nothing is said. */
const TOP: Readonly<Record<string, number>> = {
  A: 0.5,
  B: 0.46,
  D: 0.46,
  E: 0.5,
  F: 0.48,
  J: 0.72,
  K: 0.5,
  L: 0.17,
  P: 0.46,
  R: 0.46,
  S: 0.5,
  a: 0.52,
  d: 0.2,
  h: 0.11,
  l: 0.22,
  r: 0.62,
  t: 0.4,
  f: 0.5,
  b: 0.1,
  g: 0.46,
  AE: 0.66,
  ae: 0.5,
  k: 0.1,
  dotlessj: 0.72,
  p: 0.5,
};
const BOTTOM: Readonly<Record<string, number>> = {
  r: 0.2,
  l: 0.45,
  f: 0.42,
  t: 0.58,
  T: 0.5,
  K: 0.5,
  k: 0.5,
  y: 0.36,
  P: 0.2,
  F: 0.2,
};
/** The tail of the ogonek hangs from the right foot of a letter, or from the middle of a round one. */
const OGONEK: Readonly<Record<string, number>> = {
  A: 0.93,
  a: 0.88,
  E: 0.8,
  e: 0.66,
  I: 0.5,
  i: 0.5,
  U: 0.55,
  u: 0.88,
  O: 0.56,
  o: 0.58,
};
const CEDILLA: Readonly<Record<string, number>> = { T: 0.5, t: 0.6, S: 0.5, s: 0.5, C: 0.56, c: 0.56 };
const CARON_BESIDE: readonly string[] = ['d', 'l', 't', 'L'];

const TALL = new Set(['b', 'd', 'f', 'h', 'k', 'l']);

/** The anchors of a letter that takes marks. */
export function anchorsOf(name: string, letter: Letter, style: Style): Anchor[] {
  const [left, right] = span(letter.contours, 'x');
  const at = (share: number) => Math.round(left + share * (right - left));
  const capital = /^[A-Z]/.test(name);
  const top = capital ? 700 : TALL.has(name) ? 742 : name === 't' ? 648 : style.xHeight;
  const out: Anchor[] = [
    { name: 'top', x: at(TOP[name] ?? 0.5), y: top, role: 'takesMark' },
    { name: 'bottom', x: at(BOTTOM[name] ?? 0.5), y: 0, role: 'takesMark' },
  ];
  if (name in OGONEK) out.push({ name: 'ogonek', x: at(OGONEK[name]!), y: 0, role: 'takesMark' });
  if (name in CEDILLA) out.push({ name: 'cedilla', x: at(CEDILLA[name]!), y: 0, role: 'takesMark' });
  if (CARON_BESIDE.includes(name))
    out.push({ name: 'topright', x: besideStem(letter, name, style), y: 742, role: 'takesMark' });
  return out;
}

/** Right of an ascender, clear of it: the caron of ď, ľ, ť and Ľ. */
function besideStem(letter: Letter, name: string, style: Style): number {
  const [left, right] = span(letter.contours, 'x');
  const clear = 40 * style.side + style.stem * 0.9;
  if (name === 'd') return Math.round(right + clear);
  const stem = name === 'L' ? style.capStem : style.stem;
  return Math.round((name === 't' ? left + (right - left) * 0.52 : left) + stem * (name === 't' ? 0.5 : 1) + clear);
}
