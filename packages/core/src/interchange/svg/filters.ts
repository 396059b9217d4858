/**
 * Filters as what they come to (Filter Effects 1): the graphic itself, softened or with other colours, and its silhouettes, moved
 * and softened, behind it. That is what drawing programs write for blurs and shadows, in many ways.
 */
import type { Point } from '../../document/types';
import { meanScale, type Matrix } from '../../geometry/matrix';
import type { SvgEffect } from './nodes';
import { colorOf, shareOf } from './paints';
import type { SvgElement } from './parse';
import { lengthOf, numbersOf, type Style } from './style';
import { angleOf } from './transform';
import { type Reading, referredTo } from './walk';

/** What is filtered, in its own colours. */
interface Graphic {
  readonly of: 'graphic';
  readonly effects: readonly SvgEffect[];
}
/** What it covers, in one colour. Lengths are in the pixels of the element. */
interface Silhouette {
  readonly of: 'silhouette';
  readonly color: string;
  readonly alpha: number;
  readonly move: Point;
  readonly deviation: number;
  /** How many times as strong its soft edge is. */
  readonly firm: number;
}
/** All that the filter reaches, in one colour. */
interface Flood {
  readonly of: 'flood';
  readonly color: string;
  readonly alpha: number;
}
type Part = Graphic | Silhouette | Flood;
/** Back to front; null for what is none of these. */
type Picture = readonly Part[] | null;

/** More than any drawing program writes. */
const MOST_PARTS = 64;

const SILHOUETTE: Silhouette = { of: 'silhouette', color: '#000000', alpha: 1, move: [0, 0], deviation: 0, firm: 1 };

/** Of what stands alone. */
const onlyOf = (picture: Picture): Part | null => (picture?.length === 1 ? (picture[0] as Part) : null);

const flat = (color: string, opacity: number): { color: string; alpha: number } => {
  const hex = colorOf(color, '#000000', opacity) ?? '#000000';
  return { color: hex.slice(0, 7), alpha: hex.length > 7 ? parseInt(hex.slice(7), 16) / 255 : 1 };
};

const blurred = (picture: Picture, x: number, y: number): Picture => {
  if (x <= 0 && y <= 0) return picture;
  const part = onlyOf(picture);
  if (!part) return null;
  if (part.of === 'flood') return picture;
  if (part.of === 'silhouette') {
    return x === y ? [{ ...part, deviation: Math.hypot(part.deviation, x) }] : null;
  }
  const way = x === y ? 'both' : y <= 0 ? 'across' : x <= 0 ? 'down' : null;
  return way && [{ ...part, effects: [...part.effects, { kind: 'blur', deviation: Math.max(x, y), way }] }];
};

const movedBy = (picture: Picture, [x, y]: Point): Picture => {
  if (x === 0 && y === 0) return picture;
  const moved = picture?.map((part): Part | null =>
    part.of === 'silhouette'
      ? { ...part, move: [part.move[0] + x, part.move[1] + y] }
      : part.of === 'flood'
        ? part
        : null,
  );
  return moved && moved.every((part) => part !== null) ? moved : null;
};

/** With so many times its alpha: more than all of it there is only in a soft edge, which becomes firmer. */
const fadedBy = (picture: Picture, by: number): Picture => {
  if (by === 1) return picture;
  const part = onlyOf(picture);
  if (!part || part.of === 'graphic') return null;
  if (part.of === 'silhouette' && part.deviation > 0 && by > 1) return [{ ...part, firm: part.firm * by }];
  return [{ ...part, alpha: Math.min(1, part.alpha * by) }];
};

/** In one colour, where it is; null for what has no silhouette of its own. */
const inColor = (picture: Picture, color: string, alpha: number): Picture => {
  const part = onlyOf(picture);
  if (!part) return null;
  if (part.of === 'graphic' && part.effects.length > 0) return null;
  return fadedBy([{ ...(part.of === 'graphic' ? SILHOUETTE : part), color }], alpha);
};

