import { POSE_LIMITS } from '@kite/core/document/limits';
import { type HeldPose, NO_POSES, type PoseStrip, type ScenePose } from '@kite/core/document/poses';
import type { Rate } from '@kite/core/document/types';
import {
  changePoses,
  dropStrip,
  followPoses,
  movePose,
  removeHeld,
  removePose,
  renamePose,
  setHeld,
  setStrip,
} from '@kite/core/edits/poses';
import { editedByHand, heldAt, stripTimes } from '@kite/core/moves/poses';
import { framesPerSecond, secondsOf } from '@kite/core/time/rate';
import { ChevronDown, GalleryHorizontal, Plus } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../ui/Button';
import { Menu } from '../../ui/Menu';
import { NumberField } from '../../ui/NumberField';
import { RenameField } from '../../ui/RenameField';
import { countChanges, goToPicture, goToPose, keepHere, poseNow, putInStrip } from '../commands/poses';
import { Poster } from '../header/Poster';
import { EaseSelect } from '../inspector/ease/EaseSelect';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { DrawerFrame } from './DrawerFrame';

const TILE = { height: 58, widest: 102 };
const SMALL = '!h-6 !px-2 text-sm';

const many = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

interface PoseTileProps {
  pose: ScenePose;
  index: number;
  count: number;
  shown: boolean;
}

/** A pose as it looks: a press goes there. */
const PoseTile = ({ pose, index, count, shown }: PoseTileProps) => {
  const editor = useEditor();
  const [renaming, setRenaming] = useState(false);
  const scene = editor.scene.id;
  return (
    <li
      data-testid="pose"
      aria-label={`Pose ${pose.name}`}
      className={`flex min-w-0 flex-col rounded-md border bg-paper ${shown ? 'border-kite' : 'border-line'}`}
    >
      <button
        type="button"
        aria-label={`Go to ${pose.name}`}
        aria-pressed={shown}
        className="flex justify-center rounded-t-md bg-paper-2 py-1 hover:brightness-95"
        onClick={() => goToPose(editor, pose.id)}
      >
        <Poster id={scene} pose={pose.id} {...TILE} className="object-contain" />
      </button>
      <span className="flex min-w-0 items-center pl-1.5">
        <RenameField
          label="Name of the pose"
          value={pose.name}
          editing={renaming}
          onDone={() => setRenaming(false)}
          className="min-w-0 flex-1 text-sm"
          onRename={(name) => editor.edit(renamePose(scene, pose.id, name))}
        />
        <IconButton label={`Put ${pose.name} at the end`} size="small" onClick={() => putInStrip(editor, [pose.id])}>
          <Plus size={13} />
        </IconButton>
        <Menu
          trigger={
            <button type="button" aria-label={`${pose.name}: more`} className="h-6 px-1 text-ink-2 hover:text-ink">
              <ChevronDown size={13} />
            </button>
          }
          align="end"
          entries={[
            { label: 'Rename', onSelect: () => setTimeout(() => setRenaming(true), 0) },
            {
              label: 'Earlier',
              disabled: index === 0,
              onSelect: () => editor.edit(movePose(scene, pose.id, index - 1)),
            },
            {
              label: 'Later',
              disabled: index === count - 1,
              onSelect: () => editor.edit(movePose(scene, pose.id, index + 1)),
            },
            null,
            { label: 'Forget', danger: true, onSelect: () => editor.edit(removePose(scene, pose.id)) },
          ]}
        />
      </span>
    </li>
  );
};

