import type { Size } from '@nibrel/core/drawn/picture';
import { createContext, type RefObject, useContext, useLayoutEffect, useState } from 'react';

/** How large an element is, px; null until it has been measured. */
export function useSize(ref: RefObject<Element | null>): Size | null {
  const [size, setSize] = useState<Size | null>(null);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    // before anything is painted at a size that is not its own
    const { width: first, height } = element.getBoundingClientRect();
    if (first > 0) setSize({ width: first, height });
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      setSize({ width, height });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [ref]);
  return size;
}

export const PxPerMm = createContext(3);
export const DrawnAt = PxPerMm.Provider;

/** Millimetres of the drawing that so many pixels of the screen are: words and marks keep their size at any zoom. */
export function useMm(): (px: number) => number {
  const scale = useContext(PxPerMm);
  return (px) => px / scale;
}
