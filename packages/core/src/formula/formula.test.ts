/** The language: what is read, what is refused and where, and what it comes to. */
import { describe, expect, it } from 'vitest';
import { number, point, text } from '../document/params';
import { seeded } from '../document/random';
import { type Sampler, samplerOf } from '../motion/sampler';
import { compile } from './compile';
import { FUNCTIONS } from './functions/table';
import { parse } from './parse';
import { newScope, type Setting } from './parts';
import { print } from './print';
import { FormulaError, type Node, NUMBER, type Type, typeOf } from './types';

const bare = (node: Node): unknown =>
  JSON.parse(JSON.stringify(node, (key, value: unknown) => (key === 'at' ? undefined : value)));
const read = (source: string): Node => {
  const tree = parse(source);
  if (tree instanceof FormulaError) throw tree;
  return tree;
};
const refused = (source: string): FormulaError => {
  const tree = parse(source);
  if (!(tree instanceof FormulaError)) throw new Error(`${source} was read`);
  return tree;
};

const lead = samplerOf(point('Position', [0, 0]), {
  keys: [
    { frame: 0, value: [0, 0], ease: { kind: 'linear' } },
    { frame: 100, value: [100, 200], ease: { kind: 'linear' } },
  ],
});
const reading = (sampler: Sampler, type: Type) => ({ sampler, moments: sampler, type });
const settingOf = (type: Type = NUMBER, rest: Partial<Setting> = {}): Setting => ({
  type,
  fps: 25,
  width: 400,
  height: 240,
  order: 2,
  count: 5,
  inRecipe: false,
  base: samplerOf(type.kind === 'vector' ? point('P', [3, 4]) : number('N', 7), undefined),
  keyFrames: [],
  property: (path, part) =>
    path !== 'Lead / Position'
      ? `There is no “${path}”.`
      : part === null
        ? reading(lead, typeOf(point('P', [0, 0])))
        : reading({ ...lead, at: (f) => (lead.at(f) as readonly number[])[part] as number }, NUMBER),
  ease: () => 'no ease',
  textSize: () => 'no text',
  carried: () => 'no point',
  ...rest,
});
const run = (source: string, frame = 0, setting = settingOf()) => {
  const part = compile(read(source), setting);
  if (part instanceof FormulaError) throw part;
  return part.run(newScope(frame, null));
};
const wrong = (source: string, setting = settingOf()): FormulaError => {
  const part = compile(read(source), setting);
  if (!(part instanceof FormulaError)) throw new Error(`${source} was compiled`);
  return part;
};
const TWO = typeOf(point('P', [0, 0]));
const vectorOf = (source: string, frame = 0) => run(source, frame, settingOf(TWO));

