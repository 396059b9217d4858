/** Texts as they are seen: when, for how long, how still and how large. */
import type { DrawingLayer, Id, Item, Scene } from '../document/types';
import { type Box, boxThrough, intersection, union } from '../geometry/bounds';
import { splitWordsOf } from '../properties/words';
import { soleSource } from '../recipe/needs';
import { sizeOfText, type TextValues } from '../recipe/sources/text';
import type { Program } from '../scene/program';
import { cardsBox, layerBoxInScene } from '../scene/bounds';
import { isShown } from '../scene/groups';
import { framesPerSecond } from '../time/rate';
import { strongest } from './seen';
import type { Steps, TextCut, Texts, TextSeen } from './types';

/** Moments looked at in a second. */
const A_SECOND = 15;
const MOST_MOMENTS = 600;
/** Of all texts together, but for so many of each. */
const MOST_LOOKS = 20_000;
const LEAST_MOMENTS = 12;
/** What is seen as strong as this is read. */
const LEGIBLE = 0.5;
/** How much of it lies in the picture. */
const INSIDE = 0.9;
/** With less than this, of what the picture could hold of it, it is on its way. */
const PARTLY = 0.5;
/** How fast what is read may move: shares of the scene's longer side a second. */
const STILL = 0.06;

/** The first text of a layer that has one. */
export const textCardOf = ({ items }: DrawingLayer): Item | undefined =>
  Object.values(items).find((item) => item.kind === 'text' && item.on);

/** A layer with a text in it. */
interface Part {
  readonly layer: DrawingLayer;
  readonly card: Item;
}

/** What is read as one: a text, or a word that was split into layers. */
interface Reading {
  readonly parts: readonly [Part, ...Part[]];
  /** What it says; null for what its only part says at a frame. */
  readonly text: string | null;
}

const readingsOf = (scene: Scene): readonly Reading[] => {
  const partOf = (id: Id): Part[] => {
    const layer = scene.layers[id];
    const card = layer?.kind === 'drawing' ? textCardOf(layer) : undefined;
    return layer?.kind === 'drawing' && card && !layer.hidden ? [{ layer, card }] : [];
  };
  const split = splitWordsOf(scene);
  const inWords = new Set(split.flatMap(({ word }) => word.parts));
  const reading = (ids: readonly Id[], text: string | null): Reading[] => {
    const [first, ...more] = ids.flatMap(partOf);
    return first ? [{ parts: [first, ...more], text }] : [];
  };
  const alone = scene.order.filter((id) => !inWords.has(id));
  return [
    ...alone.flatMap((id) => reading([id], null)),
    ...split.flatMap(({ word, text }) => reading(word.parts, text)),
  ];
};

const areaOf = ({ left, top, right, bottom }: Box): number => Math.max(0, right - left) * Math.max(0, bottom - top);

interface Moment {
  readonly frame: number;
  readonly box: Box;
  readonly strength: number;
  /** The share of it that lies in the picture, and of what could lie there of something so large. */
  readonly inside: number;
  readonly held: number;
}

/** The box of a text in the scene: of its layer where that shows nothing else, since cards may move its letters. */
const boxOf = (program: Program, { layer, card }: Part, frame: number): Box | null => {
  if (soleSource(layer) === 'text') return layerBoxInScene(program, layer.id, frame);
  const [box, shown] = [cardsBox(program, layer.id, [card.id], frame), program.cardAt(layer.id, card.id, frame)];
  return box && shown && boxThrough(shown.matrix, box);
};

/** How strong a part is at a frame: 0 where it is not shown. */
const strengthOf = (program: Program, { layer }: Part, frame: number): number =>
  isShown(program.scene, layer, frame) ? strongest(program.at(frame, (id) => id === layer.id).marks) : 0;

/** A text all of which is strong enough to be read at a frame; null where it is not, or not in the picture at all. */
const momentOf = (program: Program, { parts }: Reading, frame: number): Moment | null => {
  const { scene } = program;
  let strength = 1;
  for (const part of parts) {
    strength = Math.min(strength, strengthOf(program, part, frame));
    if (strength < LEGIBLE) return null;
  }
  const box = parts.reduce<Box | null>((all, part) => union(all, boxOf(program, part, frame)), null);
  const whole = { left: 0, top: 0, right: scene.width, bottom: scene.height };
  const inside = box && intersection(box, whole);
  if (!inside) return null;
  const could = Math.min(box.right - box.left, scene.width) * Math.min(box.bottom - box.top, scene.height);
  return { frame, box, strength, inside: areaOf(inside) / areaOf(box), held: areaOf(inside) / could };
};

const middleOf = ({ left, top, right, bottom }: Box): readonly [number, number] => [
  (left + right) / 2,
  (top + bottom) / 2,
];

/** How far it moves and grows from one moment to the next, in pixels of the scene. */
const wayBetween = (a: Moment, b: Moment): number => {
  const [[ax, ay], [bx, by]] = [middleOf(a.box), middleOf(b.box)];
  return Math.hypot(bx - ax, by - ay) + Math.abs(b.box.right - b.box.left - (a.box.right - a.box.left)) / 2;
};

