/** Tree to closures: every part is checked for its type, and what does not depend on time is worked out once. */
import { isEqual } from '../document/is';
import type { Point, Value } from '../document/types';
import { FUNCTIONS } from './functions/table';
import { digits } from '../type/digits';
import { tooLong } from './functions/texts';
import {
  asNumber,
  asVector,
  constant,
  elementwise,
  EXHAUSTED,
  isNumeric,
  made,
  type Part,
  readAt,
  readHere,
  type Scope,
  type Setting,
  widened,
} from './parts';
import {
  COLOR,
  fitsType,
  FormulaError,
  type Node,
  type NodeOf,
  NUMBER,
  type Sign,
  sizeOf,
  SWITCH,
  TEXT,
  type Type,
  typeName,
  vector,
} from './types';

interface ScopeName {
  readonly name: string;
  readonly says: string;
  readonly make: (setting: Setting) => Part;
}

const varying = (type: Type, run: (s: Scope) => Value): Part => ({ type, constant: false, run });

/** The last keyframe at or before a frame. */
const keyBefore = (keyFrames: readonly number[], frame: number): number | null => {
  let found: number | null = null;
  for (const key of keyFrames) {
    if (key > frame) break;
    found = key;
  }
  return found;
};

/** How fast a property came into a keyframe, per second: over the last hundredth of a frame. */
const arrival = (setting: Setting): Part => {
  if (setting.type.kind !== 'number' && setting.type.kind !== 'vector') {
    throw new RangeError('arrival is the speed of numbers and vectors alone');
  }
  const { base, fps, keyFrames } = setting;
  const speed = (a: number, b: number) => ((b - a) * fps) / 0.01;
  return varying(setting.type, (s) => {
    const key = keyBefore(keyFrames, s.frame);
    const [from, to] = [key === null ? 0 : key - 0.01, key ?? 0].map((frame) => readAt(s, base, frame)) as [
      Value,
      Value,
    ];
    if (typeof to === 'number') return speed(from as number, to);
    return (to as readonly number[]).map((x, i) => speed((from as readonly number[])[i] ?? x, x)) as unknown as Value;
  });
};

/** The layer's rank in its set, or inside a repeater the copy's number. */
const ranked =
  (pick: (of: { order: number; count: number }) => number) =>
  (setting: Setting): Part =>
    setting.inRecipe ? varying(NUMBER, (s) => pick(s.copy ?? setting)) : constant(NUMBER, pick(setting));

const NAME_LIST: readonly ScopeName[] = [
  {
    name: 'value',
    says: 'What the keyframes give.',
    make: ({ type, base }) => (base.constant ? constant(type, base.at(0)) : varying(type, (s) => readHere(s, base))),
  },
  {
    name: 'time',
    says: 'Seconds from the start of the scene.',
    make: ({ fps }) => varying(NUMBER, (s) => s.frame / fps),
  },
  { name: 'frame', says: 'Frames from the start of the scene.', make: () => varying(NUMBER, (s) => s.frame) },
  { name: 'fps', says: 'Frames a second.', make: ({ fps }) => constant(NUMBER, fps) },
  {
    name: 'order',
    says: 'The layer’s rank in its set: the lead is 0. In a repeater the copy’s number, above and in a Letters card the letter’s.',
    make: ranked((r) => r.order),
  },
  {
    name: 'count',
    says: 'How many the set has, or the repeater, or how many letters there are.',
    make: ranked((r) => r.count),
  },
  {
    name: 'letter',
    says: 'What the letter, word or line says, above and in a Letters card; nothing elsewhere.',
    make: ({ inRecipe }) => (inRecipe ? varying(TEXT, (s) => s.copy?.letter ?? '') : constant(TEXT, '')),
  },
  {
    name: 'sinceKey',
    says: 'Seconds since the property’s last keyframe; 0 before the first.',
    make: ({ keyFrames, fps }) => varying(NUMBER, (s) => (s.frame - (keyBefore(keyFrames, s.frame) ?? s.frame)) / fps),
  },
  { name: 'arrival', says: 'How fast, per second, the property came into that keyframe.', make: arrival },
  { name: 'width', says: 'The scene’s width in pixels.', make: ({ width }) => constant(NUMBER, width) },
  { name: 'height', says: 'The scene’s height in pixels.', make: ({ height }) => constant(NUMBER, height) },
  { name: 'pi', says: '3.14159…', make: () => constant(NUMBER, Math.PI) },
  { name: 'true', says: 'Of a switch: on.', make: () => constant(SWITCH, true) },
  { name: 'false', says: 'Of a switch: off.', make: () => constant(SWITCH, false) },
];
export const NAMES: ReadonlyMap<string, ScopeName> = new Map(NAME_LIST.map((n) => [n.name, n]));

