import { toast } from 'sonner';

/** What went wrong, in its own words. */
const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Says what went wrong, in sentences. */
export const sayWrong = (error: unknown): void => {
  toast.error(messageOf(error));
};

/** Says what went wrong, in sentences, and that nothing was lost by it. */
export const sayUnchanged = (error: unknown): void => {
  toast.error(`${messageOf(error)} Nothing was changed.`);
};
