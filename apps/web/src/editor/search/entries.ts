/** All that can be searched for in the editor, and what it does. */
import { KINDS } from '@kite/core/recipe/table';
import { READY_MOVES } from '@kite/core/moves/ready';
import { defaultFilter } from 'cmdk';
import { toast } from 'sonner';
import { TOOL_NAMES, TOOLS } from '../canvas/tools/table';
import { addCardTo } from '../commands/cards';
import { drawingFor } from '../commands/masks';
import { giveMove } from '../commands/moves';
import { GUIDE, MADE } from '../../pages/help/guide';
import { COMMANDS, type CommandName, keysOf } from '../commands/table';
import type { Editor } from '../store/editor';
import { type Drawer, withTool } from '../store/workspace';
import { SETTINGS } from './settings';
import { CARDS_ALSO, COMMANDS_ALSO, HELP_ALSO, TOOLS_ALSO } from './names';

export interface SearchEntry {
  readonly id: string;
  readonly group: 'Commands' | 'Tools' | 'Cards and effects' | 'Moves' | 'Places' | 'Settings' | 'Help';
  readonly label: string;
  readonly keys?: string;
  /** Other words by which it is found. */
  readonly also: string;
  readonly run: (editor: Editor, go: (to: string) => void) => void;
}

/** A card goes to the one drawing that is selected. */
const giveCard = (editor: Editor, kind: string): void => {
  const layer = drawingFor(editor, 'the card is for');
  if (layer) addCardTo(editor, layer, kind, null);
};

const DRAWERS: readonly (readonly [drawer: NonNullable<Drawer>, label: string, also: string])[] = [
  ['shapes', 'Shapes', 'add shape rectangle ellipse drawer'],
  ['moves', 'Moves', 'presets animation entrance exit ready'],
  ['poses', 'Poses', 'states snapshots slides'],
  ['replace', 'Replace words, pictures and colours', 'swap text template placeholder edit'],
  ['assets', 'Pictures and fonts', 'import files media library upload'],
  ['colours', 'Colours', 'swatches palette brand'],
  ['history', 'History', 'undo list steps earlier'],
];

export const ENTRIES: readonly SearchEntry[] = [
  ...(Object.keys(COMMANDS) as CommandName[])
    .filter((name) => name !== 'search')
    .map((name): SearchEntry => {
      const keys = keysOf(COMMANDS[name]);
      return {
        id: `command ${name}`,
        group: 'Commands',
        label: COMMANDS[name].label,
        ...(keys !== undefined && { keys }),
        also: COMMANDS_ALSO[name],
        run: (editor) => COMMANDS[name].run(editor),
      };
    }),
  ...TOOL_NAMES.map((tool): SearchEntry => {
    const { label, keys } = TOOLS[tool];
    const run = (editor: Editor) => editor.set({ mode: withTool(tool) });
    return { id: `tool ${tool}`, group: 'Tools', label, ...(keys && { keys }), also: `${TOOLS_ALSO[tool]} tool`, run };
  }),
  ...[...KINDS.values()]
    .filter(({ role }) => role !== 'setting')
    .map(({ kind, label }): SearchEntry => ({
      id: `card ${kind}`,
      group: 'Cards and effects',
      label,
      also: CARDS_ALSO[kind] ?? '',
      run: (editor) => giveCard(editor, kind),
    })),
  ...READY_MOVES.map((move): SearchEntry => ({
    id: `move ${move.name}`,
    group: 'Moves',
    label: move.name,
    also: `${move.kind} animation`,
    run: (editor) => {
      if (editor.state.selection.layers.length === 0) toast.info('Select the layers that are to move.');
      else giveMove(editor, move);
    },
  })),
  ...DRAWERS.map(([drawer, label, also]): SearchEntry => ({
    id: `drawer ${drawer}`,
    group: 'Places',
    label,
    also,
    run: (editor) => editor.set({ drawer }),
  })),
  {
    id: 'place deliveries',
    group: 'Places',
    label: 'Deliveries',
    also: 'batch export files client',
    run: (editor, go) => go(`/projects/${editor.state.doc.id}/deliveries`),
  },
  {
    id: 'place renders',
    group: 'Places',
    label: 'Renders',
    also: 'exports queue files',
    run: (_editor, go) => go('/renders'),
  },
  {
    id: 'place projects',
    group: 'Places',
    label: 'Projects',
    also: 'home all open starters',
    run: (_editor, go) => go('/'),
  },
  ...SETTINGS.map(({ id, label, also, run }): SearchEntry => ({
    id: `setting ${id}`,
    group: 'Settings',
    label,
    also,
    run,
  })),
  ...[...GUIDE, ...MADE].map(({ slug, title }): SearchEntry => ({
    id: `help ${slug}`,
    group: 'Help',
    label: `Help: ${title}`,
    also: HELP_ALSO[slug] ?? '',
    run: (_editor, go) => go(`/help/${slug}`),
  })),
];

/** A page about something stands behind what does it. */
const ABOUT_IT = 0.8;

/** How near what is searched for comes to an entry, 0..1: each of its words by itself, in whatever order; 0 where one is not in it. */
const nearness = ({ group, label, also }: SearchEntry, words: readonly string[]): number =>
  words.reduce((all, word) => all * defaultFilter(label, word, also.split(' ')), group === 'Help' ? ABOUT_IT : 1);

/** Of what is found, what is this much less near than the nearest is left out: letters that happen to be there in that order. */
const FAR = 0.02;

/** What is found, the nearest first; all there is, in its order, for nothing. */
export const found = (text: string): readonly SearchEntry[] => {
  const words = text.split(/\s+/).filter((word) => word !== '');
  if (words.length === 0) return ENTRIES;
  const near = ENTRIES.map((entry) => ({ entry, by: nearness(entry, words) })).toSorted((a, b) => b.by - a.by);
  const most = near[0]?.by ?? 0;
  return near.filter(({ by }) => by > 0 && by >= most * FAR).map(({ entry }) => entry);
};
