import fc from 'fast-check';

export const int16 = fc.integer({ min: -32768, max: 32767 });
export const uint16 = fc.integer({ min: 0, max: 65535 });
export const uint32 = fc.integer({ min: 0, max: 0xffffffff });
/** Coordinates whose steps fit 16 bits. */
export const coordinate = fc.integer({ min: -8000, max: 8000 });
