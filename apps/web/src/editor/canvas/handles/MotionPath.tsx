import { tenths } from '@kite/core/document/fitting';
import { SELECTING } from '../../store/workspace';
import { frameOfLayers, type Stage } from '../stage';
import {
  isApart,
  isKeyed,
  type KeyedProperty,
  type Keyframe,
  type Layer,
  type PathHandles,
  type Point,
  type PropertyRef,
} from '@kite/core/document/types';
import { together } from '@kite/core/document/patches';
import { PLACE } from '@kite/core/document/params';
import { propertyAt, propertyIn, sameRef } from '@kite/core/properties/find';
import { changeKey, setHandles } from '@kite/core/edits/keyframes';
import { apply, type Matrix } from '@kite/core/geometry/matrix';
import { type Sampler, samplerOf } from '@kite/core/motion/sampler';
import { pulledHandles, smoothHandles } from '@kite/core/motion/smooth';
import { outlineThrough } from '@kite/core/motion/track';
import { keyFrames } from '@kite/core/motion/keys';
import { applyThrough, isMatrix, type Through, throughBack, throughBoth } from '@kite/core/geometry/through';
import type { PointerEvent } from 'react';
import { isComputed, shownSampler, useShown } from '../../formula/useComputed';
import { moveBead } from '../../commands/moves';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import { editGesture } from './editGesture';
import { Snapping } from '../snapping';
import { toScene, viewMatrix } from '../view';

/** The most dots of one path: more would run into each other. */
const MOST_DOTS = 600;
/** Of all that are shown at once. */
const MOST_DOTS_IN_ALL = 2400;
/** The most paths at once, for the same reason. */
const MOST_PATHS = 60;
/** Pixels from the bead before within which one is left out: neither could be taken hold of. */
const NEAR = 7;
const NO_HANDLES: PathHandles = [0, 0, 0, 0];

const tidyPoint = ([x, y]: Point): Point => [tenths(x), tenths(y)];

/** The outline of a motion path as SVG, through a matrix. */
const pathData = (keys: readonly Keyframe[], matrix: Matrix): string => {
  const { points } = outlineThrough(keys);
  const at = (i: number) => apply(matrix, [points[i] as number, points[i + 1] as number]).join(' ');
  let d = `M${at(0)}`;
  for (let i = 2; i < points.length; i += 6) d += `C${at(i)} ${at(i + 2)} ${at(i + 4)}`;
  return d;
};

/** Samples of a path that is seen in perspective. */
const SAMPLES = 400;

/** A motion path in depth as SVG: as many straight lines as look round. */
const sampledData = (at: (frame: number) => Point, first: number, last: number): string =>
  `M${Array.from({ length: SAMPLES + 1 }, (_, i) => at(first + ((last - first) * i) / SAMPLES).join(' ')).join('L')}`;

/** The motion paths of the selected layers, of keyframes or of a formula: a dot for each frame, a bead for each keyframe, handles to bend them by. */
export const MotionPaths = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const { scene, layers, mode, frame } = useSlice((s) => ({
    scene: sceneOf(s),
    layers: s.selection.layers,
    mode: s.mode,
    frame: frameOfLayers(s),
  }));
  if (frame === null || mode !== SELECTING) return null;
  const moving = layers.flatMap((id) => {
    const layer = scene.layers[id];
    const ref = { scene: scene.id, layer: id, key: 'position' };
    const moves = layer && (keyFrames(layer.params.position).length > 1 || isComputed(editor.state, ref));
    return moves ? [layer] : [];
  });
  const paths = moving.slice(0, MOST_PATHS);
  const dots = Math.min(MOST_DOTS, MOST_DOTS_IN_ALL / paths.length);
  return paths.map((layer) => {
    const { id } = layer;
    // At another frame it may be farther away.
    const z = shownSampler(editor, editor.state, { scene: scene.id, layer: id, key: 'z' }, PLACE.z);
    const placeAt = (at: number) =>
      throughBoth(viewMatrix(view), editor.program.aroundAt(id, frame, z.at(at) as number));
    return <LayerPath key={id} {...{ layer, placeAt, dots, view, pointOf }} />;
  });
};

interface Placing {
  /** From the pixels that the position is in to the canvas area’s, as far away as it is at a frame. */
  readonly placeAt: (frame: number) => Through;
}

