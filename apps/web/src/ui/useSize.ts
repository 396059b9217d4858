import type { Size } from '@kite/core/geometry/size';
import { type RefObject, useEffect, useState } from 'react';

/** The size of an element in whole CSS pixels, as it is now. */
export const useSize = (element: RefObject<HTMLElement | null>): Size => {
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    if (!element.current) return;
    const observer = new ResizeObserver(([entry]) => {
      const box = entry?.contentRect;
      if (box) setSize({ width: Math.floor(box.width), height: Math.floor(box.height) });
    });
    observer.observe(element.current);
    return () => observer.disconnect();
  }, [element]);
  return size;
};
