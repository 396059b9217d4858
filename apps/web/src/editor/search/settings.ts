/** Settings as they are searched for: switched at once, or gone to where they are set. */
import { type Aids, setAids, useAids } from '../canvas/looks/aids';
import { ONION } from '../canvas/looks/onion';
import { toast } from '../../ui/toast';
import type { Editor } from '../store/editor';
import type { EditorState } from '../store/state';

export interface Setting {
  readonly id: string;
  readonly label: string;
  /** Other words by which it is found. */
  readonly also: string;
  readonly run: (editor: Editor) => void;
}

/** Puts the focus into a field of the scene's own card, or says why it is not there. */
const toField =
  (label: string, missing = '') =>
  (editor: Editor) => {
    const { hiding } = editor.state;
    editor.set({ hiding: { ...hiding, inspector: false } });
    editor.select({});
    requestAnimationFrame(() => {
      const field = document.querySelector<HTMLElement>(`[data-area="inspector"] [aria-label^="${label}"]`);
      if (field) field.focus();
      else toast.info(missing);
    });
  };

/** Opens the menu of checks: how strict they are stands at its foot. */
const toChecks = () => document.querySelector<HTMLElement>('[data-testid=checks]')?.click();

const turn = (key: Exclude<keyof Aids, 'gridSize'>) => () => setAids({ [key]: !useAids.getState()[key] });

/** The page has it from the start. */
const turnTheme = () => void import('../../app/theme').then(({ useTheme }) => useTheme.getState().toggle());

const flip = (key: 'onlyAnimated' | 'allScenes' | 'showTucked') => (editor: Editor) =>
  editor.set({ [key]: !editor.state[key] });

const plays = (how: EditorState['how']) => (editor: Editor) => editor.set({ how });

const NOT_DEEP = 'It stands in the scene’s card once something is in depth.';

export const SETTINGS: readonly Setting[] = [
  {
    id: 'theme',
    label: 'Daylight or dusk colours',
    also: 'theme dark mode light',
    run: turnTheme,
  },
  { id: 'snap', label: 'Snapping on or off', also: 'magnet align stick', run: turn('snap') },
  { id: 'rulers', label: 'Rulers on or off', also: 'measure pixels', run: turn('rulers') },
  { id: 'guides', label: 'Guides on or off', also: 'helplines align', run: turn('guides') },
  { id: 'thirds', label: 'Thirds on or off', also: 'composition golden', run: turn('thirds') },
  { id: 'safe', label: 'Safe areas on or off', also: 'margins broadcast title', run: turn('safe') },
  { id: 'grid', label: 'Grid on or off', also: 'raster squares', run: turn('grid') },
  {
    id: 'onion',
    label: 'Onion skin on or off',
    also: 'ghost frames around',
    run: (e) => e.set({ onion: e.state.onion ? null : ONION }),
  },
  { id: 'loop', label: 'Play in a loop', also: 'repeat endless', run: plays('loop') },
  { id: 'once', label: 'Play once', also: 'single stop', run: plays('once') },
  { id: 'swing', label: 'Play to and fro', also: 'pingpong ping pong backwards', run: plays('swing') },
  { id: 'through', label: 'Play through all scenes', also: 'continuous film', run: plays('through') },
  {
    id: 'onlyAnimated',
    label: 'Only animated layers in the list',
    also: 'filter keyframed',
    run: flip('onlyAnimated'),
  },
  {
    id: 'allScenes',
    label: 'Ribbons of all scenes in the timeline',
    also: 'overview together',
    run: flip('allScenes'),
  },
  { id: 'showTucked', label: 'Tucked layers in the list', also: 'hidden away', run: flip('showTucked') },
  {
    id: 'width',
    label: 'Width of the scene',
    also: 'dimensions size resolution resize aspect ratio',
    run: toField('Scene width'),
  },
  {
    id: 'height',
    label: 'Height of the scene',
    also: 'dimensions size resolution resize aspect ratio',
    run: toField('Scene height'),
  },
  { id: 'rate', label: 'Frame rate of the scene', also: 'fps speed', run: toField('Scene frame rate') },
  { id: 'length', label: 'Length of the scene', also: 'duration seconds', run: toField('Scene length') },
  { id: 'poster', label: 'Poster of the scene', also: 'thumbnail fallback cover', run: toField('Poster frame') },
  { id: 'eye', label: 'Angle of view', also: 'perspective lens camera', run: toField('Angle of view', NOT_DEEP) },
  { id: 'light', label: 'Light of the scene', also: 'shading lamp sun', run: toField('Light from', NOT_DEEP) },
  {
    id: 'background',
    label: 'Background of the scene',
    also: 'ground transparent',
    run: toField('Background', 'The scene has no background: its card gives it one.'),
  },
  { id: 'checks', label: 'How strict checks are', also: 'rules warnings contrast', run: toChecks },
];
