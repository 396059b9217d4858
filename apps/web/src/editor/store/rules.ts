/** How strict checks are: a matter of whoever works here, kept in this browser. */
import { DEFAULT_RULES, type Rules } from '@kite/core/proof/types';

const KEY = 'kite-checks';

export const keptRules = (): Rules => {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Record<keyof Rules, unknown>>;
    const fitting = Object.entries(kept).filter(([key, v]) => key in DEFAULT_RULES && Number.isFinite(v));
    return { ...DEFAULT_RULES, ...Object.fromEntries(fitting) };
  } catch {
    return DEFAULT_RULES;
  }
};

export const keepRules = (rules: Rules): void => localStorage.setItem(KEY, JSON.stringify(rules));
