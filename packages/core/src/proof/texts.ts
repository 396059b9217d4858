/** Texts as they are seen: when, for how long, how still and how large. */
import type { DrawingLayer, Item, Scene } from '../document/types';
import { type Box, boxThrough, intersection } from '../geometry/bounds';
import { soleSource } from '../recipe/needs';
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
const boxOf = (program: Program, layer: DrawingLayer, card: Item, frame: number): Box | null => {
  if (soleSource(layer) === 'text') return layerBoxInScene(program, layer.id, frame);
  const [box, shown] = [cardsBox(program, layer.id, [card.id], frame), program.cardAt(layer.id, card.id, frame)];
  return box && shown && boxThrough(shown.matrix, box);
};

/** A layer as it is strong enough to be read at a frame; null where it is not, or not in the picture at all. */
const momentOf = (program: Program, layer: DrawingLayer, card: Item, frame: number): Moment | null => {
  const { scene } = program;
  if (!isShown(scene, layer, frame)) return null;
  const { marks } = program.at(frame, (id) => id === layer.id);
  const strength = strongest(marks);
  if (strength < LEGIBLE) return null;
  const box = boxOf(program, layer, card, frame);
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
const nameOf = (words: readonly string[]): string => words.join(' ').slice(0, 40);

/** Letters that stand by themselves are no text to be read. */
const MOST_ALONE = 1;

/** Every text of a scene, once for each run of frames in which it is seen, and those that the picture's edge always cuts. */
export function* textsOf(program: Program): Steps<Texts> {
  const { scene } = program;
  const layers = scene.order.flatMap((id) => {
    const layer = scene.layers[id];
    const card = layer?.kind === 'drawing' ? textCardOf(layer) : undefined;
    return layer?.kind === 'drawing' && card ? [{ layer, card }] : [];
  });
  const { frames, step } = momentsOf(scene, layers.length);
  const rate = framesPerSecond(scene.rate);
  const slow = (STILL * Math.max(scene.width, scene.height) * step) / rate;
  const seen: TextSeen[] = [];
  const cut: TextCut[] = [];
  for (const { layer, card } of layers) {
    const moments: (Moment | null)[] = [];
    for (const frame of frames) {
      moments.push(momentOf(program, layer, card, frame));
      yield;
    }
    const runs = runsOf(moments);
    const partly = runs.length === 0 ? cutAt(moments, slow) : null;
    const said = partly && program.cardAt(layer.id, card.id, partly.frame)?.values;
    if (partly && said) {
      const { text } = said as { readonly text: string };
      if (text.trim().length > MOST_ALONE) cut.push({ layer: layer.id, name: nameOf(wordsIn(text)), at: partly.frame });
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
      const shown = program.cardAt(layer.id, card.id, at.frame);
      if (!shown) continue;
      const { text, size } = shown.values as { readonly text: string; readonly size: number };
      const words = wordsIn(text);
      if (text.trim().length <= MOST_ALONE) continue;
      const [a, b, c, d] = shown.matrix;
      const to = Math.min(last.frame + step, layer.to, scene.length);
      seen.push({
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
        size: size * Math.sqrt(Math.abs(a * d - b * c)),
      });
    }
  }
  return { seen, cut };
}
