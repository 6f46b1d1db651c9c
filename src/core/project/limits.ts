import { z } from 'zod';

/**
 * What numbers and names may be, said once: edits refuse what lies outside, and readers, storage and workers hold
 * what they take in to the same. A fault reads on after the name of its field: “x lies more than …”.
 */

/** Farthest from the origin, in font units, on either axis. */
export const MOST_COORDINATE = 1_000_000;
/** Widest advance: an unsigned 16-bit number in the font. */
export const MOST_ADVANCE = 65_535;
/** Strongest kerning: a signed 16-bit number in the font. */
export const MOST_KERNING = 32_767;
/** Farthest that round shapes may pass their line. */
export const MOST_OVERSHOOT = 16_384;
/** Largest factor of a transform. */
const MOST_FACTOR = 100_000;
const MOST_NAME = 4096;

const between = (least: number, most: number, error: string) =>
  z.number({ error: 'is not a number' }).min(least, { error }).max(most, { error });

export const coordinate = between(-MOST_COORDINATE, MOST_COORDINATE, 'lies more than 1,000,000 units from the origin');
export const advance = between(0, MOST_ADVANCE, 'is not from 0 to 65,535 units');
export const kern = between(-MOST_KERNING, MOST_KERNING, 'is not from −32,767 to 32,767 units');
export const overshoot = between(-MOST_OVERSHOOT, MOST_OVERSHOOT, 'is more than 16,384 units');
export const factor = between(-MOST_FACTOR, MOST_FACTOR, 'is more than 100,000 times');
export const angle = between(-36_000, 36_000, 'is more than a hundred turns');
export const share = between(0, 1, 'is not from 0 to 1');
export const glyphName = z.string().min(1, 'is empty').max(MOST_NAME, 'is too long');

/** A code point that a character can have: surrogates are halves of characters and stand for none. */
export const isCharacter = (code: number): boolean =>
  Number.isInteger(code) && code >= 0 && code <= 0x10ffff && !(code >= 0xd800 && code <= 0xdfff);
export const codePoint = z.number().refine(isCharacter, { error: 'is not the code point of a character' });

export const isCoordinate = (v: unknown): v is number =>
  typeof v === 'number' && v >= -MOST_COORDINATE && v <= MOST_COORDINATE;
