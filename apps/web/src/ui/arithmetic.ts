/** Reads what people type into number fields: `12`, `100/3`, `2*(40+5)`. */
import { parse } from '@kite/core/formula/parse';
import { FormulaError, type Node } from '@kite/core/formula/types';

/** The value of a sum of numbers; null for a tree that has anything else in it. */
const valueOf = (node: Node): number | null => {
  if (node.op === 'number' && !node.percent) return node.value;
  if (node.op === 'unary' && node.sign === '-') {
    const of = valueOf(node.of);
    return of === null ? null : -of;
  }
  if (node.op !== 'binary') return null;
  const [left, right] = [valueOf(node.left), valueOf(node.right)];
  if (left === null || right === null) return null;
  switch (node.sign) {
    case '+':
      return left + right;
    case '-':
      return left - right;
    case '*':
      return left * right;
    case '/':
      return left / right;
    case '^':
      return left ** right;
    default:
      return null;
  }
};

/** null for anything that is not a sum. A comma is a decimal point, as it is on many keyboards. */
export const calculate = (text: string): number | null => {
  const tree = parse(
    text
      .replace(/^\s*\+/, '')
      .replaceAll(',', '.')
      .replaceAll('×', '*')
      .replaceAll('÷', '/'),
  );
  const value = tree instanceof FormulaError ? null : valueOf(tree);
  return value !== null && Number.isFinite(value) ? value : null;
};
