import type { PointerEvent } from 'react';
import type { Hand, Tool } from '../../canvas/tools/tool';
import { panned, toFontX, toFontY, type View } from '../../canvas/view';

/** How far from a point, in pixels, the hand may be and still mean it. */
const REACH_PX = 8;
/** Two presses within so many milliseconds and pixels are a double click. */
const DOUBLE = { ms: 400, px: 5 };

/** What the drawing surface holds between events; nothing of it is drawn by React. */
export type Surface = {
  view: View;
  /** The glyph and size that the view was last fitted to. */
  fittedTo: string;
  tool: Tool | undefined;
  /** Where the canvas lies in the window; asked for anew at each press, since asking makes the browser lay the page out. */
  frame: DOMRect | undefined;
  /** Where the hand was while it moves the sheet. */
  panning: { x: number; y: number } | undefined;
  last: { at: number; x: number; y: number };
  /** Keys that are held: the sheet is grabbed, letters only, no snapping. */
  grab: boolean;
  bare: boolean;
  free: boolean;
};

type CanvasEvent = PointerEvent<HTMLCanvasElement>;

export const newSurface = (): Surface => ({
  view: { scale: 0.5, originX: 200, originY: 400 },
  fittedTo: '',
  tool: undefined,
  frame: undefined,
  panning: undefined,
  last: { at: 0, x: 0, y: 0 },
  grab: false,
  bare: false,
  free: false,
});

export const cursorOf = (surface: Surface): string => (surface.grab ? 'grab' : (surface.tool?.cursor() ?? 'default'));

function handOf(surface: Surface, e: CanvasEvent): Hand {
  surface.frame ??= e.currentTarget.getBoundingClientRect();
  const { frame, view, free } = surface;
  return {
    x: toFontX(view, e.clientX - frame.left),
    y: toFontY(view, e.clientY - frame.top),
    shift: e.shiftKey,
    alt: e.altKey,
    mod: e.metaKey || e.ctrlKey,
    clicks: 1,
    reach: REACH_PX / view.scale,
    free,
  };
}

/** A press goes to the tool, or grabs the sheet. False: it is neither's. */
export function pressed(surface: Surface, e: CanvasEvent): boolean {
  // A mouse gives the focus by itself, without the ring that keys ask for.
  if (e.pointerType !== 'mouse') e.currentTarget.focus();
  e.currentTarget.setPointerCapture(e.pointerId);
  surface.frame = undefined;
  if (e.button === 1 || surface.grab) surface.panning = { x: e.clientX, y: e.clientY };
  if (surface.panning || e.button !== 0) return false;
  const { last } = surface;
  const again = e.timeStamp - last.at < DOUBLE.ms && Math.hypot(e.clientX - last.x, e.clientY - last.y) < DOUBLE.px;
  surface.last = again ? { at: 0, x: 0, y: 0 } : { at: e.timeStamp, x: e.clientX, y: e.clientY };
  surface.tool?.down({ ...handOf(surface, e), clicks: again ? 2 : 1 });
  return true;
}

/** Tells whether the sheet was moved; else the tool has the hand. */
export function moved(surface: Surface, e: CanvasEvent): boolean {
  const { panning } = surface;
  if (panning) {
    surface.view = panned(surface.view, e.clientX - panning.x, e.clientY - panning.y);
    surface.panning = { x: e.clientX, y: e.clientY };
    return true;
  }
  surface.tool?.move(handOf(surface, e));
  e.currentTarget.style.cursor = cursorOf(surface);
  return false;
}

export function released(surface: Surface, e: CanvasEvent): void {
  if (surface.panning) surface.panning = undefined;
  else if (e.button === 0) surface.tool?.up(handOf(surface, e));
}
