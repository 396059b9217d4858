import { frameOfLayers, type Stage } from '../stage';
import type { Point } from '@kite/core/document/types';
import type { Box } from '@kite/core/geometry/bounds';
import { apply, IDENTITY } from '@kite/core/geometry/matrix';
import { applyThrough, nearestMatrix, type Through, throughBack, throughBoth } from '@kite/core/geometry/through';
import { boxOfLayers, cornersThrough, layerBox } from '@kite/core/scene/bounds';
import type { PointerEvent } from 'react';
import { useEditor, useSlice } from '../../store/context';
import { toolOf } from '../../store/workspace';
import { DepthHandles } from './DepthHandles';
import { editGesture } from './editGesture';
import { Grip } from './Grip';
import { cursorOf, gripAt, GRIPS } from './grips';
import { cardBox } from './cardBox';
import { editedCard } from './editedCard';
import { Snapping } from '../snapping';
import { dragPivot, grab, moveSelection, scaleLayer, transformAll, writesOf } from './transforms';
import { toScene, viewMatrix } from '../view';

const centreOf = (box: Box): Point => [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
const angle = (from: Point, to: Point) => (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI;
/** Scale in percent, and the size that it gives. */
const scaleText = (scale: Point, by: Point, box: Box): string => {
  const [sx, sy] = [scale[0] * by[0], scale[1] * by[1]];
  const [w, h] = [(box.right - box.left) * Math.abs(sx), (box.bottom - box.top) * Math.abs(sy)];
  return `${Math.round(sx * 100)} × ${Math.round(sy * 100)} %: ${Math.round(w)} × ${Math.round(h)} px`;
};

/** Outlines of what is selected, with handles to scale and turn it. */
export const Handles = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const { selection, frame, busy } = useSlice((s) => ({
    selection: s.selection,
    frame: frameOfLayers(s),
    doc: s.doc,
    sceneId: s.sceneId,
    fontsCame: s.fontsCame,
    busy: s.mode.kind === 'writing' || toolOf(s.mode) === 'brush',
  }));
  const { scene } = editor;
  if (frame === null || busy) return null;
  const program = editor.program;
  const chosen = selection.layers.flatMap((id) => {
    const layer = scene.layers[id];
    if (!layer) return [];
    const box = layerBox(program, id, frame);
    return [{ layer, box, world: program.throughAt(id, frame) }];
  });
  const toView = (m: Through): Through => throughBoth(viewMatrix(view), m);
  const only = chosen.length === 1 ? chosen[0] : undefined;
  /** While a path's vertices or a group's place are edited the layer's own handles would be in the way. */
  const shaping =
    only?.layer.kind === 'drawing' &&
    selection.card !== null &&
    ['path', 'group', 'pin'].includes(only.layer.items[selection.card]?.kind ?? '');
  const sizing = cardBox(editedCard(editor, view)) !== null;
  const free = !shaping && chosen.some(({ layer }) => !layer.locked);

  /** The frame that the handles stand on: the layer's own axes, or the scene's for several. */
  const frameBox = only ? only.box : boxOfLayers(program, selection.layers, frame);
  const frameMatrix: Through = only ? only.world : IDENTITY;

  const onScale = (grip: Point) => (event: PointerEvent) => {
    if (!frameBox) return;
    const grabbed = grab(editor);
    const back = throughBack(frameMatrix);
    if (!back || grabbed.length === 0) return;
    const start = gripAt(frameBox, grip);
    const ids = grabbed.map((g) => g.id);
    let snapping: Snapping | null = null;
    const keyed = writesOf(editor, grabbed, 'scale');
    editGesture(editor, event, {
      first: 'picture',
      start: () => {
        snapping = new Snapping(editor, ids, view.zoom);
      },
      move: ({ event: now }) => {
        const to = toScene(view, pointOf(now));
        const at = applyThrough(back, snapping ? snapping.point(to, now) : to);
        // Alt scales about the pivot or the middle, else the far side stays.
        const pivot = only ? (grabbed[0]?.place.pivot ?? centreOf(frameBox)) : centreOf(frameBox);
        const anchor = now.altKey ? pivot : gripAt(frameBox, [-grip[0], -grip[1]]);
        const factor = [0, 1].map((i) => {
          const whole = start[i]! - anchor[i]!;
          return grip[i] === 0 || Math.abs(whole) < 1e-6 ? 1 : (at[i]! - anchor[i]!) / whole;
        }) as unknown as Point;
        const corner = grip[0] !== 0 && grip[1] !== 0;
        const even = corner
          ? Math.abs(factor[0]) > Math.abs(factor[1])
            ? factor[0]
            : factor[1]
          : grip[0] !== 0
            ? factor[0]
            : factor[1];
        const g = grabbed[0];
        if (only && g) {
          const f: Point = corner && !now.shiftKey ? [even, even] : factor;
          scaleLayer(editor, g, f, anchor);
          editor.set({ readout: { at: pointOf(now), text: scaleText(g.place.scale, f, frameBox) + keyed } });
        } else {
          transformAll(editor, grabbed, anchor, Math.max(even, 0.001), 0, 'Scale');
          editor.set({ readout: { at: pointOf(now), text: `${Math.round(even * 100)} %${keyed}` } });
        }
      },
    });
  };

  const onTurn = (event: PointerEvent) => {
    if (!frameBox) return;
    const grabbed = grab(editor);
    const g = grabbed[0];
    if (!g) return;
    const about = only ? apply(g.parent, g.place.position) : centreOf(frameBox);
    const start = angle(about, toScene(view, pointOf(event)));
    const keyed = writesOf(editor, grabbed, 'rotation');
    editGesture(editor, event, {
      first: 'picture',
      move: ({ event: now }) => {
        let by = angle(about, toScene(view, pointOf(now))) - start;
        if (by > 180) by -= 360;
        if (by < -180) by += 360;
        if (now.shiftKey) by = Math.round(by / 15) * 15;
        else by = Math.round(by * 10) / 10;
        transformAll(editor, grabbed, about, 1, by, 'Turn');
        editor.set({
          readout: { at: pointOf(now), text: `${Math.round((only ? g.place.rotation : 0) + by)}°${keyed}` },
        });
      },
    });
  };

  const pivoted = chosen.filter(({ layer }) => only || layer.kind === 'controller');
  const pivots = new Map(pivoted.length > 0 ? grab(editor).map((g) => [g.id, g.place.pivot] as const) : []);

  const points = (m: Through, box: Box) =>
    cornersThrough(toView(m), box)
      .map((p) => p.join(','))
      .join(' ');
  const foot = only && (frameBox ? gripAt(frameBox, [0, 1]) : pivots.get(only.layer.id));
  const top = frameBox && applyThrough(toView(frameMatrix), gripAt(frameBox, [0, -1]));
  const middle = frameBox && applyThrough(toView(frameMatrix), centreOf(frameBox));
  const length = top && middle ? Math.hypot(top[0] - middle[0], top[1] - middle[1]) || 1 : 1;
  const knob: Point | null =
    top && middle
      ? [top[0] + ((top[0] - middle[0]) / length) * 22, top[1] + ((top[1] - middle[1]) / length) * 22]
      : null;
  const [a, b] = nearestMatrix(frameMatrix, frameBox ? centreOf(frameBox) : [0, 0]);
  const tilt = Math.atan2(b, a);

  return (
    <g>
      {chosen.map(({ layer, box, world }) =>
        box ? (
          <polygon
            key={layer.id}
            points={points(world, box)}
            fill="none"
            stroke="var(--sky)"
            strokeWidth={only ? 1.5 : 1}
          />
        ) : null,
      )}
      {!only && frameBox && (
        <polygon points={points(IDENTITY, frameBox)} fill="none" stroke="var(--sky)" strokeWidth={1.5} />
      )}
      {pivoted.map(({ layer, world }) => {
        const pivot = pivots.get(layer.id);
        if (!pivot) return null;
        const [x, y] = applyThrough(toView(world), pivot);
        return (
          <g
            key={layer.id}
            stroke="var(--kite)"
            fill="none"
            strokeWidth={1.5}
            data-testid="pivot"
            style={{ pointerEvents: layer.locked ? 'none' : 'all', cursor: 'move' }}
            onPointerDown={(event) => {
              event.stopPropagation();
              // Pivots stand where layers are most often taken hold of: only with Alt are they what is moved.
              if (event.altKey) dragPivot(editor, event, layer.id, view, pointOf);
              else moveSelection(editor, event, view.zoom, pointOf);
            }}
          >
            <title>Drag moves the layer, Alt-drag its pivot</title>
            <circle cx={x} cy={y} r={5} fill={layer.kind === 'controller' ? 'var(--paper)' : 'none'} />
            <path d={`M${x - 9} ${y}h18M${x} ${y - 9}v18`} />
          </g>
        );
      })}
      {free && only && foot && (
        <DepthHandles layer={only.layer.id} under={applyThrough(toView(only.world), foot)} pointOf={pointOf} />
      )}
      {free && frameBox && knob && top && (
        <>
          <path d={`M${top.join(' ')}L${knob.join(' ')}`} stroke="var(--sky)" />
          <circle
            data-testid="handle-turn"
            cx={knob[0]}
            cy={knob[1]}
            r={5}
            fill="var(--paper)"
            stroke="var(--sky)"
            strokeWidth={1.5}
            style={{ cursor: 'grab', pointerEvents: 'all' }}
            onPointerDown={onTurn}
          />
          {!sizing &&
            GRIPS.map((grip) => {
              if (!only && (grip[0] === 0 || grip[1] === 0)) return null;
              return (
                <Grip
                  key={grip.join()}
                  at={applyThrough(toView(frameMatrix), gripAt(frameBox, grip))}
                  of="layer"
                  cursor={cursorOf(grip, tilt)}
                  testId={`handle-${grip.join('/')}`}
                  onPointerDown={onScale(grip)}
                />
              );
            })}
        </>
      )}
    </g>
  );
};
