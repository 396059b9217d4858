import type { Patch } from '@kite/core/document/patches';
import { describe, expect, it } from 'vitest';
import { acknowledged, type Entry, rebasedLog, standing, stepsOf } from './steps';

const set = (value: number): Patch[] => [{ op: 'replace', path: ['name'], value }];
const entry = (id: string, of: Partial<Entry> = {}): Entry => ({
  id,
  label: id,
  patches: set(1),
  inverse: set(0),
  by: { id: 'me', name: 'Ida' },
  at: '2026-11-28T10:00:00Z',
  ...of,
});
const ids = ({ past, future }: ReturnType<typeof stepsOf>) => [past.map(({ id }) => id), future.map(({ id }) => id)];

describe('steps from the log', () => {
  it('go back and forth with what was undone and redone', () => {
    const log = [entry('a'), entry('b'), entry('u', { undoes: 'b' }), entry('v', { undoes: 'a' })];
    expect(ids(stepsOf(log, 'me'))).toEqual([[], ['b', 'a']]);
    expect(ids(stepsOf([...log, entry('r', { redoes: 'a' })], 'me'))).toEqual([['a'], ['b']]);
    expect(ids(stepsOf([...log, entry('c')], 'me'))).toEqual([['c'], []]);
  });

  it('know what takes them back, as the log last had it', () => {
    const undone = entry('u', { undoes: 'a', patches: set(7), inverse: set(8) });
    expect(stepsOf([entry('a'), undone], 'me').future).toMatchObject([
      { id: 'a', entry: 'u', inverse: set(8), label: 'a' },
    ]);
    const redone = entry('r', { redoes: 'a', patches: set(8), inverse: set(9) });
    expect(stepsOf([entry('a'), undone, redone], 'me').past).toMatchObject([
      { id: 'a', entry: 'r', inverse: set(9), label: 'a' },
    ]);
  });

  it("are one's own, and none that were logged without what takes them back", () => {
    const theirs = entry('b', { by: { id: 'you', name: 'Otto' } });
    expect(ids(stepsOf([entry('old', { inverse: null }), entry('a'), theirs], 'me'))).toEqual([['a'], []]);
    expect(ids(stepsOf([entry('a'), entry('old', { inverse: null })], 'me'))).toEqual([[], []]);
  });

  it('stand where they were not taken back, or made again', () => {
    const log = [
      entry('a'),
      entry('b'),
      entry('u', { undoes: 'b' }),
      entry('c'),
      entry('v', { undoes: 'c' }),
      entry('r', { redoes: 'c' }),
    ];
    expect(standing(log).map((step) => [step.entry.id, step.undone])).toEqual([
      ['a', false],
      ['b', true],
      ['c', false],
    ]);
  });
});

describe('the log', () => {
  const me = { id: 'me', name: 'Ida' };
  const waiting = [{ id: 'c', label: 'c', patches: set(2), inverse: set(3) }];
  const log = acknowledged([entry('a'), entry('b'), entry('c')], new Map([['a', 4]]));
  it('has the revisions of what the server has', () => {
    expect(log.map(({ id, revision }) => [id, revision])).toEqual([
      ['a', 4],
      ['b', undefined],
      ['c', undefined],
    ]);
  });
  it('has what others did under what waits, which keeps its time', () => {
    const theirs = { ...entry('t', { by: { id: 'you', name: 'Otto' } }), revision: 5 };
    const rebased = rebasedLog(log, [theirs], waiting, me);
    expect(rebased.map(({ id }) => id)).toEqual(['a', 't', 'c']);
    expect(rebased[2]).toMatchObject({ at: '2026-11-28T10:00:00Z', by: me, inverse: set(3) });
  });
  it('begins anew where it is not known what others did', () => {
    expect(rebasedLog(log, null, waiting, me).map(({ id }) => id)).toEqual(['c']);
  });
});