const colored = (picture: Picture, card: string, values: { readonly [key: string]: number | string }): Picture => {
  const part = onlyOf(picture);
  return part?.of === 'graphic' ? [{ ...part, effects: [...part.effects, { kind: 'colors', card, values }] }] : null;
};

/** A channel of linear light as one of sRGB (CSS Color 4, 10.2), both 0..1. */
const ofLinear = (x: number): number => (x <= 0.0031308 ? 12.92 * x : 1.055 * x ** (1 / 2.4) - 0.055);

const byMatrix = (picture: Picture, m: readonly number[], linear: boolean): Picture => {
  if (m.length !== 20) return null;
  const colors = [0, 5, 10].flatMap((row) => m.slice(row, row + 4));
  const [toRed, toGreen, toBlue, alpha = 0, more] = m.slice(15);
  // One colour for all that is there.
  if (colors.some((v) => v !== 0) || toRed !== 0 || toGreen !== 0 || toBlue !== 0 || more !== 0 || alpha < 0)
    return null;
  const channels = [4, 9, 14].map((i) => Math.round(255 * Math.min(1, Math.max(0, linear ? ofLinear(m[i]!) : m[i]!))));
  const hex = channels.map((c) => c.toString(16).padStart(2, '0')).join('');
  return inColor(picture, `#${hex.toUpperCase()}`, alpha);
};

/** `over` the other one, nothing of which is cut. */
const over = (front: Picture, back: Picture): Picture =>
  front && back && front.length + back.length <= MOST_PARTS ? [...back, ...front] : null;

const composited = (operator: string, a: Picture, b: Picture): Picture => {
  if (operator === 'over') return over(a, b);
  const [first, second] = [onlyOf(a), onlyOf(b)];
  if (!first || !second) return null;
  if (operator === 'in') {
    if (first.of === 'flood') return inColor(b, first.color, first.alpha);
    return second.of === 'flood' && second.alpha >= 1 ? a : null;
  }
  if (operator === 'atop' && first.of === 'flood') {
    const { color, alpha } = first;
    return alpha >= 1 ? inColor(b, color, 1) : colored(b, 'flood', { color, strength: alpha });
  }
  // A shadow without what lies under the graphic, which hides that.
  const isWhole = second.of === 'silhouette' && second.deviation === 0 && second.move.every((v) => v === 0);
  return operator === 'out' && first.of === 'silhouette' && isWhole ? a : null;
};

const shadowed = (picture: Picture, move: Point, deviation: number, color: string, alpha: number): Picture =>
  over(picture, movedBy(blurred(inColor(picture, color, alpha), deviation, deviation), move));

/** A function of a component transfer, as a line through 0..1. */
interface Line {
  readonly slope: number;
  readonly intercept: number;
}
const SAME: Line = { slope: 1, intercept: 0 };

const near = (a: number, b: number): boolean => Math.abs(a - b) < 4e-3;
const areOne = (a: Line, b: Line): boolean => near(a.slope, b.slope) && near(a.intercept, b.intercept);

/** A table's values are a line where all of them lie on it; null for what is none. */
const lineOf = ({ attributes: a }: SvgElement): Line | null => {
  if (a.type === undefined || a.type === 'identity') return SAME;
  if (a.type === 'linear') return { slope: Number(a.slope ?? 1), intercept: Number(a.intercept ?? 0) };
  const values = a.type === 'table' ? numbersOf(a.tableValues) : [];
  const [first, last] = [values[0], values.at(-1)];
  if (first === undefined || last === undefined || values.length < 2) return null;
  const slope = last - first;
  const straight = values.every((v, i) => near(v, first + (slope * i) / (values.length - 1)));
  return straight ? { slope, intercept: first } : null;
};

/** All of red, green and blue through one line: brighter, of more contrast, or inverted. */
const alongLine = (picture: Picture, { slope, intercept }: Line): Picture => {
  if (near(intercept, 0) && slope >= 0) return colored(picture, 'brightness', { brightness: Math.min(4, slope) });
  if (near(intercept, 0.5 - 0.5 * slope) && slope >= 0)
    return colored(picture, 'brightness', { contrast: Math.min(4, slope) });
  if (near(slope, 1 - 2 * intercept) && intercept <= 1) return colored(picture, 'invert', { strength: intercept });
  return null;
};

