/** Stands in for `formula/wiring` where a scene has no formulas: nothing is computed, and nothing goes wrong. */
import type { wiringOf as whole, Wiring } from '@kite/core/formula/wiring';

const NONE: Wiring = {
  sampler: () => null,
  computed: () => null,
  computedOn: () => [],
  computing: () => undefined,
  allOf: () => [],
  problems: [],
  problemsAt: () => [],
};

export const wiringOf: typeof whole = () => NONE;
