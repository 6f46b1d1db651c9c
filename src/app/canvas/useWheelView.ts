import { type RefObject, useEffect } from 'react';
import { useLatest } from '../keys/useLatest';
import { panned, type View, zoomAt } from './view';

type Canvas = RefObject<HTMLCanvasElement | null>;

/** What the wheel does over a canvas; the page does not scroll with it. */
export function useWheel(ref: Canvas, turn: (e: WheelEvent, canvas: HTMLCanvasElement) => void): void {
  const latest = useLatest(turn);
  useEffect(() => {
    const canvas = ref.current;
    if (!canvas) return;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      latest.current(e, canvas);
    };
    canvas.addEventListener('wheel', wheel, { passive: false });
    return () => canvas.removeEventListener('wheel', wheel);
  }, [ref, latest]);
}

/** The wheel moves the view, sideways with Shift; with Ctrl it comes nearer to where the pointer is. */
export function useWheelView(ref: Canvas, look: (change: (view: View) => View) => void): void {
  useWheel(ref, (e, canvas) => {
    if (e.ctrlKey || e.metaKey) {
      const box = canvas.getBoundingClientRect();
      const by = Math.exp(-e.deltaY * (e.deltaMode === 1 ? 0.05 : 0.0022));
      look((v) => zoomAt(v, by, e.clientX - box.left, e.clientY - box.top));
    } else look((v) => panned(v, e.shiftKey ? -e.deltaY : -e.deltaX, e.shiftKey ? 0 : -e.deltaY));
  });
}
