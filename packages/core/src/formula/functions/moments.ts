/** Properties at other moments. */
import { asNumber, made, type Part, readAt, type Scope, wholeNear } from '../parts';
import { FormulaError, type Node, NUMBER } from '../types';
import { arg, type Call, type FormulaFunction, number } from './call';

const reference = (call: Call, i = 0): Part => {
  const node = call.args[i] as Node;
  const part = call.compile(node);
  if (part.reads) return part;
  throw new FormulaError(`${call.name} reads a property: {Layer / Position}.`, node.at);
};

/** Reads a property at another frame than its own. */
const moved =
  (frameOf: (call: Call, seconds: (s: Scope) => number) => (s: Scope) => number) =>
  (call: Call): Part => {
    const read = reference(call);
    const seconds = arg(call, 1, NUMBER);
    const sampler = read.reads as NonNullable<Part['reads']>;
    const frame = frameOf(call, asNumber(seconds));
    if (sampler.constant) return { type: read.type, constant: true, run: read.run };
    return { type: read.type, constant: false, run: (s) => readAt(s, sampler, wholeNear(frame(s))) };
  };

export const MOMENTS: readonly FormulaFunction[] = [
  {
    name: 'lag',
    takes: 'property, seconds',
    says: 'The property as it was that long ago.',
    example: 'lag({Lead / Position}, 0.1 * order)',
    compile: moved((call, seconds) => (s) => s.frame - seconds(s) * call.setting.fps),
  },
  {
    name: 'sample',
    takes: 'property, seconds',
    says: 'The property at a time of the scene.',
    example: 'sample({Lead / Position}, 2)',
    compile: moved((call, seconds) => (s) => seconds(s) * call.setting.fps),
  },
  {
    name: 'frames',
    takes: 'count',
    says: 'So many frames, in seconds.',
    example: 'lag({Lead / Turn}, frames(3))',
    compile: (call) => {
      const count = number(call, 0);
      const n = asNumber(count);
      const { fps } = call.setting;
      return made(NUMBER, [count], (s) => n(s) / fps);
    },
  },
];
