import type { GreyPicture } from './picture';

const { abs, ceil, floor, max, min } = Math;

/** A box of whole pixels, y down, `right` and `bottom` being the first pixels outside. */
export type Region = { left: number; top: number; right: number; bottom: number };
/** A line of lettering: the row that the letters stand on, and a region for each letter, from left to right. */
export type SheetLine = { baseline: number; regions: readonly Region[] };

/** A connected spot of ink. */
type Spot = Region & { area: number };

/** Share of the narrower of two spots that must lie over the other for them to be one letter, as a dot and its stem are. */
const OVER = 0.35;

/** Lines of letters on a straight sheet of dark ink on light paper, from top to bottom. */
export function linesOf(picture: GreyPicture, threshold: number): SheetLine[] {
  const least = max(6, (min(picture.width, picture.height) / 260) ** 2);
  const rim = (s: Spot) => s.left <= 1 || s.top <= 1 || s.right >= picture.width - 1 || s.bottom >= picture.height - 1;
  const spots = spotsOf(picture, threshold).filter((s) => s.area >= least && !rim(s));
  return bandsOf(spots, picture.height)
    .map((own) => lettersOf(own))
    .filter((regions) => regions.length > 0)
    .map((regions) => ({ baseline: baselineOf(regions), regions }));
}

/** Connected spots of ink: runs of each row joined to those they touch in the row above. */
function spotsOf({ width, height, pixels }: GreyPicture, threshold: number): Spot[] {
  const parents: number[] = [];
  const boxes: Spot[] = [];
  const find = (k: number): number => {
    let at = k;
    while (parents[at] !== at) {
      parents[at] = parents[parents[at]!]!;
      at = parents[at]!;
    }
    return at;
  };
  const join = (a: number, b: number): number => {
    const [p, q] = [find(a), find(b)];
    if (p === q) return p;
    parents[q] = p;
    const [s, t] = [boxes[p]!, boxes[q]!];
    boxes[p] = {
      left: min(s.left, t.left),
      top: min(s.top, t.top),
      right: max(s.right, t.right),
      bottom: max(s.bottom, t.bottom),
      area: s.area + t.area,
    };
    return p;
  };
  let above: { from: number; to: number; spot: number }[] = [];
  for (let y = 0; y < height; y++) {
    const here: typeof above = [];
    let k = 0;
    for (let x = 0; x < width; x++) {
      if (pixels[y * width + x]! >= threshold) continue;
      const from = x;
      while (x < width && pixels[y * width + x]! < threshold) x++;
      let spot = -1;
      while (k < above.length && above[k]!.to < from) k++;
      for (let m = k; m < above.length && above[m]!.from <= x; m++)
        spot = spot < 0 ? find(above[m]!.spot) : join(spot, above[m]!.spot);
      const run = { left: from, top: y, right: x, bottom: y + 1, area: x - from };
      if (spot < 0) {
        spot = parents.length;
        parents.push(spot);
        boxes.push(run);
      } else {
        const b = boxes[spot]!;
        boxes[spot] = {
          left: min(b.left, from),
          top: b.top,
          right: max(b.right, x),
          bottom: y + 1,
          area: b.area + run.area,
        };
      }
      here.push({ from, to: x, spot });
    }
    above = here;
  }
  return boxes.filter((_, k) => parents[k] === k);
}

/** Spots by line. Lines are the rows that many spots cross; every spot goes to the line whose rows it is nearest to. */
function bandsOf(spots: readonly Spot[], height: number): Spot[][] {
  if (spots.length === 0) return [];
  const heights = spots.map((s) => s.bottom - s.top).sort((a, b) => a - b);
  const usual = heights[floor(heights.length * 0.6)]!;
  const letters = spots.filter((s) => s.bottom - s.top > usual * 0.45);
  const crossed = new Float64Array(height + 1);
  for (const s of letters) for (let y = s.top; y < s.bottom; y++) crossed[y]!++;
  // A row belongs to a line when at least a third as many letters cross it as the fullest row near it.
  const reach = ceil(usual * 0.9);
  const cores: { from: number; to: number }[] = [];
  for (let y = 0; y <= height; y++) {
    let fullest = 1;
    for (let k = max(0, y - reach); k <= min(height, y + reach); k++) fullest = max(fullest, crossed[k]!);
    const inside = crossed[y]! > fullest * 0.42;
    const last = cores[cores.length - 1];
    if (!inside) continue;
    if (last && last.to === y) last.to = y + 1;
    else cores.push({ from: y, to: y + 1 });
  }
  const bands: Spot[][] = cores.map(() => []);
  for (const s of spots) {
    const distance = ({ from, to }: { from: number; to: number }) =>
      max(0, s.top - to, from - s.bottom) - 1e-3 * max(0, min(to, s.bottom) - max(from, s.top));
    const nearest = cores.reduce((best, core, i) => (distance(core) < distance(cores[best]!) ? i : best), 0);
    if (distance(cores[nearest]!) < usual * 0.8) bands[nearest]!.push(s);
  }
  return bands.filter((b) => b.length > 0);
}

/** Letters of a line from left to right: spots that lie over each other are one. */
function lettersOf(spots: readonly Spot[]): Region[] {
  const out: Region[] = [];
  for (const s of [...spots].sort((a, b) => a.left - b.left)) {
    const last = out[out.length - 1];
    const shared = last ? min(last.right, s.right) - max(last.left, s.left) : 0;
    if (last && shared > OVER * min(last.right - last.left, s.right - s.left)) out[out.length - 1] = joined(last, s);
    else out.push({ left: s.left, top: s.top, right: s.right, bottom: s.bottom });
  }
  return out;
}

export const joined = (a: Region, b: Region): Region => ({
  left: min(a.left, b.left),
  top: min(a.top, b.top),
  right: max(a.right, b.right),
  bottom: max(a.bottom, b.bottom),
});

/** The row that most letters stand on: the middle of the largest cluster of lower edges. */
function baselineOf(regions: readonly Region[]): number {
  const bottoms = regions.map((r) => r.bottom).sort((a, b) => a - b);
  const tall = max(...regions.map((r) => r.bottom - r.top));
  const near = max(2, tall * 0.045);
  const clusters = bottoms.map((b) => bottoms.filter((v) => abs(v - b) <= near));
  const largest = clusters.reduce((best, c) => (c.length > best.length ? c : best));
  return largest[floor(largest.length / 2)]!;
}

/** A line with as many letters as were written: the nearest pieces are put together; too few stay as they are. */
export function withLetterCount(line: SheetLine, count: number): SheetLine {
  const regions = [...line.regions];
  while (regions.length > max(1, count)) {
    let nearest = 1;
    const gap = (i: number) => regions[i]!.left - regions[i - 1]!.right;
    for (let i = 2; i < regions.length; i++) if (gap(i) < gap(nearest)) nearest = i;
    regions.splice(nearest - 1, 2, joined(regions[nearest - 1]!, regions[nearest]!));
  }
  return { ...line, regions };
}
