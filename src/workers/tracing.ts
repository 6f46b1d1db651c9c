import { pictureSize } from '../core/formats/pictures';
import type { Contour } from '../core/geometry/contour';
import { type GreyPicture, greyOf, tooLarge } from '../core/tracing/picture';
import type { Region, SheetLine } from '../core/tracing/regions';
import { cutOut, readSheet, type Sheet } from '../core/tracing/sheet';
import { type Traced, type TraceOptions, traced } from '../core/tracing/trace';

export type SheetFound = {
  width: number;
  height: number;
  threshold: number;
  skewDegrees: number;
  lines: readonly SheetLine[];
  preview: Blob;
};
export type LetterFound = {
  png: Uint8Array;
  width: number;
  height: number;
  inkLeft: number;
  inkRight: number;
  baseline: number;
  contours: readonly Contour[] | undefined;
};
export type Refused = { reason: string };
export type PictureTraced = Traced & { height: number };

let sheet: Sheet | undefined;
let picture: GreyPicture | undefined;

/** Work on pictures, away from the pointer: a worker keeps the sheet and the picture it was last given. */
export const tracingService = {
  /** Finds the letters on a sheet. */
  async openSheet(bytes: Uint8Array, name: string): Promise<SheetFound | Refused> {
    const grey = await decoded(bytes, name);
    if ('reason' in grey) return grey;
    sheet = readSheet(grey);
    const { width, height } = sheet.picture;
    return {
      width,
      height,
      threshold: sheet.threshold,
      skewDegrees: sheet.skewDegrees,
      lines: sheet.lines,
      preview: new Blob([(await png(sheet.picture)) as Uint8Array<ArrayBuffer>], { type: 'image/png' }),
    };
  },

  /** Cuts letters out of the sheet that is open, and traces them when asked to. */
  async cutLetters(
    lines: readonly SheetLine[],
    wanted: readonly { line: number; region: number }[],
    trace: boolean,
    progress: (done: number, total: number) => void,
  ): Promise<readonly LetterFound[]> {
    const out: LetterFound[] = [];
    const all: Region[] = lines.flatMap((l) => [...l.regions]);
    for (const [i, { line, region }] of wanted.entries()) {
      progress(i, wanted.length);
      const own = lines[line]!.regions[region]!;
      const near = all.filter((r) => r !== own && r.left < own.right + 200 && r.right > own.left - 200);
      const cut = cutOut(sheet!.picture, lines[line]!, own, near);
      const { inkLeft, inkRight, baseline, picture } = cut;
      const contours = trace
        ? traced(picture, { threshold: sheet!.threshold, tolerance: toleranceFor(own), speckle: speckleFor(own) })
            .contours
        : undefined;
      out.push({
        png: await png(picture),
        width: picture.width,
        height: picture.height,
        inkLeft,
        inkRight,
        baseline,
        contours,
      });
    }
    return out;
  },

  /** Takes a picture up to be traced; undefined when it can be. */
  async openPicture(bytes: Uint8Array, name: string): Promise<Refused | undefined> {
    const grey = await decoded(bytes, name);
    if ('reason' in grey) return grey;
    picture = grey;
    return undefined;
  },

  /** Outlines of the ink in the picture that was taken up. */
  trace: (options: TraceOptions): PictureTraced | undefined =>
    picture && { ...traced(picture, options), height: picture.height },
};

export type TracingService = typeof tracingService;

/** Lettering wavers: the finer the scan, the more pixels an outline may keep away from it. */
const toleranceFor = (r: Region): number => Math.max(0.7, (r.bottom - r.top) * 0.004);
const speckleFor = (r: Region): number => Math.max(12, ((r.bottom - r.top) * 0.03) ** 2);

async function decoded(bytes: Uint8Array, name: string): Promise<GreyPicture | Refused> {
  const size = pictureSize(bytes);
  const bad = { reason: `${name} is not a PNG or JPEG picture that can be read.` };
  if (!size) return bad;
  const large = tooLarge(size, name, bytes.length);
  if (large) return { reason: large };
  const bitmap = await createImageBitmap(new Blob([bytes as Uint8Array<ArrayBuffer>], { type: size.type })).catch(
    () => undefined,
  );
  if (!bitmap) return bad;
  const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  const { data, width, height } = context.getImageData(0, 0, bitmap.width, bitmap.height);
  bitmap.close();
  return greyOf(data, width, height);
}

async function png({ width, height, pixels }: GreyPicture): Promise<Uint8Array> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d')!;
  const image = context.createImageData(width, height);
  for (let i = 0; i < pixels.length; i++) {
    image.data[4 * i] = image.data[4 * i + 1] = image.data[4 * i + 2] = pixels[i]!;
    image.data[4 * i + 3] = 255;
  }
  context.putImageData(image, 0, 0);
  return new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer());
}
