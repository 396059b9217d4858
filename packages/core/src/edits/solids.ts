/** Things in depth made of a layer: a box, a card with a back, a fan or a stack, of ordinary layers on a controller. */
import {
  type MakeId,
  namesIn,
  naming,
  newController,
  newDrawing,
  newItem,
  stillAll,
  uniqueName,
} from '../document/make';
import type { DEPTH } from '../document/params';
import { type Edit, plain, together } from '../document/patches';
import type { Color, DrawingLayer, Id, Layer, Properties, Scene, Value } from '../document/types';
import type { Box } from '../geometry/bounds';
import { apply } from '../geometry/matrix';
import { dimmedColor } from '../recipe/covers/flood';
import { layerBox } from '../scene/bounds';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY, type Program } from '../scene/program';
import { placementOf } from '../properties/placement';
import { drawingIn, layerIn, type LayerDraft, sceneIn } from './find';
import { addLayers, copiesOf, setLayers } from './layers';
import { pivotedAt, reparent } from './place';

export const SOLIDS = ['box', 'card', 'fan', 'stack'] as const;
export type SolidForm = (typeof SOLIDS)[number];

export interface Solid {
  readonly form: SolidForm;
  /** Of a box, in pixels of what the layer stands in. */
  readonly depth: number;
  /** Of the faces of a box besides its front, and of a card's back. */
  readonly color: Color;
  /** Of a fan or a stack, the layer itself among them. */
  readonly count: number;
  /** Between the leaves of a fan, in degrees. */
  readonly angle: number;
  /** Between the layers of a stack, in pixels. */
  readonly gap: number;
}

export const SOLID_LIMITS = {
  depth: [1, 10_000],
  count: [2, 60],
  angle: [-180, 180],
  gap: [-1_000, 1_000],
} as const;

/** As the edits are called, and the commands that ask for them. */
export const SOLID_LABELS: { readonly [F in SolidForm]: string } = {
  box: 'Make a box',
  card: 'Make a card with a back',
  fan: 'Make a fan',
  stack: 'Make a stack',
};

/** Of what is made of nothing that is there yet, in pixels. */
export interface SolidSize {
  readonly width: number;
  readonly height: number;
}
export const SIZE_LIMITS = [1, 10_000] as const;

interface Face {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly color: Color;
  readonly place: { readonly [key: string]: Value };
}

/** The faces of a box besides its front, whose letters would stand upright as it is turned. */
const facesOf = (width: number, height: number, { depth, color }: Solid): readonly Face[] => {
  const [w, h, d] = [width / 2, height / 2, depth / 2];
  const face = (name: string, size: readonly [number, number], light: number, place: Face['place']): Face => ({
    ...{ name, width: size[0], height: size[1], color: dimmedColor(color, light), place },
  });
  return [
    face('right', [depth, height], 0.85, { position: [w, 0], turnY: 90 }),
    face('left', [depth, height], 0.7, { position: [-w, 0], turnY: -90 }),
    face('top', [width, depth], 1, { position: [0, -h], turnX: 90 }),
    face('bottom', [width, depth], 0.55, { position: [0, h], turnX: -90 }),
    face('back', [width, height], 0.75, { position: [0, 0], z: d, turnY: 180 }),
  ];
};

const asLayer = (
  scene: Scene,
  id: Id,
  name: string,
  { width, height, color, place }: Face,
  makeId: MakeId,
): DrawingLayer => {
  const items = [newItem(makeId(), 'rectangle', { width, height }), newItem(makeId(), 'fill', { color })];
  return { ...newDrawing(scene, id, name, items), params: stillAll({ depth: true, ...place }) };
};

/** A layer gets depth, and what else it is given, as values that stay. */
const placeInDepth = (layer: LayerDraft, values: { readonly [K in keyof typeof DEPTH]?: Value }): void => {
  layer.params = {
    ...plain<Properties>(layer.params),
    ...stillAll({ depth: true, ...values }),
  } as LayerDraft['params'];
};

/** The box of what a layer shows, in what it stands in. */
const sizeIn = (program: Program, layer: Layer, frame: number): Box => {
  const box = layerBox(program, layer.id, frame);
  if (!box || box.right - box.left < 1e-6 || box.bottom - box.top < 1e-6)
    throw new RangeError(`“${layer.name}” shows nothing at this frame that a thing in depth could be made of`);
  return box;
};

/**
 * Makes a thing in depth of a layer as it shows at a frame. Nothing changes until it is turned: the layer is its front, and
 * stays where it was. The controller is in the middle of a box or a card, and where the leaves of a fan meet; it gets the id
 * that is given.
 */
