import { useEffect, useRef } from 'react';

/** The gesture of a field that lasts as long as somebody is in it. It ends with the field where that goes away meanwhile. */
export const useLasting = (onStart?: () => void, onEnd?: () => void) => {
  const ending = useRef<(() => void) | null>(null);
  const end = () => {
    ending.current?.();
    ending.current = null;
  };
  useEffect(() => end, []);
  return {
    start: () => {
      onStart?.();
      ending.current = onEnd ?? null;
    },
    end,
  };
};
