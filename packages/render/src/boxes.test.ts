/** Our own blur against the platform's, which renders and pages draw with. */
import { blurPixels } from '@kite/core/picture/boxes';
import { createCanvas } from '@napi-rs/canvas';
import { describe, expect, it } from 'vitest';

const drawn = () => {
  const canvas = createCanvas(160, 120);
  const context = canvas.getContext('2d');
  context.fillStyle = '#FFB23E';
  context.fillRect(50, 40, 34, 30);
  context.fillStyle = '#1B1F4BCC';
  context.beginPath();
  context.arc(96, 62, 17, 0, Math.PI * 2);
  context.fill();
  return canvas;
};
/** What is seen over white, 0 to 255: colours of what is almost nothing tell nothing. */
const seen = (data: ArrayLike<number>): number[] =>
  Array.from({ length: data.length / 4 }, (_, i) => {
    const alpha = (data[i * 4 + 3] as number) / 255;
    return [0, 1, 2].map((c) => Math.round((data[i * 4 + c] as number) * alpha + 255 * (1 - alpha)));
  }).flat();

describe('a blur by running averages', () => {
  it.each([0.6, 1, 1.7, 2, 2.9, 4, 7.5, 12])('of %s pixels comes within two levels of the platform’s', (deviation) => {
    const plain = drawn();
    const { width, height } = plain;
    const filtered = createCanvas(width, height).getContext('2d');
    filtered.filter = `blur(${deviation}px)`;
    filtered.drawImage(plain, 0, 0);
    const own = plain.getContext('2d').getImageData(0, 0, width, height);
    blurPixels(own.data, width, height, deviation);
    const there = seen(filtered.getImageData(0, 0, width, height).data);
    const worst = Math.max(...seen(own.data).map((v, i) => Math.abs(v - (there[i] as number))));
    expect(worst).toBeLessThanOrEqual(2);
  });
  it('keeps the amount of what there is', () => {
    const canvas = drawn();
    const { data } = canvas.getContext('2d').getImageData(0, 0, 160, 120);
    const sum = () => data.reduce((all, v, i) => (i % 4 === 3 ? all + v : all), 0);
    const before = sum();
    blurPixels(data, 160, 120, 5);
    expect(sum() / before).toBeCloseTo(1, 2);
  });
});