const OPERATIONS: Readonly<Partial<Record<Sign, (a: number, b: number) => number>>> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b) => a * b,
  '/': (a, b) => a / b,
  '^': (a, b) => a ** b,
};
type Numbers = (s: Scope) => number;
type Points = (s: Scope) => Point;
/** What most formulas do most of the time, without a call for each number. */
const QUICK: Readonly<
  Partial<Record<Sign, readonly [(p: Numbers, q: Numbers) => Numbers, (p: Points, q: Points) => Points]>>
> = {
  '+': [
    (p, q) => (s) => p(s) + q(s),
    (p, q) => (s) => {
      const v = p(s);
      const w = q(s);
      return [v[0] + w[0], v[1] + w[1]];
    },
  ],
  '-': [
    (p, q) => (s) => p(s) - q(s),
    (p, q) => (s) => {
      const v = p(s);
      const w = q(s);
      return [v[0] - w[0], v[1] - w[1]];
    },
  ],
  '*': [
    (p, q) => (s) => p(s) * q(s),
    (p, q) => (s) => {
      const v = p(s);
      const w = q(s);
      return [v[0] * w[0], v[1] * w[1]];
    },
  ],
};

const arithmetic = (sign: Sign, a: Part, b: Part): Part | null => {
  const both = QUICK[sign];
  if (!both) return null;
  if (a.type.kind === 'number' && b.type.kind === 'number') {
    return made(NUMBER, [a, b], both[0](asNumber(a), asNumber(b)));
  }
  const pair = ({ type }: Part) => type.kind === 'vector' && type.size === 2;
  return pair(a) && pair(b) ? made(a.type, [a, b], both[1](a.run as Points, b.run as Points)) : null;
};

const COMPARISONS: Readonly<Partial<Record<Sign, (a: number, b: number) => boolean>>> = {
  '<': (a, b) => a < b,
  '<=': (a, b) => a <= b,
  '>': (a, b) => a > b,
  '>=': (a, b) => a >= b,
};

/** The near ones of a name that is not known. */
const nearest = (name: string, known: Iterable<string>): string => {
  const start = name.slice(0, 2).toLowerCase();
  const near = [...known].filter((k) => k.toLowerCase().startsWith(start)).slice(0, 3);
  return near.length > 0 ? ` Near it: ${near.join(', ')}.` : '';
};

const asText = (part: Part): ((s: Scope) => string) => {
  if (part.type.kind === 'text') return part.run as (s: Scope) => string;
  const value = asNumber(part);
  return (s) => {
    const n = value(s);
    return digits(n, Number.isInteger(n) ? 0 : 2);
  };
};

class Compiler {
  constructor(private readonly setting: Setting) {}

  readonly compile = (node: Node, wanted: Type | null = null): Part => {
    switch (node.op) {
      case 'number':
        return constant(NUMBER, node.value);
      case 'color':
        return constant(COLOR, node.value);
      case 'text':
        return constant(TEXT, node.value);
      case 'name':
        return this.name(node);
      case 'ref':
        return this.reference(node.path, null, node.at);
      case 'part':
        return this.part(node);
      case 'vector':
        return this.vector(node);
      case 'unary':
        return this.unary(node, wanted);
      case 'binary':
        return this.binary(node, wanted);
      case 'call': {
        const known = FUNCTIONS.get(node.name);
        if (!known) {
          throw new FormulaError(
            `There is no function “${node.name}”.${nearest(node.name, FUNCTIONS.keys())}`,
            node.at,
          );
        }
        const { setting, compile } = this;
        return known.compile({ name: node.name, at: node.at, args: node.args, setting, wanted, compile });
      }
    }
  };

  private name({ name, at }: NodeOf<'name'>): Part {
    const known = NAMES.get(name);
    if (!known) {
      const call = FUNCTIONS.has(name) ? ` ${name} is a function: ${name}(…).` : nearest(name, NAMES.keys());
      throw new FormulaError(`“${name}” is not a name here.${call} A property stands in braces.`, at);
    }
    try {
      return known.make(this.setting);
    } catch (error) {
      throw new FormulaError(error instanceof RangeError ? `${error.message}.` : String(error), at);
    }
  }

  private reference(path: string, part: 0 | 1 | 2 | null, at: Node['at']): Part {
    const found = this.setting.property(path, part);
    if (typeof found === 'string') throw new FormulaError(found, at);
    const { sampler, moments, type } = found;
    if (sampler.constant) return { ...constant(type, sampler.at(0)), reads: moments };
    return { type, constant: false, run: (s) => readHere(s, sampler), reads: moments };
  }

