import type { Id } from '../document/types';
import { intersection } from '../geometry/bounds';
import { markBox } from '../recipe/marks';
import type { Program } from './program';

/** Layers that are looked at: of more, so many, evenly spread. */
const MOST_ASKED = 200;

/** How many of these layers are seen in a frame. */
const seenAt = (program: Program, frame: number, asked: ReadonlySet<Id>): number => {
  const { width, height } = program.scene;
  const whole = { left: 0, top: 0, right: width, bottom: height };
  const { marks } = program.at(frame, asked.size < program.scene.order.length ? (id) => asked.has(id) : undefined);
  return marks.filter((mark) => {
    const box = markBox(mark);
    return box !== null && intersection(box, whole) !== null;
  }).length;
};

/** The frame at which a scene is looked at first: its first, or its poster where less than half of that is there at first. */
export const openingFrame = (program: Program): number => {
  const { poster, order } = program.scene;
  if (poster === 0) return 0;
  const step = Math.ceil(order.length / MOST_ASKED);
  const asked = new Set(order.filter((_id, i) => i % step === 0));
  return seenAt(program, 0, asked) * 2 < seenAt(program, poster, asked) ? poster : 0;
};
