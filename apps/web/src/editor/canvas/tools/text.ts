import { addText, writeText } from '../../commands/layers';
import { layerAt } from '../hit';
import { type Press, sweep } from './press';

/** A click sets a text, or opens the one that is there; a drag gives it a box. */
export const pressForText = (press: Press): void => {
  const { editor, stage, start } = press;
  sweep(press, {
    end: (to, moved) => {
      const hit = layerAt(editor, start, 4 / stage.view.zoom);
      if (moved) {
        const size = { width: Math.abs(to[0] - start[0]), height: Math.abs(to[1] - start[1]) };
        addText(editor, [Math.round((start[0] + to[0]) / 2), Math.round((start[1] + to[1]) / 2)], size);
      } else if (hit === null || !writeText(editor, hit)) {
        addText(editor, [Math.round(start[0]), Math.round(start[1])]);
      }
    },
  });
};