/** What is otherwise than the poses have it, and where that can go. */
const Changes = ({ kept, pose }: { kept: readonly ScenePose[]; pose: ScenePose | undefined }) => {
  const editor = useEditor();
  // Counted anew where the document or the frame is another one, and not while anything moves.
  const { changed, byHand } = useSlice((s) => {
    const still = !s.playing && !s.gesturing;
    return {
      changed: still && pose && poseNow(s) === pose.id ? countChanges(editor, pose.id) : 0,
      byHand: still ? editedByHand(sceneOf(s)).length : 0,
    };
  });
  const scene = editor.scene.id;
  const take = (ids: readonly string[]) => pose && editor.edit(changePoses(scene, pose.id, ids, editor.state.frame));
  return (
    <>
      {pose && changed > 0 && (
        <div role="status" className="mb-3 flex flex-col gap-1.5 rounded-md bg-sun-2 p-2">
          <span>
            {many(changed, 'value')} shown otherwise than “{pose.name}” has {changed === 1 ? 'it' : 'them'}.
          </span>
          <span className="flex gap-1">
            <Button className={SMALL} onClick={() => take([pose.id])}>
              Into this pose
            </Button>
            {kept.length > 1 && (
              <Button className={SMALL} onClick={() => take(kept.map(({ id }) => id))}>
                Into all
              </Button>
            )}
          </span>
        </div>
      )}
      {byHand > 0 && (
        <div role="status" className="mb-3 flex flex-col items-start gap-1.5 rounded-md bg-paper-2 p-2">
          <span>{many(byHand, 'value')} edited by hand: kept as they are, whatever the poses do.</span>
          <Button className={SMALL} onClick={() => editor.edit(followPoses(scene))}>
            Back to the poses
          </Button>
        </div>
      )}
    </>
  );
};

/** What several things have alike; null where they differ. */
const common = <T,>(values: readonly T[]): T | null =>
  values.every((v) => v === values[0]) ? (values[0] ?? null) : null;

const row = 'grid grid-cols-[76px_1fr_1fr] items-center gap-1.5';

/** How long the chosen pictures stay, or all of them. */
const Durations = ({ strip, rate }: { strip: PoseStrip; rate: Rate }) => {
  const editor = useEditor();
  const [rounded, setRounded] = useState<string | null>(null);
  const own = useSlice((s) => s.pictures);
  const chosen = strip.held.filter(({ id }) => own.includes(id));
  const which = chosen.length > 0 ? chosen : strip.held;
  const set = (fields: Partial<HeldPose>) => {
    const before = heldAt(strip, editor.state.frame);
    const ids = which.map(({ id }) => id);
    // The picture that shows goes on showing, wherever it is now.
    if (editor.edit(setHeld(editor.scene.id, ids, fields)) && before && !before.leaves)
      goToPicture(editor, before.held.id);
  };
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  const hold = common(which.map((held) => held.hold));
  const between = common(which.map((held) => held.between));
  const each = common(which.map((held) => held.each));
  const toSeconds = (seconds: number) => {
    const frames = seconds * framesPerSecond(rate);
    const whole = Math.max(1, Math.round(frames));
    const exact = Math.abs(frames - whole) < 1e-6;
    setRounded(exact ? null : `${seconds} s are ${Number(frames.toFixed(2))} frames here: it stays ${whole}.`);
    set({ hold: whole });
  };
  const fields = { min: POSE_LIMITS.hold[0], max: POSE_LIMITS.hold[1], decimals: 0, ...gesture };
  return (
    <>
      <p className="text-ink-2" data-testid="which-pictures">
        {chosen.length > 0
          ? `${chosen.length} of ${many(strip.held.length, 'picture')} chosen`
          : `All ${many(strip.held.length, 'picture')}`}
      </p>
      <div className={row}>
        <span className="text-ink-2">Stays</span>
        <NumberField
          label="Frames that it stays"
          unit="f"
          value={hold}
          {...fields}
          onChange={(v) => set({ hold: Math.round(v) })}
        />
        <NumberField
          label="Seconds that it stays"
          unit="s"
          min={0}
          step={0.01}
          decimals={3}
          value={hold === null ? null : secondsOf(hold, rate)}
          onChange={toSeconds}
          {...gesture}
        />
      </div>
      {rounded !== null && (
        <p role="status" className="text-sm text-ink-2">
          {rounded} At 100 frames a second every hundredth is exact.
        </p>
      )}
      <div className={row}>
        <span className="text-ink-2">In between</span>
        <NumberField
          label="Pictures in between"
          min={POSE_LIMITS.between[0]}
          max={POSE_LIMITS.between[1]}
          decimals={0}
          value={between}
          onChange={(v) => set({ between: Math.round(v) })}
          {...gesture}
        />
        <NumberField
          label="Frames of each in between"
          unit="f"
          min={POSE_LIMITS.each[0]}
          max={POSE_LIMITS.each[1]}
          decimals={0}
          disabled={between === 0}
          value={each}
          onChange={(v) => set({ each: Math.round(v) })}
          {...gesture}
        />
      </div>
    </>
  );
};

