/** What compiling a call needs: its arguments, by their types. */
import { asNumber, constant, elementwise, made, type Part, type Setting } from '../parts';
import { fitsType, FormulaError, type Node, NUMBER, type Span, type Type, typeName } from '../types';

/** A call while it is compiled. */
export interface Call {
  readonly name: string;
  readonly at: Span;
  readonly args: readonly Node[];
  readonly setting: Setting;
  /** What is wanted where it stands, if that is known. */
  readonly wanted: Type | null;
  readonly compile: (node: Node, wanted?: Type | null) => Part;
}

export interface FormulaFunction {
  readonly name: string;
  /** Its arguments as they are written; those in square brackets may be left out. */
  readonly takes: string;
  readonly says: string;
  readonly example: string;
  readonly compile: (call: Call) => Part;
}

export const DEGREES = 180 / Math.PI;

const countOf = (takes: string): readonly [least: number, most: number] => {
  const names = takes.split(',').map((name) => name.trim());
  if (names.at(-1)?.startsWith('…')) return [names.length - 1, 64];
  return [names.filter((name) => !name.endsWith('?')).length, takes === '' ? 0 : names.length];
};

export const checkCount = ({ name, args, at }: Call, takes: string): void => {
  const [least, most] = countOf(takes);
  if (args.length >= least && args.length <= most) return;
  throw new FormulaError(`${name} takes ${takes === '' ? 'nothing' : takes}.`, at);
};

/** An argument of a type. */
export const arg = (call: Call, i: number, type: Type): Part => {
  const node = call.args[i] as Node;
  const part = call.compile(node, type);
  if (fitsType(part.type, type)) return part;
  throw new FormulaError(`${call.name} wants ${typeName(type)} here, this is ${typeName(part.type)}.`, node.at);
};

export const number = (call: Call, i: number, otherwise?: number): Part =>
  i < call.args.length || otherwise === undefined ? arg(call, i, NUMBER) : constant(NUMBER, otherwise);

/** Numbers to a number. */
export const ofNumbers =
  (run: (...values: number[]) => number) =>
  (call: Call): Part => {
    const parts = call.args.map((_, i) => arg(call, i, NUMBER));
    const [a, b, c] = parts.map(asNumber);
    if (c && parts.length > 3) return made(NUMBER, parts, (s) => run(...parts.map((p) => asNumber(p)(s))));
    if (a && b && c) return made(NUMBER, parts, (s) => run(a(s), b(s), c(s)));
    if (a && b) return made(NUMBER, parts, (s) => run(a(s), b(s)));
    return made(NUMBER, parts, (s) => (a ? run(a(s)) : run()));
  };

/** Numbers or vectors, element by element. */
export const ofElements =
  (run: (...values: number[]) => number) =>
  (call: Call): Part =>
    elementwise(
      call.args.map((node) => call.compile(node, call.wanted)),
      call.at,
      call.name,
      run,
    );
