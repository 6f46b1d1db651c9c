import { type Refusal, refused } from '../base/result';
import { listed } from '../base/text';
import { type Contour, signedArea } from '../geometry/contour';
import type { Drawing } from '../project/model';
import type { CastPlan } from './plan';

/** From this share of its area on, what rounding does to a glyph is told. */
const TOLD = 0.005;

const losses = new WeakMap<readonly Contour[], number>();

const isWhole = (c: Contour): boolean => c.points.every((p) => Number.isInteger(p.x) && Number.isInteger(p.y));
const rounded = ({ closed, points }: Contour): Contour => ({
  closed,
  points: points.map(({ x, y, type }) => ({ x: Math.round(x), y: Math.round(y), type })),
});

/** By what share of its area a drawing’s own outline changes when its points come to whole units. */
export function roundingLoss({ contours }: Pick<Drawing, 'contours'>): number {
  let loss = losses.get(contours);
  if (loss === undefined) {
    const closed = contours.filter((c) => c.closed);
    const area = (list: readonly Contour[]) => Math.abs(list.reduce((sum, c) => sum + signedArea(c), 0));
    const before = closed.every(isWhole) ? 0 : area(closed);
    loss = before === 0 ? 0 : Math.abs(area(closed.map(rounded)) - before) / before;
    losses.set(contours, loss);
  }
  return loss;
}

/** What rounding to whole units changes most, where it is worth a word. */
export function roundingNote({ entries, fractions }: Pick<CastPlan, 'entries' | 'fractions'>): Refusal | undefined {
  if (fractions) return undefined;
  const worst = entries
    .map((entry) => ({ entry, loss: roundingLoss(entry.drawing) }))
    .filter(({ loss }) => loss >= TOLD)
    .sort((a, b) => b.loss - a.loss);
  if (worst.length === 0) return undefined;
  const names = worst.map(({ entry, loss }) => `${entry.glyph.name} (${(loss * 100).toFixed(1)} %)`);
  return refused(
    `Rounding to whole units changes the area of ${listed(names, 6)}. OpenType (CFF) files can keep fractions: Plan, In the font file.`,
    undefined,
    'note',
  );
}
