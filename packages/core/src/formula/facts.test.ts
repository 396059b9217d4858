import { describe, expect, it } from 'vitest';
import { factsOf } from './facts';

const facts = (text: string) => factsOf({ text, on: true });

describe('the facts of a formula', () => {
  it('are what its tree says, however it is spaced', () => {
    expect(facts('mix(0, 100, ease (time / 2, {Eases / Soft}))')).toMatchObject({
      readsEases: true,
      readsValue: false,
    });
    expect(facts('value + {Lead / Position} .x')).toMatchObject({
      readsValue: true,
      reads: [{ path: 'Lead / Position', part: 0 }],
    });
    expect(facts('{A / Position}.y + {A / Turn}').reads).toEqual([
      { path: 'A / Position', part: 1 },
      { path: 'A / Turn', part: null },
    ]);
    expect(facts('order * 10').readsRank).toBe(true);
    expect(facts('textWidth ({Title / Text / Text})').readsSizes).toBe(true);
  });
  it('are not what stands in its words or names', () => {
    expect(facts('"ease(value, order)" + " textWidth("')).toMatchObject({
      readsEases: false,
      readsValue: false,
      readsRank: false,
      readsSizes: false,
    });
    expect(facts('{value / order}')).toMatchObject({ readsValue: false, readsRank: false });
  });
  it('are none of a formula that cannot be read', () => {
    expect(facts('value +')).toMatchObject({ reads: [], readsValue: false });
  });
});
