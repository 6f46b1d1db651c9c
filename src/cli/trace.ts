import { writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { placedOutlines } from '../core/drawing/placedOutlines';
import { pictureSize } from '../core/formats/pictures';
import { contoursPath } from '../core/formats/svg/svg';
import { type GreyPicture, greyOf, tooLarge } from '../core/tracing/picture';
import { traced, USUAL_SPECKLE, USUAL_TOLERANCE } from '../core/tracing/trace';
import { endingOf, numberOf, parsed, tell, twoPaths } from './arguments';
import { CliError } from './problem';
import { readFile } from './source';

const OPTIONS = {
  threshold: { type: 'string' },
  speckle: { type: 'string' },
  detail: { type: 'string' },
  height: { type: 'string' },
  json: { type: 'boolean', default: false },
} as const;

/** `wendril trace`: the ink of a picture as one SVG path, the picture's height being 1000 units unless told. */
export async function trace(args: readonly string[]): Promise<void> {
  const { values, positionals } = parsed(args, OPTIONS);
  const [source, target] = twoPaths('trace', positionals, 'PICTURE and TARGET.svg');
  endingOf(target, ['.svg']);
  const level = within('threshold', values.threshold, 1, 99);
  const height = within('height', values.height, 16, 100_000) ?? 1000;
  const picture = await decoded(source);
  const scale = height / picture.height;
  const found = traced(picture, {
    threshold: level === undefined ? undefined : (level / 100) * 255,
    speckle: within('speckle', values.speckle, 0, 1e6) ?? USUAL_SPECKLE,
    tolerance: (within('detail', values.detail, 0.05, 100) ?? USUAL_TOLERANCE * scale) / scale,
  });
  if (found.contours.length === 0) throw new CliError(`There is no ink in ${source} at this threshold.`);
  const outlines = placedOutlines(found.contours, picture.height, [scale, 0, 0, -scale, 0, 0], 1);
  const width = Math.round(picture.width * scale * 1000) / 1000;
  writeFileSync(
    target,
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}"><path d="${contoursPath(outlines)}"/></svg>\n`,
  );
  const result = {
    target,
    contours: outlines.length,
    points: found.points,
    threshold: Math.round((found.threshold / 255) * 100),
  };
  tell(
    values.json,
    result,
    `${target}: ${result.contours} contours, ${result.points} points, threshold ${result.threshold} %`,
  );
}

const within = (key: string, text: string | undefined, least: number, most: number): number | undefined =>
  text === undefined ? undefined : numberOf(key, text, least, most);

async function decoded(file: string): Promise<GreyPicture> {
  const bytes = readFile(file);
  const bad = new CliError(`${basename(file)} is not a PNG or JPEG picture that can be read.`);
  const size = pictureSize(bytes);
  if (!size) throw bad;
  const large = tooLarge(size, basename(file), bytes.length);
  if (large) throw new CliError(large);
  try {
    if (size.type === 'image/png') {
      const { PNG } = await import('pngjs');
      const { data, width, height } = PNG.sync.read(Buffer.from(bytes));
      return greyOf(data, width, height);
    }
    const { decode } = await import('jpeg-js');
    const { data, width, height } = decode(bytes, { useTArray: true, maxMemoryUsageInMB: 1024 });
    return greyOf(data, width, height);
  } catch {
    throw bad;
  }
}
