/** What moves by itself: swings, wanders, eases. */
import type { Ease, Value } from '../../document/types';
import { curveOf } from '../../motion/eases/table';
import { seeded } from '../../document/random';
import { asNumber, asVector, elementwise, isNumeric, made, type Part, type Scope } from '../parts';
import { FormulaError, type Node, NUMBER, vector } from '../types';
import { type Call, DEGREES, type FormulaFunction, number, ofNumbers } from './call';

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

export const MOTION: readonly FormulaFunction[] = [
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
];
