import { forgetMove, hasText } from '@kite/core/edits/moves';
import { READY_MOVES } from '@kite/core/moves/ready';
import type { Move } from '@kite/core/document/moves';
import { useState } from 'react';
import { Button } from '../../ui/Button';
import { Segments } from '../../ui/Segments';
import { giveMove, type Movers, startRoutine } from '../commands/moves';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { ListOrdered } from 'lucide-react';
import { DrawerFrame } from './DrawerFrame';
import { MoveTile } from './MoveTile';

const KINDS: readonly { readonly kind: Move['kind']; readonly label: string }[] = [
  { kind: 'entrance', label: 'In, from the layer’s first frame' },
  { kind: 'exit', label: 'Out, by its last frame' },
  { kind: 'passage', label: 'In and out' },
  { kind: 'emphasis', label: 'In between, from the playhead' },
];

const MOVERS: readonly { readonly value: Movers; readonly label: string }[] = [
  { value: 'whole', label: 'Whole' },
  { value: 'letters', label: 'Letters' },
  { value: 'words', label: 'Words' },
  { value: 'lines', label: 'Lines' },
];

/** Ready moves, and those of the project: a press gives one to the selected layers. */
export const MovesDrawer = () => {
  const editor = useEditor();
  const { saved, count, routines } = useSlice((s) => ({
    saved: s.doc.moves,
    count: s.selection.layers.length,
    routines: sceneOf(s).routines,
  }));
  const [by, setBy] = useState<Movers>('whole');
  const movers = useSlice((s) => s.selection.layers.some((id) => hasText(sceneOf(s).layers[id])));
  const give = (move: Move) => giveMove(editor, move, movers ? by : 'whole');
  return (
    <DrawerFrame title="Moves">
      <p className="mb-2 text-ink-2">
        {count === 0
          ? 'Select the layers that are to move, then pick a move.'
          : `A press gives a move to ${count === 1 ? 'the selected layer' : `the ${count} selected layers`}. It writes keyframes, and stays adjustable in the inspector.`}
      </p>
      {movers && (
        <div className="mb-3 flex flex-col gap-1">
          <span className="text-sm text-ink-2">What moves</span>
          <Segments label="What moves" value={by} options={MOVERS} onChange={setBy} />
          {by !== 'whole' && (
            <p className="text-sm text-ink-2">
              The words can change at any time: the move is a card of the text, with its keyframes and their stagger.
            </p>
          )}
        </div>
      )}
      {saved.length > 0 && (
        <section aria-label="Moves of this project" className="mb-3">
          <h3 className="mb-1 text-sm text-ink-2">Kept with this project</h3>
          <div className="grid grid-cols-2 gap-1.5">
            {saved.map(({ id, move }) => (
              <MoveTile key={id} move={move} onChoose={() => give(move)} onForget={() => editor.edit(forgetMove(id))} />
            ))}
          </div>
        </section>
      )}
      {KINDS.map(({ kind, label }) => (
        <section key={kind} aria-label={label} className="mb-3">
          <h3 className="mb-1 text-sm text-ink-2">{label}</h3>
          <div className="grid grid-cols-2 gap-1.5">
            {READY_MOVES.filter((m) => m.kind === kind).map((move) => (
              <MoveTile key={move.name} move={move} onChoose={() => give(move)} />
            ))}
          </div>
        </section>
      ))}
      <section aria-label="Routines">
        <h3 className="mb-1 text-sm text-ink-2">Routines</h3>
        <p className="mb-1.5 text-ink-2">
          Steps that several layers go through, at once or one after another; changing a step changes all of them.
        </p>
        <Button icon={<ListOrdered size={14} />} disabled={count === 0} onClick={() => startRoutine(editor)}>
          Routine for the selected
        </Button>
        {routines.length > 0 && (
          <ul className="mt-2 flex flex-col gap-0.5">
            {routines.map(({ id, name, players }) => (
              <li key={id}>
                <button
                  type="button"
                  className="flex w-full justify-between rounded-sm px-1.5 py-1 text-left hover:bg-paper-2"
                  onClick={() => editor.select({ layers: players })}
                >
                  <span className="truncate">{name}</span>
                  <span className="tabular text-ink-2">{players.length} layers</span>
                </button>
              </li>
            ))}
          </ul>
        )}
      </section>
    </DrawerFrame>
  );
};
