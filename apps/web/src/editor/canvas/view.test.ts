import { describe, expect, it } from 'vitest';
import { fitView, shownPart, toArea, toScene, zoomed } from './view';

const hd = { width: 1920, height: 1080 };
const banner = { width: 300, height: 250 };
const area = { width: 936, height: 430 };

describe('a view', () => {
  it('fits a large scene with a margin, and never enlarges a small one', () => {
    const view = fitView(hd, area);
    expect(view.zoom).toBeCloseTo(390 / 1080, 9);
    expect(fitView(banner, area)).toEqual({ zoom: 1, x: 318, y: 90 });
  });
  it('goes to the area and back', () => {
    const view = { zoom: 0.36, x: 120, y: 20 };
    const [x, y] = toScene(view, toArea(view, [960, 540]));
    expect([x, y].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([960, 540]);
  });
  it('zooms about the pointer, within limits', () => {
    const view = { zoom: 0.5, x: 100, y: 50 };
    const near = zoomed(view, 2, [300, 200]);
    expect(toScene(near, [300, 200])).toEqual(toScene(view, [300, 200]));
    expect(zoomed(view, 1e9, [0, 0]).zoom).toBe(64);
  });
});

describe('the part that shows', () => {
  it('of a scene in full view is the whole of it, from its own corner', () => {
    expect(shownPart(banner, area, { zoom: 1, x: 318, y: 90 }, 1)).toEqual({
      at: [318, 90],
      width: 300,
      height: 250,
      view: [1, 0, 0, 1, -0, -0],
    });
  });
  it('of a large view is cut to the area', () => {
    const part = shownPart(banner, area, { zoom: 10, x: -1000, y: -500 }, 1);
    expect(part).toMatchObject({ at: [0, 0], width: 936, height: 430, view: [10, 0, 0, 10, -1000, -500] });
  });
  it('counts device pixels', () => {
    expect(shownPart(banner, area, { zoom: 1, x: 10, y: 10 }, 2)).toMatchObject({
      at: [20, 20],
      width: 600,
      height: 500,
    });
  });
  it('is nothing where the scene is out of view', () => {
    expect(shownPart(banner, area, { zoom: 1, x: 2000, y: 0 }, 1)).toBeNull();
  });
});
