/** A nested scene seen from inside, in its place in the scene around it. */
import { lastMade } from '../document/remembered';
import type { Id, Scene } from '../document/types';
import { type Matrix, multiply, translation } from '../geometry/matrix';
import { nest, nestedFrame } from '../recipe/sources/nest';
import type { Values } from '../document/params';
import type { Settings } from '../recipe/types';
import type { Program } from './program';

/** The card of a layer that plays another scene. */
export interface NestAt {
  readonly layer: Id;
  readonly card: Id;
}

const valuesAt = (program: Program, { layer, card }: NestAt, frame: number) => {
  const item = program.scene.layers[layer];
  const isNest = item?.kind === 'drawing' && item.items[card]?.kind === nest.kind;
  const at = isNest ? program.cardAt(layer, card, frame) : null;
  return at && { ...at, values: at.values as Values<typeof nest.params> };
};

/** From the pixels of the scene that a nest plays to those of the scene around it; null where there is no such nest. */
export const matrixOfNest = (program: Program, at: NestAt, frame: number, inner: Scene): Matrix | null => {
  const own = valuesAt(program, at, frame);
  return own && multiply(own.matrix, translation(-inner.width / 2, -inner.height / 2));
};

/** What a nest sets for itself in the scene that it plays. */
export const settingsOfNest = (program: Program, at: NestAt, frame: number): Settings =>
  valuesAt(program, at, frame)?.settings ?? {};

/** The frame of the scene inside that shows at a frame around it; null before it begins, or where there is no such nest. */
export const frameInside = (program: Program, at: NestAt, frame: number, inner: Scene): number | null => {
  const own = valuesAt(program, at, frame);
  return own && nestedFrame(own.values, frame, program.scene.rate, inner);
};

/** What was found last in a scene: it is asked for again with every change of what is looked at. */
const found = lastMade<Program, number>();

/** So far a frame is looked for on either side. */
const FARTHEST = 2_000;

/** The frame of the scene around a nest, nearest to one, that shows a frame of the scene inside: as nearly as any shows it. */
export const frameAround = (program: Program, at: NestAt, inside: number, inner: Scene, near: number): number =>
  found(program, [at.layer, at.card, inside, inner, near], () => lookedFor(program, at, inside, inner, near));

const lookedFor = (program: Program, at: NestAt, inside: number, inner: Scene, near: number): number => {
  let best = near;
  let least = Infinity;
  const { length } = program.scene;
  for (let away = 0; away <= Math.min(FARTHEST, length); away++) {
    for (const frame of away === 0 ? [near] : [near + away, near - away]) {
      if (frame < 0 || frame >= length) continue;
      const shown = frameInside(program, at, frame, inner);
      const off = shown === null ? Infinity : Math.abs(shown - inside);
      if (off < least) [best, least] = [frame, off];
    }
    if (least < 0.5) break;
  }
  return best;
};