const LayerPath = ({ layer, placeAt, dots: most, view, pointOf }: Stage & Placing & { layer: Layer; dots: number }) => {
  const editor = useEditor();
  const ref = { scene: editor.scene.id, layer: layer.id, key: 'position' };
  const { frame, chosen } = useSlice((s) => ({
    frame: s.frame,
    chosen: s.selection.keys.find((c) => sameRef(c.ref, ref))?.frames ?? NONE,
  }));
  const property = propertyIn(layer, ref);
  const frames = keyFrames(property);
  const [sampler] = useShown([ref], PLACE.position) as [Sampler];
  // By a formula it may move at any time.
  const computed = sampler !== samplerOf(PLACE.position, property);
  const [first, last] = computed ? [0, editor.scene.length - 1] : [frames[0] as number, frames.at(-1) as number];
  if (sampler.constant) return null;
  const every = Math.max(1, Math.ceil((last - first) / most));
  const dots: Point[] = [];
  const dotAt = (f: number) => applyThrough(placeAt(f), sampler.at(f) as Point);
  for (let f = first; f <= last; f += every) dots.push(dotAt(f));
  const flat = placeAt(frame);
  return (
    <g data-testid="motion-path">
      {isKeyed(property) && (
        <path
          d={isMatrix(flat) ? pathData(property.keys, flat) : sampledData(dotAt, first, last)}
          fill="none"
          stroke="var(--tail)"
          strokeWidth={1.25}
          opacity={0.8}
        />
      )}
      {dots.map(([x, y], i) => (
        <circle
          key={i}
          cx={x}
          cy={y}
          r={2}
          fill="var(--tail)"
          stroke="var(--paper)"
          strokeWidth={0.75}
          data-testid="motion-dot"
        />
      ))}
      {isKeyed(property) && !isApart(property) && !layer.locked && (
        <KeyedPath {...{ view, pointOf, property, placeAt, path: ref, chosen, frame }} />
      )}
    </g>
  );
};

interface KeyedPathProps extends Stage, Placing {
  property: KeyedProperty;
  path: { scene: string; layer: string; key: string };
  chosen: readonly number[];
  frame: number;
}

