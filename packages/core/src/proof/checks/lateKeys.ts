import { setScene } from '../../edits/scenes';
import { keyFramesOf } from '../../properties/find';
import { atOnce, type CheckKind } from '../types';

/** Keyframes that are never reached. */
export const lateKeys: CheckKind = {
  kind: 'lateKeys',
  about: 'Keyframes after the scene’s end',
  find: atOnce(({ scene }) =>
    Object.values(scene.layers).flatMap((layer) => {
      const late = keyFramesOf(layer).filter((frame) => frame >= scene.length);
      if (late.length === 0) return [];
      const last = Math.max(...late);
      const message = `“${layer.name}” has keyframes as late as ${last}; the scene’s last frame is ${scene.length - 1}.`;
      const mend = `Let the scene last ${last + 1} frames`;
      return [
        {
          check: 'lateKeys',
          message,
          scene: scene.id,
          layer: layer.id,
          frame: scene.length - 1,
          mend,
          value: last + 1,
        },
      ];
    }),
  ),
  mend: ({ scene, value = 1 }) => setScene(scene, { length: value as number }),
};
