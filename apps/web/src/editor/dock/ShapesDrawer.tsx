import { SELECTING, toolOf, withTool } from '../store/workspace';
import { bareFlow, CardPicture } from '../inspector/recipe/CardPicture';
import { Button } from '../../ui/Button';
import { COMMANDS } from '../commands/table';
import { addShape, addText } from '../commands/layers';
import { newItem } from '@kite/core/document/make';
import type { KeyboardEvent } from 'react';
import { focusLayer } from '../commands/areas';
import { SHAPE_TOOLS, type ShapeTool } from '../canvas/tools/drawShape';
import { TOOLS } from '../canvas/tools/table';
import { useEditor, useSlice } from '../store/context';
import { DrawerFrame } from './DrawerFrame';

const pictures = Object.fromEntries(
  SHAPE_TOOLS.map((kind) => {
    const shape = newItem('shape', kind);
    const ink = kind === 'line' ? newItem('ink', 'stroke', { width: 14 }) : newItem('ink', 'fill');
    return [kind, { shape, ink }];
  }),
);

/** A click arms a tool that draws on the canvas; a double click, or Enter, puts the shape in the middle. */
export const ShapesDrawer = () => {
  const editor = useEditor();
  const tool = useSlice((s) => toolOf(s.mode));
  const put = (kind: ShapeTool, label: string) => {
    const id = addShape(editor, kind, label, {});
    editor.set({ mode: SELECTING });
    return id;
  };
  /** A press of a key puts the shape in the middle, and goes to what was made; a click arms the tool. */
  const onKey = (event: KeyboardEvent, make: () => string) => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    focusLayer(make());
  };
  return (
    <DrawerFrame title="Shapes">
      <div className="grid grid-cols-2 gap-2">
        {SHAPE_TOOLS.map((kind) => {
          const { label, keys } = TOOLS[kind];
          const { shape, ink } = pictures[kind] as {
            shape: ReturnType<typeof newItem>;
            ink: ReturnType<typeof newItem>;
          };
          return (
            <button
              key={kind}
              type="button"
              aria-pressed={tool === kind}
              onClick={() => editor.set({ mode: withTool(kind) })}
              onDoubleClick={() => put(kind, label)}
              onKeyDown={(event) => onKey(event, () => put(kind, label))}
              className={`flex flex-col items-center gap-1 rounded-md border pt-2 pb-1.5 ${tool === kind ? 'border-sky bg-sky-2' : 'border-line hover:bg-paper-2'}`}
            >
              <CardPicture
                flow={() => bareFlow(['shape', 'ink'], { shape, ink })}
                from={[shape, ink]}
                width={64}
                height={46}
              />
              <span>
                {label}
                {keys && <span className="ml-1.5 text-xs text-ink-2">{keys}</span>}
              </span>
            </button>
          );
        })}
        <button
          type="button"
          aria-pressed={tool === 'text'}
          onClick={() => editor.set({ mode: withTool('text') })}
          onDoubleClick={() => addText(editor, [editor.scene.width / 2, editor.scene.height / 2])}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            addText(editor, [editor.scene.width / 2, editor.scene.height / 2]);
          }}
          className={`flex flex-col items-center gap-1 rounded-md border pt-2 pb-1.5 ${tool === 'text' ? 'border-sky bg-sky-2' : 'border-line hover:bg-paper-2'}`}
        >
          <span className="grid h-[46px] place-items-center text-[34px] leading-none font-semibold">Aa</span>
          <span>
            Text<span className="ml-1.5 text-xs text-ink-2">T</span>
          </span>
        </button>
      </div>
      <p className="mt-3 text-ink-2">
        Pick one and drag on the canvas: Shift keeps sides equal, Alt draws from the centre. A double click or Enter
        puts it in the middle of the scene.
      </p>
      <Button className="mt-3" onClick={() => COMMANDS.newSolid.run(editor)}>
        {COMMANDS.newSolid.label}
      </Button>
    </DrawerFrame>
  );
};