  private part({ of, part, at }: NodeOf<'part'>): Part {
    // A part of a reference reads that part alone.
    if (of.op === 'ref') return this.reference(of.path, part, at);
    const whole = this.compile(of);
    const size = sizeOf(whole.type);
    if (size === null) throw new FormulaError(`Only a vector has .x and .y, this is ${typeName(whole.type)}.`, at);
    if (size > 0 && part >= size) throw new FormulaError(`This is ${typeName(whole.type)}: it has no .z.`, at);
    const read = asVector(whole);
    return made(NUMBER, [whole], (s) => read(s)[part] ?? 0);
  }

  private vector({ items, at }: NodeOf<'vector'>): Part {
    const parts = items.map((item) => this.compile(item, NUMBER));
    const odd = parts.findIndex((p) => p.type.kind !== 'number');
    if (odd >= 0) {
      throw new FormulaError(
        `A vector is made of numbers, this is ${typeName((parts[odd] as Part).type)}.`,
        items[odd]?.at ?? at,
      );
    }
    const [x, y] = parts.map(asNumber);
    if (parts.length === 2 && x && y) return made(vector(2), parts, (s) => [x(s), y(s)]);
    return made(vector(parts.length), parts, (s) => parts.map((p) => asNumber(p)(s)));
  }

  private unary({ sign, of, at }: NodeOf<'unary'>, wanted: Type | null): Part {
    const part = this.compile(of, sign === '-' ? wanted : SWITCH);
    if (sign === '-') {
      if (!isNumeric(part))
        throw new FormulaError(`Only numbers and vectors have a sign, this is ${typeName(part.type)}.`, at);
      return elementwise([part], at, '-', (x) => -x);
    }
    if (part.type.kind !== 'switch')
      throw new FormulaError(`“not” wants a switch, this is ${typeName(part.type)}.`, at);
    return made(SWITCH, [part], (s) => part.run(s) !== true);
  }

  private binary({ sign, left, right, at }: NodeOf<'binary'>, wanted: Type | null): Part {
    const compares = sign in COMPARISONS || sign === '=' || sign === '!=';
    const [a, b] = [left, right].map((side) => this.compile(side, compares ? null : wanted)) as [Part, Part];
    const wrong = (wants: string): never => {
      throw new FormulaError(`“${sign}” wants ${wants}, these are ${typeName(a.type)} and ${typeName(b.type)}.`, at);
    };
    if (sign === 'and' || sign === 'or') {
      if (a.type.kind !== 'switch' || b.type.kind !== 'switch') wrong('two switches');
      return sign === 'and'
        ? made(SWITCH, [a, b], (s) => a.run(s) === true && b.run(s) === true)
        : made(SWITCH, [a, b], (s) => a.run(s) === true || b.run(s) === true);
    }
    if (sign === '=' || sign === '!=') {
      if (!fitsType(a.type, b.type)) wrong('two of a kind');
      const equal = sign === '=';
      return made(SWITCH, [a, b], (s) => isEqual(a.run(s), b.run(s)) === equal);
    }
    const compare = COMPARISONS[sign];
    if (compare) {
      if (a.type.kind !== 'number' || b.type.kind !== 'number') wrong('two numbers');
      const [p, q] = [asNumber(a), asNumber(b)];
      return made(SWITCH, [a, b], (s) => compare(p(s), q(s)));
    }
    if (sign === '+' && (a.type.kind === 'text' || b.type.kind === 'text')) {
      if (![a, b].every((p) => p.type.kind === 'text' || p.type.kind === 'number')) wrong('texts and numbers');
      const [p, q] = [asText(a), asText(b)];
      return made(TEXT, [a, b], (s) => {
        const text = p(s) + q(s);
        if (tooLong(text)) throw EXHAUSTED;
        return text;
      });
    }
    if (!isNumeric(a) || !isNumeric(b)) wrong('numbers or vectors');
    const quick = arithmetic(sign, a, b);
    if (quick) return quick;
    return elementwise([a, b], at, `“${sign}”`, OPERATIONS[sign] as (x: number, y: number) => number);
  }
}

const fitting = (part: Part, { type }: Setting, tree: Node): Part | FormulaError =>
  fitsType(part.type, type)
    ? part
    : new FormulaError(`This gives ${typeName(part.type)}, the property wants ${typeName(type)}.`, tree.at);

/** A tree as a function of the frame, or what is wrong with it. */
export const compile = (tree: Node, setting: Setting): Part | FormulaError => {
  try {
    const part = new Compiler(setting).compile(tree, setting.type);
    // One number stands for both of a vector, as in a scale.
    if (part.type.kind === 'number') return fitting(widened(part, setting.type), setting, tree);
    return fitting(part, setting, tree);
  } catch (error) {
    if (error instanceof FormulaError) return error;
    if (error === EXHAUSTED) return new FormulaError('This gives a text that is too long.', tree.at);
    throw error;
  }
};
