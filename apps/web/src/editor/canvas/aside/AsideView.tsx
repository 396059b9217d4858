import type { Id, Point } from '@kite/core/document/types';
import type { Point3 } from '@kite/core/geometry/space';
import { ASIDES, eyeAside, seenAside, sightOf } from '@kite/core/scene/aside';
import { Maximize, X } from 'lucide-react';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { Button, IconButton } from '../../../ui/Button';
import { followPointer } from '../../../ui/drag';
import { Segments } from '../../../ui/Segments';
import { useSize } from '../../../ui/useSize';
import { COMMANDS } from '../../commands/table';
import { writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import type { AsideLook, View } from '../../store/workspace';
import { fitBox, toArea, zoomed } from '../view';
import { Axes, Planes, Sight, Way } from './Drawn';
import { moveAside } from './moveAside';
import { standingIn, wayOf } from './standing';
import { useAsidePicture } from './useAsidePicture';

const FROM = [
  { value: 'top', label: 'Top' },
  { value: 'left', label: 'Left' },
  { value: 'front', label: 'Front' },
  { value: 'free', label: 'Free' },
] as const;

/** Degrees for each pixel of the screen that the free view is dragged. */
const PER_PIXEL = 0.4;
/** What is in depth from above, from the left, straight on or from anywhere: looked at, chosen and moved, without a camera that is keyed. */
export const AsideView = () => {
  const editor = useEditor();
  const { look, frame, scene, selection } = useSlice((s) => ({
    look: s.aside as AsideLook,
    frame: s.frame,
    scene: sceneOf(s),
    selection: s.selection,
    fontsCame: s.fontsCame,
  }));
  const area = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(area);
  const [told, tell] = useState<string | null>(null);
  const { program } = editor;
  const eye = eyeAside(scene, look.from === 'free' ? look : ASIDES[look.from]);
  const standing = standingIn(editor, eye, frame);
  const sight = sightOf(scene, program.eyeAt(frame));
  const seen = (at: Point3) => seenAside(eye, at);
  const frameCorners = sight.corners.map(seen);
  // From above and from the left there is a way to the eye.
  const eyePoint = sight.from && (look.from === 'top' || look.from === 'left') ? [seen(sight.from)] : [];
  const view =
    look.view ?? fitBox([...frameCorners, ...standing.flatMap(({ planes }) => planes.flat()), ...eyePoint], size);
  useAsidePicture(canvas, () => program.seenBy(eye, frame), view, size, [
    program,
    frame,
    look.from,
    look.turn,
    look.tilt,
  ]);

  const set = (change: Partial<AsideLook>) => editor.set({ aside: { ...look, ...change } });
  const setView = (next: View) => set({ view: next });
  const pointOf = (event: { clientX: number; clientY: number }): Point => {
    const box = area.current?.getBoundingClientRect();
    return [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)];
  };
  useEffect(() => {
    const element = area.current;
    if (!element) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      setView(zoomed(view, Math.exp(-event.deltaY * 0.0025), pointOf(event)));
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  });

  const onBackground = (event: PointerEvent) => {
    if (event.button > 1) return;
    event.preventDefault();
    const orbits = look.from === 'free' && event.button === 0 && !event.shiftKey;
    followPointer(event, {
      onMove: ({ dx, dy }) => {
        if (orbits)
          set({
            turn: look.turn - dx * PER_PIXEL,
            tilt: Math.max(-90, Math.min(90, look.tilt - dy * PER_PIXEL)),
            view,
          });
        else setView({ ...view, x: view.x + dx, y: view.y + dy });
      },
      onEnd: (_drag, moved) => {
        if (!moved && event.button === 0) editor.select({});
      },
    });
  };

  const inArea = (points: readonly Point[]) => points.map((p) => toArea(view, p));
  const isChosen = (id: Id) => selection.layers.includes(id);
  return (
    <section aria-label="Second view" className="relative flex min-h-0 flex-1 flex-col border-l border-line bg-paper-2">
      <div className="flex h-9 shrink-0 items-center gap-1 px-2">
        <Segments label="Seen from" value={look.from} options={FROM} onChange={(from) => set({ from, view: null })} />
        <span className="flex-1" />
        <IconButton label="Fit the second view" size="small" onClick={() => set({ view: null })}>
          <Maximize size={14} />
        </IconButton>
        <IconButton label="Close the second view" size="small" onClick={() => editor.set({ aside: null })}>
          <X size={14} />
        </IconButton>
      </div>
      <div
        ref={area}
        data-testid="aside"
        className={`relative min-h-0 flex-1 touch-none overflow-hidden bg-surround ${look.from === 'free' ? 'cursor-grab' : 'cursor-move'}`}
        title={look.from === 'free' ? 'Drag to look around, with Shift to move the view' : undefined}
        onPointerDown={onBackground}
      >
        <canvas ref={canvas} className="absolute inset-0 size-full" />
        <svg className="absolute inset-0 size-full" aria-hidden>
          <Sight corners={inArea(frameCorners)} from={sight.from && toArea(view, seen(sight.from))} />
          {selection.layers.map((id) => (
            <Way key={id} points={inArea(wayOf(program, id, frame).map(seen))} />
          ))}
          {standing.map((layer) => (
            <Planes
              key={`${layer.id}/${layer.keys[0]}`}
              layer={layer}
              planes={layer.planes.map(inArea)}
              chosen={isChosen(layer.id)}
              onPointerDown={(event) => moveAside(editor, event, layer, { eye, view, pointOf, tell })}
            />
          ))}
          <Axes eye={eye} at={[26, size.height - 30]} />
        </svg>
        {standing.length === 0 && <NothingDeep />}
        {told !== null && (
          <p
            className="absolute right-2 bottom-2 rounded-sm bg-ink px-1.5 py-0.5 text-xs text-paper"
            data-testid="aside-told"
          >
            {told}
          </p>
        )}
      </div>
    </section>
  );
};

/** Nothing to look at yet, and what to do about it. */
const NothingDeep = () => {
  const editor = useEditor();
  const chosen = useSlice((s) => s.selection.layers);
  const give = () =>
    writeValues(
      editor,
      chosen.map((layer) => [{ scene: editor.scene.id, layer, key: 'depth' }, true] as const),
      'Give depth',
    );
  return (
    <div
      onPointerDown={(event) => event.stopPropagation()}
      className="pointer-events-none absolute inset-0 grid place-content-center justify-items-center gap-2 px-6 text-center"
    >
      <p>Nothing in this scene is in depth yet.</p>
      {chosen.length > 0 ? (
        <Button className="pointer-events-auto" onClick={give}>
          Give depth to what is selected
        </Button>
      ) : (
        <p className="text-ink-2">Select layers, and switch Depth on, or begin with something new.</p>
      )}
      <Button className="pointer-events-auto" onClick={() => COMMANDS.newSolid.run(editor)}>
        {COMMANDS.newSolid.label}
      </Button>
    </div>
  );
};
