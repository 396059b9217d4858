import { type ComponentType, type ReactNode, useEffect, useState } from 'react';
import { toast } from './toast';

/** A part of the page that comes over the wire by itself; once it is here it is shown at once. */
export type Later<P extends object> = ComponentType<P> & {
  /** Fetches it before it is shown. Rejects where the server does not answer. */
  readonly fetch: () => Promise<void>;
};

/**
 * What is loaded when it is shown first; `meanwhile` stands in its place, a part that takes the same where keys pressed in
 * that time are not to be lost. Where it cannot come that is told, and it is tried again the next time.
 */
export const later = <P extends object>(
  load: () => Promise<ComponentType<P>>,
  meanwhile: ReactNode | ((props: P) => ReactNode) = null,
): Later<P> => {
  let Part: ComponentType<P> | null = null;
  const fetch = async () => {
    Part ??= await load();
  };
  const Shown = (props: P) => {
    const [here, come] = useState(Part !== null);
    useEffect(() => {
      if (here) return;
      let gone = false;
      fetch().then(
        () => !gone && come(true),
        () => {
          // Told once, however many parts of it are to be shown.
          if (!gone)
            toast.error('This cannot be shown: the server does not answer. Try again when it is back.', {
              id: 'later',
            });
        },
      );
      return () => {
        gone = true;
      };
    }, [here]);
    if (here && Part) return <Part {...props} />;
    return typeof meanwhile === 'function' ? meanwhile(props) : meanwhile;
  };
  return Object.assign(Shown, { fetch });
};
