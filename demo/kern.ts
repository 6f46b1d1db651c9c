import type { Contour } from '../src/core/geometry/contour';
import { curvesOf } from '../src/core/geometry/contour';
import { pointAt } from '../src/core/geometry/curve';
import { FIRST, SECOND } from './groups';
import type { Letter } from './letter';
import type { Style } from './style';

/** Pairs with at least one of these are measured; others are fitted by their side bearings. */
const OPEN = new Set(['A', 'L', 'T', 'V', 'W', 'Y', 'P', 'F', 'K', 'R', 'X', 'J', 'f', 'r', 'v', 'k', 'x', 't', 'period', 'quote', 'quoteleft', 'slash', 'hyphen']);
const isOpen = (side: string) => OPEN.has(side);

const STEP = 12;

/** For heights from -204 to 744 in steps: how far the ink is from the edge, or nothing where there is none. */
type Profile = readonly (number | undefined)[];

export function profiles(letter: Letter): { left: Profile; right: Profile } {
  const left: (number | undefined)[] = [];
  const right: (number | undefined)[] = [];
  const put = (x: number, y: number) => {
    const i = Math.round((y + 204) / STEP);
    if (i < 0 || i > 79) return;
    left[i] = Math.min(left[i] ?? Infinity, x);
    right[i] = Math.min(right[i] ?? Infinity, letter.advance - x);
  };
  for (const contour of letter.contours as readonly Contour[]) for (const c of curvesOf(contour)) for (let k = 0; k <= 64; k++) put(...pointAt(c, k / 64));
  return { left, right };
}

/**
 * The room between two letters: the mean distance over the heights both or either fill, no deeper than `depth` on a side,
 * so that a far-off stem counts as open but not as endless.
 */
function room(a: Profile, b: Profile, depth: number, from: number, to: number): { mean: number; least: number } {
  let sum = 0;
  let n = 0;
  let least = Infinity;
  for (let i = Math.round((from + 204) / STEP); i <= Math.round((to + 204) / STEP); i++) {
    sum += Math.min(a[i] ?? depth, depth) + Math.min(b[i] ?? depth, depth);
    n++;
  }
  for (let i = 0; i < 80; i++) {
    // A stroke meets its neighbour's as soon as they are two steps apart in height.
    for (const j of [i - 2, i - 1, i, i + 1, i + 2]) if (a[i] !== undefined && b[j] !== undefined) least = Math.min(least, a[i]! + b[j]!);
  }
  return { mean: sum / n, least };
}

const capital = (side: string) => /^[A-Z]/.test(side);

/** Kerning of all groups in one style: what brings each pair's room to that of plain pairs, in even units. */
export function kerning(letters: Readonly<Record<string, Letter>>, style: Style): Map<string, number> {
  const profileOf = new Map<string, ReturnType<typeof profiles>>();
  const profile = (name: string) => {
    if (!profileOf.has(name)) profileOf.set(name, profiles(letters[name]!));
    return profileOf.get(name)!;
  };
  const depth = (style.gap * 120 + style.side * 110) * 0.8;
  const out = new Map<string, number>();
  for (const [first, firsts] of Object.entries(FIRST)) {
    for (const [second, seconds] of Object.entries(SECOND)) {
      if (!isOpen(first) && !isOpen(second)) continue;
      const a = profile(firsts[0]!).right;
      const b = profile(seconds[0]!).left;
      const tall = capital(first) && capital(second) ? 700 : first.startsWith('quote') || second.startsWith('quote') ? 700 : style.xHeight;
      const plain = tall === 700 ? room(profile('H').right, profile('O').left, depth, 0, 700) : room(profile('n').right, profile('o').left, depth, 0, style.xHeight);
      const { mean, least } = room(a, b, depth, 0, tall);
      const closer = (plain.mean - mean) * 0.62;
      const free = 34 * style.side + 14 - least;
      const value = Math.max(closer, Math.min(free, 0), -96);
      const even = 2 * Math.round(Math.min(value, 36) / 2);
      out.set(`${first} ${second}`, Math.abs(even) < 8 ? 0 : even);
    }
  }
  return out;
}
