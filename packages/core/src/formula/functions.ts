/** The functions of formulas, each with what it takes, what it does and an example. The help page and completion read this table. */
import type { Color, Ease, PathValue, Point, Value, ValueKind } from '../document/types';
import { curveOf } from '../motion/eases/table';
import { MIX } from '../motion/mix';
import { seeded } from '../motion/random';
import {
  asNumber,
  asVector,
  constant,
  elementwise,
  isNumeric,
  joint,
  made,
  type Part,
  readAt,
  type Scope,
  type Setting,
  wholeNear,
  widened,
} from './parts';
import {
  fitsType,
  FormulaError,
  type Node,
  NUMBER,
  PATH,
  type Span,
  TEXT,
  type Type,
  typeName,
  vector,
  VECTOR,
} from './types';

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

const DEGREES = 180 / Math.PI;
const MOST_TEXT = 5_000;

const countOf = (takes: string): readonly [least: number, most: number] => {
  const names = takes.split(',').map((name) => name.trim());
  if (names.at(-1)?.startsWith('…')) return [names.length - 1, 64];
  return [names.filter((name) => !name.endsWith('?')).length, takes === '' ? 0 : names.length];
};

const checkCount = ({ name, args, at }: Call, takes: string): void => {
  const [least, most] = countOf(takes);
  if (args.length >= least && args.length <= most) return;
  throw new FormulaError(`${name} takes ${takes === '' ? 'nothing' : takes}.`, at);
};

/** An argument of a type. */
const arg = (call: Call, i: number, type: Type): Part => {
  const node = call.args[i] as Node;
  const part = call.compile(node, type);
  if (fitsType(part.type, type)) return part;
  throw new FormulaError(`${call.name} wants ${typeName(type)} here, this is ${typeName(part.type)}.`, node.at);
};
const number = (call: Call, i: number, otherwise?: number): Part =>
  i < call.args.length || otherwise === undefined ? arg(call, i, NUMBER) : constant(NUMBER, otherwise);

/** Numbers to a number. */
const ofNumbers =
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
const ofElements =
  (run: (...values: number[]) => number) =>
  (call: Call): Part =>
    elementwise(
      call.args.map((node) => call.compile(node, call.wanted)),
      call.at,
      call.name,
      run,
    );

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
  const how = MIX[mixKind(a.type)] as (from: Value, to: Value, t: number) => Value;
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

/** Between 0 and 1, from two whole numbers. */
const noise = (cell: number, seed: number): number => seeded(seed * 7919 + cell * 1.618)();

/** Smooth noise: random values at whole places, a quintic between them (Perlin, 2002). From -1 to 1. */
const smoothNoise = (place: number, seed: number): number => {
  const cell = Math.floor(place);
  const t = place - cell;
  const fade = t * t * t * (t * (t * 6 - 15) + 10);
  const [a, b] = [noise(cell, seed), noise(cell + 1, seed)];
  return (a + (b - a) * fade) * 2 - 1;
};

/** One for each element of a vector, each with noise of its own. */
const drift = (call: Call): Part => {
  const frequency = number(call, 0);
  const amount = call.compile(call.args[1] as Node, call.wanted);
  const seed = number(call, 2, 0);
  const [f, n] = [asNumber(frequency), asNumber(seed)];
  if (!isNumeric(amount)) throw new FormulaError('drift wants a number or a vector for its amount.', call.at);
  const { fps } = call.setting;
  const at = (s: Scope, i: number) => smoothNoise((s.frame / fps) * f(s), n(s) + i * 101);
  if (amount.type.kind === 'vector') {
    const p = asVector(amount);
    return { type: amount.type, constant: false, run: (s) => p(s).map((x, i) => x * at(s, i)) as unknown as Value };
  }
  const by = asNumber(amount);
  const size = call.wanted?.kind === 'vector' ? call.wanted.size : 0;
  if (size === 0) return { type: NUMBER, constant: false, run: (s) => by(s) * at(s, 0) };
  return {
    type: vector(size),
    constant: false,
    run: (s) => Array.from({ length: size }, (_, i) => by(s) * at(s, i)) as unknown as Value,
  };
};

