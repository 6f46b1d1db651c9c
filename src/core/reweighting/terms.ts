import type { Stems } from './goals';

/** What is asked of an outline. */
export type ReweightTerms = {
  /** How thick strokes are, and how thick they are to be, in font units. */
  readonly from: Stems;
  readonly to: Stems;
  /** Where the glyph ends now. */
  readonly advance: number;
  /** Where it is to end; none where its white keeps its width and the glyph grows with its strokes. */
  readonly newAdvance: number | undefined;
  /** Whether the white at its sides stays, or shrinks as that inside does. */
  readonly bearings: 'share' | 'kept';
  /** Heights at which outlines stay. */
  readonly lines: readonly number[];
  readonly unitsPerEm: number;
  /** How much more than straight strokes curved ones grow; 1 as the source has it. */
  readonly rounds?: number | undefined;
};
