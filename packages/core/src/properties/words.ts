/** The words of a scene, wherever they are written: in texts, in knobs, and in what nests set. */
import { paramsOfKnob } from '../document/knobs';
import type { TextParam } from '../document/params';
import type { Id, Item, Knob, Layer, PropertyRef, Scene, SplitWord } from '../document/types';
import { samplerOf } from '../motion/sampler';
import { text as textKind } from '../recipe/sources/text';
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

/** A text that was split into layers: what it says is said by its parts. */
export interface SplitWords {
  /** By its set, and the card that it was. */
  readonly ref: PropertyRef;
  /** What its set is called. */
  readonly layer: string;
  readonly word: SplitWord;
  readonly text: string;
}

/** What the text of a word says. */
export const textOfWord = ({ text }: SplitWord): string =>
  String(samplerOf(textKind.params.text, text.params.text).at(0));

/** The words of a scene that were split, each once. */
export const splitWordsOf = ({ id: scene, sets }: Scene): readonly SplitWords[] =>
  sets.flatMap(({ id, name: layer, word }) =>
    word ? [{ ref: { scene, layer: id, item: word.text.id, key: 'text' }, layer, word, text: textOfWord(word) }] : [],
  );

/** A word that was split, by its own reference or by that of the text before it was: the card is still called so. */
export const splitWordAt = (scene: Scene | undefined, { layer, item, key }: PropertyRef): SplitWords | undefined => {
  const named = scene ? splitWordsOf(scene).filter(({ ref }) => ref.item === item && ref.key === key) : [];
  return named.find(({ ref }) => ref.layer === layer) ?? named[0];
};
