import { useEffect, useState } from 'react';

/** A value that is typed or dragged, once it has rested for so many milliseconds. */
export function useRested<T>(value: T, milliseconds: number): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const wait = setTimeout(() => setRested(value), milliseconds);
    return () => clearTimeout(wait);
  }, [value, milliseconds]);
  return rested;
}
