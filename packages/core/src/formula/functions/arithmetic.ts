/** Numbers, angles and vectors. */
import { asNumber, asVector, made, type Part } from '../parts';
import { FormulaError, type Node, NUMBER, typeName, VECTOR } from '../types';
import { arg, type Call, DEGREES, type FormulaFunction, number, ofElements, ofNumbers } from './call';

const positive = (x: number, period: number): number => (period === 0 ? 0 : x - Math.floor(x / period) * period);

const triangle = (x: number, period: number): number => {
  const at = positive(x, 2 * Math.abs(period));
  return at <= Math.abs(period) ? at : 2 * Math.abs(period) - at;
};

/** A vector of two to a number. */
const ofVector =
  (run: (x: number, y: number) => number) =>
  (call: Call): Part => {
    const v = arg(call, 0, VECTOR);
    const of = asVector(v);
    return made(NUMBER, [v], (s) => {
      const [x = 0, y = 0] = of(s);
      return run(x, y);
    });
  };

/** Of a vector of any size. */
const lengthOf = (call: Call): Part => {
  const of = call.compile(call.args[0] as Node);
  if (of.type.kind !== 'vector') {
    throw new FormulaError(`length wants a vector here, this is ${typeName(of.type)}.`, call.args[0]?.at ?? call.at);
  }
  const vector = asVector(of);
  return made(NUMBER, [of], (s) => Math.hypot(...vector(s)));
};

export const ARITHMETIC: readonly FormulaFunction[] = [
  {
    name: 'min',
    takes: 'a, b, …more',
    says: 'The least of them.',
    example: 'min({Lead / Turn}, 45)',
    compile: ofElements(Math.min),
  },
  {
    name: 'max',
    takes: 'a, b, …more',
    says: 'The greatest of them.',
    example: 'max(value, 0)',
    compile: ofElements(Math.max),
  },
  { name: 'abs', takes: 'x', says: 'Without its sign.', example: 'abs(wave(1, 40))', compile: ofElements(Math.abs) },
  {
    name: 'floor',
    takes: 'x',
    says: 'The whole number below.',
    example: 'floor(time * 4)',
    compile: ofElements(Math.floor),
  },
  { name: 'ceil', takes: 'x', says: 'The whole number above.', example: 'ceil(time)', compile: ofElements(Math.ceil) },
  {
    name: 'round',
    takes: 'x',
    says: 'The nearest whole number; halves go up.',
    example: 'round(value / 10) * 10',
    compile: ofElements(Math.round),
  },
  { name: 'sign', takes: 'x', says: '-1, 0 or 1.', example: 'sign(wave(2, 1)) * 20', compile: ofElements(Math.sign) },
  { name: 'sqrt', takes: 'x', says: 'The square root.', example: 'sqrt(order)', compile: ofElements(Math.sqrt) },
  {
    name: 'exp',
    takes: 'x',
    says: 'e to the power of x: with a negative x, what dies away.',
    example: 'value + 40 * exp(-3 * time)',
    compile: ofElements(Math.exp),
  },
  {
    name: 'mod',
    takes: 'x, by',
    says: 'What is left of x after whole steps; never negative for a positive step.',
    example: 'mod(order, 2)',
    compile: ofElements(positive),
  },
  {
    name: 'cycle',
    takes: 'x, period',
    says: 'x from 0 to the period, again and again.',
    example: 'cycle(time, 2) * 180',
    compile: ofElements(positive),
  },
  {
    name: 'pingpong',
    takes: 'x, period',
    says: 'x from 0 to the period and back, again and again.',
    example: 'pingpong(time, 1) * 100',
    compile: ofElements(triangle),
  },
  {
    name: 'sin',
    takes: 'degrees',
    says: 'The sine of an angle.',
    example: '100 * sin(time * 180)',
    compile: ofElements((x) => Math.sin(x / DEGREES)),
  },
  {
    name: 'cos',
    takes: 'degrees',
    says: 'The cosine of an angle.',
    example: '100 * cos(time * 180)',
    compile: ofElements((x) => Math.cos(x / DEGREES)),
  },
  {
    name: 'tan',
    takes: 'degrees',
    says: 'The tangent of an angle.',
    example: 'tan(30)',
    compile: ofElements((x) => Math.tan(x / DEGREES)),
  },
  {
    name: 'atan2',
    takes: 'y, x',
    says: 'The angle of the way to x, y, clockwise from the right.',
    example: 'atan2(3, 4)',
    compile: ofNumbers((y, x) => Math.atan2(y, x) * DEGREES),
  },
  {
    name: 'length',
    takes: 'vector',
    says: 'How long a way is.',
    example: 'length({Lead / Position} - {this / Position})',
    compile: lengthOf,
  },
  {
    name: 'angle',
    takes: 'vector',
    says: 'The direction of a way, clockwise from the right.',
    example: 'angle({Lead / Position} - {this / Position})',
    compile: ofVector((x, y) => Math.atan2(y, x) * DEGREES),
  },
  {
    name: 'toward',
    takes: 'angle, distance',
    says: 'The way in a direction, so long.',
    example: '{Lead / Position} + toward(360 / count * order, 200)',
    compile: (call) => {
      const [angle, distance] = [number(call, 0), number(call, 1)];
      const [a, d] = [asNumber(angle), asNumber(distance)];
      return made(VECTOR, [angle, distance], (s) => {
        const [turn, far] = [a(s) / DEGREES, d(s)];
        return [Math.cos(turn) * far, Math.sin(turn) * far];
      });
    },
  },
];
