import { type RefObject, useEffect, useState } from 'react';

/** How far out of sight something is nearly seen. */
const NEAR = '200px';

/** Whether an element has been in sight yet, or nearly: what is costly to show waits for that. */
export const useSeen = (element: RefObject<Element | null>): boolean => {
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const own = element.current;
    if (!own || seen) return;
    const observer = new IntersectionObserver(
      (entries) => entries.some((entry) => entry.isIntersecting) && setSeen(true),
      { rootMargin: NEAR },
    );
    observer.observe(own);
    return () => observer.disconnect();
  }, [element, seen]);
  return seen;
};