const wave = (call: Call): Part => {
  const frequency = number(call, 0);
  const amount = call.compile(call.args[1] as Node, call.wanted);
  const phase = number(call, 2, 0);
  const { fps } = call.setting;
  const [f, by] = [asNumber(frequency), asNumber(phase)];
  const swing: Part = {
    type: NUMBER,
    constant: false,
    run: (s) => Math.sin(((s.frame / fps) * f(s) * 360 + by(s)) / DEGREES),
  };
  return elementwise([amount, swing], call.at, 'wave', (a, b) => a * b);
};

/** The eases that need not be kept under a name. */
export const READY_EASES: Readonly<Record<string, Ease>> = {
  linear: { kind: 'linear' },
  in: { kind: 'bezier', x1: 0.42, y1: 0, x2: 1, y2: 1 },
  out: { kind: 'bezier', x1: 0, y1: 0, x2: 0.58, y2: 1 },
  'in-out': { kind: 'bezier', x1: 0.42, y1: 0, x2: 0.58, y2: 1 },
  back: { kind: 'bezier', x1: 0.34, y1: 1.56, x2: 0.64, y2: 1 },
  spring: { kind: 'spring', bounces: 3, damping: 0.6 },
  bounce: { kind: 'bounce', bounces: 3, height: 0.5 },
};

const easeOf = (call: Call): Ease => {
  const node = call.args[1] as Node;
  if (node.op === 'text') {
    const ready = READY_EASES[node.value];
    if (ready && Object.hasOwn(READY_EASES, node.value)) return ready;
    throw new FormulaError(
      `Ready eases are ${Object.keys(READY_EASES).join(', ')}; kept ones are {Eases / Name}.`,
      node.at,
    );
  }
  const found =
    node.op === 'ref' ? call.setting.ease(node.path) : 'ease wants the name of an ease: "out", {Eases / Soft}.';
  if (typeof found === 'string') throw new FormulaError(found, node.at);
  return found;
};

const eased = (call: Call): Part => {
  const t = number(call, 0);
  const curve = curveOf(easeOf(call));
  const at = asNumber(t);
  return made(NUMBER, [t], (s) => curve(Math.min(1, Math.max(0, at(s)))));
};

const springOf = (t: number, bounces: number, damping: number): number =>
  curveOf({
    kind: 'spring',
    bounces: Math.min(50, Math.max(1, Math.round(bounces))),
    damping: Math.min(1, Math.max(0, damping)),
  })(Math.min(1, Math.max(0, t)));

const vectorArg = (call: Call): Part => arg(call, 0, VECTOR);

const textSize =
  (axis: 0 | 1) =>
  (call: Call): Part => {
    const node = call.args[0] as Node;
    const size =
      node.op === 'ref' ? call.setting.textSize(node.path) : `${call.name} reads a text: {Layer / Text / Text}.`;
    if (typeof size === 'string') throw new FormulaError(size, node.at);
    return { type: NUMBER, constant: false, run: (s) => size(s.frame)[axis] };
  };

const grouped = (text: string, sign: string): string => {
  const [whole = '', rest] = text.split('.');
  const apart = whole.replace(/\B(?=(\d{3})+(?!\d))/g, sign);
  return rest === undefined ? apart : `${apart}.${rest}`;
};

