import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkProject } from '@kite/core/check/project';
import { wholeScene } from '@kite/core/scene/whole';
import type { Scene } from '@kite/core/document/types';
import { HEAVY } from '@kite/core/test/heavyProjects';
import { describe, expect, it } from 'vitest';
import { Cancelled } from '../failure';
import { EMPTY_STOCK } from '../materials';
import { renderApart } from './renderApart';

const folder = mkdtempSync(join(tmpdir(), 'kite-apart-'));
/** Frames of seconds each, so that there is something to cancel. */
const slow = ((): Scene => {
  const project = checkProject((HEAVY['zig-steps over zig-steps'] as () => ReturnType<(typeof HEAVY)[string]>)());
  return wholeScene(project.scenes[project.order[0] as string] as Scene, project);
})();
const job = (name: string, settings: object) => ({
  name: slow.name,
  scene: JSON.stringify(slow),
  stock: EMPTY_STOCK,
  out: join(folder, name),
  settings: { format: 'mp4', scale: 1, rate: null, from: 0, to: 10, quality: 'draft', ...settings } as never,
});

describe('a render in a process of its own', () => {
  it('gives its file and its result', async () => {
    const result = await renderApart(job('still.png', { format: 'png', frame: 0 }));
    expect([result.width, existsSync(join(folder, 'still.png'))]).toEqual([600, true]);
  });
  it.each(['mp4', 'html5', 'gif'])('is cancelled whatever it does, and leaves nothing: %s', async (format) => {
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
    const rendering = renderApart({ ...job(`cut.${format}`, {}), settings: settled as never }, { signal: stop.signal });
    setImmediate(() => stop.abort());
    await expect(rendering).rejects.toBeInstanceOf(Cancelled);
    expect([existsSync(join(folder, `cut.${format}`)), existsSync(join(folder, `cut.${format}.part`))]).toEqual([
      false,
      false,
    ]);
  });
  it('that makes no progress is ended, and told', async () => {
    const rendering = renderApart(job('stalled.mp4', {}), { stalledAfterMs: 200 });
    await expect(rendering).rejects.toThrow('made no progress for 0.2 seconds and was ended');
  });
  it('says what went wrong in there', async () => {
    const rendering = renderApart(job('no.png', { format: 'png', frame: 99 }));
    await expect(rendering).rejects.toThrow('Scene "Heavy": frame: got 99, the last is 9');
  });
});
