import type { Scene } from '@kite/core/document/types';
import { type Adapting, adaptScene } from '@kite/core/edits/adapt';
import type { Size } from '@kite/core/geometry/size';
import { Button } from '../../../ui/Button';
import { useEditor } from '../../store/context';
import { makeId } from '../../store/editor';

const WAYS: readonly (readonly [how: Adapting, label: string, means: string])[] = [
  ['fit', 'Fit', 'All of it is seen'],
  ['fill', 'Fill', 'All of the scene is covered'],
  ['middle', 'Middle', 'As large as it was, in the middle'],
];

/** What becomes of what was made for another size. */
export const AdaptSize = ({ scene, from, onDone }: { scene: Scene; from: Size; onDone: () => void }) => {
  const editor = useEditor();
  return (
    <div role="group" aria-label="Adapt the content" className="rounded-md bg-sun-2 p-2">
      <p className="mb-1.5">
        What is in the scene was made for {from.width} × {from.height}.
      </p>
      <div className="flex gap-1">
        {WAYS.map(([how, label, means]) => (
          <Button
            key={how}
            title={means}
            className="!h-[26px] flex-1 !px-1"
            onClick={() => {
              editor.edit(adaptScene(scene.id, from, how, makeId()));
              onDone();
            }}
          >
            {label}
          </Button>
        ))}
        <Button look="plain" title="It stays where it is" className="!h-[26px] !px-1.5" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </div>
  );
};
