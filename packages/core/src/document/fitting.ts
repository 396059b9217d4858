/** Values brought within the limits of their parameters. */
import { CUT_LIMITS, EASE_LIMITS, LIMITS } from './limits';
import { FAR, MOST_STOPS, type Param } from './params';
import { cutText, sound } from './text';
import type { Color, CutOut, DrawnPoint, Ease, FontChoice, Gradient, PathValue, Point, Value, Vertex } from './types';

const HEX = /^#([0-9a-f]{6}|[0-9a-f]{8})$/i;
export const isColor = (v: unknown): v is Color => typeof v === 'string' && HEX.test(v);

/** A number brought within limits; `otherwise` for what is no finite number. */
export const clamped = <T>(x: unknown, min: number, max: number, otherwise: T): number | T =>
  Number.isFinite(x) ? Math.min(max, Math.max(min, x as number)) : otherwise;

/** A whole number brought within limits. */
export const wholeWithin = (x: number, min: number, max: number): number => Math.round(clamped(x, min, max, min));

/** Brings a number, point, list or choice within its parameter's limits; gives null for what it cannot take. Made once for each property. */
export const acceptor = (param: Param): ((value: Value) => Value | null) => {
  switch (param.kind) {
    case 'number': {
      const { min, max } = param;
      return (value) => ((value as number) >= min && (value as number) <= max ? value : clamped(value, min, max, null));
    }
    case 'point': {
      const { limit } = param;
      return (value) => {
        const x = (value as Point)[0];
        const y = (value as Point)[1];
        if (Math.abs(x) <= limit && Math.abs(y) <= limit) return value;
        const [left, top] = [clamped(x, -limit, limit, null), clamped(y, -limit, limit, null)];
        return left === null || top === null ? null : [left, top];
      };
    }
    case 'numbers':
      return (value) => {
        const list = value as readonly number[];
        if (list.length <= param.most && list.every((v) => v >= param.min && v <= param.max)) return value;
        const fitting = list.slice(0, param.most).map((v) => clamped(v, param.min, param.max, null));
        return fitting.every((v) => v !== null) ? fitting : null;
      };
    case 'choice':
      return (value) => (param.choices.some((c) => c.value === value) ? value : null);
    case 'text':
      return (value) => {
        const text = value as string;
        if (text.length > param.most) return null;
        return param.lines === 'one' ? text.replace(/\s*[\n\r]+\s*/g, ' ') : text;
      };
    default:
      return (value) => value;
  }
};

/** The object with fields that fit; the same one where all of them do. */
export const withFields = <T extends object>(object: T, fields: Partial<T>): T =>
  Object.entries(fields).every(([key, value]) => Object.is(value, object[key as keyof T]))
    ? object
    : { ...object, ...fields };

/** A list whose entries fit; the same one where all of them do. */
export const each = <T>(list: readonly T[], fit: (entry: T, i: number) => T): readonly T[] => {
  const fitting = list.map(fit);
  return fitting.every((entry, i) => Object.is(entry, list[i])) ? list : fitting;
};

const fittedGradient = (gradient: Gradient, otherwise: Gradient): Gradient => {
  const { stops } = gradient;
  const sane = stops.every(({ at, color }, i) => at >= (stops[i - 1]?.at ?? 0) && at <= 1 && isColor(color));
  if (sane && stops.length >= 2 && stops.length <= MOST_STOPS) return gradient;
  const fitting = stops
    .filter(({ color }) => isColor(color))
    .slice(0, MOST_STOPS)
    .map(({ at, color }) => ({ at: clamped(at, 0, 1, 0), color }))
    .sort((a, b) => a.at - b.at);
  return fitting.length >= 2 ? { stops: fitting } : otherwise;
};

const fittedPath = (path: PathValue): PathValue => {
  if (path.vertices.every((vertex) => vertex.every((x) => Math.abs(x) <= FAR))) return path;
  return {
    ...path,
    vertices: path.vertices.map((vertex) => vertex.map((x) => clamped(x, -FAR, FAR, 0)) as unknown as Vertex),
  };
};

const fittedFont = (font: FontChoice, otherwise: FontChoice): FontChoice => {
  const family = cutText(sound(font.family), LIMITS.name) || otherwise.family;
  const weight = clamped(font.weight, 1, 1000, otherwise.weight);
  return family === font.family && weight === font.weight ? font : { ...font, family, weight };
};

