import { type RefObject, useEffect } from 'react';
import { panned, type View, zoomAt } from './view';

/** The wheel moves the view, sideways with Shift; with Ctrl it comes nearer to where the pointer is. */
export function useWheelView(
  ref: RefObject<HTMLCanvasElement | null>,
  view: RefObject<View>,
  invalidate: () => void,
): void {
  useEffect(() => {
    const canvas = ref.current;
    if (!canvas) return;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const box = canvas.getBoundingClientRect();
      if (e.ctrlKey || e.metaKey)
        view.current = zoomAt(
          view.current,
          Math.exp(-e.deltaY * (e.deltaMode === 1 ? 0.05 : 0.0022)),
          e.clientX - box.left,
          e.clientY - box.top,
        );
      else view.current = panned(view.current, e.shiftKey ? -e.deltaY : -e.deltaX, e.shiftKey ? 0 : -e.deltaY);
      invalidate();
    };
    canvas.addEventListener('wheel', wheel, { passive: false });
    return () => canvas.removeEventListener('wheel', wheel);
  }, [invalidate, ref, view]);
}
