/** What somebody does who is here for the first time: shown until it was done once, or is put away. Of this browser. */
import type { Patch } from '@kite/core/document/patches';
import { create } from 'zustand';
import type { Editor } from '../store/editor';

export interface FirstStep {
  readonly id: string;
  readonly text: string;
  /** Where: the part of the editor that is shown. */
  readonly area: 'canvas' | 'timeline' | 'inspector' | 'header' | 'tools';
}

export const FIRST_STEPS: readonly FirstStep[] = [
  {
    id: 'draw',
    text: 'Draw a shape or write a word: pick it on the left, press or drag on the picture',
    area: 'tools',
  },
  { id: 'card', text: 'Select it: what it shows is a list of cards. Add one, or change a value', area: 'inspector' },
  {
    id: 'key',
    text: 'Press the ring before a value for a keyframe; go on in time, and change the value',
    area: 'timeline',
  },
  { id: 'play', text: 'Play it (Space)', area: 'timeline' },
  { id: 'search', text: 'Find anything by Ctrl+K', area: 'header' },
  { id: 'render', text: 'Render it', area: 'header' },
];

const KEY = 'kite-first-steps';
/** Of all of them, once they were put away. */
const AWAY = 'away';

const kept = (): readonly string[] => {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '[]') as readonly string[];
  } catch {
    return [];
  }
};

interface Progress {
  readonly done: readonly string[];
  readonly take: (id: string) => void;
}

export const useProgress = create<Progress>((set, get) => ({
  done: kept(),
  take: (id) => {
    if (get().done.includes(id)) return;
    const done = [...get().done, id];
    set({ done });
    try {
      localStorage.setItem(KEY, JSON.stringify(done));
    } catch {
      // They come once more.
    }
  },
}));

export const putAway = (): void => useProgress.getState().take(AWAY);

/** Whether any are left to be shown. */
export const areLeft = (done: readonly string[]): boolean =>
  !done.includes(AWAY) && FIRST_STEPS.some(({ id }) => !done.includes(id));

/** What an edit is for somebody who is new, by the places that it changes. */
export const stepOf = (patches: readonly Patch[]): 'draw' | 'key' | 'card' | null => {
  const inLayers = patches.filter(({ path }) => path[0] === 'scenes' && path[2] === 'layers');
  if (inLayers.some(({ op, path }) => op === 'add' && path.length === 4)) return 'draw';
  const isKeyed = ({ path, value }: Patch) =>
    path.includes('keys') || (typeof value === 'object' && value !== null && 'keys' in value);
  if (inLayers.some(isKeyed)) return 'key';
  return inLayers.length > 0 ? 'card' : null;
};

/** Follows what is done until nothing is left; gives what ends that. */
export const followFirstSteps = (editor: Editor): (() => void) => {
  const { take } = useProgress.getState();
  return editor.store.subscribe((now, before) => {
    if (!areLeft(useProgress.getState().done)) return;
    if (now.log.length === before.log.length + 1) {
      const step = stepOf(now.log.at(-1)?.patches ?? []);
      if (step) take(step);
    }
    if (now.playing) take('play');
    if (now.searching) take('search');
    if (now.rendering) take('render');
  });
};
