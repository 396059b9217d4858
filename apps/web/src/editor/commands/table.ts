/** What can be done to the open project by one press: menus, buttons, the keyboard and its help read this. */
import { FREE_LOOK, SELECTING, withTool } from '../store/workspace';
import type { MenuEntry } from '../../ui/Menu';
import { leaveFullScreen, showFullScreen } from '../canvas/looks/fullScreen';
import { TOOL_NAMES, TOOLS } from '../canvas/tools/table';
import type { Editor } from '../store/editor';
import { zoomTime } from '../timeline/zoomTime';
import { stepArea } from './areas';
import {
  alignChosen,
  distributeChosen,
  flipSelection,
  groupSelection,
  joinSelection,
  ungroupSelection,
} from './arrange';
import { celOfShown, nextCel, stepCel } from './cels';
import { copySelection, cutSelection, duplicateLayers, pasteCopied } from './clipboard';
import { setOfSelection } from './formulas';
import { keyCorners } from './joints';
import {
  extendSelection,
  keyAnimated,
  markPlayhead,
  repeatFirst,
  reverseSelection,
  selectAllKeys,
  smoothSelection,
  splitAtPlayhead,
} from './keying';
import {
  addCamera,
  addChart,
  addController,
  addCover,
  addTextOn,
  deleteSelection,
  hideSelection,
  jumpToKey,
  lockOthers,
  lockSelection,
  nudge,
  restack,
  restackFully,
  splitTextLayer,
} from './layers';
import { cutByFront } from './mattes';
import { keepHere } from './poses';
import { blurMoving } from './motionBlur';
import { writeOn } from './reveal';
import { drawingFor, laySelection, maskSelection } from './masks';
import { cutFourShots, cutShotsAtMarkers, nestSelection } from './nesting';

export interface Command {
  readonly label: string;
  /** As they are written on keys: `Ctrl+Shift+Z`, each by itself. Ctrl is the command key on a Mac. */
  readonly keys?: readonly string[];
  /** The browser does it by these: they are shown, and not listened for. */
  readonly browser?: string;
  readonly danger?: true;
  readonly run: (editor: Editor) => void;
}

/** Gives up what is under way, from the inside out. */
const giveUp = (editor: Editor): void => {
  const { fullScreen, mode } = editor.state;
  if (fullScreen) leaveFullScreen(editor);
  else if (mode.kind === 'sampling') editor.set({ mode: mode.then });
  else if (mode === SELECTING) editor.select({});
  else editor.set({ mode: SELECTING, drawsAs: null });
};

const fold = (editor: Editor, part: 'timeline' | 'inspector'): void => {
  const { hiding } = editor.state;
  editor.set({ hiding: { ...hiding, [part]: !hiding[part] } });
};

const tools = Object.fromEntries(
  TOOL_NAMES.map((tool): [string, Command] => {
    const { label, keys } = TOOLS[tool];
    return [tool, { label, ...(keys && { keys: [keys] }), run: (e) => e.set({ mode: withTool(tool) }) }];
  }),
);

