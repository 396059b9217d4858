import { expect, it } from 'vitest';
import { followed } from './followed';

/** A list whose answers come when they are let go, as it was when it was asked for. */
const slow = (now: { list: readonly string[] }) => {
  const waiting: (() => void)[] = [];
  const list = followed(() => {
    const then = now.list;
    return new Promise<readonly string[]>((answer) => waiting.push(() => answer(then)));
  });
  return { ...list, letGo: () => waiting.shift()?.() };
};
const becomes = (what: string) => (list: readonly string[]) => list.map((one) => (one === 'running' ? what : one));

it('has what was told while it was on its way', async () => {
  const now = { list: ['running'] };
  const { ask, tell, letGo } = slow(now);
  const answer = ask();
  tell(becomes('done'));
  letGo();
  expect(await answer).toEqual(['done']);
});

it('is as it came where nothing was told since, or only before', async () => {
  const { ask, tell, letGo } = slow({ list: ['running'] });
  tell(becomes('failed'));
  const first = ask();
  letGo();
  expect(await first).toEqual(['running']);
  // Each answer has what was told since it was asked for, whichever comes first.
  const early = ask();
  tell((list) => [...list, 'queued']);
  const late = ask();
  tell(becomes('done'));
  letGo();
  letGo();
  expect(await Promise.all([early, late])).toEqual([['done', 'queued'], ['done']]);
});

it('is asked for anew after one that failed', async () => {
  let fails = true;
  const { ask } = followed(() => (fails ? Promise.reject(new Error('away')) : Promise.resolve(['done'])));
  await expect(ask()).rejects.toThrow('away');
  fails = false;
  expect(await ask()).toEqual(['done']);
});
