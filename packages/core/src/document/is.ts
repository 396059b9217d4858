/** What a value from outside is. */
import { isSound } from './text';
import type { Color } from './types';

export const isNumber = (v: unknown): v is number => typeof v === 'number' && Number.isFinite(v);
export const isObject = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);
export const isPoint = (v: unknown, limit: number): boolean =>
  Array.isArray(v) && v.length === 2 && v.every((x) => isNumber(x) && Math.abs(x) <= limit);

const HEX = /^#([0-9a-f]{6}|[0-9a-f]{8})$/i;
export const isColor = (v: unknown): v is Color => typeof v === 'string' && HEX.test(v);

const ID = /^[A-Za-z0-9_-]{1,64}$/;
const RESERVED = new Set(['__proto__', 'constructor', 'prototype']);
export const isId = (v: unknown): boolean => typeof v === 'string' && ID.test(v) && !RESERVED.has(v);

/** Whether two values are made of the same. */
export const isEqual = (a: unknown, b: unknown): boolean => {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const [from, to] = [Object.entries(a), Object.entries(b)];
  return from.length === to.length && from.every(([key, value]) => isEqual(value, (b as Record<string, unknown>)[key]));
};

/** Whether it is a text that every part of the product can keep: no NUL, no half of a surrogate pair. */
export const isText = (v: unknown): v is string => typeof v === 'string' && isSound(v);
