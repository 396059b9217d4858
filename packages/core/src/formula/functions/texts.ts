/** Texts, and how large they are. */
import { digits } from '../../type/digits';
import { asNumber, constant, made, type Part, readHere } from '../parts';
import { FormulaError, type Node, NUMBER, TEXT } from '../types';
import { arg, type Call, type FormulaFunction, number } from './call';

const MOST_TEXT = 5_000;

/** A text that came out longer than any field takes. */
export const tooLong = (text: string): boolean => text.length > MOST_TEXT;

const textSize =
  (axis: 0 | 1) =>
  (call: Call): Part => {
    const node = call.args[0] as Node;
    const size =
      node.op === 'ref' ? call.setting.textSize(node.path) : `${call.name} reads a text: {Layer / Text / Text}.`;
    if (typeof size === 'string') throw new FormulaError(size, node.at);
    return { type: NUMBER, constant: false, run: (s) => readHere(s, size)[axis] };
  };

const textOf = (call: Call): Part => {
  const [x, decimals] = [number(call, 0), number(call, 1, 0)];
  const sign = call.args.length > 2 ? arg(call, 2, TEXT) : constant(TEXT, '');
  const [value, places] = [asNumber(x), asNumber(decimals)];
  return made(TEXT, [x, decimals, sign], (s) => digits(value(s), places(s), (sign.run(s) as string).slice(0, 4)));
};

const letters = (call: Call): Part => {
  const [words, count] = [arg(call, 0, TEXT), number(call, 1)];
  const n = asNumber(count);
  return made(TEXT, [words, count], (s) =>
    [...(words.run(s) as string)].slice(0, Math.max(0, Math.round(n(s)) || 0)).join(''),
  );
};

export const TEXTS: readonly FormulaFunction[] = [
  {
    name: 'text',
    takes: 'number, decimals?, apart?',
    says: 'A number in digits; the sign between groups of three comes last.',
    example: 'text(12500 * ease(time / 2, "out"), 0, " ")',
    compile: textOf,
  },
  {
    name: 'letters',
    takes: 'text, count',
    says: 'The first letters of a text.',
    example: 'letters("Next stop", time * 12)',
    compile: letters,
  },
  {
    name: 'textWidth',
    takes: 'text property',
    says: 'How wide a text card’s words are, in pixels.',
    example: 'textWidth({Name / Text / Text}) + 48',
    compile: textSize(0),
  },
  {
    name: 'textHeight',
    takes: 'text property',
    says: 'How high they are, first line’s top to last line’s foot.',
    example: 'textHeight({Name / Text / Text}) + 24',
    compile: textSize(1),
  },
];
