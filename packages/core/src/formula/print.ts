/** Tree to text, with no more brackets than it takes to read back the same tree. */
import type { Node, Sign } from './types';

const LEVELS: Readonly<Record<Sign, number>> = {
  or: 1,
  and: 2,
  '=': 4,
  '!=': 4,
  '<': 4,
  '<=': 4,
  '>': 4,
  '>=': 4,
  '+': 5,
  '-': 5,
  '*': 6,
  '/': 6,
  '^': 8,
};
const NOT = 3;
const MINUS = 7;
const LEAF = 9;

const levelOf = (node: Node): number => {
  if (node.op === 'binary') return LEVELS[node.sign];
  if (node.op === 'unary') return node.sign === 'not' ? NOT : MINUS;
  return LEAF;
};

/** A number as the grammar reads it: exponents have no sign in front of the digits, and no number is negative. */
const numberText = (value: number, percent: boolean): string => {
  if (!percent) return String(value);
  const hundredfold = Number((value * 100).toPrecision(15));
  return hundredfold / 100 === value && !String(hundredfold).includes('e') ? `${hundredfold}%` : String(value);
};

export const quoted = (text: string): string => `"${text.replace(/[\\"]/g, '\\$&').replaceAll('\n', '\\n')}"`;

const within = (node: Node, least: number): string => {
  const text = print(node);
  return levelOf(node) < least ? `(${text})` : text;
};

export const print = (node: Node): string => {
  switch (node.op) {
    case 'number':
      return numberText(node.value, node.percent);
    case 'color':
      return node.value;
    case 'text':
      return quoted(node.value);
    case 'name':
      return node.name;
    case 'ref':
      return `{${node.path}}`;
    case 'part':
      return `${within(node.of, LEAF)}${`.${'xyz'.charAt(node.part)}`}`;
    case 'vector':
      return `[${node.items.map(print).join(', ')}]`;
    case 'call':
      return `${node.name}(${node.args.map(print).join(', ')})`;
    case 'unary':
      return node.sign === 'not' ? `not ${within(node.of, NOT)}` : `-${within(node.of, MINUS)}`;
    case 'binary': {
      const level = LEVELS[node.sign];
      // What goes from the left needs brackets on the right at its own level; powers the other way round, comparisons on both.
      const left = within(node.left, node.sign === '^' || level === 4 ? level + 1 : level);
      const right = within(node.right, node.sign === '^' ? MINUS : level + 1);
      return `${left} ${node.sign} ${right}`;
    }
  }
};
