import { setGuides } from '@kite/core/edits/scenes';
import type { PointerEvent } from 'react';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import { editGesture } from '../handles/editGesture';
import type { Stage } from '../stage';
import { toArea, toScene } from '../view';

const RULER = 18;

/** A round number of pixels between marks that stand at least 48 apart. */
const stepFor = (zoom: number): number => {
  const least = 48 / zoom;
  const power = 10 ** Math.floor(Math.log10(least));
  return [1, 2, 5, 10].map((n) => n * power).find((n) => n >= least) ?? least;
};

/** Rulers along the top and the left; a drag from one brings a guide. */
export const Rulers = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const { width, height } = useSlice((s) => {
    const scene = sceneOf(s);
    return { width: scene.width, height: scene.height };
  });
  const step = Math.max(1, stepFor(view.zoom));
  const marks = (whole: number) => Array.from({ length: Math.floor(whole / step) + 1 }, (_, i) => i * step);
  const bring = (axis: 'x' | 'y') => (event: PointerEvent) => {
    const before = editor.scene.guides;
    editGesture(editor, event, {
      move: ({ event: now }) => {
        const p = toScene(view, pointOf(now));
        const at = Math.round(axis === 'x' ? p[0] : p[1]);
        editor.edit(setGuides(editor.scene.id, { ...before, [axis]: [...before[axis], at] }));
        editor.set({ readout: { at: pointOf(now), text: `${axis} ${at}` } });
      },
    });
  };
  return (
    <div className="text-[10px] leading-none text-ink-2">
      <div
        data-testid="ruler-top"
        className="absolute inset-x-0 top-0 cursor-ns-resize overflow-hidden border-b border-line bg-paper"
        style={{ height: RULER }}
        onPointerDown={bring('y')}
      >
        {marks(width).map((x) => (
          <span
            key={x}
            className="tabular absolute top-0 h-full border-l border-line pt-1 pl-0.5"
            style={{ left: toArea(view, [x, 0])[0] }}
          >
            {x}
          </span>
        ))}
      </div>
      <div
        data-testid="ruler-left"
        className="absolute inset-y-0 left-0 cursor-ew-resize overflow-hidden border-r border-line bg-paper"
        style={{ width: RULER, top: RULER }}
        onPointerDown={bring('x')}
      >
        {marks(height).map((y) => (
          <span
            key={y}
            className="tabular absolute left-0 w-full border-t border-line pt-0.5 [writing-mode:vertical-rl]"
            style={{ top: toArea(view, [0, y])[1] - RULER }}
          >
            {y}
          </span>
        ))}
      </div>
    </div>
  );
};