const isWhole = (moment: Moment | null | undefined): moment is Moment => !!moment && moment.inside >= INSIDE;

/** Runs of moments in which all of it is seen, but for a little. */
const runsOf = (moments: readonly (Moment | null)[]): Moment[][] => {
  const runs: Moment[][] = [];
  moments.forEach((moment, i) => {
    if (!isWhole(moment)) return;
    if (isWhole(moments[i - 1])) (runs.at(-1) as Moment[]).push(moment);
    else runs.push([moment]);
  });
  return runs;
};

/** The frames that are looked at. */
const momentsOf = (scene: Scene, texts: number): { readonly frames: readonly number[]; readonly step: number } => {
  const rate = framesPerSecond(scene.rate);
  const most = Math.min(MOST_MOMENTS, Math.max(LEAST_MOMENTS, Math.floor(MOST_LOOKS / Math.max(1, texts))));
  const step = Math.max(1, Math.round(rate / A_SECOND), Math.ceil(scene.length / most));
  return { frames: Array.from({ length: Math.ceil(scene.length / step) }, (_, i) => i * step), step };
};

/** A moment at which a text stands still, partly in the picture; null for one that goes through it, or is hardly there. */
const cutAt = (moments: readonly (Moment | null)[], slow: number): Moment | null =>
  moments.find((moment, i) => {
    const before = moments[i - 1];
    return moment && before && Math.min(moment.held, before.held) >= PARTLY && wayBetween(before, moment) <= slow;
  }) ?? null;

const wordsIn = (text: string): string[] => text.trim().split(/\s+/u).filter(Boolean);
const nameOf = (words: readonly string[]): string => words.join(' ').slice(0, 40).trimEnd();

/** Letters that stand by themselves are no text to be read. */
const MOST_ALONE = 1;

/** What a text says at a frame, and its font size there in the scene's pixels, of its smallest part; null where it is not shown. */
const shownAt = (program: Program, { parts, text }: Reading, frame: number) => {
  const shown = parts.flatMap(({ layer, card }) => program.cardAt(layer.id, card.id, frame) ?? []);
  const [first] = shown;
  if (!first) return null;
  const sizes = shown.map(
    ({ matrix: [a, b, c, d], values }) =>
      sizeOfText(values as TextValues, program.library.fonts) * Math.sqrt(Math.abs(a * d - b * c)),
  );
  return { text: text ?? (first.values.text as string), size: Math.min(...sizes) };
};

/** Every text of a scene, once for each run of frames in which it is seen, and those that the picture's edge always cuts. */
export function* textsOf(program: Program): Steps<Texts> {
  const { scene } = program;
  const readings = readingsOf(scene);
  const { frames, step } = momentsOf(
    scene,
    readings.reduce((sum, { parts }) => sum + parts.length, 0),
  );
  const rate = framesPerSecond(scene.rate);
  const slow = (STILL * Math.max(scene.width, scene.height) * step) / rate;
  const seen: TextSeen[] = [];
  const cut: TextCut[] = [];
  for (const reading of readings) {
    const layers = reading.parts.map(({ layer }) => layer.id);
    const { layer, card } = reading.parts[0];
    const moments: (Moment | null)[] = [];
    for (const frame of frames) {
      moments.push(momentOf(program, reading, frame));
      yield;
    }
    const runs = runsOf(moments);
    const partly = runs.length === 0 ? cutAt(moments, slow) : null;
    const said = partly && shownAt(program, reading, partly.frame);
    if (partly && said && said.text.trim().length > MOST_ALONE) {
      cut.push({ layer: layer.id, name: nameOf(wordsIn(said.text)), at: partly.frame });
    }
    for (const run of runs) {
      const [first, last] = [run[0] as Moment, run.at(-1) as Moment];
      const stillness = run.map((moment, i) => {
        const after = run[i + 1] ?? run[i - 1];
        return after ? wayBetween(moment, after) : 0;
      });
      const calm = run.filter((_, i) => (stillness[i] as number) <= slow);
      const among = calm.length > 0 ? calm : run;
      const strength = Math.max(...among.map((m) => m.strength));
      const strong = among.filter((m) => m.strength === strength);
      const at = strong[strong.length >> 1] as Moment;
      const shown = shownAt(program, reading, at.frame);
      if (!shown || shown.text.trim().length <= MOST_ALONE) continue;
      const words = wordsIn(shown.text);
      const to = Math.min(last.frame + step, ...reading.parts.map((part) => part.layer.to), scene.length);
      seen.push({
        layers,
        layer: layer.id,
        card: card.id,
        name: nameOf(words),
        words: words.length,
        from: first.frame,
        to,
        seen: (to - first.frame) / rate,
        still: (calm.length * step) / rate,
        at: at.frame,
        box: at.box,
        size: shown.size,
      });
    }
  }
  return { seen, cut };
}
