/** What the keyboard is for, by subject: the help and the keyboard's dialog read this. */
import { TOOL_NAMES, TOOLS } from '../canvas/tools/table';
import { type Command, type CommandName, COMMANDS, keysOf } from './table';

const SUBJECTS: Readonly<Record<string, readonly CommandName[]>> = {
  'Finding and undoing': ['search', 'undo', 'redo', 'giveUp', 'areaOn', 'areaBack'],
  'Playing and going through time': ['play', 'back', 'on', 'first', 'last', 'keyBefore', 'keyAfter', 'mark'],
  'Keyframes and curves': ['autoKey', 'keyAnimated', 'selectKeys', 'curves', 'timeLess', 'timeMore', 'timeWhole'],
  Layers: ['selectAll', 'copy', 'cut', 'paste', 'duplicate', 'remove', 'group', 'ungroup', 'split', 'drawMasks'],
  'Moving and ordering': [
    'nudgeLeft',
    'nudgeRight',
    'nudgeUp',
    'nudgeDown',
    'stepLeft',
    'stepRight',
    'stepUp',
    'stepDown',
    'toFront',
    'toBack',
    'wholeFront',
    'wholeBack',
  ],
  'Poses and cels': ['keepPose', 'nextPose', 'celOn', 'celEmpty', 'celBefore', 'celAfter'],
  Looking: ['fit', 'fullScreen', 'aside', 'foldTimeline', 'foldInspector'],
};

export interface Shortcut {
  readonly label: string;
  readonly keys: readonly string[];
}

const shortcutOf = (command: Command): Shortcut => ({
  label: command.label,
  keys: command.keys ?? [keysOf(command) as string],
});

export const SHORTCUTS: readonly (readonly [subject: string, shortcuts: readonly Shortcut[]])[] = [
  [
    'Tools',
    TOOL_NAMES.flatMap((tool) => {
      const { label, keys } = TOOLS[tool];
      return keys ? [{ label, keys: [keys] }] : [];
    }),
  ],
  ...Object.entries(SUBJECTS).map(
    ([subject, names]) => [subject, names.map((name) => shortcutOf(COMMANDS[name]))] as const,
  ),
];
