/** Words that were split into layers, and are changed as one. */
import { type MakeId, namesIn, uniqueName } from '../document/make';
import { PLACE } from '../document/params';
import { type Edit, plain, type ProjectDraft } from '../document/patches';
import { asName, cutText } from '../document/text';
import type { DrawingLayer, Id, Item, LayerSet, Point, SplitWord } from '../document/types';
import type { Box } from '../geometry/bounds';
import { apply } from '../geometry/matrix';
import { displaced } from '../motion/keys';
import { fittedValue } from '../motion/kinds/table';
import { reader } from '../motion/reader';
import { keyFramesOf } from '../properties/find';
import { textOfWord } from '../properties/words';
import { text as textKind, textParts, type TextValues } from '../recipe/sources/text';
import type { Program } from '../scene/program';
import type { PartOfText } from '../type/parts';
import type { Fonts } from '../type/types';
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

export const middleOf = ({ left, top, right, bottom }: Box): Point => [(left + right) / 2, (top + bottom) / 2];

/** The text card of a part. */
const cardOf = (layer: DrawingLayer): Item => {
  const card = Object.values(layer.items).find(({ kind }) => kind === textKind.kind);
  if (!card) throw new NotFound('text', layer.id);
  return card;
};

/** How much later one layer is than another: by when it begins, or by its first keyframe. */
interface Step {
  readonly of: 'layers' | 'keys';
  readonly frames: number;
}
const stepBetween = (a: DrawingLayer, b: DrawingLayer): Step => {
  if (a.from !== b.from) return { of: 'layers', frames: b.from - a.from };
  const first = (layer: DrawingLayer) => Math.min(...keyFramesOf(layer));
  const frames = first(b) - first(a);
  return { of: 'keys', frames: Number.isFinite(frames) ? frames : 0 };
};

/** A layer whose text card says a part of a text, where that stands: its pivot goes so far along, and its place so that it stays in sight. */
export const asPart = (
  layer: DrawingLayer,
  card: Item,
  { text, at }: PartOfText,
  along: Point,
  way: SplitWord['way'],
): DrawingLayer => {
  const { position, pivot } = layer.params;
  const said = { ...card, params: { ...card.params, text: { value: text }, place: { value: at } } };
  return {
    ...layer,
    items: { ...layer.items, [card.id]: said },
    params: {
      ...layer.params,
      position: displaced(position, PLACE.position.default, apply([...way, 0, 0], along)),
      pivot: displaced(pivot, PLACE.pivot.default, along),
    },
  };
};

/** From the middle of what a part said to that of what it says. */
const between = (said: TextValues, fonts: Fonts, { box }: PartOfText): Point => {
  const [from, to] = [middleOf(textParts(said, fonts, 'lines')?.[0]?.box ?? box), middleOf(box)];
  return [to[0] - from[0], to[1] - from[1]];
};

/** So long are the names of words and of their parts at most. */
export const MOST_NAME = 60;

/** Names for parts by what they say, none of which is there already; one that was given by hand stays. */
const namingParts = (scene: SceneDraft) => {
  const taken = namesIn(scene);
  return (layer: DrawingLayer, said: string | null, text: string): string => {
    if (said !== null && (said === text || !layer.name.startsWith(cutText(said, MOST_NAME)))) return layer.name;
    const others = said === null ? taken : taken.filter((name) => name !== layer.name);
    const name = uniqueName(cutText(text, MOST_NAME), others);
    taken.push(name);
    return name;
  };
};

/** Puts a copy of the last part behind those that are there, so many steps later. */
const addPart = (
  draft: ProjectDraft,
  sceneId: Id,
  last: Id,
  layer: DrawingLayer,
  steps: number,
  step: Step,
  makeId: MakeId,
): Id => {
  const scene = sceneIn(draft, sceneId);
  const [copy] = copiesOf([layer], makeId) as [DrawingLayer];
  scene.layers[copy.id] = copy as LayerDraft;
  const at = scene.order.indexOf(last) + steps;
  scene.order = [...scene.order.slice(0, at), copy.id, ...scene.order.slice(at)];
  joinRoutines(sceneId, new Map([[last, copy.id]])).change(draft);
  const later = step.frames * steps;
  if (step.of === 'layers') slideLayers(sceneId, [copy.id], later).change(draft);
  else slideKeys(scene.layers[copy.id] as LayerDraft, later);
  return copy.id;
};

/**
 * Another text for a word: each part says what now stands at its place, and keeps its motion; parts that come are copies of the
 * last one, as much later as that is than the one before; those that are too many go. All are laid out anew, in the font that
 * they have at the frame. Refused where nothing would be left, and while the font is not here.
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
    if (!set?.word) throw new NotFound('word', setId);
    const { word } = set;
    const { fonts } = program.library;
    const layers = word.parts.map((id) => plain<DrawingLayer>(drawingIn(draft, sceneId, id)));
    const valuesOf = (layer: DrawingLayer): TextValues => {
      const shown = program.cardAt(layer.id, cardOf(layer).id, frame);
      if (!shown) throw new NotFound('card', layer.id);
      return shown.values as TextValues;
    };
    const [first, last] = [layers[0] as DrawingLayer, layers.at(-1) as DrawingLayer];
    const parts = textParts({ ...valuesOf(first), ...layoutOf(word), text }, fonts, word.by);
    if (!parts) throw new RangeError('the font of this text is not here yet');
    if (parts.length === 0) throw new RangeError('a word has at least one letter');

    const step = stepBetween(layers.at(-2) ?? last, last);
    const nameOf = namingParts(scene);
    const made = parts.map((part, i): DrawingLayer => {
      const layer = layers[i] ?? last;
      const said = valuesOf(layer);
      const name = nameOf(layer, layers[i] ? said.text : null, part.text);
      return { ...asPart(layer, cardOf(layer), part, between(said, fonts, part), word.way), name };
    });
    const kept = made.slice(0, layers.length);
    for (const layer of kept) scene.layers[layer.id] = layer as LayerDraft;
    leaveScene(scene, new Set(layers.slice(made.length).map(({ id }) => id)));
    const more = made
      .slice(layers.length)
      .map((layer, i) => addPart(draft, sceneId, last.id, layer, i + 1, step, makeId));

    const params = { ...word.text.params, text: { value: text } };
    const changed: LayerSet = {
      ...set,
      name: textOfWord(word).startsWith(set.name) ? asName(text, set.name, MOST_NAME) : set.name,
      members: [...set.members.filter((id) => scene.layers[id]), ...more],
      word: { ...word, text: { ...word.text, params }, parts: [...kept.map(({ id }) => id), ...more] },
    };
    // It may have lost all of its members in between, and have gone with them.
    const others = plain<readonly LayerSet[]>(scene.sets);
    const isThere = others.some(({ id }) => id === setId);
    const next = isThere ? others.map((other) => (other.id === setId ? changed : other)) : [...others, changed];
    scene.sets = next as SceneDraft['sets'];
  },
});
