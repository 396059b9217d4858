import { useState } from 'react';
import { callMyself, myself } from '../../app/person';
import { Panel } from '../../ui/Panel';
import { useEditor, useSlice } from '../store/context';
import { Badge } from './Badge';
import { nameOf } from './looks';

const MOST_SHOWN = 3;

const MyName = () => {
  const editor = useEditor();
  const [name, setName] = useState(myself().name);
  const keep = () => {
    if (name.trim() === '') return setName(myself().name);
    callMyself(name);
    editor.sayWhere();
  };
  return (
    <label className="flex flex-col gap-1 border-t border-line px-3 py-2">
      <span className="text-ink-2">Your name, as others see it</span>
      <input
        value={name}
        maxLength={80}
        className="h-[28px] rounded-md bg-paper-2 px-2"
        onChange={(event) => setName(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => event.key === 'Enter' && keep()}
      />
    </label>
  );
};

/** Who else is in the project, and where. */
export const People = () => {
  const editor = useEditor();
  const { others, scenes } = useSlice((s) => ({ others: s.others, scenes: s.doc.scenes }));
  const says = others.length === 1 ? '1 other is here' : `${others.length} others are here`;
  return (
    <Panel
      label="Who is here"
      side="bottom"
      align="end"
      className="w-[280px]"
      opener={
        <button
          type="button"
          aria-label={says}
          title={says}
          className="flex items-center rounded-md px-1 py-0.5 hover:bg-paper-2"
        >
          <span className="flex -space-x-1.5">
            {others.slice(0, MOST_SHOWN).map((here) => (
              <Badge key={here.tab} here={here} />
            ))}
          </span>
          {others.length > MOST_SHOWN && <span className="pl-1 text-sm text-ink-2">+{others.length - MOST_SHOWN}</span>}
        </button>
      }
    >
      <ul className="py-1">
        {others.map((here) => {
          const scene = here.scene === null ? undefined : scenes[here.scene];
          const names = here.layers.flatMap((id) => scene?.layers[id]?.name ?? []);
          return (
            <li key={here.tab}>
              <button
                type="button"
                disabled={!scene}
                title="Go to the scene"
                className="flex w-full items-center gap-2 px-3 py-1.5 text-left hover:bg-paper-2"
                onClick={() => scene && editor.showScene(scene.id)}
              >
                <Badge here={here} />
                <span className="min-w-0">
                  <span className="block truncate font-medium">{nameOf(here, myself().id)}</span>
                  <span className="block truncate text-sm text-ink-2">
                    {scene ? `In ${scene.name}` : 'In a scene that is gone'}
                    {names.length > 0 && `, at ${names.join(', ')}`}
                  </span>
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      <MyName />
    </Panel>
  );
};
