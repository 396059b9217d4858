import type { CheckKind, Finding } from '../types';

/** Moments of a scene that are looked at for what shows at some of them alone. */
const MOMENTS = 50;

/** Fonts that are missing, formulas in error, mattes and scenes that are gone, what is beyond a budget: whatever does not work. */
export const working: CheckKind = {
  kind: 'working',
  about: 'Fonts, formulas, mattes and nests that do not work',
  *find({ scene, program }) {
    const said = new Map<string, Finding>();
    const step = Math.max(1, Math.floor(scene.length / MOMENTS));
    const add = (problems: readonly { readonly layer: string; readonly message: string }[], frame?: number) => {
      for (const { layer, message } of problems) {
        const key = `${layer}/${message}`;
        if (said.has(key)) continue;
        const text = `“${scene.layers[layer]?.name ?? layer}” ${message.replace(/\.$/, '')}.`;
        said.set(key, {
          check: 'working',
          message: text,
          scene: scene.id,
          layer,
          ...(frame !== undefined && { frame }),
        });
      }
    };
    add(program.problems);
    for (let frame = 0; frame < scene.length; frame += step) {
      add(program.at(frame).problems, frame);
      yield;
    }
    return [...said.values()];
  },
};
