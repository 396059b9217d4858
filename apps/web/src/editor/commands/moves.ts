/** What the moves drawer and the move card do to the selected layers. */
import { FIRST_COLORS } from '@kite/core/document/colors';
import { type Edit, together } from '@kite/core/document/patches';
import type { Id, Layer, Point } from '@kite/core/document/types';
import {
  adjustableMoves,
  applyMove,
  applyMoveToParts,
  type AwayOf,
  hasText,
  changeMove,
  isDrawing,
  isSliding,
  type MoveChange,
} from '@kite/core/edits/moves';
import { hasStrokes } from '@kite/core/edits/moveCards';
import { awayIn } from '@kite/core/edits/outside';
import type { TextUnit } from '@kite/core/motion/sampler';
import { targetOf } from '@kite/core/moves/routine';
import { farFrame, PLACED_KEYS, restOf } from '@kite/core/moves/write';
import { newRoutine, uniqueName } from '@kite/core/document/make';
import { addRoutine } from '@kite/core/edits/routines';
import { SOFT } from '@kite/core/motion/eases/table';
import type { RoutineStep, StepKind, StepValues, Move } from '@kite/core/document/moves';
import { sayUnread } from './layers';
import { toast } from '../../ui/toast';
import { listed } from '../../ui/units';
import { type Editor, makeId } from '../store/editor';

export const awayFrom = (editor: Editor, move?: Id): AwayOf => awayIn(editor.program, editor.state.frame, move);

/** What a move is given to: layers as wholes, or the parts of their texts. */
export type Movers = 'whole' | TextUnit;

/** What a layer has to have for a move and has not, in words. */
const lacks = (move: Move, layer: Layer | undefined): string | null => {
  if (isDrawing(move) && !hasStrokes(layer)) return 'no stroke to be drawn: add the card Stroke';
  return isSliding(move) && layer?.kind !== 'drawing' ? 'nothing that could be hidden' : null;
};

/** Gives a move to the selected layers; if that is wanted, to each part of the texts of those that have some. */
export const giveMove = (editor: Editor, move: Move, by: Movers = 'whole'): void => {
  const { scene } = editor;
  const free = freeLayers(editor);
  const lacking = new Map(free.map((id) => [id, lacks(move, scene.layers[id])]));
  for (const why of new Set(lacking.values())) {
    if (why === null) continue;
    const names = free.filter((id) => lacking.get(id) === why).map((id) => `“${scene.layers[id]?.name}”`);
    toast.info(`${listed(names)} ${names.length === 1 ? 'has' : 'have'} ${why}.`);
  }
  const ids = free.filter((id) => lacking.get(id) === null);
  if (ids.length === 0) return;
  const texts = by === 'whole' ? [] : ids.filter((id) => hasText(scene.layers[id]));
  const wholes = ids.filter((id) => !texts.includes(id));
  const { frame } = editor.state;
  const away = awayFrom(editor);
  const edits = [
    ...(by === 'whole' || texts.length === 0 ? [] : [applyMoveToParts(scene.id, texts, by, move, frame, away, makeId)]),
    ...(wholes.length === 0 ? [] : [applyMove(scene.id, wholes, makeId(), move, frame, away, makeId)]),
  ];
  const before = editor.scene;
  if (!editor.edit(together(move.name, edits))) return;
  sayUnread(
    editor,
    wholes.flatMap((layer) =>
      PLACED_KEYS.filter((key) => editor.scene.layers[layer]?.params[key] !== before.layers[layer]?.params[key]).map(
        (key) => ({ scene: scene.id, layer, key }),
      ),
    ),
  );
  const [only] = ids;
  const now = editor.scene.layers[only ?? ''];
  const card = ids.length === 1 && texts.length === 1 && now?.kind === 'drawing' ? now.recipe.at(-1) : undefined;
  editor.select({ layers: ids, ...(card !== undefined && { card }) });
};

/**
 * What dragging the bead of a motion path does where a move wrote it: its far end takes another angle and distance, its
 * near end takes the layer's rest along. null where no move that can be adjusted has a keyframe there.
 */
export const moveBead = (editor: Editor, layerId: Id, frame: number): ((to: Point) => Edit) | null => {
  const { scene } = editor;
  for (const { applied } of adjustableMoves(scene, [layerId])) {
    const { id, move, from, to } = applied;
    if (move.kind !== 'entrance' && move.kind !== 'exit') continue;
    const far = farFrame(applied);
    const near = far === from ? to : from;
    const layer = scene.layers[layerId];
    if (!layer || (frame !== far && frame !== near)) continue;
    const { position } = restOf(layer, applied);
    const change = (by: MoveChange) => changeMove(scene.id, [layerId], id, by, awayFrom(editor, id));
    if (frame === near) return (at) => change({ position: at });
    return ([x, y]) => {
      const [dx, dy] = [x - position[0], y - position[1]];
      const angle = Math.round(((Math.atan2(dy, dx) * 180) / Math.PI) * 10) / 10;
      return change({ move: { ...move, outside: false, angle, distance: Math.round(Math.hypot(dx, dy) * 10) / 10 } });
    };
  }
  return null;
};

const FIRST_VALUES: StepValues = {
  move: [100, 0],
  grow: 1.5,
  turn: 90,
  turnX: 90,
  turnY: 90,
  away: 200,
  fade: 0,
  colour: FIRST_COLORS[0],
  trim: 0,
};

export const newStep = (kind: StepKind): RoutineStep => ({
  kind,
  value: FIRST_VALUES[kind],
  frames: 12,
  gap: 0,
  ease: SOFT,
});

/** A routine for the selected layers, from the playhead on. */
export const startRoutine = (editor: Editor): void => {
  const { scene } = editor;
  const players = freeLayers(editor);
  if (players.length === 0) return;
  const name = uniqueName(
    'Routine',
    scene.routines.map((r) => r.name),
  );
  const steps = [newStep('move'), newStep('grow')];
  const { frame } = editor.state;
  editor.edit(addRoutine(scene.id, newRoutine(makeId(), name, steps, players, { start: frame, stagger: 4 })));
  sayUnread(
    editor,
    players.flatMap((id) => steps.flatMap(({ kind }) => targetOf(kind, scene.id, scene.layers[id] as Layer) ?? [])),
  );
  editor.select({ layers: players });
};

/** The selected layers that are not locked; says so where there are none. */
const freeLayers = (editor: Editor): Id[] => {
  const { scene } = editor;
  const ids = scene.order.filter((id) => editor.state.selection.layers.includes(id) && !scene.layers[id]?.locked);
  if (ids.length === 0) toast.info('Select the layers that are to move, in the list or on the canvas.');
  return ids;
};
