/** The keyboard: one table, which the help lists and the page listens by. */
import { copySelection, cutSelection, duplicateLayers } from './clipboard';
import { deleteSelection, jumpToKey, nudge, restack } from './commands';
import { leaveFullScreen, showFullScreen } from './canvas/fullScreen';
import { keyAnimated, markPlayhead, selectAllKeys, splitAtPlayhead } from './keying';
import { zoomTime } from './timeline/zoomTime';
import { groupSelection, ungroupSelection } from './arrange';
import { stepArea } from './areas';
import type { Editor } from './store/editor';
import type { Tool } from './store/state';

export interface Shortcut {
  /** As it is written on keys: `Ctrl+Shift+Z`. Ctrl is the command key on a Mac. */
  readonly keys: string;
  readonly label: string;
  readonly run: (editor: Editor) => void;
}

const tool = (keys: string, name: Tool, label: string): Shortcut => ({
  keys,
  label,
  run: (editor) => editor.set({ tool: name }),
});

export const SHORTCUTS: readonly Shortcut[] = [
  { keys: 'Space', label: 'Play or pause', run: (e) => e.togglePlay() },
  { keys: ',', label: 'One frame back', run: (e) => e.seek(e.state.frame - 1) },
  { keys: '.', label: 'One frame on', run: (e) => e.seek(e.state.frame + 1) },
  { keys: 'Home', label: 'First frame', run: (e) => e.seek(0) },
  { keys: 'End', label: 'Last frame', run: (e) => e.seek(e.scene.length - 1) },
  { keys: '[', label: 'Previous keyframe', run: (e) => jumpToKey(e, -1) },
  { keys: ']', label: 'Next keyframe', run: (e) => jumpToKey(e, 1) },
  { keys: 'A', label: 'Auto-key on or off', run: (e) => e.set({ autoKey: !e.state.autoKey }) },
  { keys: 'K', label: 'Key all that is animated on the selected layers', run: keyAnimated },
  { keys: 'M', label: 'Marker at the playhead', run: markPlayhead },
  { keys: '/', label: 'Split the selected layers at the playhead', run: splitAtPlayhead },
  { keys: 'C', label: 'Curves of what is selected', run: (e) => e.set({ curves: !e.state.curves }) },
  { keys: '=', label: 'Show less of the time', run: (e) => zoomTime(e, 1.5) },
  { keys: '-', label: 'Show more of the time', run: (e) => zoomTime(e, 1 / 1.5) },
  { keys: 'Shift+F', label: 'Show the whole time', run: (e) => e.set({ timeReach: null }) },
  tool('S', 'select', 'Select'),
  tool('D', 'path', 'Draw a path'),
  tool('R', 'rectangle', 'Rectangle'),
  tool('E', 'ellipse', 'Ellipse'),
  tool('W', 'wedge', 'Wedge'),
  tool('T', 'text', 'Text'),
  { keys: 'Ctrl+Z', label: 'Undo', run: (e) => e.undo() },
  { keys: 'Ctrl+Shift+Z', label: 'Redo', run: (e) => e.redo() },
  { keys: 'Ctrl+Y', label: 'Redo', run: (e) => e.redo() },
  { keys: 'Ctrl+C', label: 'Copy keyframes or layers', run: (e) => void copySelection(e) },
  { keys: 'Ctrl+X', label: 'Cut keyframes or layers', run: cutSelection },
  { keys: 'Ctrl+D', label: 'Duplicate layers', run: duplicateLayers },
  { keys: 'Ctrl+G', label: 'Group layers under a controller', run: groupSelection },
  { keys: 'Ctrl+Shift+G', label: 'Ungroup', run: ungroupSelection },
  {
    keys: 'Ctrl+A',
    label: 'Select all layers',
    run: (e) => e.select({ layers: e.scene.order.filter((id) => !e.scene.layers[id]?.locked) }),
  },
  { keys: 'Ctrl+Shift+A', label: 'Select all keyframes of the selected layers', run: selectAllKeys },
  { keys: 'Delete', label: 'Delete keyframes, card or layers', run: deleteSelection },
  { keys: 'Backspace', label: 'Delete keyframes, card or layers', run: deleteSelection },
  {
    keys: 'Escape',
    label: 'Select nothing; back to Select',
    run: (e) => {
      if (e.state.fullScreen) leaveFullScreen(e);
      else if (e.state.sampling) e.set({ sampling: null });
      else if (e.state.cutting) e.set({ cutting: null });
      else if (e.state.tool === 'select') e.select({});
      else e.set({ tool: 'select' });
    },
  },
  { keys: 'ArrowLeft', label: 'Nudge left by a pixel (Shift for ten)', run: (e) => nudge(e, -1, 0) },
  { keys: 'ArrowRight', label: 'Nudge right', run: (e) => nudge(e, 1, 0) },
  { keys: 'ArrowUp', label: 'Nudge up', run: (e) => nudge(e, 0, -1) },
  { keys: 'ArrowDown', label: 'Nudge down', run: (e) => nudge(e, 0, 1) },
  { keys: 'Shift+ArrowLeft', label: 'Nudge left by ten', run: (e) => nudge(e, -10, 0) },
  { keys: 'Shift+ArrowRight', label: 'Nudge right by ten', run: (e) => nudge(e, 10, 0) },
  { keys: 'Shift+ArrowUp', label: 'Nudge up by ten', run: (e) => nudge(e, 0, -10) },
  { keys: 'Shift+ArrowDown', label: 'Nudge down by ten', run: (e) => nudge(e, 0, 10) },
  { keys: 'Ctrl+ArrowUp', label: 'One place to the front', run: (e) => restack(e, -1) },
  { keys: 'Ctrl+ArrowDown', label: 'One place to the back', run: (e) => restack(e, 1) },
  { keys: 'F6', label: 'To the next part of the editor (Shift for the one before)', run: () => stepArea(1) },
  { keys: 'Shift+F6', label: 'To the part before', run: () => stepArea(-1) },
  { keys: 'F', label: 'Full screen', run: showFullScreen },
  { keys: '0', label: 'Fit the scene to the canvas', run: (e) => e.set({ view: null }) },
];