const commands = {
  play: { label: 'Play or pause', keys: ['Space'], run: (e) => e.togglePlay() },
  back: { label: 'One frame back', keys: [','], run: (e) => e.seek(e.state.frame - 1) },
  on: { label: 'One frame on', keys: ['.'], run: (e) => e.seek(e.state.frame + 1) },
  first: { label: 'First frame', keys: ['Home'], run: (e) => e.seek(0) },
  last: { label: 'Last frame', keys: ['End'], run: (e) => e.seek(e.scene.length - 1) },
  keyBefore: { label: 'Previous keyframe', keys: ['['], run: (e) => jumpToKey(e, -1) },
  keyAfter: { label: 'Next keyframe', keys: [']'], run: (e) => jumpToKey(e, 1) },
  autoKey: { label: 'Auto-key on or off', keys: ['A'], run: (e) => e.set({ autoKey: !e.state.autoKey }) },
  keyAnimated: { label: 'Key all that is animated', keys: ['K'], run: keyAnimated },
  keepPose: { label: 'Keep as a pose', keys: ['Shift+K'], run: (e) => keepHere(e, false) },
  nextPose: { label: 'Keep as the next picture', keys: ['Alt+K'], run: (e) => keepHere(e, true) },
  celOn: { label: 'Go on with a cel at the playhead', keys: ['N'], run: (e) => nextCel(e, 'copy') },
  celEmpty: { label: 'Empty cel at the playhead', keys: ['Shift+N'], run: (e) => nextCel(e, 'empty') },
  celShown: { label: 'Cel from what lies behind', run: (e) => void celOfShown(e) },
  celBefore: { label: 'Cel before', keys: ['Alt+,'], run: (e) => stepCel(e, -1) },
  celAfter: { label: 'Cel after', keys: ['Alt+.'], run: (e) => stepCel(e, 1) },
  keyCorners: { label: 'Key all corners of pins', run: keyCorners },
  mark: { label: 'Marker at the playhead', keys: ['M'], run: markPlayhead },
  split: { label: 'Split at the playhead', keys: ['/'], run: splitAtPlayhead },
  curves: { label: 'Curves of what is selected', keys: ['C'], run: (e) => e.set({ curves: !e.state.curves }) },
  timeLess: { label: 'Show less of the time', keys: ['='], run: (e) => zoomTime(e, 1.5) },
  timeMore: { label: 'Show more of the time', keys: ['-'], run: (e) => zoomTime(e, 1 / 1.5) },
  timeWhole: { label: 'Show the whole time', keys: ['Shift+F'], run: (e) => e.set({ timeReach: null }) },
  undo: { label: 'Undo', keys: ['Ctrl+Z'], run: (e) => e.undo() },
  redo: { label: 'Redo', keys: ['Ctrl+Shift+Z', 'Ctrl+Y'], run: (e) => e.redo() },
  copy: { label: 'Copy keyframes or layers', keys: ['Ctrl+C'], run: (e) => void copySelection(e) },
  cut: { label: 'Cut keyframes or layers', keys: ['Ctrl+X'], run: cutSelection },
  paste: { label: 'Paste at the playhead', browser: 'Ctrl+V', run: pasteCopied },
  duplicate: { label: 'Duplicate layers', keys: ['Ctrl+D'], run: duplicateLayers },
  group: { label: 'Group layers', keys: ['Ctrl+G'], run: groupSelection },
  ungroup: { label: 'Ungroup', keys: ['Ctrl+Shift+G'], run: ungroupSelection },
  join: { label: 'Join into one drawing', run: joinSelection },
  makeSet: { label: 'Make a set', run: setOfSelection },
  nest: { label: 'Nest in a scene of their own', run: nestSelection },
  useAsMask: { label: 'Use the front one as a mask', run: maskSelection },
  layAlong: { label: 'Lay along a path', run: laySelection },
  motionBlur: { label: 'Blur by motion', run: blurMoving },
  cutPanes: {
    label: 'Cut into panes …',
    run: (e) => e.set({ paning: drawingFor(e, 'is to be cut')?.id ?? null }),
  },
  makeSolid: {
    label: 'Make a box, card, fan or stack …',
    run: (e) => {
      const layer = drawingFor(e, 'is to be its front');
      if (layer) e.set({ building: { layer: layer.id } });
    },
  },
  putText: { label: 'Put a text on it', run: addTextOn },
  splitLetters: { label: 'Split into letters', run: (e) => splitTextLayer(e, 'letters') },
  splitWords: { label: 'Split into words', run: (e) => splitTextLayer(e, 'words') },
  splitLines: { label: 'Split into lines', run: (e) => splitTextLayer(e, 'lines') },
  shots: { label: 'Cut into four shots', run: cutFourShots },
  shotsAtMarkers: { label: 'Cut into shots at the markers', run: cutShotsAtMarkers },
  writeOn: { label: 'Write on by strokes …', run: writeOn },
  useAsMatte: { label: 'Cut the others by the front one', run: cutByFront },
  drawMasks: {
    label: 'Draw the next shape as a mask',
    keys: ['Shift+M'],
    run: (e) => e.set({ drawsAs: e.state.drawsAs === 'mask' ? 'layer' : 'mask' }),
  },
  alignLeft: { label: 'Align left edges', run: (e) => alignChosen(e, 'left') },
  alignCentre: { label: 'Align centres', run: (e) => alignChosen(e, 'centre') },
  alignRight: { label: 'Align right edges', run: (e) => alignChosen(e, 'right') },
  alignTop: { label: 'Align top edges', run: (e) => alignChosen(e, 'top') },
  alignMiddle: { label: 'Align middles', run: (e) => alignChosen(e, 'middle') },
  alignBottom: { label: 'Align bottom edges', run: (e) => alignChosen(e, 'bottom') },
  gapsAcross: { label: 'Equal gaps across', run: (e) => distributeChosen(e, 0) },
  gapsDown: { label: 'Equal gaps down', run: (e) => distributeChosen(e, 1) },
  flipAcross: { label: 'Flip left to right', run: (e) => flipSelection(e, 0) },
  flipDown: { label: 'Flip top to bottom', run: (e) => flipSelection(e, 1) },
  addChart: { label: 'Add a chart', run: addChart },
  addController: { label: 'Add a controller', run: addController },
  addCamera: { label: 'Add a camera', run: addCamera },
  addCover: { label: 'Add effects on all that is there', run: addCover },
  extend: { label: 'Extend to the scene’s end', run: extendSelection },
  reverse: { label: 'Reverse the motion', run: reverseSelection },
  repeatFirst: { label: 'First keys again at the end', run: repeatFirst },
  smooth: { label: 'Smooth path through these', run: (e) => smoothSelection(e, true) },
  straighten: { label: 'Straight path through these', run: (e) => smoothSelection(e, false) },
  selectAll: {
    label: 'Select all layers',
    keys: ['Ctrl+A'],
    run: (e) => e.select({ layers: e.scene.order.filter((id) => !e.scene.layers[id]?.locked) }),
  },
  selectKeys: {
    label: 'Select all keyframes',
    keys: ['Ctrl+Shift+A'],
    run: selectAllKeys,
  },
  remove: {
    label: 'Delete what is selected',
    keys: ['Delete', 'Backspace'],
    danger: true,
    run: deleteSelection,
  },
  giveUp: { label: 'Select nothing; back to Select', keys: ['Escape'], run: giveUp },
  nudgeLeft: { label: 'Nudge left by a pixel', keys: ['ArrowLeft'], run: (e) => nudge(e, -1, 0) },
  nudgeRight: { label: 'Nudge right', keys: ['ArrowRight'], run: (e) => nudge(e, 1, 0) },
  nudgeUp: { label: 'Nudge up', keys: ['ArrowUp'], run: (e) => nudge(e, 0, -1) },
  nudgeDown: { label: 'Nudge down', keys: ['ArrowDown'], run: (e) => nudge(e, 0, 1) },
  stepLeft: { label: 'Nudge left by ten', keys: ['Shift+ArrowLeft'], run: (e) => nudge(e, -10, 0) },
  stepRight: { label: 'Nudge right by ten', keys: ['Shift+ArrowRight'], run: (e) => nudge(e, 10, 0) },
  stepUp: { label: 'Nudge up by ten', keys: ['Shift+ArrowUp'], run: (e) => nudge(e, 0, -10) },
  stepDown: { label: 'Nudge down by ten', keys: ['Shift+ArrowDown'], run: (e) => nudge(e, 0, 10) },
  wholeFront: { label: 'To the front', keys: ['Ctrl+Shift+ArrowUp'], run: (e) => restackFully(e, 'front') },
  wholeBack: { label: 'To the back', keys: ['Ctrl+Shift+ArrowDown'], run: (e) => restackFully(e, 'back') },
  hide: { label: 'Hide, or show again', run: hideSelection },
  lock: { label: 'Lock, or let go again', run: lockSelection },
  lockOthers: { label: 'Lock all others', run: lockOthers },
  toFront: { label: 'One place to the front', keys: ['Ctrl+ArrowUp'], run: (e) => restack(e, -1) },
  toBack: { label: 'One place to the back', keys: ['Ctrl+ArrowDown'], run: (e) => restack(e, 1) },
  areaOn: { label: 'To the next part of the editor', keys: ['F6'], run: () => stepArea(1) },
  areaBack: { label: 'To the part before', keys: ['Shift+F6'], run: () => stepArea(-1) },
  foldTimeline: { label: 'Timeline away, or back', keys: ['Shift+T'], run: (e) => fold(e, 'timeline') },
  foldInspector: { label: 'Inspector away, or back', keys: ['Shift+I'], run: (e) => fold(e, 'inspector') },
  fullScreen: { label: 'Full screen', keys: ['F'], run: showFullScreen },
  newSolid: { label: 'New box, card, fan or stack …', run: (e) => e.set({ building: { layer: null } }) },
  aside: {
    label: 'Second view of the depth',
    keys: ['Shift+D'],
    run: (e) => e.set({ aside: e.state.aside ? null : FREE_LOOK }),
  },
  search: { label: 'Search for anything', keys: ['Ctrl+K'], run: (e) => e.set({ searching: true }) },
  render: { label: 'Render …', run: (e) => e.set({ rendering: true }) },
  fit: { label: 'Fit the scene to the canvas', keys: ['0'], run: (e) => e.set({ view: null }) },
} as const satisfies Readonly<Record<string, Command>>;

export type CommandName = keyof typeof commands;
export const COMMANDS: Readonly<Record<CommandName, Command>> = commands;

/** What takes words apart. */
export const SPLITS = ['splitLetters', 'splitWords', 'splitLines'] as const satisfies readonly CommandName[];

/** All that keys are for, in the order of the keyboard's page. */
export const LISTED: readonly Command[] = [...Object.values(COMMANDS), ...Object.values(tools)];

/** The keys of a command as they are shown beside it. */
export const keysOf = ({ keys, browser }: Command): string | undefined => keys?.[0] ?? browser;

/** A command as a line of a menu, by its own name or by what it means there. */
export const entryOf = (
  editor: Editor,
  name: CommandName,
  own: Partial<Pick<MenuEntry, 'label' | 'disabled'>> = {},
): MenuEntry => {
  const command = COMMANDS[name];
  const shortcut = keysOf(command);
  return {
    label: command.label,
    ...(shortcut && { shortcut }),
    ...(command.danger && { danger: true }),
    ...own,
    onSelect: () => command.run(editor),
  };
};
