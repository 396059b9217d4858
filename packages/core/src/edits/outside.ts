/** How far moves that come from outside of the scene have to go, and that they go so far still after an edit. */
import { type Edit, together } from '../document/patches';
import type { AppliedMove } from '../document/moves';
import type { Id, Layer, Project, Scene } from '../document/types';
import { distanceOut, layerBoxInScene } from '../scene/bounds';
import type { Program } from '../scene/program';
import { type AwayOf, changeMove } from './moves';

/** A frame at which a layer with this move rests. */
const restFrame = ({ move, from, to }: AppliedMove): number =>
  move.kind === 'passage' ? Math.round((from + to) / 2) : move.kind === 'entrance' ? to : from;

/** How far layers go to be out of the scene, from where they rest with a move that they have, or from where they are at a frame. */
export const awayIn =
  (program: Program, frame: number, move?: Id): AwayOf =>
  (id, angle) => {
    const applied = program.scene.layers[id]?.moves.find((m) => m.id === move);
    return distanceOut(program, id, angle, applied ? restFrame(applied) : frame);
  };

const isOutside = ({ move }: AppliedMove): boolean => 'outside' in move && move.outside;

/** The moves of a layer from outside that are not as far away as they have to be, by at least a pixel. */
const tooNear = (program: Program, layer: Layer): AppliedMove[] =>
  layer.moves.filter((applied) => {
    const { move, away } = applied;
    if (!('outside' in move) || !move.outside || !layerBoxInScene(program, layer.id, restFrame(applied), true))
      return false;
    return Math.abs(distanceOut(program, layer.id, move.angle, restFrame(applied)) - away) >= 1;
  });

/** The layers of a scene whose moves from outside may not come from there any more: they, or the size of the scene, are others than before. */
export const mayBeNearer = (scene: Scene, was: Scene): readonly Id[] => {
  const sized = scene.width !== was.width || scene.height !== was.height;
  return Object.values(scene.layers)
    .filter((layer) => layer.moves.some(isOutside) && (sized || layer !== was.layers[layer.id]))
    .map(({ id }) => id);
};

/** Lets the moves of layers come from outside of the scene again. */
export const outsideAgain = (program: Program, layers: readonly Id[]): readonly Edit[] =>
  layers.flatMap((id) => {
    const layer = program.scene.layers[id];
    if (!layer) return [];
    return tooNear(program, layer).map((move) =>
      changeMove(program.scene.id, [id], move.id, {}, awayIn(program, 0, move.id)),
    );
  });

/**
 * What is left to do after an edit so that moves from outside come from outside still: the text, its font or the size of the
 * scene may be others. null for nothing. Moves that were edited by hand stay as they are.
 */
export const stayingOutside = (before: Project, after: Project, programOf: (scene: Scene) => Program): Edit | null => {
  const edits = Object.values(after.scenes).flatMap((scene) => {
    const was = before.scenes[scene.id];
    const layers = was && was !== scene ? mayBeNearer(scene, was) : [];
    return layers.length > 0 ? outsideAgain(programOf(scene), layers) : [];
  });
  return edits.length > 0 ? together('Stay outside', edits) : null;
};
