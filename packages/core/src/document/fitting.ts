/** Brought within limits: numbers, and what is made of them. */
import type { Point } from './types';

/** A number brought within limits; `otherwise` for what is no finite number. */
export const clamped = <T>(x: unknown, min: number, max: number, otherwise: T): number | T =>
  Number.isFinite(x) ? Math.min(max, Math.max(min, x as number)) : otherwise;

/** A whole number brought within limits. */
export const wholeWithin = (x: number, min: number, max: number): number => Math.round(clamped(x, min, max, min));

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

/** To a tenth: as places that are dragged or drawn are kept. */
export const tenths = (n: number): number => Math.round(n * 10) / 10;
export const tenthsOf = ([x, y]: Point): Point => [tenths(x), tenths(y)];
