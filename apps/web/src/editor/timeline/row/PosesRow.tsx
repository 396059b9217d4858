import { NO_POSES, type HeldPose } from '@kite/core/document/poses';
import { moveHeld, removeHeld, setHeld } from '@kite/core/edits/poses';
import { heldAt, stripTimes } from '@kite/core/moves/poseStrip';
import type { MenuEntry } from '../../../ui/Menu';
import { goToPicture } from '../../commands/poses';
import { Poster } from '../../header/Poster';
import { useEditor, useSlice } from '../../store/context';
import type { Editor } from '../../store/editor';
import { sceneOf } from '../../store/state';
import { NAMES_WIDTH, ROW } from '../scale';
import { useScale } from '../scaleContext';
import { HeldBox, nextOf } from './HeldBox';

const stripOf = (editor: Editor) => (editor.scene.poses ?? NO_POSES).strip;

const menuOf = (editor: Editor, { id, between }: HeldPose): (MenuEntry | null)[] => {
  const { pictures } = editor.state;
  const ids = pictures.includes(id) ? pictures : [id];
  const scene = editor.scene.id;
  return [
    {
      label: 'One picture in between more',
      onSelect: () => editor.edit(setHeld(scene, ids, { between: between + 1 })),
    },
    {
      label: 'None in between',
      disabled: between === 0,
      onSelect: () => editor.edit(setHeld(scene, ids, { between: 0 })),
    },
    null,
    {
      label: 'Choose all',
      onSelect: () => editor.set({ pictures: stripOf(editor).held.map((held) => held.id), drawer: 'poses' }),
    },
    {
      label: ids.length === 1 ? 'Take out' : `Take these ${ids.length} out`,
      danger: true,
      onSelect: () => editor.edit(removeHeld(scene, ids)),
    },
  ];
};

/** The strip of poses: each picture as long as it stays, with what is between it and the next. */
export const PosesRow = () => {
  const editor = useEditor();
  const scale = useScale();
  const { kept, strip } = useSlice((s) => sceneOf(s).poses) ?? NO_POSES;
  const chosen = useSlice((s) => s.pictures);
  const shown = useSlice((s) => heldAt(strip, s.frame)?.held.id);
  const { starts, end } = stripTimes(strip);
  const spans = strip.held.map(({ hold }, i) => [starts[i] as number, (starts[i] as number) + hold] as const);
  const scene = editor.scene.id;
  const onPick = (id: string, many: boolean) => {
    const rest = chosen.filter((other) => other !== id);
    const pictures = !many ? [id] : rest.length < chosen.length ? rest : [...chosen, id];
    editor.set({ pictures });
    goToPicture(editor, id);
  };
  return (
    <div
      role="group"
      aria-label="Poses one after another"
      data-testid="poses-row"
      className="flex shrink-0 border-b border-line bg-paper-2"
      style={{ height: ROW }}
    >
      <button
        type="button"
        style={{ width: NAMES_WIDTH }}
        className="flex shrink-0 items-center border-r border-line pr-2 pl-[38px] text-left text-ink-2 hover:text-ink"
        onClick={() => editor.set({ drawer: 'poses' })}
      >
        <span className="min-w-0 flex-1 truncate">Poses</span>
        <span className="tabular text-sm">{strip.held.length}</span>
      </button>
      <div className="relative min-w-0 flex-1 overflow-hidden">
        {strip.held.map((held, i) => {
          const [from, to] = spans[i] as readonly [number, number];
          const next = starts[i + 1] ?? end;
          const name = kept.find(({ id }) => id === held.pose)?.name ?? '';
          return (
            <div key={held.id} className="contents">
              <HeldBox
                label={`Picture ${i + 1}: ${name}`}
                testId="held"
                from={from}
                to={to}
                shown={held.id === shown}
                chosen={chosen.includes(held.id)}
                entries={() => menuOf(editor, held)}
                picture={(widest) => (
                  <span className="flex h-full items-center gap-1 text-xs">
                    <Poster id={scene} pose={held.pose} height={ROW - 6} widest={widest} className="object-cover" />
                    <span className="truncate rounded-sm bg-paper/80 px-0.5">{name}</span>
                  </span>
                )}
                onPick={({ shiftKey, ctrlKey }) => onPick(held.id, shiftKey || ctrlKey)}
                hold={(hold) => setHeld(scene, [held.id], { hold })}
                onDrop={(middle) => {
                  const before = strip.held[nextOf(spans, i, middle)];
                  const rest = strip.held.filter((other) => other !== held);
                  editor.edit(moveHeld(scene, held.id, before ? rest.indexOf(before) : rest.length));
                }}
              />
              {next > to && (
                <span
                  aria-hidden
                  title={`${held.between} in between`}
                  className="pointer-events-none absolute inset-y-1.5 bg-[repeating-linear-gradient(90deg,var(--line)_0_2px,transparent_2px_5px)]"
                  style={{ left: scale.x(to), width: Math.max(1, scale.x(next) - scale.x(to) - 1) }}
                />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
};
