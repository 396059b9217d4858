import { expect, it } from 'vitest';
import { lastMade, remembered } from './remembered';

it('makes one thing for each object', () => {
  let made = 0;
  const of = remembered<object, number>(() => ++made);
  const [a, b] = [{}, {}];
  expect([of(a), of(b), of(a), of(b)]).toEqual([1, 2, 1, 2]);
});

it('keeps an answer that is null', () => {
  let asked = 0;
  const of = remembered<object, null>(() => {
    asked++;
    return null;
  });
  const a = {};
  expect([of(a), of(a), asked]).toEqual([null, null, 1]);
});

it('makes a thing anew as soon as it is asked for from others, and keeps that', () => {
  let made = 0;
  const last = lastMade<object, number>();
  const [key, one, other] = [{}, {}, {}];
  const ask = (...from: unknown[]) => last(key, from, () => ++made);
  expect(ask(one, NaN)).toBe(1);
  expect(ask(one, NaN)).toBe(1);
  expect(ask(other, NaN)).toBe(2);
  expect(ask(other)).toBe(3);
  expect(ask(other)).toBe(3);
  expect(last({}, [other], () => ++made)).toBe(4);
  expect(ask(one, NaN)).toBe(5);
});
