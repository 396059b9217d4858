import { fork } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkProject } from '@kite/core/check/project';
import { wholeScene } from '@kite/core/scene/whole';
import type { Scene } from '@kite/core/document/types';
import { HEAVY } from '@kite/core/test/heavyProjects';
import { describe, expect, it, vi } from 'vitest';
import { Cancelled } from '../failure';
import { EMPTY_STOCK } from '../materials';
import { prepareRender, renderApart } from './renderApart';

vi.mock('node:child_process', async (original) => {
  const real = await original<{ fork: typeof fork }>();
  return { ...real, fork: vi.fn(real.fork) };
});
const forks = vi.mocked(fork);

const folder = mkdtempSync(join(tmpdir(), 'kite-apart-'));
/** Frames of seconds each, so that there is something to cancel. */
const slow = ((): Scene => {
  const project = checkProject((HEAVY['zig-steps over zig-steps'] as () => ReturnType<(typeof HEAVY)[string]>)());
  return wholeScene(project.scenes[project.order[0] as string] as Scene, project);
})();
const quick: Scene = { ...slow, layers: {}, order: [] };
const job = (name: string, settings: object, scene = slow) => ({
  name: scene.name,
  scene: JSON.stringify(scene),
  stock: EMPTY_STOCK,
  out: join(folder, name),
  settings: { format: 'mp4', scale: 1, rate: null, from: 0, to: 10, quality: 'draft', ...settings } as never,
});
const still = (name: string) => renderApart(job(name, { format: 'png', frame: 0 }, quick));

describe('a render in a process of its own', () => {
  it('gives its file and its result', async () => {
    const result = await renderApart(job('still.png', { format: 'png', frame: 0 }));
    expect([result.width, existsSync(join(folder, 'still.png'))]).toEqual([600, true]);
  });
  it.each(['mp4', 'html5', 'gif', 'frames'])(
    'is cancelled whatever it does, and leaves nothing: %s',
    async (format) => {
      const stop = new AbortController();
      const more = {
        mp4: {},
        html5: { loop: 0, fallback: 0, click: 'https://tram.example' },
        gif: { loop: 0, palette: 'global', dither: 'none' },
      };
      const { quality: _quality, ...settings } = job('x', {}).settings as { quality: string };
      const settled = {
        ...settings,
        format,
        ...more[format as keyof typeof more],
        ...(format === 'mp4' && { quality: 'draft' }),
      };
      const rendering = renderApart(
        { ...job(`cut.${format}`, {}), settings: settled as never },
        { signal: stop.signal },
      );
      setImmediate(() => stop.abort());
      await expect(rendering).rejects.toBeInstanceOf(Cancelled);
      expect([existsSync(join(folder, `cut.${format}`)), existsSync(join(folder, `cut.${format}.part`))]).toEqual([
        false,
        false,
      ]);
    },
  );
  it('that makes no progress is ended, and told', async () => {
    const rendering = renderApart(job('stalled.mp4', {}), { stalledAfterMs: 200 });
    await expect(rendering).rejects.toThrow('made no progress for 0.2 seconds and was ended');
  });
  it('says what went wrong in there', async () => {
    const rendering = renderApart(job('no.png', { format: 'png', frame: 99 }));
    await expect(rendering).rejects.toThrow('Scene "Heavy": frame: got 99, the last is 9');
  });
  it('is followed by others in the same process, until one fails or it ends', async () => {
    const begun = () => forks.mock.results.length;
    await still('first.png');
    const before = begun();
    await still('second.png');
    await still('third.png');
    expect(begun()).toBe(before);
    const [first, third] = ['first.png', 'third.png'].map((name) => readFileSync(join(folder, name)));
    expect(first?.equals(third as Buffer)).toBe(true);

    await expect(renderApart(job('no.png', { format: 'png', frame: 99 }))).rejects.toThrow('the last is 9');
    await still('fourth.png');
    expect(begun()).toBe(before + 1);

    const last = forks.mock.results.at(-1)?.value as ReturnType<typeof fork>;
    last.kill('SIGKILL');
    await once(last, 'exit');
    await still('fifth.png');
    expect(begun()).toBe(before + 2);
  });
  it('may be prepared for, which is done once', async () => {
    // One that fails takes its process with it.
    await renderApart(job('no.png', { format: 'png', frame: 99 })).catch(() => undefined);
    const before = forks.mock.results.length;
    prepareRender();
    prepareRender();
    await still('prepared.png');
    expect(forks.mock.results.length).toBe(before + 1);
    expect(readFileSync(join(folder, 'prepared.png')).equals(readFileSync(join(folder, 'first.png')))).toBe(true);
  });
  it('prepares nothing beside one that is under way, whose process goes on to the next', async () => {
    const before = forks.mock.results.length;
    const rendering = still('under.png');
    prepareRender();
    await rendering;
    expect(forks.mock.results.length).toBe(before);
  });
  it('does not wait for another one', async () => {
    const before = forks.mock.results.length;
    const names = ['side.png', 'by.png'];
    await Promise.all(names.map(still));
    await still('after.png');
    expect(forks.mock.results.length).toBe(before + 1);
    expect(names.map((name) => existsSync(join(folder, name)))).toEqual([true, true]);
  });
});
