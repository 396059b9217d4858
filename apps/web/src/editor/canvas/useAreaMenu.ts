import type { Id } from '@kite/core/document/types';
import { type MouseEvent, useRef } from 'react';
import type { MenuEntry } from '../../ui/Menu';
import { layerMenu } from '../commands/layerMenu';
import { entryOf } from '../commands/table';
import { useEditor } from '../store/context';
import { layerAt } from './hit';
import type { Stage } from './stage';
import { toScene } from './view';

/** What can be done where no layer is. */
const SCENE_MENU = [
  'selectAll',
  null,
  'addChart',
  'addController',
  'addCamera',
  'addCover',
  null,
  'fit',
  'fullScreen',
  'search',
] as const;

/** Whether keys ask for a menu: else it is the second button, the main one with the control key of a Mac, or a finger. */
const isMenuKey = ({ type, button, ctrlKey, nativeEvent }: MouseEvent): boolean =>
  type === 'contextmenu' &&
  button !== 2 &&
  !ctrlKey &&
  !['touch', 'pen'].includes((nativeEvent as PointerEvent).pointerType);

/** The menu of the canvas: that of the layer that was pressed, or of what is selected where keys ask for it; else of the scene. */
export const useAreaMenu = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const pressed = useRef<Id | null>(null);
  return {
    /** Told of each press that may ask for the menu, before it opens. */
    note: (event: MouseEvent): void => {
      const [selected = null] = editor.state.selection.layers;
      pressed.current =
        isMenuKey(event) && selected !== null
          ? selected
          : layerAt(editor, toScene(view, pointOf(event)), 4 / view.zoom);
    },
    entries: (): (MenuEntry | null)[] => {
      const layer = editor.scene.layers[pressed.current ?? ''];
      return layer ? layerMenu(editor, layer) : SCENE_MENU.map((name) => name && entryOf(editor, name));
    },
  };
};
