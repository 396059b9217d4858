import { describe, expect, it } from 'vitest';
import { areLeft, FIRST_STEPS, stepOf } from './steps';

const layer = ['scenes', 's', 'layers', 'l'];

describe('first steps', () => {
  it('know what an edit is for somebody who is new', () => {
    expect(stepOf([{ op: 'add', path: layer, value: {} }])).toBe('draw');
    expect(stepOf([{ op: 'add', path: [...layer, 'params', 'turn'], value: { keys: [] } }])).toBe('key');
    expect(stepOf([{ op: 'replace', path: [...layer, 'params', 'turn', 'keys', 0, 'value'], value: 3 }])).toBe('key');
    expect(stepOf([{ op: 'replace', path: [...layer, 'params', 'turn'], value: { value: 3 } }])).toBe('card');
    expect(stepOf([{ op: 'replace', path: ['name'], value: 'Night' }])).toBeNull();
  });
  it('are over once all were taken, or they were put away', () => {
    expect(areLeft([])).toBe(true);
    expect(areLeft(['away'])).toBe(false);
    expect(areLeft(FIRST_STEPS.map(({ id }) => id))).toBe(false);
  });
});
