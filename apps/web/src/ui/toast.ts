import type { ExternalToast, toast as shownToast } from 'sonner';

let coming: Promise<typeof shownToast> | null = null;

/** What shows what is said. Rejects where the server does not answer, and is asked for anew the next time. */
const fetched = (): Promise<typeof shownToast> =>
  (coming ??= import('./Toaster').then(
    ({ beginToasts }) => beginToasts(),
    (error: unknown) => {
      coming = null;
      throw error;
    },
  ));

/** Brings it before anything is said; where that cannot be, the first that is said tries again. */
export const fetchToasts = (): void => void fetched().catch(() => undefined);

const saying =
  (kind: 'message' | 'info' | 'success' | 'warning' | 'error' | 'loading') =>
  (text: string, options?: ExternalToast): void =>
    void fetched().then(
      (shown) => shown[kind](text, options),
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
  dismiss: (id: string): void =>
    void fetched().then(
      (shown) => shown.dismiss(id),
      // What was not shown need not go.
      () => undefined,
    ),
};