/** Each channel through a function of its own (Filter Effects 1, 9.7). */
const transferred = (picture: Picture, functions: readonly SvgElement[], linear: boolean): Picture => {
  const [red, green, blue, alpha] = ['R', 'G', 'B', 'A'].map((channel) => {
    const last = functions.findLast(({ name }) => name === `feFunc${channel}`);
    return last ? lineOf(last) : SAME;
  });
  if (!red || !green || !blue || !alpha || !areOne(red, green) || !areOne(red, blue)) return null;
  if (areOne(red, SAME)) return near(alpha.intercept, 0) ? fadedBy(picture, alpha.slope) : null;
  return areOne(alpha, SAME) && !linear ? alongLine(picture, red) : null;
};

interface Step {
  /** What a name stands for: what came before for none. */
  readonly input: (name: string | undefined) => Picture;
  readonly style: Style;
  readonly linear: boolean;
}

const primitive = (e: SvgElement, { input, style, linear }: Step): Picture => {
  const { attributes: a } = e;
  const number = (key: string, missing: number) => numbersOf(a[key])[0] ?? missing;
  const flooded = () => flat(style['flood-color'] ?? 'black', shareOf(style['flood-opacity']));
  switch (e.name) {
    case 'feOffset':
      return movedBy(input(a.in), [number('dx', 0), number('dy', 0)]);
    case 'feGaussianBlur': {
      const [x = 0, y = x] = numbersOf(a.stdDeviation);
      return blurred(input(a.in), x, y);
    }
    case 'feFlood':
      return [{ of: 'flood', ...flooded() }];
    case 'feDropShadow': {
      const [x = 2, y = x] = numbersOf(a.stdDeviation);
      const { color, alpha } = flooded();
      return x === y ? shadowed(input(a.in), [number('dx', 2), number('dy', 2)], x, color, alpha) : null;
    }
    case 'feColorMatrix': {
      const by = number('values', a.type === 'hueRotate' ? 0 : 1);
      if (a.type === 'saturate') return linear ? null : colored(input(a.in), 'colorturn', { strength: by });
      if (a.type === 'hueRotate') return linear ? null : colored(input(a.in), 'colorturn', { hue: by });
      return a.type === undefined || a.type === 'matrix' ? byMatrix(input(a.in), numbersOf(a.values), linear) : null;
    }
    case 'feComponentTransfer':
      return transferred(input(a.in), e.children, linear);
    case 'feComposite':
      return composited(a.operator ?? 'over', input(a.in), input(a.in2));
    case 'feBlend':
      return (a.mode ?? 'normal') === 'normal' ? over(input(a.in), input(a.in2)) : null;
    case 'feMerge': {
      const nodes = e.children.filter(({ name }) => name === 'feMergeNode');
      return nodes.reduce<Picture>((sum, { attributes }) => over(input(attributes.in), sum), []);
    }
    default:
      return null;
  }
};

/** What a filter's last picture comes to, in the pixels that a matrix leads to; null where that is no effect of ours. */
const effectsOf = (picture: Picture, matrix: Matrix): readonly SvgEffect[] | null => {
  const parts = picture?.filter((part) => part.of === 'graphic' || part.alpha > 0) ?? [];
  const last = parts.at(-1);
  const graphic = last?.of === 'graphic' ? last : null;
  const behind = graphic ? parts.slice(0, -1) : parts;
  const silhouettes = behind.filter((part) => part.of === 'silhouette');
  if (parts.length === 0 || silhouettes.length < behind.length) return null;
  // Of several, each is the shadow of what was there before it: without the graphic there is only one.
  if (!graphic && silhouettes.length > 1) return null;
  const scale = meanScale(matrix);
  const shadows = silhouettes.map(({ move: [x, y], color, alpha, deviation, firm }): SvgEffect => {
    const move: Point = [matrix[0] * x + matrix[2] * y, matrix[1] * x + matrix[3] * y];
    return {
      kind: 'shadow',
      move,
      deviation: deviation * scale,
      // An edge is half there: twice as strong, all up to it is whole.
      spread: Math.min(1, 2 - 2 / firm),
      color,
      strength: alpha,
      alone: !graphic,
    };
  });
  return [
    ...(graphic?.effects ?? []).map((effect) =>
      effect.kind === 'blur' ? { ...effect, deviation: effect.deviation * scale } : effect,
    ),
    // What is nearest to the graphic is laid first.
    ...shadows.reverse(),
  ];
};

