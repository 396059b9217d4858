/** Between values, and one of two. */
import type { ValueKind } from '../../document/types';
import { kindOfValue } from '../../motion/kinds/table';
import { asNumber, elementwise, isNumeric, joint, made, type Part, widened } from '../parts';
import { fitsType, FormulaError, type Node, type Type, typeName } from '../types';
import { arg, type Call, type FormulaFunction, number, ofElements, ofNumbers } from './call';

/** The kind of value by which two are mixed. */
const mixKind = (type: Type): ValueKind => {
  if (type.kind === 'vector') return type.size === 2 ? 'point' : 'numbers';
  return type.kind;
};

const mix = (call: Call): Part => {
  const [a, b] = [call.compile(call.args[0] as Node, call.wanted), call.compile(call.args[1] as Node, call.wanted)];
  const t = number(call, 2);
  const at = asNumber(t);
  if (isNumeric(a) && isNumeric(b)) {
    return elementwise([a, b, t], call.at, 'mix', (p, q, share) => p + (q - p) * share);
  }
  if (!fitsType(a.type, b.type)) {
    throw new FormulaError(`mix wants two of a kind, these are ${typeName(a.type)} and ${typeName(b.type)}.`, call.at);
  }
  const { mix: how } = kindOfValue(mixKind(a.type));
  return made(a.type, [a, b, t], (s) => how(a.run(s), b.run(s), at(s)));
};

const either = (call: Call): Part => {
  const condition = arg(call, 0, { kind: 'switch' });
  const choices = [1, 2].map((i) => call.compile(call.args[i] as Node, call.wanted));
  const both = joint(choices);
  const [a, b] = choices.map((choice) => (both ? widened(choice, both) : choice)) as [Part, Part];
  if (!fitsType(a.type, b.type)) {
    throw new FormulaError(
      `Both choices of if must be of one type, these are ${typeName(a.type)} and ${typeName(b.type)}.`,
      call.at,
    );
  }
  return made(a.type, [condition, a, b], (s) => (condition.run(s) === true ? a.run(s) : b.run(s)));
};

const remapped = (x: number, from1: number, from2: number, to1: number, to2: number): number => {
  const t = from1 === from2 ? (x < from1 ? 0 : 1) : (x - from1) / (from2 - from1);
  return to1 + (to2 - to1) * Math.min(1, Math.max(0, t));
};

export const CHOICES: readonly FormulaFunction[] = [
  {
    name: 'if',
    takes: 'condition, a, b',
    says: 'The first where the condition holds, else the second.',
    example: 'if(order = 0, 100%, 40%)',
    compile: either,
  },
  {
    name: 'mix',
    takes: 'a, b, share',
    says: 'Between two numbers, vectors, colours or paths; 0 is the first, 1 the second.',
    example: 'mix(#FFB23E, #2EC4B6, order / count)',
    compile: mix,
  },
  {
    name: 'remap',
    takes: 'x, from1, from2, to1, to2',
    says: 'Where x lies in one range, taken to another; it stays within.',
    example: 'remap(time, 0, 2, 0%, 100%)',
    compile: ofNumbers(remapped),
  },
  {
    name: 'clamp',
    takes: 'x, least, most',
    says: 'x, kept between the two.',
    example: 'clamp({Lead / Position}.x, 100, 900)',
    compile: ofElements((x, a, b) => Math.min(Math.max(x, a), b)),
  },
];
