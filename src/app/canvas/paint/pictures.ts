import { backdropContours } from '../../../core/drawing/backdrops';
import type { Backdrop, Drawing, Glyph, MasterId, Project } from '../../../core/project/model';
import { closedPath } from '../../../core/project/pathData';
import type { Brush } from '../useCanvas';
import { paintGlyph } from './sheet';

const bitmaps = new WeakMap<Uint8Array, ImageBitmap | 'loading' | 'bad'>();

/** The decoded picture, or undefined while it is being decoded; `ready` is called once it is there. */
function bitmapOf(bytes: Uint8Array, type: string, ready: () => void): ImageBitmap | undefined {
  const known = bitmaps.get(bytes);
  if (known === undefined) {
    bitmaps.set(bytes, 'loading');
    createImageBitmap(new Blob([bytes as Uint8Array<ArrayBuffer>], { type })).then(
      (bitmap) => {
        bitmaps.set(bytes, bitmap);
        ready();
      },
      () => bitmaps.set(bytes, 'bad'),
    );
  }
  return typeof known === 'object' ? known : undefined;
}

/** Pictures and outlines behind the drawing, each at its strength. */
export function paintBackdrops(
  brush: Brush,
  { project, glyph, master, drawing }: { project: Project; glyph: Glyph; master: MasterId; drawing: Drawing },
  ready: () => void,
): void {
  const { context, view, inks } = brush;
  for (const backdrop of drawing.backdrops) {
    if (backdrop.visible && backdrop.outline) {
      context.globalAlpha = backdrop.strength;
      paintGlyph(brush, closedPath(backdropContours(project, glyph, master, backdrop)), 0, inks.sea);
      context.globalAlpha = 1;
      continue;
    }
    const picture = project.pictures[backdrop.picture];
    if (!backdrop.visible || !picture) continue;
    const bitmap = bitmapOf(picture.bytes, picture.type, ready);
    if (!bitmap) continue;
    const [xx, xy, yx, yy, dx, dy] = backdrop.transform;
    context.save();
    context.globalAlpha = backdrop.strength;
    context.translate(view.originX, view.originY);
    context.scale(view.scale, -view.scale);
    context.transform(xx, xy, yx, yy, dx, dy);
    context.drawImage(bitmap, 0, 0);
    context.restore();
  }
}

/** The corners of a backdrop in font units: top left, top right, bottom right, bottom left. */
export function cornersOf(backdrop: Backdrop, width: number, height: number): readonly (readonly [number, number])[] {
  const [xx, xy, yx, yy, dx, dy] = backdrop.transform;
  const at = (u: number, v: number) => [xx * u + yx * v + dx, xy * u + yy * v + dy] as const;
  return [at(0, 0), at(width, 0), at(width, height), at(0, height)];
}
