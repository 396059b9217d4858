/** All functions of formulas, each with what it takes, what it does and an example: the help page and completion read this. */
import { ARITHMETIC } from './arithmetic';
import { type Call, checkCount, type FormulaFunction } from './call';
import { CHOICES } from './choices';
import { MOMENTS } from './moments';
import { MOTION } from './motion';
import { SHAPES } from './shapes';
import { TEXTS } from './texts';

/** By the modules that have them. The player of a banner leaves out those that its scene calls nothing of: see packages/player/src/parts.ts. */
export const FUNCTION_GROUPS = {
  moments: MOMENTS,
  choices: CHOICES,
  motion: MOTION,
  arithmetic: ARITHMETIC,
  texts: TEXTS,
  shapes: SHAPES,
};

const LIST = (Object.values(FUNCTION_GROUPS) as (readonly FormulaFunction[] | undefined)[]).flatMap(
  (group) => group ?? [],
);

export const FUNCTIONS: ReadonlyMap<string, FormulaFunction> = new Map(
  LIST.map((f) => [
    f.name,
    {
      ...f,
      compile: (call: Call) => {
        checkCount(call, f.takes);
        return f.compile(call);
      },
    },
  ]),
);
