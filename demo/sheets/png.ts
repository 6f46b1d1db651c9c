import { PNG } from 'pngjs';
import type { Grey } from './raster';

/** A grey picture as an 8-bit PNG file. */
export function writePng({ width, height, pixels }: Grey): Uint8Array {
  const png = new PNG({ width, height, colorType: 0, inputColorType: 0, bitDepth: 8, inputHasAlpha: false });
  png.data = Buffer.from(pixels);
  return PNG.sync.write(png, { colorType: 0, inputColorType: 0, bitDepth: 8, inputHasAlpha: false, deflateLevel: 9 });
}
