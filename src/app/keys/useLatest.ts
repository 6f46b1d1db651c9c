import { type RefObject, useRef } from 'react';

/** A box that always holds the value of the newest rendering, for handlers that outlive one. */
export function useLatest<T>(value: T): RefObject<T> {
  const box = useRef(value);
  box.current = value;
  return box;
}
