import { newDrawing, newItem } from '../../document/make';
import { addLayers } from '../../edits/layers';
import { bannerLights, bannersOf } from '../banners';
import type { CheckKind } from '../types';

/** As light as a page. */
const WHITE = 0.85;
/** The share of the edges that is white where the banner is taken to be. */
const MOST = 0.6;

/** The share of the pixels along the edges that are as light as a page. */
const whiteEdges = ({ width, height, lights }: ReturnType<typeof bannerLights>): number => {
  let [white, all] = [0, 0];
  for (let y = 0; y < height; y++) {
    const step = y === 0 || y === height - 1 ? 1 : Math.max(1, width - 1);
    for (let x = 0; x < width; x += step) {
      all++;
      if ((lights[y * width + x] as number) > WHITE) white++;
    }
  }
  return white / all;
};

export const bannerBorder: CheckKind = {
  kind: 'bannerBorder',
  about: 'Banners on white without a border',
  *find(look) {
    if (bannersOf(look).length === 0) return [];
    const { id: scene, poster: frame } = look.scene;
    const share = whiteEdges(bannerLights(look, frame));
    yield;
    if (share < MOST) return [];
    const message = 'The banner is white at its edges and has no border: on a white page nobody sees where it ends.';
    return [{ check: 'bannerBorder', message, scene, frame, mend: 'Draw a border' }];
  },
  mend: ({ scene: id }, project, makeId) => {
    const scene = project.scenes[id];
    if (!scene) throw new RangeError('the scene is gone');
    const items = [
      newItem(makeId(), 'rectangle', { width: scene.width - 1, height: scene.height - 1 }),
      newItem(makeId(), 'stroke', { color: '#8A8F9C', width: 1 }),
    ];
    return addLayers(id, [newDrawing(scene, makeId(), 'Border', items)]);
  },
};