const NAMES: Readonly<Record<string, string>> = { ' ': 'Space' };

const keysOf = (event: KeyboardEvent): string => {
  const name = NAMES[event.key] ?? (event.key.length === 1 ? event.key.toUpperCase() : event.key);
  const ctrl = event.ctrlKey || event.metaKey ? 'Ctrl+' : '';
  // Shift is part of what a sign such as ? is; for letters and named keys it is a modifier.
  const shift = event.shiftKey && /^[A-Z]$|^\w{2,}$/.test(name) ? 'Shift+' : '';
  return ctrl + shift + name;
};

const byKeys = new Map(SHORTCUTS.map((s) => [s.keys, s]));

export const takesText = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || target.matches('textarea, select, input:not([type=checkbox], [type=radio])'));

/** Runs the shortcut of a key event; true if there is one. */
export const runShortcut = (editor: Editor, event: KeyboardEvent): boolean => {
  if (event.defaultPrevented || takesText(event.target) || event.altKey) return false;
  if (event.target instanceof Element) {
    // A menu or dialog has its own keys; a button that was reached by keyboard is pressed by Space.
    if (event.target.closest('[role=dialog],[role=menu]')) return false;
    if (event.key === ' ' && event.target.matches('button:focus-visible,a:focus-visible')) return false;
    if (event.key.startsWith('Arrow') && event.target.closest('[role=radiogroup]')) return false;
  }
  const shortcut = byKeys.get(keysOf(event));
  if (!shortcut) return false;
  event.preventDefault();
  shortcut.run(editor);
  return true;
};
