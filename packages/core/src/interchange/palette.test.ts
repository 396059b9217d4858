import { describe, expect, it } from 'vitest';
import { colorsOfPixels, paletteAsCss, paletteAsJson, readPalette } from './palette';

const COLORS = [
  { name: 'Tram amber', color: '#FFB23E' },
  { name: 'Harbour', color: '#2EC4B6' },
  { name: 'Glass', color: '#E9ECF580' },
];

describe('a palette', () => {
  it('is written as custom properties and as JSON, and read again', () => {
    expect(paletteAsCss(COLORS)).toBe(
      ':root {\n  --tram-amber: #ffb23e;\n  --harbour: #2ec4b6;\n  --glass: #e9ecf580;\n}\n',
    );
    expect(readPalette(paletteAsCss(COLORS))).toEqual(COLORS);
    expect(readPalette(paletteAsJson(COLORS))).toEqual(COLORS);
    const twice = [COLORS[0]!, { name: 'tram  Amber!', color: '#000000' }, { name: '…', color: '#FFFFFF' }];
    expect(paletteAsCss(twice).match(/--[^:]+/g)).toEqual(['--tram-amber', '--tram-amber-2', '--colour']);
  });
  it('is read from whatever names colours', () => {
    expect(
      readPalette('/* --not: #111; */ .theme { --Late-ticket: rgb(255 0 0 / 50%); --gap: 4px; --ink : navy }'),
    ).toEqual([
      { name: 'Late ticket', color: '#FF000080' },
      { name: 'Ink', color: '#000080' },
    ]);
    expect(readPalette('{ "brand": { "late-ticket": { "value": "#abc" }, "ink": "#123456" }, "radius": 4 }')).toEqual([
      { name: 'Late ticket', color: '#AABBCC' },
      { name: 'Ink', color: '#123456' },
    ]);
    expect(readPalette('["#111111", "#222222", "#111111"]').map(({ color }) => color)).toEqual(['#111111', '#222222']);
    const svg = '<svg><path fill="#abc"/><path style="fill:#123456;stroke: none"/><path fill="#123456"/></svg>';
    expect(readPalette(svg).map(({ color }) => color)).toEqual(['#123456', '#AABBCC']);
  });
  it('says why it cannot be read', () => {
    expect(() => readPalette('{ "a": ')).toThrow('no JSON');
    expect(() => readPalette('body { margin: 0 }')).toThrow('No colour was found');
    expect(() => readPalette('[]')).toThrow(RangeError);
  });
  it('is what a picture has most of, without what is nearly the same', () => {
    const pixels = (colors: readonly (readonly [number, number, number, number, number])[]) =>
      new Uint8ClampedArray(colors.flatMap(([r, g, b, a, n]) => Array.from({ length: n }, () => [r, g, b, a]).flat()));
    const picture = pixels([
      [255, 178, 62, 255, 50],
      [250, 180, 60, 255, 20],
      [16, 19, 46, 255, 80],
      [46, 196, 182, 255, 10],
      [255, 0, 255, 20, 500],
    ]);
    expect(colorsOfPixels(picture, 8).map(({ color }) => color)).toEqual(['#10132E', '#FFB23E', '#2EC4B6']);
    expect(colorsOfPixels(picture, 2)).toHaveLength(2);
    expect(colorsOfPixels(new Uint8ClampedArray(), 4)).toEqual([]);
  });
});