export const makeSolid = (
  program: Program,
  layerId: Id,
  solid: Solid,
  frame: number,
  controller: Id,
  makeId: MakeId,
): Edit => ({
  label: SOLID_LABELS[solid.form],
  change: (draft) => {
    const sceneId = program.scene.id;
    const scene = sceneIn(draft, sceneId);
    const layer = plain<DrawingLayer>(drawingIn(draft, sceneId, layerId));
    const placement = placementOf(layer.params);
    if (placement.depthAt(frame)) throw new RangeError(`“${layer.name}” has depth already`);
    const { left, top, right, bottom } = sizeIn(program, layer, frame);
    const { scale } = placement.at(frame);
    const [width, height] = [(right - left) * Math.abs(scale[0]), (bottom - top) * Math.abs(scale[1])];
    // A fan is held at the left.
    const middle = [solid.form === 'fan' ? left : (left + right) / 2, (top + bottom) / 2] as const;
    const half = solid.form === 'box' ? solid.depth / 2 : 0;

    const named = naming(namesIn(plain<Scene>(scene)));
    const about = {
      ...newController(plain<Scene>(scene), controller, named(`${layer.name} ${solid.form}`)),
      parent: layer.parent,
      params: stillAll({
        depth: true,
        position: apply(placement.matrix(frame), middle),
        rotation: placement.turn(frame),
        ...(half > 0 && { z: half }),
      }),
    };
    scene.layers[controller] = about as LayerDraft;
    reparent(scene, layerId, controller, frame);
    const front = layerIn(scene, layerId);
    placeInDepth(front, half > 0 ? { z: -half } : {});
    const others: Layer[] = [];
    if (solid.form === 'box' || solid.form === 'card') {
      const faces =
        solid.form === 'box'
          ? facesOf(width, height, solid)
          : [{ name: 'back', width, height, color: solid.color, place: { turnY: 180, back: 'hidden' } }];
      if (solid.form === 'card') placeInDepth(front, { back: 'hidden' });
      for (const face of faces) {
        others.push({
          ...asLayer(plain<Scene>(scene), makeId(), named(`${layer.name} ${face.name}`), face, makeId),
          parent: controller,
        });
      }
    } else {
      const now = plain<DrawingLayer>(drawingIn(draft, sceneId, layerId));
      for (let i = 1; i < Math.min(solid.count, SOLID_LIMITS.count[1]); i++) {
        const [copy] = copiesOf([now], makeId) as [DrawingLayer];
        const params =
          solid.form === 'fan'
            ? { ...pivotedAt(copy.params, [left, (top + bottom) / 2], frame), ...stillAll({ turnY: i * solid.angle }) }
            : { ...copy.params, ...stillAll({ z: i * solid.gap }) };
        others.push({ ...copy, name: named(`${layer.name} ${i + 1}`), params });
      }
    }
    for (const other of others) scene.layers[other.id] = { ...other, from: layer.from, to: layer.to } as LayerDraft;
    const index = scene.order.indexOf(layerId);
    const behind = others.map(({ id }) => id);
    scene.order = [...scene.order.slice(0, index), controller, layerId, ...behind, ...scene.order.slice(index + 1)];
  },
});

/** Makes a thing in depth of a size in the middle of a scene: its front is a new rectangle. */
export const newSolid = (
  scene: Scene,
  { width, height }: SolidSize,
  solid: Solid,
  frame: number,
  controller: Id,
  makeId: MakeId,
): Edit => {
  const items = [newItem(makeId(), 'rectangle', { width, height }), newItem(makeId(), 'fill', { color: solid.color })];
  const name = uniqueName(solid.form.charAt(0).toUpperCase() + solid.form.slice(1), namesIn(scene));
  const front = newDrawing(scene, makeId(), name, items, { position: [scene.width / 2, scene.height / 2] });
  const put = addLayers(scene.id, [front]);
  const grown = { ...scene, layers: { ...scene.layers, [front.id]: front }, order: [front.id, ...scene.order] };
  const made = makeSolid(compileScene(grown, NO_LIBRARY), front.id, solid, frame, controller, makeId);
  // The whole is called what it is, and its front by where that is.
  const first = solid.form === 'box' || solid.form === 'card' ? 'front' : '1';
  const called = [
    setLayers(scene.id, [controller], { name }),
    setLayers(scene.id, [front.id], { name: `${name} ${first}` }),
  ];
  return together(made.label, [put, made, ...called]);
};
