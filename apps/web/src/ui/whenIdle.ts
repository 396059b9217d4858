/** In ms. */
const MOST_WAITING = 1_000;

/** Once the page has nothing else to do, or has had enough; gives what calls it off. */
export const whenIdle = (then: () => void): (() => void) => {
  // Not every browser tells.
  if (typeof requestIdleCallback !== 'function') {
    const timer = setTimeout(then, MOST_WAITING);
    return () => clearTimeout(timer);
  }
  const asked = requestIdleCallback(then, { timeout: MOST_WAITING });
  return () => cancelIdleCallback(asked);
};
