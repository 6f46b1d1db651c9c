/** Where the sheet lies under the window: CSS pixels = (x · scale + originX, originY − y · scale). */
export type View = { readonly scale: number; readonly originX: number; readonly originY: number };

export const LEAST_SCALE = 0.01;
export const MOST_SCALE = 200;

export const toPxX = (v: View, x: number): number => x * v.scale + v.originX;
export const toPxY = (v: View, y: number): number => v.originY - y * v.scale;
export const toFontX = (v: View, px: number): number => (px - v.originX) / v.scale;
export const toFontY = (v: View, py: number): number => (v.originY - py) / v.scale;

/** Scales by a factor with the font place under the pointer staying there. */
export function zoomAt(v: View, factor: number, px: number, py: number): View {
  const scale = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, v.scale * factor));
  const applied = scale / v.scale;
  return { scale, originX: px - (px - v.originX) * applied, originY: py - (py - v.originY) * applied };
}

export const panned = (v: View, dx: number, dy: number): View => ({
  ...v,
  originX: v.originX + dx,
  originY: v.originY + dy,
});

/** Shows a box of the sheet (font units) in the middle of the window with some air. */
export function fitted(
  box: { xMin: number; yMin: number; xMax: number; yMax: number },
  width: number,
  height: number,
  air = 0.09,
): View {
  const w = Math.max(1, box.xMax - box.xMin);
  const h = Math.max(1, box.yMax - box.yMin);
  const scale = Math.min(
    MOST_SCALE,
    Math.max(LEAST_SCALE, Math.min((width * (1 - 2 * air)) / w, (height * (1 - 2 * air)) / h)),
  );
  return {
    scale,
    originX: width / 2 - ((box.xMin + box.xMax) / 2) * scale,
    originY: height / 2 + ((box.yMin + box.yMax) / 2) * scale,
  };
}
