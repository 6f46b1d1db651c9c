import { type RefObject, useCallback, useEffect, useRef } from 'react';
import type { View } from './view';

export type Sheet = { context: CanvasRenderingContext2D; width: number; height: number };

/**
 * A canvas that is sharp at every density: its bitmap has one pixel per device pixel, painting is in CSS pixels, and
 * `paint` runs at most once a frame, after `invalidate`. Size and density changes repaint by themselves.
 */
export function useCanvas(paint: (sheet: Sheet) => void): {
  ref: RefObject<HTMLCanvasElement | null>;
  invalidate: () => void;
  size: RefObject<{ width: number; height: number }>;
} {
  const ref = useRef<HTMLCanvasElement>(null);
  const latest = useRef(paint);
  latest.current = paint;
  const frame = useRef(0);
  const size = useRef({ width: 0, height: 0 });

  const invalidate = useCallback(() => {
    if (frame.current !== 0) return;
    frame.current = requestAnimationFrame(() => {
      frame.current = 0;
      const canvas = ref.current;
      const context = canvas?.getContext('2d');
      if (!canvas || !context) return;
      const density = canvas.width / Math.max(1, size.current.width);
      context.setTransform(density, 0, 0, density, 0, 0);
      context.clearRect(0, 0, size.current.width, size.current.height);
      latest.current({ context, ...size.current });
    });
  }, []);

  useEffect(() => {
    const canvas = ref.current;
    if (!canvas) return;
    const fit = (entry: ResizeObserverEntry) => {
      const { width, height } = entry.contentRect;
      const device = entry.devicePixelContentBoxSize?.[0];
      size.current = { width, height };
      canvas.width = device ? device.inlineSize : Math.round(width * devicePixelRatio);
      canvas.height = device ? device.blockSize : Math.round(height * devicePixelRatio);
      invalidate();
    };
    const observer = new ResizeObserver((entries) => {
      const entry = entries[entries.length - 1];
      if (entry) fit(entry);
    });
    try {
      observer.observe(canvas, { box: 'device-pixel-content-box' });
    } catch {
      observer.observe(canvas);
    }
    window.addEventListener('benchlight', invalidate);
    return () => {
      observer.disconnect();
      window.removeEventListener('benchlight', invalidate);
      cancelAnimationFrame(frame.current);
      frame.current = 0;
    };
  }, [invalidate]);

  return { ref, invalidate, size };
}

/** The bench's colours for canvases, read from the page's tokens. */
export type Inks = Record<
  | 'paper'
  | 'panel'
  | 'line'
  | 'ink'
  | 'quiet'
  | 'kelp'
  | 'kelp-tint'
  | 'marigold'
  | 'brick'
  | 'violet'
  | 'sea'
  | 'shade'
  | 'fill'
  | 'zone',
  string
>;

/** What painting needs: where to, how the font lies there, and the colours of the time of day. */
export type Brush = Sheet & { view: View; inks: Inks };

let inks: Inks | undefined;
window.addEventListener('benchlight', () => {
  inks = undefined;
});

export function currentInks(): Inks {
  if (!inks) {
    const style = getComputedStyle(document.documentElement);
    const names = [
      'paper',
      'panel',
      'line',
      'ink',
      'quiet',
      'kelp',
      'kelp-tint',
      'marigold',
      'brick',
      'violet',
      'sea',
      'shade',
      'fill',
      'zone',
    ] as const;
    inks = Object.fromEntries(names.map((n) => [n, style.getPropertyValue(`--${n}`).trim()])) as Inks;
  }
  return inks;
}
