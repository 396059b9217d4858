import type { Id, Point } from '../document/types';
import { type Box, boxOfOutlines, union } from '../geometry/bounds';
import { IDENTITY, turn } from '../geometry/matrix';
import { applyThrough, boxSeen, isMatrix, type Through, throughBack, throughBoth } from '../geometry/through';
import { boxOfStroke } from '../geometry/strokeBox';
import { type BoxOf, boxOfMarks, markThrough } from '../recipe/marks';
import type { Mark } from '../recipe/types';
import type { Program } from './program';
import { membersOf } from './groups';

/** As tight as outlines, ends and joins are, however they are turned. */
const tightBox: BoxOf = (m, outlines, pen) => (pen ? boxOfStroke(m, outlines, pen) : boxOfOutlines(m, outlines));

/** A box that holds no more than what marks draw; null for nothing. */
export const boxAround = (marks: readonly Mark[], spread = true): Box | null => boxOfMarks(marks, spread, tightBox);

/** The box of what a layer draws, or of what the members of a group do, through a map of the layer's own pixels. */
const boxBy = (program: Program, layer: Id, frame: number, spread: boolean, through: Through): Box | null => {
  const members = membersOf(program.scene, [layer]);
  const back = members.length > 0 && throughBack(program.throughAt(layer, frame));
  if (back) {
    const boxOf = (id: Id) =>
      boxBy(program, id, frame, spread, throughBoth(through, throughBoth(back, program.throughAt(id, frame))));
    return members.reduce<Box | null>((sum, id) => union(sum, boxOf(id)), null);
  }
  const marks = program.marksAt(layer, frame);
  if (isMatrix(through) && through !== IDENTITY) {
    return boxAround(
      marks.map((mark) => markThrough(through, mark)),
      spread,
    );
  }
  const own = boxAround(marks, spread);
  return own && boxSeen(through, own);
};

/**
 * The box of what a layer draws, or of what the members of a group do, in its own pixels: what it is handled and snapped by,
 * before effects spread it; null where it draws nothing.
 */
export const layerBox = (program: Program, layer: Id, frame: number, spread = false): Box | null =>
  boxBy(program, layer, frame, spread, IDENTITY);

/** The box of what some cards of a layer give, drawn or not, in their own pixels; null where that is nothing. */
export const cardsBox = (program: Program, layer: Id, cards: readonly Id[], frame: number): Box | null => {
  const { marks, shapes } = program.flowAt(layer, cards, frame);
  const outlines = shapes.flatMap((shape) => shape.outlines);
  return union(boxAround(marks), boxOfOutlines(IDENTITY, outlines));
};

/** The upright box of what a layer shows in the scene: that of a disc is the same however it is turned. */
export const layerBoxInScene = (program: Program, layer: Id, frame: number, spread = false): Box | null =>
  boxBy(program, layer, frame, spread, program.throughAt(layer, frame));

/** The upright box of several layers in the scene. */
export const boxOfLayers = (program: Program, layers: readonly Id[], frame: number): Box | null =>
  layers.reduce<Box | null>((sum, id) => union(sum, layerBoxInScene(program, id, frame)), null);

/** The corners of a box through a map, clockwise from its top left. */
export const cornersThrough = (m: Through, box: Box): readonly [Point, Point, Point, Point] => [
  applyThrough(m, [box.left, box.top]),
  applyThrough(m, [box.right, box.top]),
  applyThrough(m, [box.right, box.bottom]),
  applyThrough(m, [box.left, box.bottom]),
];

/** How far a layer goes in a direction until nothing of it is in the scene: degrees and pixels of its parent. */
export const distanceOut = (program: Program, layer: Id, angle: number, frame: number): number => {
  const box = layerBoxInScene(program, layer, frame, true);
  const { width, height, layers } = program.scene;
  if (!box) return Math.hypot(width, height);
  const parent = layers[layer]?.parent ?? null;
  const m = parent === null ? IDENTITY : program.matrixAt(parent, frame);
  const [cos, sin] = turn(angle);
  const [dx, dy] = [m[0] * cos + m[2] * sin, m[1] * cos + m[3] * sin];
  const along = (d: number, low: number, high: number, size: number) =>
    Math.abs(d) < 1e-9 ? Infinity : d > 0 ? (size - low) / d : -high / d;
  const way = Math.min(along(dx, box.left, box.right, width), along(dy, box.top, box.bottom, height));
  return Number.isFinite(way) ? Math.max(0, way) : 0;
};
