/** Looks at a scene that no output has: other frames shown through, or beside, the one at the playhead. */
import { type Matrix, multiply } from '@kite/core/geometry/matrix';
import { paint, type Frame } from '@kite/core/paint/canvas';
import type { Tools } from '@kite/core/paint/target';
import type { Context2D } from '@kite/core/paint/surface';
import type { DisplayList, Program } from '@kite/core/scene/program';
import type { Onion } from './messages';

/** Of the frames before and after the playhead. */
const TINTS = { before: '#D9482B', after: '#2A66B0' } as const;
const STRONGEST = 0.45;

/** Lays tinted pictures of layers at other frames over what is drawn; nearer ones are stronger. */
export const paintOnion = (context: Context2D, program: Program, onion: Onion, target: Frame, tools: Tools): void => {
  const layers = new Set(onion.layers);
  for (const side of ['before', 'after'] as const) {
    onion[side].forEach((frame, i) => {
      const list: DisplayList = { ...program.at(frame, (id) => layers.has(id)), background: null };
      const surface = tools.pool.take(target.width, target.height);
      paint(surface.context, list, target, tools);
      surface.context.setTransform(1, 0, 0, 1, 0, 0);
      surface.context.globalCompositeOperation = 'source-atop';
      surface.context.fillStyle = TINTS[side];
      surface.context.globalAlpha = 0.85;
      surface.context.fillRect(0, 0, target.width, target.height);
      surface.context.globalAlpha = 1;
      surface.context.globalCompositeOperation = 'source-over';
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.globalAlpha = STRONGEST / (i + 1);
      context.drawImage(surface.image, 0, 0, target.width, target.height, 0, 0, target.width, target.height);
      context.globalAlpha = 1;
      tools.pool.give(surface);
    });
  }
};

/** How strongly what is around a nest shows. */
const FAINT = 0.3;

/** Draws another scene faintly over what is there, by the matrix from its pixels to those of the one that is seen. */
export const paintFaintly = (
  context: Context2D,
  list: DisplayList,
  matrix: Matrix,
  target: Frame,
  tools: Tools,
): void => {
  const surface = tools.pool.take(target.width, target.height);
  paint(surface.context, list, { ...target, view: multiply(target.view, matrix) }, tools);
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = FAINT;
  context.drawImage(surface.image, 0, 0, target.width, target.height, 0, 0, target.width, target.height);
  context.globalAlpha = 1;
  tools.pool.give(surface);
};

/** Puts another frame to the right of a share of the scene's width. */
export const paintCompared = (
  context: Context2D,
  list: DisplayList,
  split: number,
  target: Frame,
  tools: Tools,
): void => {
  const x = Math.round(target.view[0] * list.width * split + target.view[4]);
  const from = Math.min(Math.max(x, 0), target.width);
  const rest = target.width - from;
  if (rest < 1) return;
  const surface = tools.pool.take(target.width, target.height);
  paint(surface.context, list, target, tools);
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(from, 0, rest, target.height);
  context.drawImage(surface.image, from, 0, rest, target.height, from, 0, rest, target.height);
  tools.pool.give(surface);
};
