/** The encoder by itself: frames drawn beforehand are fed to it, and its own processor time is read. */
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import { planRender } from '@kite/core/delivery/settings';
import type { Scene } from '@kite/core/document/types';
import { encode } from '@kite/render/encoders/table';
import type { DrawnFrame } from '@kite/render/drawPool';
import { frameDrawer } from '@kite/render/frames';
import { EMPTY_STOCK, materialsFor } from '@kite/render/materials';
import { readFileSync } from 'node:fs';

const TICKS_PER_SECOND = 100;

/** Processor seconds of ended children of this process: proc(5), fields 16 and 17. */
const childrenSeconds = (): number => {
  const text = readFileSync('/proc/self/stat', 'utf8');
  const fields = text.slice(text.lastIndexOf(')') + 2).split(' ');
  return (Number(fields[13]) + Number(fields[14])) / TICKS_PER_SECOND;
};

export const encodeOnly = async (
  scene: Scene,
  settings: FormatSettings<'mp4'>,
  out: string,
): Promise<{ cpuSeconds: number }> => {
  const plan = planRender(scene, settings);
  const drawer = frameDrawer(scene, await materialsFor(scene, EMPTY_STOCK), { ...plan, under: null });
  const drawn = plan.frames.map((frame): Uint8Array => {
    drawer.draw(frame);
    return new Uint8Array(drawer.pixels());
  });
  async function* frames(): AsyncGenerator<DrawnFrame> {
    for (const [index, pixels] of drawn.entries()) yield { index, pixels };
  }
  const before = childrenSeconds();
  await encode({
    scene,
    stock: EMPTY_STOCK,
    settings,
    plan,
    under: null,
    out,
    signal: new AbortController().signal,
    frames,
    note: () => undefined,
    part: () => undefined,
    done: () => undefined,
  });
  return { cpuSeconds: childrenSeconds() - before };
};
