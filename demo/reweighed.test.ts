import { contourBounds, signedArea } from '../src/core/geometry/contour';
import { removeOverlaps } from '../src/core/geometry/overlaps';
import { selfCrossings } from '../src/core/preflight/crossings';
import { createProject } from '../src/core/project/create';
import { capitals } from './capitals';
import { latin } from './latin';
import type { Letter } from './letter';
import { lowercase } from './lowercase';
import { punctuation } from './punctuation';
import { reweighedMasters } from './reweighed';
import { capitalMeasure, lowerMeasure, type Measure, STYLES, type Style } from './style';

/** Letters whose masters come from the Regular: built alike, on their lines, as wide as they were ruled. */

const project = createProject({ family: 'Velmarrow Sans', masterName: 'Regular', created: 0 });
const ruled = (draw: (m: Measure) => Letter, measure: (s: Style) => Measure): Letter[] =>
  STYLES.map((s) => draw(measure(s)));
const heights = (l: Letter): [number, number] => {
  const boxes = l.contours.map(contourBounds);
  return [Math.min(...boxes.map((b) => b.yMin)), Math.max(...boxes.map((b) => b.yMax))];
};

describe.each([
  ['section', punctuation.section!, capitalMeasure, 1.05],
  ['AE', latin.AE!, capitalMeasure, 1.08],
  ['OE', latin.OE!, capitalMeasure, 1.04],
  ['y', lowercase.y!, lowerMeasure, 1],
] as const)('%s', (name, draw, measure, widest) => {
  const before = ruled(draw, measure);
  const after = reweighedMasters(project, name, before, STYLES);

  test('is built alike in all masters', () => {
    const build = (l: Letter) => l.contours.map((c) => c.points.map((p) => p.type).join(' '));
    for (const letter of after) expect(build(letter)).toEqual(build(before[0]!));
    expect(after[0]).toBe(before[0]);
  });

  test('ends at its heights, those of the lower case with their style', () => {
    const [low, high] = heights(before[0]!);
    after.forEach((letter, i) => {
      const rise = measure === lowerMeasure ? STYLES[i]!.xHeight / 520 : 1;
      const [l, h] = heights(letter);
      expect([STYLES[i]!.name, Math.abs(l - low) <= 1.5, Math.abs(h - (high > 0 ? high * rise : high)) <= 1.5]).toEqual(
        [STYLES[i]!.name, true, true],
      );
    });
  });

  test('is as wide as it was ruled, heavy ones a little wider where they need it', () => {
    after.forEach((letter, i) => {
      const share = letter.advance / before[i]!.advance;
      expect([STYLES[i]!.name, share > 0.99, share <= widest]).toEqual([STYLES[i]!.name, true, true]);
    });
  });

  test('has more ink the heavier, and no outline goes through itself in the lighter ones', () => {
    const ink = (l: Letter) => {
      const { contours, failed } = removeOverlaps(l.contours);
      expect(failed).toBe(false);
      return Math.abs(contours.reduce((sum, c) => sum + signedArea(c), 0)) / l.advance;
    };
    const [regular, light, heavy] = after as [Letter, Letter, Letter];
    expect(ink(light)).toBeLessThan(ink(regular));
    expect(ink(heavy)).toBeGreaterThan(ink(regular) * 1.2);
    for (const letter of [light, regular]) for (const c of letter.contours) expect(selfCrossings(c)).toEqual([]);
  });
});

test('letters that are not named stay as they were ruled', () => {
  const made = ruled(capitals.H!, capitalMeasure);
  expect(reweighedMasters(project, 'H', made, STYLES)).toEqual(made);
});
