/** Noise in gradients: by what it keeps of them. */
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Color, Scene } from '@kite/core/document/types';
import { describe, expect, it } from 'vitest';
import { drawn, type Pixel } from './test/drawn';

const SIZE = { width: 160, height: 160, rate: { num: 25, den: 1 }, length: 20, background: null } as const;
const empty = newScene('s', 'Inks', SIZE);

interface Disc {
  readonly from: Color;
  readonly to: Color;
  readonly grain: number;
  readonly opacity?: number;
  readonly background?: Color;
}
/** A disc of 120 pixels, turned and off whole pixels, its gradient from below to above the middle of it. */
const disc = ({ from, to, grain, opacity = 1, background }: Disc): Scene => {
  const gradient = {
    stops: [
      { at: 0, color: from },
      { at: 1, color: to },
    ],
  };
  const fill = newItem('f', 'fill', { style: 'linear', gradient, from: [0, 50], to: [0, -30], grain });
  const cards = [newItem('e', 'ellipse', { width: 120, height: 120 }), fill];
  const layer = newDrawing(empty, 'l', 'Disc', cards, { position: [80.3, 79.6] });
  const params = { ...layer.params, opacity: { value: opacity }, rotation: { value: 7 } };
  return { ...empty, background: background ?? null, layers: { l: { ...layer, params } }, order: ['l'] };
};
const pixels = (scene: Scene): readonly Pixel[] => {
  const { at } = drawn(scene);
  return Array.from({ length: 160 * 160 }, (_, i) => at(i % 160, Math.floor(i / 160)));
};
const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;

const FADING = { from: '#10132E', to: '#10132E00' } as const;
const OPAQUE = { from: '#10132E', to: '#2EC4B6' } as const;

describe('noise in a gradient', () => {
  it('is nowhere where that shows all that is behind it', () => {
    const { at } = drawn(disc({ ...FADING, grain: 1, background: '#FFB23E' }));
    const above = Array.from({ length: 60 }, (_, i) => at(50 + i, 35));
    expect(above.every((pixel) => pixel.join() === '255,178,62,255')).toBe(true);
  });
  it('shows as much of what is behind in all, here more and there less', () => {
    const [smooth, noisy] = [0, 1].map((grain) => drawn(disc({ ...FADING, grain })));
    expect(Math.abs(noisy!.alpha / smooth!.alpha - 1)).toBeLessThan(0.01);
    const row = (of: typeof smooth) => Array.from({ length: 80 }, (_, i) => of!.at(40 + i, 90)[3]);
    expect(Math.max(...row(smooth)) - Math.min(...row(smooth))).toBeLessThan(60);
    expect(Math.max(...row(noisy)) - Math.min(...row(noisy))).toBeGreaterThan(150);
  });
  it('leaves the edge as it is, and the mean of its colours', () => {
    const [smooth, noisy] = [0, 0.6].map((grain) => pixels(disc({ ...OPAQUE, grain })));
    expect(noisy!.map(([, , , alpha]) => alpha)).toEqual(smooth!.map(([, , , alpha]) => alpha));
    const inside = smooth!.flatMap(([, , , alpha], i) => (alpha === 255 ? [i] : []));
    for (const channel of [0, 1, 2]) {
      const [a, b] = [smooth, noisy].map((all) => mean(inside.map((i) => all![i]![channel]!)));
      expect(Math.abs(a! - b!)).toBeLessThan(1.5);
    }
  });
  it.each([
    ['opaque', OPAQUE],
    ['see-through', FADING],
  ])('fades with its layer, of what is %s', (_name, colors) => {
    const [whole, half] = [1, 0.5].map((opacity) => pixels(disc({ ...colors, grain: 0.7, opacity })));
    whole!.forEach(([, , , alpha], i) => {
      expect(Math.abs(half![i]![3] - alpha / 2)).toBeLessThanOrEqual(1);
    });
  });
});
