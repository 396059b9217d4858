/** The words of a scene, wherever they are written: in texts, in knobs, and in what nests set. */
import { paramsOfKnob } from '../document/knobs';
import type { TextParam } from '../document/params';
import type { Id, Item, Knob, Layer, PropertyRef, Scene } from '../document/types';
import { samplerOf } from '../motion/sampler';
import { paramsOf } from '../recipe/table';

export interface Words {
  readonly ref: PropertyRef;
  readonly param: TextParam;
  /** What they are called beside the name of their layer; empty where that says it all. */
  readonly part: string;
  readonly layer: string;
  /** As they are at a frame. */
  readonly text: string;
}

const partsOf = (layer: Layer): readonly (readonly [Item | Knob, ReturnType<typeof paramsOf>])[] =>
  layer.kind === 'drawing'
    ? Object.values(layer.items).map((item) => [item, paramsOf(item.kind)])
    : Object.values(layer.knobs).map((knob) => [knob, paramsOfKnob(knob)]);

/** The layers of words that were split: each says a part of what is said as one. */
const partsOfWords = ({ sets }: Scene): ReadonlySet<Id> => new Set(sets.flatMap(({ word }) => word?.parts ?? []));

/**
 * All of them from the back to the front, as a picture is built, but those that a formula writes and parts of words that were split;
 * settings of one line are no words.
 */
export const wordsOf = (scene: Scene, frame: number): readonly Words[] => {
  const parts = partsOfWords(scene);
  return scene.order.toReversed().flatMap((id) => {
    const layer = scene.layers[id];
    if (!layer || layer.locked || parts.has(id)) return [];
    return partsOf(layer).flatMap(([part, params]) =>
      Object.entries(params).flatMap(([key, param]): Words[] => {
        if (param.kind !== 'text' || param.lines !== 'many' || part.formulas?.[key] !== undefined) return [];
        const text = String(samplerOf(param, part.params[key]).at(frame));
        const ref = { scene: scene.id, layer: id, item: part.id, key };
        return [{ ref, param, layer: layer.name, part: part.name ?? '', text }];
      }),
    );
  });
};
