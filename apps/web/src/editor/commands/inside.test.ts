import { expect, it } from 'vitest';
import { inside } from './inside';

const SCENE = { width: 1000, height: 500 };

it('moves what stands beyond an edge, and makes smaller what is too wide', () => {
  expect(inside(SCENE, { left: 100, top: 100, right: 300, bottom: 200 }, [200, 150])).toBeNull();
  // Margins are 4 % of 500.
  expect(inside(SCENE, { left: 900, top: -50, right: 1100, bottom: 50 }, [1000, 0])).toEqual({
    scale: 1,
    way: [-120, 70],
  });
  const wide = inside(SCENE, { left: -460, top: 200, right: 1460, bottom: 300 }, [500, 250]);
  expect(wide).toEqual({ scale: 0.5, way: [0, 0] });
});