const START: Picture = [{ of: 'graphic', effects: [] }];

const ofElement = (e: SvgElement, matrix: Matrix, reading: Reading): readonly SvgEffect[] | null => {
  if (e.attributes.primitiveUnits === 'objectBoundingBox') return null;
  const style = reading.style([e], {});
  const made = new Map<string, Picture>([
    ['SourceGraphic', START],
    ['SourceAlpha', [SILHOUETTE]],
  ]);
  let last: Picture = START;
  for (const child of e.children) {
    if (!child.name.startsWith('fe')) continue;
    const own = reading.style([e, child], style);
    const before = last;
    last = primitive(child, {
      input: (name) => (name === undefined ? before : (made.get(name) ?? null)),
      style: own,
      linear: own['color-interpolation-filters'] !== 'sRGB',
    });
    if (child.attributes.result !== undefined) made.set(child.attributes.result, last);
  }
  return effectsOf(last, matrix);
};

/** The functions of a filter property (Filter Effects 1, 5); null where one of them is no effect of ours. */
const ofFunction = (name: string, text: string, matrix: Matrix, reading: Reading): readonly SvgEffect[] | null => {
  const share = () => (text.trim().endsWith('%') ? (numbersOf(text)[0] ?? 100) / 100 : (numbersOf(text)[0] ?? 1));
  const colors = (card: string, values: { readonly [key: string]: number }): SvgEffect[] => [
    { kind: 'colors', card, values },
  ];
  switch (name) {
    case 'blur':
      return effectsOf(blurred(START, lengthOf(text, 0, 0), lengthOf(text, 0, 0)), matrix);
    case 'drop-shadow': {
      const words = text.match(/[^\s(]+(?:\([^)]*\))?/g) ?? [];
      const isLength = (word: string) => /^[-+.\d]/.test(word);
      const [x = 0, y = 0, deviation = 0] = words.filter(isLength).map((word) => lengthOf(word, 0, 0));
      const { color, alpha } = flat(words.find((word) => !isLength(word)) ?? 'black', 1);
      return effectsOf(shadowed(START, [x, y], deviation, color, alpha), matrix);
    }
    case 'brightness':
      return colors('brightness', { brightness: share() });
    case 'contrast':
      return colors('brightness', { contrast: share() });
    case 'saturate':
      return colors('colorturn', { strength: share() });
    case 'grayscale':
      return colors('colorturn', { strength: 1 - Math.min(1, share()) });
    case 'hue-rotate':
      return colors('colorturn', { hue: angleOf(text) });
    case 'invert':
      return colors('invert', { strength: Math.min(1, share()) });
    case 'url': {
      const element = referredTo(`url(${text})`, reading, 'filter');
      // One that is not there does nothing (Filter Effects 1, 5).
      return element ? ofElement(element, matrix, reading) : [];
    }
    default:
      return null;
  }
};

/** What a filter property comes to, for an element with a matrix to the drawing's pixels; what is no effect of ours is noted. */
export const effectsOfFilter = (text: string | undefined, matrix: Matrix, reading: Reading): readonly SvgEffect[] => {
  if (text === undefined || text.trim() === 'none') return [];
  const functions = [...text.matchAll(/([a-z-]+)\(((?:[^()]|\([^()]*\))*)\)/gi)];
  return functions.flatMap(([, name = '', body = '']) => {
    const effects = ofFunction(name.toLowerCase(), body, matrix, reading);
    if (!effects) reading.note('a filter is left out');
    return effects ?? [];
  });
};