describe('reading', () => {
  it('follows the rules of arithmetic', () => {
    const sums: readonly (readonly [string, number])[] = [
      ['2 + 3 * 4', 14],
      ['(2 + 3) * 4', 20],
      ['2 ^ 3 ^ 2', 512],
      ['-2 ^ 2', -4],
      ['10 - 4 - 3', 3],
      ['2 ^ -1', 0.5],
      ['8 / 2 / 2', 2],
      ['40% * 50', 20],
      ['-3 - -2', -1],
      ['if(1 < 2 and not (2 = 3) or false, 1, 0)', 1],
      ['1e3 + .5', 1000.5],
    ];
    for (const [source, value] of sums) expect([source, run(source)]).toEqual([source, value]);
  });
  it('says what is wrong and where', () => {
    const errors: readonly (readonly [string, readonly [number, number], RegExp])[] = [
      ['', [0, 0], /nothing here/],
      ['1 +', [3, 3], /Wanted a value, got the end/],
      ['1 + * 2', [4, 5], /Wanted a value, got “\*”/],
      ['(1 + 2', [6, 6], /Wanted “\)”/],
      ['lag({Lead / Position', [4, 5], /no closing brace/],
      ['"abc', [0, 1], /no closing quote/],
      ['#12', [0, 3], /six digits/],
      ['1 $ 2', [2, 3], /means nothing/],
      ['1 2', [2, 3], /operator or the end/],
      ['[ ]', [0, 3], /needs numbers/],
      ['1 < 2 < 3', [6, 7], /operator or the end/],
    ];
    for (const [source, at, message] of errors) {
      expect([source, refused(source).at]).toEqual([source, at]);
      expect(refused(source).message).toMatch(message);
    }
  });
  it('has bounds for length, parts and depth', () => {
    expect(refused('1+'.repeat(3000)).message).toContain('at most 4000 characters');
    expect(refused('('.repeat(200) + '1' + ')'.repeat(200)).message).toContain('deep in each other');
    expect(refused('2^'.repeat(200) + '2').message).toContain('deep in each other');
    expect(refused('-'.repeat(1500) + '1').message).toContain('at most 1000 parts');
    expect(refused(`[${'1,'.repeat(100)}1]`).message).toContain('At most 64');
  });

  /** A random tree of the grammar. */
  const grown = (random: () => number, depth: number): Node => {
    const at = [0, 0] as const;
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
    const inner = () => grown(random, depth - 1);
    const leaves: readonly (() => Node)[] = [
      () => ({ op: 'number', value: Math.round(random() * 1e4) / 100, percent: false, at }),
      () => ({ op: 'number', value: Math.round(random() * 100) / 100, percent: true, at }),
      () => ({ op: 'color', value: '#FFB23E', at }),
      () => ({ op: 'text', value: pick(['Next stop', 'a "b" \\ c', 'one\ntwo', '']), at }),
      () => ({ op: 'name', name: pick(['time', 'order', 'value', 'andes']), at }),
      () => ({ op: 'ref', path: pick(['Lead / Position', '@a1/position', '"a {b} / c" / Turn']), at }),
    ];
    if (depth === 0) return pick(leaves)();
    const branches: readonly (() => Node)[] = [
      ...leaves,
      () => ({ op: 'part', of: inner(), part: random() < 0.5 ? 0 : 1, at }),
      () => ({ op: 'vector', items: [inner(), inner()], at }),
      () => ({ op: 'unary', sign: pick(['-', 'not'] as const), of: inner(), at }),
      () => ({
        op: 'binary',
        sign: pick(['+', '-', '*', '/', '^', '<', '<=', '>', '>=', '=', '!=', 'and', 'or'] as const),
        left: inner(),
        right: inner(),
        at,
      }),
      () => ({ op: 'call', name: pick(['lag', 'mix', 'wave']), args: [inner(), inner()], at }),
    ];
    return pick(branches)();
  };
  it('reads back what it prints', () => {
    const random = seeded(41);
    for (let n = 0; n < 3000; n++) {
      const tree = grown(random, 5);
      const printed = print(tree);
      expect([printed, bare(read(printed))]).toEqual([printed, bare(tree)]);
    }
  });
  it('gives an error and nothing else for 100,000 broken texts', () => {
    const random = seeded(7);
    const pieces = [
      ...['{', '}', '(', ')', '[', ']', '"', '\\', ',', '.', '.x', '#', '%', '+', '-', '*', '/', '^', '<', '=', '!='],
      ...[
        'lag',
        'order',
        'and',
        'not',
        '{Lead / Position}',
        '12',
        '4%',
        '#FFB23E',
        ' ',
        '\n',
        'é',
        '🚋',
        '\u0000',
        '@',
      ],
    ];
    let reached = 0;
    for (let n = 0; n < 100_000; n++) {
      const length = 1 + Math.floor(random() * 14);
      const source = Array.from({ length }, () => pieces[Math.floor(random() * pieces.length)]).join('');
      const tree = parse(source);
      if (tree instanceof FormulaError) {
        expect(tree.at[0]).toBeGreaterThanOrEqual(0);
        expect(tree.at[1]).toBeLessThanOrEqual(source.length);
      } else {
        const part = compile(tree, settingOf());
        if (!(part instanceof FormulaError)) part.run(newScope(3, null));
        reached++;
      }
    }
    expect(reached).toBeGreaterThan(1000);
  });
});

