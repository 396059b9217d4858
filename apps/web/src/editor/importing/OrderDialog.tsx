import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { useEditor, useSlice } from '../store/context';
import { type ImportOrder, placeAssets, rememberImportOrder } from './importFiles';

/** Asked once: which of several pictures goes in front. */
export const OrderDialog = () => {
  const editor = useEditor();
  const ordering = useSlice((s) => s.ordering);
  if (!ordering) return null;
  const names = ordering.assets.filter((a) => a.kind === 'picture').map((a) => a.name);
  const close = () => editor.set({ ordering: null });
  const choose = (order: ImportOrder) => {
    rememberImportOrder(order);
    close();
    placeAssets(editor, ordering.assets, order, ordering.at ?? undefined);
  };
  return (
    <Dialog open onClose={close} title={`Which of the ${names.length} pictures goes in front?`} width={440}>
      <p className="text-ink-2">
        They keep the order in which they were chosen. This is remembered; it can be changed in Pictures and fonts.
      </p>
      <div className="mt-3 grid grid-cols-2 gap-2">
        {(['first-in-front', 'first-behind'] as const).map((order) => {
          const shown = order === 'first-in-front' ? names : names.toReversed();
          return (
            <div key={order} className="flex flex-col gap-2 rounded-md border border-line p-2">
              <ol className="flex flex-col gap-px text-sm">
                {shown.slice(0, 5).map((name, i) => (
                  <li key={i} className="truncate rounded-sm bg-paper-2 px-1.5">
                    {name}
                  </li>
                ))}
                {shown.length > 5 && <li className="px-1.5 text-ink-2">and {shown.length - 5} more</li>}
              </ol>
              <Button
                look={order === 'first-in-front' ? 'primary' : 'outline'}
                className="mt-auto"
                onClick={() => choose(order)}
              >
                {order === 'first-in-front' ? 'First in front' : 'First behind'}
              </Button>
            </div>
          );
        })}
      </div>
    </Dialog>
  );
};
