/** What an animated SVG shows at its time in Chromium, beside the frames that are drawn. */
import { newDrawing, newItem } from '@kite/core/document/make';
import type { DrawingLayer, Id, Point, Property } from '@kite/core/document/types';
import { unzipSync } from 'fflate';
import { differing, readPng } from './support/media';
import { BLANK, openMade } from './support/made';
import { finished } from './support/outputs';
import { expect, test } from './support/test';

const linear = { kind: 'linear' } as const;
const overTen = (from: number | readonly number[], to: number | readonly number[]): Property => ({
  keys: [
    { frame: 0, value: from as number, ease: linear },
    { frame: 9, value: to as number, ease: linear },
  ],
});
const gradient = (...colors: string[]) => ({
  stops: colors.map((color, i) => ({ at: i / (colors.length - 1), color })),
});

/** A square of 60 pixels with more cards, there from a frame on. */
const square = (id: Id, at: Point, from: number, ...items: ReturnType<typeof newItem>[]): DrawingLayer => ({
  ...newDrawing(BLANK, id, id, [newItem(`${id}r`, 'rectangle', { width: 60, height: 60 }), ...items], {
    position: at,
  }),
  from,
});
const filled = (id: Id, ...colors: string[]) =>
  newItem(`${id}f`, 'fill', { style: 'linear', gradient: gradient(...colors) });
const withParams = (item: ReturnType<typeof newItem>, params: Record<string, Property>) => ({
  ...item,
  params: { ...item.params, ...params },
});

/** Through a square from its left side, `rest` of which shows before. */
const growing = (id: Id, rest: number) => {
  const from = { points: [{ at: [-28, 0] as const, root: true, wait: 0, pace: 1 }], strokes: [] };
  return withParams(newItem(`${id}w`, 'grow', { from, rest }), { shown: overTen(0, 1) });
};

test('gradients, dashes, effects, trimmed lines, clouds and what grows are in an animated SVG as they are drawn', async ({
  page,
  server,
}) => {
  const stroke = newItem('cs', 'stroke', { color: '#FFB23E', width: 6 });
  const id = await openMade(page, server, 'Coming and going', [
    square('a', [60, 60], 3, filled('a', '#2EC4B6', '#FFFFFF', '#FFB23E')),
    square(
      'b',
      [140, 60],
      0,
      filled('b', '#FF5A5F', '#FFFFFF'),
      newItem('bo', 'outline', { color: '#FFFFFF', width: 6 }),
    ),
    square('c', [220, 60], 0, withParams(newItem('ct', 'trim'), { end: overTen(1, 0) }), stroke),
    square(
      'd',
      [300, 60],
      0,
      withParams(newItem('db', 'blur'), { amount: overTen(0, 4) }),
      withParams(newItem('ds', 'stroke', { color: '#2EC4B6', width: 6 }), { fit: overTen(0, 9) }),
    ),
    square('e', [360, 60], 5, filled('e', '#FFFFFF', '#10132E', '#FF5A5F')),
    // What SVG has no means for: other pictures in every frame, and none before.
    square(
      'h',
      [60, 170],
      4,
      filled('h', '#FFFFFF', '#2EC4B6'),
      withParams(newItem('hc', 'clouds', { size: 14 }), { flow: overTen(0, 2) }),
    ),
    square('i', [140, 170], 0, filled('i', '#FF5A5F', '#FFFFFF'), growing('i', 0)),
    square('j', [220, 170], 0, filled('j', '#FFB23E', '#FFFFFF'), growing('j', 0.3)),
    square(
      'k',
      [300, 170],
      0,
      filled('k', '#FFFFFF', '#2EC4B6'),
      newItem('kx', 'pixelate', { side: 7 }),
      newItem('ke', 'ellipse', { width: 20, height: 20 }),
      newItem('kd', 'fill', { color: '#10132E' }),
      withParams(newItem('kb', 'blur'), { amount: overTen(0, 4) }),
    ),
    // Cut by what is cut itself: in the SVG a mask within a mask.
    square('l', [360, 170], 0, filled('l', '#FFFFFF', '#FFB23E'), newItem('lm', 'matte', { layer: 'm' })),
    { ...square('m', [360, 170], 0, filled('m', '#FFFFFF'), growing('m', 0.3)), hidden: true },
  ]);
  const range = { scale: 1, from: 0, to: 10 };
  for (const settings of [
    { format: 'animated-svg', ...range, loop: 0, hold: 0, stays: '' },
    { format: 'frames', ...range },
  ]) {
    const { status } = await server.api('POST', '/renders', { project: id, scene: 's', settings });
    expect(status).toBe(201);
  }
  const rows = await finished(server, id, 2);
  const frames = unzipSync(await server.bytes(`/renders/${rows.get('frames')?.id}/file`));
  await page.goto(`${server.url}/api/renders/${rows.get('animated-svg')?.id}/file`);
  for (const frame of [0, 2, 4, 6, 9]) {
    await page.evaluate(
      (seconds) => {
        const root = document.documentElement as unknown as SVGSVGElement;
        root.pauseAnimations();
        root.setCurrentTime(seconds);
      },
      (frame + 0.5) / 25,
    );
    const shown = await readPng(await page.screenshot({ clip: { x: 0, y: 0, width: 400, height: 240 } }));
    const drawn = await readPng(frames[`frame-${String(frame + 1).padStart(4, '0')}.png`] as Uint8Array);
    // Edges differ by what platforms smooth otherwise.
    expect(differing(shown, drawn, 48), `frame ${frame}`).toBeLessThan(30);
  }
});
