import type { Id, Point, PropertyRef } from '@kite/core/document/types';
import { applySpace, type Eye, flatSpace, type Point3, type Space } from '@kite/core/geometry/space';
import { IDENTITY } from '@kite/core/geometry/matrix';
import { keyFrames } from '@kite/core/motion/keys';
import { ASIDES, planesInSpace, directionAside, eyeAside, seenAside, sightOf } from '@kite/core/scene/aside';
import type { Program } from '@kite/core/scene/compile';
import { isShown } from '@kite/core/scene/groups';
import { Maximize, X } from 'lucide-react';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { Button, IconButton } from '../../../ui/Button';
import { followPointer } from '../../../ui/drag';
import { useSize } from '../../../ui/useSize';
import { Segments } from '../../../ui/Segments';
import { WRITES, writesAt, writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import type { Editor } from '../../store/editor';
import { sceneOf } from '../../store/state';
import type { AsideLook, View } from '../../store/workspace';
import { editGesture } from '../handles/editGesture';
import { fitBox, toArea, toScene, zoomed } from '../view';
import { useAsidePicture } from './useAsidePicture';

const FROM = [
  { value: 'top', label: 'Top' },
  { value: 'left', label: 'Left' },
  { value: 'front', label: 'Front' },
  { value: 'free', label: 'Free' },
] as const;

/** Degrees for each pixel of the screen that the free view is dragged. */
const PER_PIXEL = 0.4;
const MOST_DOTS = 240;

const tidy = (n: number): number => Math.round(n * 10) / 10 + 0;

/** The two properties that a place in space is made of. */
const STANDS = ['position', 'z'] as const;
const AIMS = ['target', 'targetZ'] as const;

interface Standing {
  readonly id: Id;
  /** What is written where it is moved: where a layer stands, or what a camera looks at. */
  readonly keys: typeof STANDS | typeof AIMS;
  readonly name: string;
  readonly isCamera: boolean;
  readonly locked: boolean;
  /** Of each of its planes the corners, or the one place of what draws nothing. */
  readonly planes: readonly (readonly Point[])[];
}

/** Everything in depth and where it is seen; the last is nearest. */
const standingIn = (editor: Editor, eye: Eye, frame: number): readonly Standing[] => {
  const { scene, program } = editor;
  return scene.order.toReversed().flatMap((id) => {
    const layer = scene.layers[id];
    if (!layer || !isShown(scene, layer, frame) || program.awayAt(id, frame, [0, 0]) === null) return [];
    const isCamera = program.cameraAt(frame) === id;
    const base = { id, name: layer.name, isCamera, locked: layer.locked };
    const planes = planesInSpace(program, id, frame).map((corners) => corners.map((corner) => seenAside(eye, corner)));
    const [camera, aims, target, targetZ] = ['camera', 'aims', 'target', 'targetZ'].map((key) =>
      program.wiring.sampler({ layer: id, key })?.at(frame),
    );
    const aimed = seenAside(
      eye,
      applySpace(parentSpace(program, id, frame), [...(target as Point), targetZ as number]),
    );
    return [
      { ...base, keys: STANDS, planes },
      ...(camera === true && aims === true
        ? [{ ...base, name: `${layer.name}: what it looks at`, keys: AIMS, planes: [[aimed]] }]
        : []),
    ];
  });
};

/** The space that a layer's place is in. */
const parentSpace = (program: Program, id: Id, frame: number): Space => {
  const parent = program.scene.layers[id]?.parent ?? null;
  return parent === null ? flatSpace(IDENTITY) : program.spaceAt(parent, frame);
};

/** The way of a layer through the scene's space, a point for each frame between its first keyframe and its last. */
const wayOf = (program: Program, id: Id, frame: number): readonly Point3[] => {
  const layer = program.scene.layers[id];
  const keys = ['position', 'z'].flatMap((key) => keyFrames(layer?.params[key]));
  const [position, z] = ['position', 'z'].map((key) => program.wiring.sampler({ layer: id, key }));
  if (!layer || keys.length < 2 || !position || !z) return [];
  const parent = parentSpace(program, id, frame);
  const [first, last] = [Math.min(...keys), Math.max(...keys)];
  const every = Math.max(1, Math.ceil((last - first) / MOST_DOTS));
  return Array.from({ length: Math.floor((last - first) / every) + 1 }, (_, i) => {
    const at = first + i * every;
    return applySpace(parent, [...(position.at(at) as Point), z.at(at) as number]);
  });
};

const closed = (points: readonly Point[]): string => `M${points.map((p) => p.join()).join('L')}Z`;

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

interface AsideStage {
  readonly eye: Eye;
  readonly view: View;
  readonly pointOf: (event: { clientX: number; clientY: number }) => Point;
  /** Says beside the view what is being done; null for nothing any more. */
  readonly tell: (text: string | null) => void;
}

/** Moves the selected layers along the screen of the view. */
const moveAside = (editor: Editor, event: PointerEvent, { id, keys, locked }: Standing, stage: AsideStage): void => {
  if (event.button !== 0) return;
  event.stopPropagation();
  const { eye, view, pointOf, tell } = stage;
  if (event.shiftKey) editor.toggleLayer(id);
  else if (!editor.state.selection.layers.includes(id)) editor.select({ layers: [id] });
  if (locked) return;
  const { scene, program, state } = editor;
  const [pointKey, awayKey] = keys;
  // What a camera looks at is moved by itself.
  const chosen = new Set(keys === AIMS ? [id] : state.selection.layers);
  const moving = [...chosen].flatMap((layerId) => {
    const layer = scene.layers[layerId];
    // What hangs from another that is moved comes along by itself.
    if (!layer || layer.locked || hangsFromOne(editor, layerId, chosen)) return [];
    const valueOf = (key: string) => program.wiring.sampler({ layer: layerId, key })?.at(state.frame);
    return {
      ref: (key: string): PropertyRef => ({ scene: scene.id, layer: layerId, key }),
      point: valueOf(pointKey) as Point,
      away: valueOf(awayKey) as number,
      isDeep: valueOf('depth') === true,
      space: parentSpace(program, layerId, state.frame),
    };
  });
  const writes = writesAt(
    state,
    moving.flatMap(({ ref }) => [ref(pointKey), ref(awayKey)]),
  );
  const [startX, startY] = toScene(view, pointOf(event));
  editGesture(editor, event, {
    move: ({ event: now }) => {
      const [x, y] = toScene(view, pointOf(now));
      const moved = moving.flatMap(({ ref, point, away, isDeep, space }) => {
        const along = directionAside(eye, space, [x - startX, y - startY]);
        if (!along) return [];
        const [dx, dy, dz] = along;
        const to: readonly [Point, number] = [[tidy(point[0] + dx), tidy(point[1] + dy)], tidy(away + dz)];
        return [{ ref, to, isAcross: Math.hypot(dx, dy) > 1e-6, isAway: isDeep && Math.abs(dz) > 1e-6 }];
      });
      const values = moved.flatMap(({ ref, to, isAcross, isAway }) => [
        ...(isAcross ? [[ref(pointKey), to[0]] as const] : []),
        ...(isAway ? [[ref(awayKey), to[1]] as const] : []),
      ]);
      if (values.length > 0) writeValues(editor, values, 'Move in depth');
      const [first] = moved;
      if (first) tell(`${first.to[0].join(', ')} · z ${first.to[1]}${writes ? ` · ${WRITES[writes].short}` : ''}`);
    },
    end: () => tell(null),
  });
};

const hangsFromOne = (editor: Editor, id: Id, chosen: ReadonlySet<Id>): boolean => {
  const { layers } = editor.scene;
  for (let at = layers[id]?.parent ?? null; at !== null; at = layers[at]?.parent ?? null)
    if (chosen.has(at)) return true;
  return false;
};

interface PlanesProps {
  layer: Standing;
  planes: readonly (readonly Point[])[];
  chosen: boolean;
  onPointerDown: (event: PointerEvent) => void;
}

const Planes = ({ layer, planes, chosen, onPointerDown }: PlanesProps) => {
  const stroke = chosen ? 'var(--sky)' : layer.isCamera ? 'var(--kite)' : 'var(--ink-2)';
  const outlines = planes.filter((corners) => corners.length > 1).map(closed);
  const [[place] = []] = planes;
  return (
    <g
      data-testid={`aside-${layer.name}`}
      style={{ pointerEvents: 'all', cursor: layer.locked ? 'default' : 'move' }}
      onPointerDown={onPointerDown}
    >
      <title>{`${layer.name}: drag to move it along this view`}</title>
      {outlines.length > 0 ? (
        <>
          <path d={outlines.join('')} fill="transparent" stroke="transparent" strokeWidth={9} />
          <path d={outlines.join('')} fill="none" stroke={stroke} strokeWidth={chosen ? 2 : 1} strokeLinejoin="round" />
        </>
      ) : (
        place && (
          <path
            d={`M${place[0] - 8} ${place[1]}h16M${place[0]} ${place[1] - 8}v16M${place[0] - 5} ${place[1] - 5}h10v10h-10z`}
            fill="transparent"
            stroke={stroke}
            strokeWidth={1.5}
          />
        )
      )}
    </g>
  );
};

/** What the scene's eye sees where nothing is made larger or smaller, and from where. */
const Sight = ({ corners, from }: { corners: readonly Point[]; from: Point | null }) => (
  <g fill="none" stroke="var(--kite)" data-testid="sight">
    <path d={closed(corners)} strokeWidth={1.25} />
    {from && (
      <>
        <path d={corners.map((corner) => `M${from.join()}L${corner.join()}`).join('')} strokeWidth={1} opacity={0.55} />
        <circle cx={from[0]} cy={from[1]} r={4} fill="var(--kite)" />
      </>
    )}
  </g>
);

const Way = ({ points }: { points: readonly Point[] }) =>
  points.length > 1 && (
    <path
      data-testid="aside-way"
      d={`M${points.map((p) => p.join()).join('L')}`}
      fill="none"
      stroke="var(--tail)"
      strokeWidth={2}
      strokeDasharray="0.1 5"
      strokeLinecap="round"
    />
  );

const AXES = [
  ['x', [1, 0, 0]],
  ['y', [0, 1, 0]],
  ['z', [0, 0, 1]],
] as const;

/** Which way x, y and z go. */
const Axes = ({ eye, at: [x, y] }: { eye: Eye; at: Point }) => {
  const [ox, oy] = seenAside(eye, [0, 0, 0]);
  return (
    <g fontSize={11} fill="var(--ink-2)" stroke="var(--ink-2)" textAnchor="middle">
      {AXES.map(([name, axis]) => {
        const [ax, ay] = seenAside(eye, axis);
        const [dx, dy] = [ax - ox, ay - oy];
        return (
          Math.hypot(dx, dy) > 0.05 && (
            <g key={name}>
              <path d={`M${x} ${y}l${dx * 16} ${dy * 16}`} />
              <text x={x + dx * 23} y={y + dy * 23 + 4} stroke="none">
                {name}
              </text>
            </g>
          )
        );
      })}
    </g>
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
        <p className="text-ink-2">Select layers, and switch Depth on.</p>
      )}
    </div>
  );
};
