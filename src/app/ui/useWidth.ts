import { type RefObject, useLayoutEffect, useState } from 'react';

/** How wide an element is in pixels, as it changes; `at first` until it is there. */
export function useWidth(element: RefObject<Element | null>, atFirst: number): number {
  const [width, setWidth] = useState(atFirst);
  useLayoutEffect(() => {
    const own = element.current;
    if (!own) return;
    const look = () => setWidth(Math.max(1, Math.round(own.getBoundingClientRect().width)));
    look();
    const observer = new ResizeObserver(look);
    observer.observe(own);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
