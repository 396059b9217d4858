import { QueryClient } from '@tanstack/react-query';

/** What was asked of the server, kept for whoever asks again. */
export const queries = new QueryClient({ defaultOptions: { queries: { refetchOnWindowFocus: false, retry: 1 } } });