describe('values', () => {
  it('are numbers, vectors, colours, texts, switches and paths', () => {
    expect(vectorOf('[10, 20] * 2 + [1, 1]')).toEqual([21, 41]);
    expect(vectorOf('5 + [1, 2]')).toEqual([6, 7]);
    expect(vectorOf('{Lead / Position} / 2', 50)).toEqual([25, 50]);
    expect(run('{Lead / Position}.y', 25)).toBe(50);
    expect(run('"Stop " + (order + 1)', 0, settingOf({ kind: 'text' }))).toBe('Stop 3');
    expect(run('text(12345.678, 1, " ")', 0, settingOf({ kind: 'text' }))).toBe('12 345.7');
    expect(run('text(-0.2)', 0, settingOf({ kind: 'text' }))).toBe('0');
    expect(run('letters("Harbour", 3.2)', 0, settingOf({ kind: 'text' }))).toBe('Har');
    expect(run('time >= 2 or order != 2', 50, settingOf({ kind: 'switch' }))).toBe(true);
    expect(run('alpha(#ffb23e, 50%)', 0, settingOf({ kind: 'color' }))).toBe('#FFB23E80');
    expect(run('mix(#000000, #FFFFFF, 1)', 0, settingOf({ kind: 'color' }))).toMatch(/^#ffffff$/i);
    expect(run('polygon([0, 0], [order, 1])', 0, settingOf({ kind: 'path' }))).toEqual({
      closed: true,
      vertices: [
        [0, 0, 0, 0, 0, 0],
        [2, 1, 0, 0, 0, 0],
      ],
    });
    expect(vectorOf('vertex(polyline([5, 6], [7, 8]), 2)')).toEqual([7, 8]);
    // One number stands for both, as in a scale.
    expect(vectorOf('80%')).toEqual([0.8, 0.8]);
  });
  it('know the frame, the scene and the rank', () => {
    expect(run('time', 50)).toBe(2);
    expect(run('frame + fps * 0 + width + height', 50)).toBe(50 + 640);
    expect(run('order + count * 10')).toBe(52);
    expect(run('value')).toBe(7);
    expect(run('pi')).toBeCloseTo(Math.PI, 12);
  });
  it('are refused where their types do not fit, at the place', () => {
    const errors: readonly (readonly [string, readonly [number, number], RegExp])[] = [
      ['1 + #FFB23E', [0, 11], /wants numbers or vectors/],
      ['[1, 2] + [1, 2, 3]', [0, 18], /vectors of one size/],
      ['nope + 1', [0, 4], /not a name here/],
      ['lagg({Lead / Position}, 1)', [0, 26], /no function “lagg”.* lag/],
      ['lag(1, 2)', [4, 5], /reads a property/],
      ['lag({Lead / Position})', [0, 22], /takes property, seconds/],
      ['{Gone / Turn}', [0, 13], /There is no “Gone \/ Turn”/],
      ['{Lead / Position}', [0, 17], /gives a vector of 2, the property wants a number/],
      ['if(1, 2, 3)', [3, 4], /wants a switch/],
      ['if(true, 2, "a")', [0, 16], /of one type/],
      ['sin("a")', [0, 8], /numbers, or vectors/],
      ['not 3', [0, 5], /wants a switch/],
      ['ease(time, "soft")', [11, 17], /Ready eases are linear/],
      ['remap(1, 2, 3, 4, [1, 2])', [18, 24], /wants a number here/],
    ];
    for (const [source, at, message] of errors) {
      expect([source, wrong(source).at]).toEqual([source, at]);
      expect(wrong(source).message).toMatch(message);
    }
  });
});

describe('functions', () => {
  it('read a property at other moments', () => {
    expect(vectorOf('lag({Lead / Position}, 1)', 75)).toEqual([50, 100]);
    expect(vectorOf('lag({Lead / Position}, frames(5) * order)', 75)).toEqual([65, 130]);
    expect(vectorOf('sample({Lead / Position}, 2)', 3)).toEqual([50, 100]);
    expect(run('lag({Lead / Position}.x, 1)', 75)).toBe(50);
    // 0.1 s × 3 at 25 frames a second is 7.5 frames; × 2 is 5 to the last bit.
    expect(vectorOf('lag({Lead / Position}, 0.1 * 2)', 15)).toEqual([10, 20]);
  });
  it('measure, turn and bound', () => {
    const cases: readonly (readonly [string, number])[] = [
      ['length([3, 4])', 5],
      ['angle([0, 2])', 90],
      ['angle([-1, 0])', 180],
      ['atan2(1, 1)', 45],
      ['toward(60, 2).x', 1],
      ['sin(30)', 0.5],
      ['cos(60)', 0.5],
      ['tan(45)', 1],
      ['remap(15, 10, 20, 0, 100)', 50],
      ['remap(99, 10, 20, 0, 100)', 100],
      ['remap(5, 20, 10, 0, 100)', 100],
      ['clamp(12, 0, 10)', 10],
      ['min(3, 1, 2) + max(3, 1, 2)', 4],
      ['abs(-2) + floor(1.7) + ceil(1.2) + round(2.5) + sign(-9) + sqrt(16)', 11],
      ['mod(-1, 3)', 2],
      ['exp(0)', 1],
      ['cycle(7, 3)', 1],
      ['pingpong(7, 3)', 1],
      ['pingpong(4, 3)', 2],
      ['mix(10, 20, 25%)', 12.5],
      ['ease(0.5, "linear")', 0.5],
      ['ease(0.5, "in-out")', 0.5],
      ['ease(2, "out")', 1],
      ['spring(1, 3, 60%) - spring(0, 3, 60%)', 1],
      ['frames(5)', 0.2],
    ];
    for (const [source, value] of cases) expect([source, run(source)]).toEqual([source, expect.closeTo(value, 9)]);
  });
  it('swing and wander within their amount, the same on every run', () => {
    expect(run('wave(1, 10)', 0)).toBe(0);
    expect(run('wave(1, 10, 90)', 0)).toBeCloseTo(10, 9);
    // A quarter of a swing at 2 a second is an eighth of a second: frame 3.125 of 25 a second.
    expect(run('wave(2, 10)', 3.125)).toBeCloseTo(10, 9);
    expect(vectorOf('wave(1, [10, 20], 90)')).toEqual([10, 20]);
    const places = Array.from({ length: 400 }, (_, f) => vectorOf('drift(2, 30, 4)', f) as [number, number]);
    expect(Math.max(...places.flat().map(Math.abs))).toBeLessThanOrEqual(30);
    expect(Math.max(...places.flat().map(Math.abs))).toBeGreaterThan(15);
    expect(places.some(([x, y]) => Math.abs(x - y) > 10)).toBe(true);
    // Smooth: no step between two frames is larger than the noise's steepest, 15/8 × 2 × 30 × 2 / 25.
    places.slice(1).forEach(([x], i) => expect(Math.abs(x - (places[i] as [number, number])[0])).toBeLessThan(9));
    const throws = Array.from({ length: 1000 }, (_, i) => run(`random(${i})`) as number);
    expect(throws.every((x) => x >= 0 && x < 1)).toBe(true);
    expect(throws.reduce((a, b) => a + b) / 1000).toBeCloseTo(0.5, 1);
    expect(run('random(3)')).toBe(run('random(3)'));
  });
  it('know the last keyframe and how fast it was reached', () => {
    const base = samplerOf(number('Turn', 0), {
      keys: [
        { frame: 0, value: 0, ease: { kind: 'linear' } },
        { frame: 25, value: 50, ease: { kind: 'linear' } },
      ],
    });
    const setting = settingOf(NUMBER, { base, keyFrames: [0, 25] });
    expect(run('sinceKey', 50, setting)).toBe(1);
    expect(run('sinceKey', 10, setting)).toBe(0.4);
    expect(run('arrival', 40, setting)).toBeCloseTo(50, 6);
  });
  it('have examples that work', () => {
    const any: Partial<Setting> = {
      property: (path, part) => {
        if (part === 2) return reading({ at: () => 7, constant: false, heading: () => null }, NUMBER);
        const kind = /Path$/.test(path) ? ({ kind: 'path' } as const) : /Turn|End/.test(path) ? NUMBER : TWO;
        const value = kind.kind === 'path' ? { closed: false, vertices: [] } : kind === NUMBER ? 5 : [5, 6];
        const whole = { at: () => value as never, constant: false, heading: () => null };
        return part === null ? reading(whole, kind) : reading({ ...whole, at: () => 5 }, NUMBER);
      },
      textSize: () => ({ at: () => [10, 20] }),
      carried: () => ({ at: () => [10, 20], constant: false }),
    };
    for (const { name, example } of FUNCTIONS.values()) {
      const works = ['number', 'vector', 'color', 'text', 'switch', 'path'].some((kind) => {
        const type = kind === 'vector' ? TWO : ({ kind } as Type);
        const base = samplerOf(kind === 'text' ? text('T', 'a', { most: 9, lines: 'one' }) : number('N', 1), undefined);
        const part = compile(read(example), settingOf(type, { ...any, ...(kind !== 'vector' && { base }) }));
        return !(part instanceof FormulaError) && part.run(newScope(10, null)) !== undefined;
      });
      expect([name, works]).toEqual([name, true]);
    }
  });
});

describe('formulas of the right types', () => {
  it('never throw, and what is constant is worked out once', () => {
    const random = seeded(11);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
    const num = (depth: number): string =>
      depth === 0
        ? pick(['time', '3', '0', '-2', '40%', 'order', 'frame', '{Lead / Position}.x'])
        : pick<() => string>([
            () => `(${num(depth - 1)} ${pick(['+', '-', '*', '/', '^'])} ${num(depth - 1)})`,
            () => `${pick(['sin', 'sqrt', 'abs', 'random', 'exp'])}(${num(depth - 1)})`,
            () => `length(${vec(depth - 1)})`,
            () => `if(${num(depth - 1)} < ${num(depth - 1)}, ${num(depth - 1)}, ${num(depth - 1)})`,
            () => `lag({Lead / Position}.y, ${num(depth - 1)})`,
            () => `spring(${num(depth - 1)}, ${num(depth - 1)}, ${num(depth - 1)})`,
            () => `drift(${num(depth - 1)}, ${num(depth - 1)}, ${num(depth - 1)})`,
          ])();
    const vec = (depth: number): string =>
      depth === 0
        ? pick(['{Lead / Position}', '[1, 2]', 'value'])
        : pick<() => string>([
            () => `[${num(depth - 1)}, ${num(depth - 1)}]`,
            () => `(${vec(depth - 1)} ${pick(['+', '-', '*', '/'])} ${pick([vec, num])(depth - 1)})`,
            () => `lag({Lead / Position}, ${num(depth - 1)})`,
            () => `toward(${num(depth - 1)}, ${num(depth - 1)})`,
            () => `mix(${vec(depth - 1)}, ${vec(depth - 1)}, ${num(depth - 1)})`,
          ])();
    for (let n = 0; n < 2000; n++) {
      const source = vec(4);
      const part = compile(read(source), settingOf(TWO));
      if (part instanceof FormulaError) throw new Error(`${source}: ${part.message}`);
      const value = part.run(newScope(n % 120, null)) as unknown as number[];
      expect(value.length).toBe(2);
      expect(value.every((x) => typeof x === 'number')).toBe(true);
    }
    const part = compile(read('sin(30) * [20, 20] * order'), settingOf(TWO));
    expect(part instanceof FormulaError ? null : part.constant).toBe(true);
  });
});