const SWITCHES = [
  ['loops', 'From the last back to the first'],
  ['fits', 'The scene ends with them'],
] as const;

/** Poses one after another, as pictures that stay so long each. */
const Strip = ({ strip }: { strip: PoseStrip }) => {
  const editor = useEditor();
  const rate = useSlice((s) => sceneOf(s).rate);
  const scene = editor.scene.id;
  const { end } = stripTimes(strip);
  return (
    <section aria-label="One after another" className="flex flex-col gap-1.5">
      <h3 className="flex items-center justify-between font-medium">
        One after another
        <span className="tabular text-sm font-normal text-ink-2">
          {end - strip.from} f, {secondsOf(end - strip.from, rate).toFixed(2)} s
        </span>
      </h3>
      <Durations strip={strip} rate={rate} />
      <div className={row}>
        <span className="text-ink-2">Ease</span>
        <EaseSelect
          label="Ease in between"
          value={strip.ease}
          className="col-span-2"
          disabled={strip.held.every(({ between }) => between === 0)}
          onChange={(ease) => editor.edit(setStrip(scene, { ease }))}
        />
      </div>
      {SWITCHES.map(([key, says]) => (
        <label key={key} className="flex items-center gap-2 text-ink-2">
          <input
            type="checkbox"
            className="size-4"
            checked={strip[key]}
            onChange={(event) => editor.edit(setStrip(scene, { [key]: event.target.checked }))}
          />
          {says}
        </label>
      ))}
      <Menu
        align="start"
        entries={[
          { label: 'Keep the keyframes alone', onSelect: () => editor.edit(dropStrip(scene)) },
          {
            label: 'Take them all out',
            danger: true,
            onSelect: () =>
              editor.edit(
                removeHeld(
                  scene,
                  strip.held.map(({ id }) => id),
                ),
              ),
          },
        ]}
        trigger={<Button className={`${SMALL} self-start`}>More</Button>}
      />
    </section>
  );
};

/** What the scene shows, kept under names; frames are made of it. */
export const PosesDrawer = () => {
  const editor = useEditor();
  const { kept, strip } = useSlice((s) => sceneOf(s).poses) ?? NO_POSES;
  const now = useSlice(poseNow);
  const posed = strip.held.length > 0;
  return (
    <DrawerFrame title="Poses">
      <div className="mb-3 flex flex-col gap-1.5">
        <Button icon={<Plus size={14} />} onClick={() => keepHere(editor, false)}>
          Keep this as a pose
        </Button>
        {posed && <Button onClick={() => keepHere(editor, true)}>Keep it as the next picture</Button>}
      </div>
      {kept.length === 0 ? (
        <p className="text-ink-2">
          A pose is what the scene shows: what is there, where, how strongly, in which colours. Keep one, change the
          picture, keep the next; then put them one after another, with pictures in between or none. Words and pictures
          stay the scene’s: changed once, they change in all poses.
        </p>
      ) : (
        <ul aria-label="Poses of this scene" className="mb-3 grid grid-cols-2 gap-1.5">
          {kept.map((pose, i) => (
            <PoseTile key={pose.id} pose={pose} index={i} count={kept.length} shown={pose.id === now} />
          ))}
        </ul>
      )}
      <Changes kept={kept} pose={kept.find(({ id }) => id === now)} />
      {posed ? (
        <Strip strip={strip} />
      ) : (
        kept.length > 1 && (
          <Button
            icon={<GalleryHorizontal size={14} />}
            onClick={() =>
              putInStrip(
                editor,
                kept.map(({ id }) => id),
              )
            }
          >
            Put them one after another
          </Button>
        )
      )}
    </DrawerFrame>
  );
};
