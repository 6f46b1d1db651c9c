import type { ScanOrder } from './scanner';

/** Grey levels as a tone setting gives them: as they are, with more contrast, or black and white only. */
export function withTone(pixels: Uint8Array, tone: ScanOrder['tone']): Uint8Array {
  if (tone === 'grey') return pixels;
  if (tone === 'line') return pixels.map((v) => (v < 140 ? 0 : 255));
  return pixels.map((v) => Math.max(0, Math.min(255, (v - 60) * 1.7)));
}
