/** Weights, durations, times and names as they are read. */

export const weight = (bytes: number): string =>
  bytes < 1024
    ? `${bytes} B`
    : bytes < 2 ** 20
      ? `${(bytes / 1024).toFixed(0)} KB`
      : `${(bytes / 2 ** 20).toFixed(1)} MB`;

export const duration = (seconds: number): string =>
  seconds < 60
    ? `${Math.max(1, Math.round(seconds))} s`
    : `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`;

const CLOCK = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
/** The time of day, of an ISO 8601 time. */
export const timeOf = (iso: string): string => CLOCK.format(new Date(iso));

/** So many of a thing. */
export const many = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

/** Names; of many the first three. */
export const listed = (names: readonly string[]): string =>
  names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ');
