/** Drags in the second view. */
import type { Id, Point, PropertyRef } from '@kite/core/document/types';
import type { Eye } from '@kite/core/geometry/space';
import { directionAside } from '@kite/core/scene/aside';
import type { PointerEvent } from 'react';
import { WRITES, writesAt, writeValues } from '../../commands/layers';
import type { Editor } from '../../store/editor';
import type { View } from '../../store/workspace';
import { editGesture } from '../handles/editGesture';
import { toScene } from '../view';
import { AIMS, parentSpace, type Standing } from './standing';

const tidy = (n: number): number => Math.round(n * 10) / 10 + 0;

export interface AsideStage {
  readonly eye: Eye;
  readonly view: View;
  readonly pointOf: (event: { clientX: number; clientY: number }) => Point;
  /** Says beside the view what is being done; null for nothing any more. */
  readonly tell: (text: string | null) => void;
}

/** Moves the selected layers along the screen of the view. */
export const moveAside = (
  editor: Editor,
  event: PointerEvent,
  { id, keys, locked }: Standing,
  stage: AsideStage,
): void => {
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