const fittedCut = (cut: CutOut): CutOut => {
  const place = (x: number) => clamped(x, -FAR, FAR, 0);
  return withFields(cut, {
    grow: clamped(cut.grow, ...CUT_LIMITS.grow, 0),
    soften: clamped(cut.soften, ...CUT_LIMITS.soften, 0),
    seeds: each(cut.seeds, (s) =>
      withFields(s, { x: place(s.x), y: place(s.y), tolerance: clamped(s.tolerance, 0, 1, 0) }),
    ),
    strokes: each(cut.strokes, (s) =>
      withFields(s, {
        size: clamped(s.size, ...CUT_LIMITS.brush, 1),
        points: each(s.points, (p) => each(p, place) as Point),
      }),
    ),
  });
};

/** A value within its parameter's limits: the same where it is, the nearest where there is one, else the default. */
export const fittedValue = (param: Param, value: Value): Value => {
  switch (param.kind) {
    case 'color':
      return isColor(value) ? value : param.default;
    case 'gradient':
      return fittedGradient(value as Gradient, param.default);
    case 'path':
      return fittedPath(value as PathValue);
    case 'font':
      return fittedFont(value as FontChoice, param.default);
    case 'switch':
      return value === true;
    case 'text': {
      const text = sound(value as string);
      const line = param.lines === 'one' ? text.replace(/\s*[\n\r]+\s*/g, ' ') : text;
      return cutText(line, param.most);
    }
    case 'number':
      return typeof value === 'number' ? clamped(value, param.min, param.max, param.default) : param.default;
    case 'point': {
      const point = value as Point;
      const fitting = point.map((x, i) => clamped(x, -param.limit, param.limit, param.default[i]));
      return fitting.every((x, i) => x === point[i]) ? point : (fitting as unknown as Point);
    }
    case 'numbers': {
      const list = value as readonly number[];
      const fitting = list.slice(0, param.most).map((x) => clamped(x, param.min, param.max, param.min));
      return fitting.length === list.length && fitting.every((x, i) => x === list[i]) ? list : fitting;
    }
    case 'choice':
      return acceptor(param)(value) ?? param.default;
    case 'asset':
    case 'scene':
      return value;
    case 'cutout':
      return fittedCut(value as CutOut);
  }
};

const fittedPoints = (points: readonly DrawnPoint[]): readonly DrawnPoint[] => {
  const [low, high] = EASE_LIMITS.y;
  const out: DrawnPoint[] = [];
  for (const p of points.slice(0, EASE_LIMITS.points)) {
    if (p.x > (out.at(-1)?.x ?? 0) && p.x < 1) out.push({ ...p, y: clamped(p.y, low, high, 0) });
  }
  return out.length === points.length && out.every((p, i) => p.y === points[i]?.y) ? points : out;
};

const fittedNumbers = (ease: Ease): Ease => {
  const y = (v: number) => clamped(v, ...EASE_LIMITS.y, 0);
  switch (ease.kind) {
    case 'linear':
    case 'hold':
      return ease;
    case 'bezier':
      return {
        kind: 'bezier',
        x1: clamped(ease.x1, 0, 1, 0),
        y1: y(ease.y1),
        x2: clamped(ease.x2, 0, 1, 1),
        y2: y(ease.y2),
      };
    case 'steps':
      return { ...ease, count: wholeWithin(ease.count, ...EASE_LIMITS.steps) };
    case 'spring':
      return {
        ...ease,
        bounces: wholeWithin(ease.bounces, ...EASE_LIMITS.bounces),
        damping: clamped(ease.damping, 0, 1, 0),
      };
    case 'bounce':
      return {
        ...ease,
        bounces: wholeWithin(ease.bounces, ...EASE_LIMITS.bounces),
        height: clamped(ease.height, ...EASE_LIMITS.height, 0),
      };
    case 'drawn':
      return { ...ease, points: fittedPoints(ease.points) };
  }
};

/** An ease within its limits: the same object where it is. */
export const fittedEase = (ease: Ease): Ease => {
  const fitting = fittedNumbers(ease);
  const same = Object.entries(fitting).every(([key, v]) => Object.is(v, (ease as Record<string, unknown>)[key]));
  return same ? ease : fitting;
};
