import { expect, it } from 'vitest';
import { NOTHING } from '../store/selection';
import type { EditorState } from '../store/state';
import { frameOfCard, frameOfCompare, frameOfLayers } from './stage';

/** What is drawn over the picture renders again whenever one of these is another. */
const seen = (part: Partial<EditorState>) => (frame: number) => {
  const state = { playing: false, selection: NOTHING, compare: null, ...part, frame } as EditorState;
  return [frameOfLayers(state), frameOfCard(state), frameOfCompare(state)];
};

it('another frame is nothing to what shows nothing of it', () => {
  const still = seen({});
  expect(still(7)).toEqual(still(8));
  const playing = seen({ playing: true, selection: { layers: ['a'], card: 'b', keys: [] } });
  expect(playing(7)).toEqual(playing(8));
});
it('it is to what is selected, open, or compared', () => {
  expect(seen({ selection: { layers: ['a'], card: null, keys: [] } })(7)).toEqual([7, null, null]);
  expect(seen({ selection: { layers: ['a'], card: 'b', keys: [] } })(7)).toEqual([7, 7, null]);
  expect(seen({ compare: { frame: 3, split: 0.5 } })(7)).toEqual([null, null, 7]);
});
