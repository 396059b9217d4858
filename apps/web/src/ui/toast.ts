import type { ExternalToast } from 'sonner';
import type * as Shown from './Toaster';

let coming: Promise<typeof Shown> | null = null;

/** What shows what is said. Rejects where the server does not answer, and is asked for anew the next time. */
export const fetchToaster = (): Promise<typeof Shown> =>
  (coming ??= import('./Toaster').catch((error: unknown) => {
    coming = null;
    throw error;
  }));

const saying =
  (kind: 'message' | 'info' | 'success' | 'warning' | 'error' | 'loading') =>
  (text: string, options?: ExternalToast): void =>
    void fetchToaster().then(
      ({ toast }) => toast[kind](text, options),
      () => alert(text),
    );

/**
 * Says something at the edge of the page for a while. What shows it comes over the wire once the page has nothing else to do, or
 * with the first that is said; what is said meanwhile waits, in its order. One that has the `id` of one before takes its place.
 */
export const toast = {
  message: saying('message'),
  info: saying('info'),
  success: saying('success'),
  warning: saying('warning'),
  error: saying('error'),
  loading: saying('loading'),
  dismiss: (id: string): void => void fetchToaster().then(({ toast: shown }) => shown.dismiss(id)),
};
