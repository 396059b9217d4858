/** All that can be searched for in the editor, and what it does. */
import type { Params } from '@kite/core/document/params';
import { KINDS } from '@kite/core/recipe/table';
import { READY_MOVES } from '@kite/core/moves/ready';
import MiniSearch from 'minisearch';
import { toast } from '../../ui/toast';
import { TOOL_NAMES, TOOLS } from '../canvas/tools/table';
import { addCardTo } from '../commands/cards';
import { drawingFor } from '../commands/masks';
import { giveMove } from '../commands/moves';
import { GUIDE, MADE } from '../../pages/help/guide';
import { COMMANDS, type CommandName, keysOf } from '../commands/table';
import type { Editor } from '../store/editor';
import { type Drawer, withTool } from '../store/workspace';
import { SETTINGS } from './settings';
import { CARDS_ALSO, COMMANDS_ALSO, HELP_ALSO, MOVES_ALSO, TOOLS_ALSO } from './names';

export interface SearchEntry {
  readonly id: string;
  readonly group: 'Commands' | 'Tools' | 'Cards and effects' | 'Moves' | 'Places' | 'Settings' | 'Help';
  readonly label: string;
  readonly keys?: string;
  /** Other words by which it is found. */
  readonly also: string;
  /** What is in it: the names of a card's values. */
  readonly parts?: string;
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

/** The names of values, and of what is chosen by them. */
const partsOf = (params: Params): string =>
  Object.values(params)
    .flatMap((param) => [param.label, ...(param.kind === 'choice' ? param.choices.map(({ label }) => label) : [])])
    .join(' ');

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
    .map(({ kind, label, params }): SearchEntry => ({
      id: `card ${kind}`,
      group: 'Cards and effects',
      label,
      also: CARDS_ALSO[kind] ?? '',
      parts: partsOf(params),
      run: (editor) => giveCard(editor, kind),
    })),
  ...READY_MOVES.map((move): SearchEntry => ({
    id: `move ${move.name}`,
    group: 'Moves',
    label: move.name,
    also: `${MOVES_ALSO[move.name] ?? ''} ${move.kind} animation`,
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
    id: 'place versions',
    group: 'Places',
    label: 'Versions',
    also: 'languages localize translate variants table spreadsheet csv data batch names',
    run: (editor, go) => go(`/projects/${editor.state.doc.id}/versions`),
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

/** What an entry is called counts most, then what else it might be, then what it has. A page about something stands behind what does it. */
const WEIGHTS = { label: 4, also: 2, parts: 0.5 };
const ABOUT_IT = 0.5;

const INDEX = new MiniSearch<SearchEntry>({
  fields: Object.keys(WEIGHTS),
  searchOptions: {
    boost: WEIGHTS,
    prefix: true,
    // One letter in five may be wrong.
    fuzzy: (word) => (word.length > 3 ? 0.2 : false),
    boostDocument: (id: string) => (id.startsWith('help ') ? ABOUT_IT : 1),
  },
});
INDEX.addAll(ENTRIES);
const BY_ID = new Map(ENTRIES.map((entry) => [entry.id, entry]));

/** Of what is found, what is this much less near than the nearest is left out: a word that only sounds like it. */
const FAR = 0.1;

/** What is found, the nearest first: by all of its words, or else by any of them; all there is, in its order, for nothing. */
export const found = (text: string): readonly SearchEntry[] => {
  if (text.trim() === '') return ENTRIES;
  const by = (combineWith: 'AND' | 'OR') => {
    const near = INDEX.search(text, { combineWith });
    return near
      .filter(({ score }) => score >= (near[0]?.score ?? 0) * FAR)
      .flatMap(({ id }) => BY_ID.get(id as string) ?? []);
  };
  const all = by('AND');
  return all.length > 0 ? all : by('OR');
};
