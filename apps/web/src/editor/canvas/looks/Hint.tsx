import type { ReactNode } from 'react';

/** Over the canvas: what the next press means. */
export const Hint = ({ children }: { children: ReactNode }) => (
  <p className="pointer-events-none absolute top-2 left-1/2 -translate-x-1/2 rounded-md bg-ink px-3 py-1 text-sm text-paper">
    {children}
  </p>
);
