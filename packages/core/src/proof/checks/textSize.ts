import { setValue } from '../../edits/properties';
import { propertyIn } from '../../properties/find';
import { isKeyed } from '../../document/types';
import { fitsBox, type TextValues } from '../../recipe/sources/text';
import type { CheckKind } from '../types';

/** Text that is too small. */
export const textSize: CheckKind = {
  kind: 'textSize',
  about: 'Text that is too small',
  ofVersions: true,
  *find({ scene, rules, texts, program }) {
    const least = rules.leastText * Math.min(scene.width, scene.height);
    const { seen } = yield* texts();
    return seen
      .filter(({ size }) => size < least - 0.05)
      .map(({ layers, layer, card, name, size, at: frame }) => {
        const ref = { scene: scene.id, layer, item: card, key: 'size' };
        const own = scene.layers[layer];
        const values = program.cardAt(layer, card, frame)?.values as TextValues | undefined;
        const fits = values !== undefined && fitsBox(values);
        // Letters that are layers would have to be laid out anew, and one that fits its box is as large as that lets it.
        const fixed = layers.length === 1 && !fits && !isKeyed(propertyIn(own, ref)) && !program.wiring.computed(ref);
        const value = Math.ceil(((values?.size ?? size) * least) / size);
        return {
          check: 'textSize',
          message: `“${name}” is ${size.toFixed(1)} px; ${least.toFixed(1)} px is the least here.`,
          scene: scene.id,
          layer,
          frame,
          ...(fixed && { mend: `Make it ${value} px`, value }),
        };
      });
  },
  mend: ({ scene, layer = '', value = 0 }, project) => {
    const own = project.scenes[scene]?.layers[layer];
    const card =
      own?.kind === 'drawing' ? Object.values(own.items).find(({ kind, on }) => kind === 'text' && on) : undefined;
    const ref = { scene, layer, ...(card && { item: card.id }), key: 'size' };
    return setValue(ref, value, { write: 'curve', frame: 0 });
  },
};
