/** Words that were split into layers, and are changed as one. */
import { type MakeId, uniqueName } from '../document/make';
import { PLACE } from '../document/params';
import { type Edit, plain } from '../document/patches';
import { cutText } from '../document/text';
import type { DrawingLayer, Id, Item, LayerSet, Point, SplitWord } from '../document/types';
import type { Box } from '../geometry/bounds';
import { apply } from '../geometry/matrix';
import { displaced } from '../motion/keys';
import { fittedValue } from '../motion/kinds/table';
import { reader } from '../motion/reader';
import { keyFramesOf } from '../properties/find';
import { text as textKind, textParts, type TextValues } from '../recipe/sources/text';
import type { Program } from '../scene/compile';
import { drawingIn, type LayerDraft, NotFound, type SceneDraft, sceneIn } from './find';
import { copiesOf } from './layers';
import { joinRoutines } from './routines';
import { leaveScene } from './sets';
import { slideKeys, slideLayers } from './timing';

/** What lays a text out, beside its font: the parts of a word have all else of their own. */
const LAYOUT = ['text', 'align', 'frame', 'width', 'height', 'stand', 'place'] as const;

/** A text card with what lays it out alone, as it is now. */
export const layingOut = (item: Item, values: TextValues): Item => ({
  id: item.id,
  kind: item.kind,
  on: true,
  params: Object.fromEntries(LAYOUT.map((key) => [key, { value: values[key] }])),
});

/** What lays a word out. */
const layoutOf = ({ text }: SplitWord): Pick<TextValues, (typeof LAYOUT)[number]> => {
  const all = reader(textKind.params, text.params).at(0);
  return Object.fromEntries(LAYOUT.map((key) => [key, all[key]])) as Pick<TextValues, (typeof LAYOUT)[number]>;
};

/** What the text of a word says. */
export const textOfWord = (word: SplitWord): string => layoutOf(word).text;

const middleOf = ({ left, top, right, bottom }: Box): Point => [(left + right) / 2, (top + bottom) / 2];

/** The text card of a part. */
const cardOf = (layer: DrawingLayer): Item => {
  const card = Object.values(layer.items).find(({ kind }) => kind === textKind.kind);
  if (!card) throw new NotFound('text', layer.id);
  return card;
};

/** Frames from when one layer begins, or its first keyframe, to the same of another. */
const stepBetween = (a: DrawingLayer, b: DrawingLayer): { readonly of: 'layers' | 'keys'; readonly by: number } => {
  if (a.from !== b.from) return { of: 'layers', by: b.from - a.from };
  const first = (layer: DrawingLayer) => Math.min(...keyFramesOf(layer));
  const by = first(b) - first(a);
  return { of: 'keys', by: Number.isFinite(by) ? by : 0 };
};

/**
 * Another text for a word: each part says what now stands at its place, and keeps its motion; parts that come are copies of the
 * last one, as much later as that is than the one before; those that are too many go. All are laid out anew, in the font that
 * they have.
 */
export const setWord = (
  sceneId: Id,
  setId: Id,
  typed: string,
  frame: number,
  program: Program,
  makeId: MakeId,
): Edit => ({
  label: 'Change a word',
  change: (draft) => {
    const text = fittedValue(textKind.params.text, typed) as string;
    const scene = sceneIn(draft, sceneId);
    const set = plain<readonly LayerSet[]>(scene.sets).find(({ id }) => id === setId);
    const word = set?.word;
    if (!word) throw new NotFound('word', setId);
    const layers = word.parts.map((id) => plain<DrawingLayer>(drawingIn(draft, sceneId, id)));
    const valuesOf = (layer: DrawingLayer) => {
      const shown = program.cardAt(layer.id, cardOf(layer).id, frame);
      if (!shown) throw new NotFound('card', layer.id);
      return shown.values as TextValues;
    };
    const [first, last] = [layers[0] as DrawingLayer, layers.at(-1) as DrawingLayer];
    const { fonts } = program.library;
    const parts = textParts({ ...valuesOf(first), ...layoutOf(word), text }, fonts, word.by);
    if (!parts) throw new RangeError('the font of this text is not here yet');
    if (parts.length === 0) throw new RangeError('a word has at least one letter');

    const step = stepBetween(layers.at(-2) ?? last, last);
    const before = textOfWord(word);
    const taken = Object.values(scene.layers).map(({ name }) => name);
    const says = (
      layer: DrawingLayer,
      said: TextValues,
      { text: own, at, box }: (typeof parts)[number],
    ): DrawingLayer => {
      const card = cardOf(layer);
      const old = textParts(said, fonts, 'lines')?.[0]?.box ?? box;
      const [from, to] = [middleOf(old), middleOf(box)];
      const way: Point = [to[0] - from[0], to[1] - from[1]];
      const params = { ...card.params, text: { value: own }, place: { value: at } };
      return {
        ...layer,
        items: { ...layer.items, [card.id]: { ...card, params } },
        params: {
          ...layer.params,
          position: displaced(layer.params.position, PLACE.position.default, apply([...word.way, 0, 0], way)),
          pivot: displaced(layer.params.pivot, PLACE.pivot.default, way),
        },
      };
    };
    const named = (layer: DrawingLayer, said: string, own: string): DrawingLayer => {
      // A name that was given stays.
      if (!layer.name.startsWith(cutText(said, 60)) || said === own) return layer;
      const name = uniqueName(
        cutText(own, 60),
        taken.filter((other) => other !== layer.name),
      );
      taken.push(name);
      return { ...layer, name };
    };
    const made = parts.map((part, i): DrawingLayer => {
      const layer = layers[i] ?? last;
      const said = valuesOf(layer);
      const next = says(layer, said, part);
      return layers[i]
        ? named(next, said.text, part.text)
        : { ...next, name: uniqueName(cutText(part.text, 60), taken) };
    });
    const kept = made.slice(0, layers.length);
    for (const layer of kept) scene.layers[layer.id] = layer as LayerDraft;
    leaveScene(scene, new Set(layers.slice(made.length).map(({ id }) => id)));
    const more = made.slice(layers.length).map((layer, i) => {
      const [copy] = copiesOf([layer], makeId) as [DrawingLayer];
      scene.layers[copy.id] = copy as LayerDraft;
      const at = scene.order.indexOf(last.id) + 1 + i;
      scene.order = [...scene.order.slice(0, at), copy.id, ...scene.order.slice(at)];
      joinRoutines(sceneId, new Map([[last.id, copy.id]])).change(draft);
      const by = step.by * (i + 1);
      if (step.of === 'layers') slideLayers(sceneId, [copy.id], by).change(draft);
      else slideKeys(scene.layers[copy.id] as LayerDraft, by);
      return copy.id;
    });
    const now: SplitWord = {
      ...word,
      text: { ...word.text, params: { ...word.text.params, text: { value: text } } },
      parts: [...kept.map(({ id }) => id), ...more],
    };
    const members = [...set.members.filter((id) => scene.layers[id]), ...more];
    const name = set.name === before.slice(0, set.name.length) ? cutText(text, 60) : set.name;
    const changed: LayerSet = { ...set, name, members, word: now };
    scene.sets = plain<readonly LayerSet[]>(scene.sets).some(({ id }) => id === setId)
      ? (scene.sets.map((s) => (s.id === setId ? changed : s)) as SceneDraft['sets'])
      : [...scene.sets, changed as SceneDraft['sets'][number]];
  },
});