/** A number in digits: as many decimals as are asked for, groups of three apart where there is a sign for it. */
export const digits = (value: number, decimals: number, sign = ''): string => {
  const text = value.toFixed(Math.min(20, Math.max(0, Math.round(decimals) || 0)));
  // Nothing is shown as -0.
  return grouped(/^-[0.]*$/.test(text) ? text.slice(1) : text, sign);
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

/** Straight lines through points. */
const pathOf =
  (closed: boolean) =>
  (call: Call): Part => {
    const points = call.args.map((_, i) => arg(call, i, VECTOR));
    return made(PATH, points, (s): PathValue => ({
      closed,
      vertices: points.map((p) => {
        const [x, y] = p.run(s) as Point;
        return [x, y, 0, 0, 0, 0];
      }),
    }));
  };

const vertexOf = (call: Call): Part => {
  const [path, index] = [arg(call, 0, PATH), number(call, 1)];
  const n = asNumber(index);
  return made(VECTOR, [path, index], (s) => {
    const { vertices } = path.run(s) as PathValue;
    const v = vertices[Math.min(vertices.length - 1, Math.max(0, Math.round(n(s)) - 1 || 0))];
    return v ? [v[0], v[1]] : [0, 0];
  });
};

const alpha = (call: Call): Part => {
  const [color, opacity] = [arg(call, 0, { kind: 'color' }), number(call, 1)];
  const by = asNumber(opacity);
  return made({ kind: 'color' }, [color, opacity], (s) => {
    const share = Math.round(Math.min(1, Math.max(0, by(s) || 0)) * 255);
    return `${(color.run(s) as Color).slice(0, 7)}${share.toString(16).padStart(2, '0')}`.toUpperCase();
  });
};

const positive = (x: number, period: number): number => (period === 0 ? 0 : x - Math.floor(x / period) * period);
const triangle = (x: number, period: number): number => {
  const at = positive(x, 2 * Math.abs(period));
  return at <= Math.abs(period) ? at : 2 * Math.abs(period) - at;
};
const remapped = (x: number, from1: number, from2: number, to1: number, to2: number): number => {
  const t = from1 === from2 ? (x < from1 ? 0 : 1) : (x - from1) / (from2 - from1);
  return to1 + (to2 - to1) * Math.min(1, Math.max(0, t));
};

const LIST: readonly FormulaFunction[] = [
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
    compile: (call) => {
      const v = vectorArg(call);
      const of = asVector(v);
      return made(NUMBER, [v], (s) => {
        const [x = 0, y = 0] = of(s);
        return Math.sqrt(x * x + y * y);
      });
    },
  },
  {
    name: 'angle',
    takes: 'vector',
    says: 'The direction of a way, clockwise from the right.',
    example: 'angle({Lead / Position} - {this / Position})',
    compile: (call) => {
      const v = vectorArg(call);
      const of = asVector(v);
      return made(NUMBER, [v], (s) => {
        const [x = 0, y = 0] = of(s);
        return Math.atan2(y, x) * DEGREES;
      });
    },
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
  {
    name: 'wave',
    takes: 'frequency, amount, phase?',
    says: 'Swings to and fro, so many times a second and so far; the phase in degrees.',
    example: 'value + [0, wave(1, 12, order * 30)]',
    compile: wave,
  },
  {
    name: 'drift',
    takes: 'frequency, amount, seed?',
    says: 'Wanders smoothly, so many times a second and so far, for each element its own way.',
    example: 'value + drift(0.5, 30, order)',
    compile: drift,
  },
  {
    name: 'random',
    takes: 'seed',
    says: 'Between 0 and 1, always the same for a seed.',
    example: 'value + 360 * random(order)',
    compile: ofNumbers((seed) => noise(0, seed)),
  },
  {
    name: 'ease',
    takes: 'share, ease',
    says: 'A share of 0 to 1 eased: "linear", "in", "out", "in-out", "back", "spring", "bounce", or a kept ease.',
    example: 'mix(0, 300, ease(time / 2, "back"))',
    compile: eased,
  },
  {
    name: 'spring',
    takes: 'share, bounces, damping',
    says: 'Goes from 0 to 1 while the share does, and swings about it.',
    example: 'mix(0%, 100%, spring(time, 3, 60%))',
    compile: ofNumbers(springOf),
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
  {
    name: 'alpha',
    takes: 'color, opacity',
    says: 'A colour, so strong.',
    example: 'alpha(#FFB23E, 40%)',
    compile: alpha,
  },
  {
    name: 'polygon',
    takes: 'a, b, …more',
    says: 'The closed path through these points.',
    example: 'polygon([0, 0], [200, 0], {Corner / Position})',
    compile: pathOf(true),
  },
  {
    name: 'polyline',
    takes: 'a, b, …more',
    says: 'The open path through these points.',
    example: 'polyline([0, 0], {Stop / Position})',
    compile: pathOf(false),
  },
  {
    name: 'vertex',
    takes: 'path, number',
    says: 'A vertex of a path; the first is 1.',
    example: 'vertex({Route / Path / Path}, 2)',
    compile: vertexOf,
  },
];

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

/** A text that came out longer than any field takes. */
export const tooLong = (text: string): boolean => text.length > MOST_TEXT;
