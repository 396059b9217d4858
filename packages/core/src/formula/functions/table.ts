/** All functions of formulas, each with what it takes, what it does and an example: the help page and completion read this. */
import { ARITHMETIC } from './arithmetic';
import { type Call, checkCount, type FormulaFunction } from './call';
import { CHOICES } from './choices';
import { MOMENTS } from './moments';
import { MOTION } from './motion';
import { SHAPES } from './shapes';
import { TEXTS } from './texts';

const LIST = [...MOMENTS, ...CHOICES, ...MOTION, ...ARITHMETIC, ...TEXTS, ...SHAPES];

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
