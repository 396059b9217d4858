import { NO_POSES, type ScenePose } from '@kite/core/document/poses';
import { changePoses, followPoses, movePose, removePose, renamePose } from '@kite/core/edits/poses';
import { editedByHand } from '@kite/core/moves/poseStrip';
import { ChevronDown, GalleryHorizontal, Plus } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../ui/Button';
import { Menu } from '../../ui/Menu';
import { RenameField } from '../../ui/RenameField';
import { many } from '../../ui/units';
import { countChanges, goToPose, keepHere, poseNow, putInStrip } from '../commands/poses';
import { COMMANDS, keysOf } from '../commands/table';
import { Poster } from '../header/Poster';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { DrawerFrame } from './DrawerFrame';
import { PoseStripFields } from './PoseStripFields';

const TILE = { height: 58, widest: 102 };
const SMALL = '!h-6 !px-2 text-sm';

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
      changed: still && pose && poseNow(s) === pose.id ? countChanges(sceneOf(s), pose, s.frame) : 0,
      byHand: still ? editedByHand(sceneOf(s)).length : 0,
    };
  });
  const scene = editor.scene.id;
  const take = (ids: readonly string[]) => pose && editor.edit(changePoses(scene, pose.id, ids, editor.state.frame));
  return (
    <>
      {pose && changed > 0 && (
        <div role="status" className="mb-3 flex flex-col gap-1.5 rounded-md bg-sun-2 p-2 break-words">
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

/** What the scene shows, kept under names; frames are made of it. */
export const PosesDrawer = () => {
  const editor = useEditor();
  const { kept, strip } = useSlice((s) => sceneOf(s).poses) ?? NO_POSES;
  const now = useSlice(poseNow);
  const posed = strip.held.length > 0;
  return (
    <DrawerFrame title="Poses">
      <div className="mb-3 flex flex-col gap-1.5">
        <Button icon={<Plus size={14} />} title={keysOf(COMMANDS.keepPose)} onClick={() => keepHere(editor, false)}>
          Keep this as a pose
        </Button>
        {posed && (
          <Button title={keysOf(COMMANDS.nextPose)} onClick={() => keepHere(editor, true)}>
            Keep it as the next picture
          </Button>
        )}
      </div>
      {kept.length === 0 ? (
        <p className="text-ink-2">
          A pose is what the scene shows: what is there, where, how strongly, in which colours. Keep one, change the
          picture, keep the next; then put them one after another, with pictures in between or none. Words and pictures
          stay the scene’s: changed once, they change in all poses.
        </p>
      ) : (
        <ul aria-label="Poses of this scene" className="mb-3 grid max-h-[294px] grid-cols-2 gap-1.5 overflow-y-auto">
          {kept.map((pose, i) => (
            <PoseTile key={pose.id} pose={pose} index={i} count={kept.length} shown={pose.id === now} />
          ))}
        </ul>
      )}
      <Changes kept={kept} pose={kept.find(({ id }) => id === now)} />
      {posed ? (
        <PoseStripFields strip={strip} />
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
