/** Poses: keeping what shows, going to it, putting it into the strip. */
import { uniqueName } from '@kite/core/document/make';
import { type HeldPose, NO_POSES, type ScenePose } from '@kite/core/document/poses';
import { lastMade } from '@kite/core/document/remembered';
import type { Id, Scene } from '@kite/core/document/types';
import { addHeld, keepPose, showPose } from '@kite/core/edits/poses';
import { changesOf, posedAt } from '@kite/core/moves/poses';
import { heldAt, stripTimes } from '@kite/core/moves/poseStrip';
import { framesPerSecond } from '@kite/core/time/rate';
import { toast } from '../../ui/toast';
import { type Editor, makeId } from '../store/editor';
import type { EditorState } from '../store/state';
import { sceneOf } from '../store/state';

/** Seconds that a picture stays at first. */
const FIRST_HOLD = 0.5;

/** The pose that shows: the strip's at the playhead, or where there is none the one that was kept or gone to last. */
export const poseNow = (state: EditorState): Id | null => {
  const { kept, strip } = sceneOf(state).poses ?? NO_POSES;
  const at = strip.held.length > 0 ? heldAt(strip, state.frame) : null;
  if (at) return at.leaves ? null : at.held.pose;
  return kept.some(({ id }) => id === state.pose) ? state.pose : null;
};

const counted = lastMade<Scene, number>();

/** How many values a scene shows at a frame otherwise than a pose of its own has them, or of which that knows nothing. */
export const countChanges = (scene: Scene, pose: ScenePose, frame: number): number =>
  counted(scene, [pose, frame], () =>
    [...changesOf(pose, posedAt(scene, frame)).values()].reduce(
      (sum, { own, parts }) => sum + Math.max(1, own.size + [...parts.values()].reduce((n, part) => n + part.size, 0)),
      0,
    ),
  );

const posesOf = (editor: Editor) => editor.scene.poses ?? NO_POSES;

/** A picture as long as the one before it in the strip. */
const newHeld = (editor: Editor, pose: Id, before: HeldPose | undefined): HeldPose => ({
  hold: Math.max(1, Math.round(framesPerSecond(editor.scene.rate) * FIRST_HOLD)),
  between: 0,
  each: 1,
  ...before,
  id: makeId(),
  pose,
});

/** Goes to a picture of the strip. */
export const goToPicture = (editor: Editor, id: Id): void => {
  const { strip } = posesOf(editor);
  const start = stripTimes(strip).starts[strip.held.findIndex((held) => held.id === id)];
  if (start !== undefined) editor.seek(start);
};

/** Keeps what shows at the playhead as a pose; as the next picture of the strip too, if that is wanted. */
export const keepHere = (editor: Editor, next: boolean): void => {
  const { scene, state } = editor;
  const { kept, strip } = posesOf(editor);
  const name = uniqueName(
    'Pose 1',
    kept.map((pose) => pose.name),
  );
  const id = makeId();
  const now = strip.held.length > 0 ? heldAt(strip, state.frame)?.held : undefined;
  const before = now ?? strip.held.at(-1);
  const held = newHeld(editor, id, before);
  const at = before ? strip.held.indexOf(before) + 1 : 0;
  const put = next ? { held, at, since: poseNow(state) } : undefined;
  if (!editor.edit(keepPose(scene.id, id, name, state.frame, put))) return;
  editor.set({ pose: id });
  if (state.drawer !== 'poses') toast.success(`Kept as “${name}”${next ? ', the next picture' : ''}.`);
  if (next) goToPicture(editor, held.id);
};

/** Puts poses into the strip, behind all that is there. */
export const putInStrip = (editor: Editor, poses: readonly Id[]): void => {
  const { strip } = posesOf(editor);
  const held = poses.map((pose) => newHeld(editor, pose, strip.held.at(-1)));
  if (editor.edit(addHeld(editor.scene.id, held, strip.held.length))) goToPicture(editor, held[0]?.id ?? '');
};

/** To where the strip shows a pose, or, where it does not, the scene as the pose has it. */
export const goToPose = (editor: Editor, id: Id): void => {
  const held = posesOf(editor).strip.held.find(({ pose }) => pose === id);
  editor.set({ pose: id });
  if (held) goToPicture(editor, held.id);
  else editor.edit(showPose(editor.scene.id, id, editor.writing));
};
