import { toast } from './toast';

/** What went wrong, in its own words. */
const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Says what went wrong, in sentences. */
export const sayWrong = (error: unknown): void => {
  toast.error(messageOf(error));
};

/** Says that something is gone, with the way back. */
export const sayGone = (what: string, bringBack: () => Promise<unknown>): void => {
  toast.message(what, { duration: 12_000, action: { label: 'Undo', onClick: () => void bringBack().catch(sayWrong) } });
};

/** Says what went wrong, in sentences, and that nothing was lost by it. */
export const sayUnchanged = (error: unknown): void => {
  toast.error(`${messageOf(error)} Nothing was changed.`);
};