/** Beads and handles of one motion path. */
const KeyedPath = ({ view, pointOf, property, placeAt, path, chosen, frame }: KeyedPathProps) => {
  const editor = useEditor();
  const layers = editor.state.selection.layers;
  const select = (at: number) => editor.select({ layers, keys: [{ ref: path, frames: [at] }] });

  /** A point of the area in the pixels that a keyframe’s position is in; null where that is flattened. */
  const backAt = (at: number, point: Point): Point | null => {
    const back = throughBack(placeAt(at));
    return back && applyThrough(back, point);
  };

  const onBead = (key: Keyframe) => (event: PointerEvent) => {
    const byMove = moveBead(editor, path.layer, key.frame);
    const snapping = new Snapping(editor, [path.layer], view.zoom);
    select(key.frame);
    if (event.altKey) {
      // Pulls both handles out of a corner.
      pull(event, key, 'out', true);
      return;
    }
    editGesture(editor, event, {
      first: 'picture',
      move: ({ event: now }) => {
        const at = snapping.point(toScene(view, pointOf(now)), now);
        const there = backAt(key.frame, apply(viewMatrix(view), at));
        if (!there) return;
        const value = tidyPoint(there);
        editor.edit(byMove ? byMove(value) : changeKey(path, key.frame, { value }));
        editor.set({ readout: { at: pointOf(now), text: `frame ${key.frame}: ${value[0]}, ${value[1]}` } });
      },
    });
  };

  /** The keyframes of places that are selected together with one, and that one: their handles are pulled along. */
  const pulledAlong = (key: Keyframe): readonly { readonly ref: PropertyRef; readonly key: Keyframe }[] => {
    const { doc, selection } = editor.state;
    const all = selection.keys.flatMap(({ ref, frames }) => {
      const own = propertyAt(doc, ref);
      if (ref.key !== path.key || ref.part !== undefined || !isKeyed(own)) return [];
      return own.keys.filter((other) => frames.includes(other.frame)).map((other) => ({ ref, key: other }));
    });
    const isOne = all.some((own) => sameRef(own.ref, path) && own.key.frame === key.frame);
    return isOne ? all : [{ ref: path, key }];
  };

  /** Drags a handle, and those of what is selected with it as far; the other ones turn along while both lie in one line, unless Alt parts them. */
  const pull = (event: PointerEvent, key: Keyframe, end: 'in' | 'out', both: boolean) => {
    const all = pulledAlong(key);
    const wayOf = ({ handles }: Keyframe): Point => {
      const [inX, inY, outX, outY] = handles ?? NO_HANDLES;
      return end === 'out' ? [outX, outY] : [inX, inY];
    };
    const from = wayOf(key);
    editGesture(editor, event, {
      move: ({ event: now }) => {
        const at = backAt(key.frame, pointOf(now));
        if (!at) return;
        const [x, y] = [at[0] - (key.value as Point)[0] - from[0], at[1] - (key.value as Point)[1] - from[1]];
        const how = { both, parted: now.altKey };
        const edits = all.map((own) => {
          const way = wayOf(own.key);
          const handles = pulledHandles(own.key.handles ?? NO_HANDLES, end, [way[0] + x, way[1] + y], how);
          return setHandles(own.ref, own.key.frame, handles.map(tenths) as unknown as PathHandles);
        });
        editor.edit(together('Bend a motion path', edits));
      },
    });
  };

  const toggle = (key: Keyframe) =>
    editor.edit(setHandles(path, key.frame, key.handles ? null : smoothHandles(property, key.frame)));

  const selected = new Set(chosen);
  const isShown = (key: Keyframe) => selected.has(key.frame) || key.frame === frame;
  const beads = property.keys.map((key) => {
    const place = placeAt(key.frame);
    return { key, place, at: applyThrough(place, key.value as Point) };
  });
  return apart(beads, ({ key }) => isShown(key)).map(({ key, place, at: [x, y] }) => {
    const value = key.value as Point;
    const shown = isShown(key);
    const [inX, inY, outX, outY] = key.handles ?? NO_HANDLES;
    const tips = [
      { end: 'in' as const, way: [inX, inY] as const },
      { end: 'out' as const, way: [outX, outY] as const },
    ].filter((t) => shown && (t.way[0] !== 0 || t.way[1] !== 0));
    return (
      <g key={key.frame}>
        {tips.map(({ end, way }) => {
          const [hx, hy] = applyThrough(place, [value[0] + way[0], value[1] + way[1]]);
          return (
            <g key={end}>
              <path d={`M${x} ${y}L${hx} ${hy}`} stroke="var(--tail)" />
              <circle
                data-testid={`motion-handle-${end}`}
                cx={hx}
                cy={hy}
                r={4}
                fill="var(--paper)"
                stroke="var(--tail)"
                strokeWidth={1.5}
                style={{ pointerEvents: 'all', cursor: 'move' }}
                onPointerDown={(event) => pull(event, key, end, false)}
              />
            </g>
          );
        })}
        <circle
          data-testid="motion-bead"
          cx={x}
          cy={y}
          r={5}
          fill={selected.has(key.frame) ? 'var(--tail)' : 'var(--paper)'}
          stroke="var(--tail)"
          strokeWidth={2}
          // Where the layer is now it is the layer that is dragged.
          style={{ pointerEvents: key.frame === frame ? 'none' : 'all', cursor: 'move' }}
          onPointerDown={onBead(key)}
          onDoubleClick={(event) => {
            event.stopPropagation();
            toggle(key);
          }}
        >
          <title>{`Frame ${key.frame}. Drag to move; double-click for a smooth or a straight path; Alt-drag for handles.`}</title>
        </circle>
      </g>
    );
  });
};

/** Those that can be taken hold of: what is wanted, and what is not too near to the one before. */
const apart = <B extends { readonly at: Point }>(beads: readonly B[], isWanted: (bead: B) => boolean): readonly B[] => {
  const kept: B[] = [];
  for (const bead of beads) {
    const before = kept.at(-1)?.at;
    const near = before && Math.hypot(bead.at[0] - before[0], bead.at[1] - before[1]) < NEAR;
    if (!near || isWanted(bead)) kept.push(bead);
  }
  return kept;
};

const NONE: readonly number[] = [];
