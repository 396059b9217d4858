import { describe, expect, it } from 'vitest';
import { clockAt, parseRate, parseTime, rateLabel, secondsOf } from './rate';

const NTSC = { num: 30000, den: 1001 };

describe('rates', () => {
  it.each([
    ['30', { num: 30, den: 1 }],
    ['29.97', NTSC],
    ['23.976', { num: 24000, den: 1001 }],
    ['59.94', { num: 60000, den: 1001 }],
    ['60000/2002', NTSC],
    ['12.5', { num: 25, den: 2 }],
  ])('%s is read exactly', (text, rate) => expect(parseRate(text)).toEqual(rate));
  it.each(['0', '-5', 'fast', '1/0'])('%s is none', (text) => expect(parseRate(text)).toBeNull());
  it('are written as people do', () => expect(rateLabel(NTSC)).toBe('29.97'));
  it('an hour of NTSC is 107,892 frames and 107.892 milliseconds of drift', () => {
    expect(secondsOf(107_892, NTSC)).toBeCloseTo(3599.9964, 4);
  });
});

describe('clocks', () => {
  it('show minutes, seconds and hundredths', () => expect(clockAt(46, { num: 30, den: 1 })).toBe('00:01.53'));
  it.each([
    ['46', 46],
    ['1.5s', 45],
    ['00:01.53', 46],
    ['1:00', 1800],
  ])('%s is frame %d', (text, frame) => expect(parseTime(text, { num: 30, den: 1 })).toBe(frame));
  it('of nonsense are none', () => expect(parseTime('soon', NTSC)).toBeNull());
});
