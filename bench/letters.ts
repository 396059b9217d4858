/** What a frame costs of words that move while their letters move too, by how many letters there are. */
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Property, Scene } from '@kite/core/document/types';
import { compileScene } from '@kite/core/scene/compile';
import { EMPTY_STOCK, materialsFor } from '@kite/render/materials';
import { median } from './median';

const SIZE = { width: 1920, height: 1080, rate: { num: 30, den: 1 }, length: 90, background: null };
const EMPTY = newScene('s', 'Letters', SIZE);
const TURNS = 9;

const turning: Property = {
  keys: [
    { frame: 0, value: 0, ease: { kind: 'linear' } },
    { frame: 80, value: 90, ease: { kind: 'linear' } },
  ],
};

/** Words of nine letters, each card playing its keyframes later from one to the next. */
const lettersIn = (count: number): Scene => {
  const card = (id: string, by: string) => {
    const item = newItem(id, 'letters', { by, stagger: 0.1 });
    return { ...item, params: { ...item.params, rotation: turning } };
  };
  const text = newItem('t', 'text', { text: 'QUILLHAVE '.repeat(count / 9), size: 20, frame: 'box', width: 1_800 });
  const layer = newDrawing(EMPTY, 'l', 'Words', [text, newItem('f', 'fill'), card('w', 'words'), card('c', 'letters')]);
  return { ...EMPTY, layers: { l: layer }, order: ['l'] };
};

export interface LetterFigures {
  /** A frame of 450 letters, evaluated. */
  readonly letters450Ms: number;
  /** A frame of 1,800 letters against one of 450. */
  readonly lettersGrowth: number;
}

export const measureLetters = async (): Promise<LetterFigures> => {
  const framed = async (count: number) => {
    const scene = lettersIn(count);
    const { library } = await materialsFor(scene, EMPTY_STOCK);
    const program = compileScene(scene, library);
    return (frame: number): number => {
      const start = performance.now();
      program.at(frame);
      return performance.now() - start;
    };
  };
  const [few, many] = [await framed(450), await framed(1_800)];
  // What runs first is compiled meanwhile.
  for (let i = 0; i < 3; i++) for (const frame of [few, many]) frame(i);
  const turns = Array.from({ length: TURNS }, (_, i) => [few(i * 5 + 0.5), many(i * 5 + 0.5)] as const);
  return {
    letters450Ms: Number(median(turns.map(([own]) => own)).toFixed(1)),
    lettersGrowth: Number(median(turns.map(([own, more]) => more / own)).toFixed(2)),
  };
};
