import { type ComponentType, lazy, type ReactNode, Suspense } from 'react';

/** A part of the page that comes over the wire when it is shown first; `meanwhile` stands in its place. */
export const later = <P extends object>(
  load: () => Promise<ComponentType<P>>,
  meanwhile: ReactNode = null,
): ComponentType<P> => {
  const Part = lazy(async () => ({ default: await load() }));
  return (props: P) => (
    <Suspense fallback={meanwhile}>
      <Part {...props} />
    </Suspense>
  );
};
