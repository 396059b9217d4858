import { useEffect, useRef } from 'react';

/** The gesture of a field that lasts as long as somebody is in it. It ends with the field where that goes away meanwhile. */
export const useLasting = (onStart?: () => void, onEnd?: () => void) => {
  const lasts = useRef(false);
  const ending = useRef(onEnd);
  useEffect(() => {
    ending.current = onEnd;
  });
  const end = () => {
    if (!lasts.current) return;
    lasts.current = false;
    ending.current?.();
  };
  useEffect(() => end, []);
  return {
    start: () => {
      lasts.current = true;
      onStart?.();
    },
    end,
  };
};
