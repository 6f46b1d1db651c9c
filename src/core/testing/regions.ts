import fc from 'fast-check';
import type { AxisRegion } from '../opentype/variations';

const ends = fc.constantFrom<readonly [number, number, number]>(
  [0, 0, 0],
  [0, 1, 1],
  [-1, -1, 0],
  [0, 0.5, 1],
  [0.5, 1, 1],
);

/** Regions of a space of two axes, each with a peak somewhere but at the default. */
export const anyRegion: fc.Arbitrary<AxisRegion> = fc.tuple(ends, ends).filter((r) => r.some(([, peak]) => peak !== 0));
