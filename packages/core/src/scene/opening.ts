import { intersection } from '../geometry/bounds';
import { markBox } from '../recipe/marks';
import type { Program } from './program';

/** How many layers are seen in a frame. */
const seenAt = (program: Program, frame: number): number => {
  const { width, height } = program.scene;
  const whole = { left: 0, top: 0, right: width, bottom: height };
  return program.at(frame).marks.filter((mark) => {
    const box = markBox(mark);
    return box !== null && intersection(box, whole) !== null;
  }).length;
};

/** The frame at which a scene is looked at first: its first, or its poster where less than half of that is there at first. */
export const openingFrame = (program: Program): number => {
  const { poster } = program.scene;
  return seenAt(program, 0) * 2 < seenAt(program, poster) ? poster : 0;
};
