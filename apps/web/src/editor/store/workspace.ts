/** How the editor stands around the project: what presses mean, what is open, how it is looked at. */
import { FIRST_COLORS } from '@kite/core/document/colors';
import type { Edit } from '@kite/core/document/patches';
import type { Asset, BrushStroke, Id, Layer, Point, PropertyRef } from '@kite/core/document/types';
import type { NestAt } from '@kite/core/scene/inPlace';
import type { Reading } from '@kite/core/scene/follows';
import type { Snapped } from '@kite/core/geometry/snap';
import type { Compare } from '../../preview/messages';

export type ToolName =
  'select' | 'path' | 'brush' | 'text' | 'rectangle' | 'ellipse' | 'wedge' | 'polygon' | 'star' | 'line';
export type Drawer = 'shapes' | 'replace' | 'assets' | 'colours' | 'moves' | 'poses' | 'history' | null;

/** What a press on a picture's cut-out does, and the brush's diameter in pixels of the picture. */
export interface Cutting {
  readonly how: 'background' | 'keep' | 'take';
  readonly size: number;
}

/** The brush in hand. */
export interface Brush extends Pick<BrushStroke, 'color' | 'size' | 'tip' | 'thins' | 'taper' | 'erases'> {
  /** The picture that it draws with where its tip is one. */
  readonly stamp: Id;
  readonly opacity: number;
  /** How far the stroke lags behind the hand to be calm, 0..1. */
  readonly smooth: number;
  /** Whether its size is in pixels of the screen: it stays as large at any zoom. */
  readonly onScreen: boolean;
}

/** What a press on the canvas gives a growth: a root, a place to wait at, or a stroke, which may stand for one that there is. */
export interface Sowing {
  readonly what: 'root' | 'wait' | 'stroke';
  readonly instead?: number;
}

export type CutPart = 'gone' | 'faint' | 'whole';

/** The nest through which the open scene is seen: its surroundings show faint. */
export interface Within extends NestAt {
  readonly scene: Id;
  /** The frame at which it was opened. */
  readonly frame: number;
}

/** What a press on the canvas means: one thing at a time. */
export type Mode =
  | { readonly kind: 'tool'; readonly tool: ToolName }
  /** A text is being typed in. */
  | { readonly kind: 'writing'; readonly layer: Id; readonly item: Id }
  | ({ readonly kind: 'cutting' } & Cutting)
  | ({ readonly kind: 'sowing' } & Sowing)
  /** Strokes of a brush are taken by a line around them. */
  | { readonly kind: 'lassoing' }
  /** A colour is waited for; then it goes on as before. */
  | { readonly kind: 'sampling'; readonly take: (color: string) => void; readonly then: Mode };

const modes = new Map<ToolName, Mode>();
/** The same object for the same tool. */
export const withTool = (tool: ToolName): Mode => {
  const known = modes.get(tool) ?? { kind: 'tool', tool };
  modes.set(tool, known);
  return known;
};
export const SELECTING = withTool('select');
/** The tool in hand: with whatever else goes on, it is the one to select by. */
export const toolOf = (mode: Mode): ToolName => (mode.kind === 'tool' ? mode.tool : 'select');

/** Whether it is about the open card: it ends with that. */
export const isOfCard = (mode: Mode): boolean =>
  mode.kind === 'cutting' || mode.kind === 'sowing' || mode.kind === 'lassoing';

/** Scene pixel (0, 0) stands at (x, y) of the canvas area, in CSS pixels. */
export interface View {
  readonly zoom: number;
  readonly x: number;
  readonly y: number;
}

/** A second view: from a side, or freely turned, in degrees. */
export interface AsideLook {
  readonly from: 'top' | 'left' | 'front' | 'free';
  readonly turn: number;
  readonly tilt: number;
  /** Of its own area; null fits all that is in depth. */
  readonly view: View | null;
}
export const FREE_LOOK: AsideLook = { from: 'free', turn: -35, tilt: -20, view: null };

/** From some properties to a property of a layer, or to a layer one of whose properties is yet to be chosen. */
export interface Linking {
  readonly refs: readonly PropertyRef[];
  readonly to: { readonly layer: Id; readonly item?: Id; readonly key?: string };
  /** Where the link was let go, in CSS pixels. */
  readonly at: Point;
}

/** How the project was: at a revision or a checkpoint, by what it is called. */
export interface State {
  readonly state: string;
  readonly name: string;
}

export interface Workspace {
  readonly mode: Mode;
  readonly drawer: Drawer;
  /** Parts that are folded away, for the canvas to have their room. */
  readonly hiding: { readonly timeline: boolean; readonly inspector: boolean };
  /** Whether a command is being searched for, and whether a render is being set up. */
  readonly searching: boolean;
  readonly rendering: boolean;
  readonly brush: Brush;
  /** What becomes of what is drawn next; by itself a path goes into the group or the mask that is open, and the rest is a layer. */
  readonly drawsAs: 'layer' | 'mask' | 'card' | null;
  /** How what masks cut away from the selected layers shows. */
  readonly cutPart: CutPart;
  readonly within: Within | null;
  /** null fits the scene to the canvas. */
  readonly view: View | null;
  /** From where what is in depth is looked at besides; null for one view alone. */
  readonly aside: AsideLook | null;
  /** The picture alone, over the whole screen. */
  readonly fullScreen: boolean;
  /** Frames before and after the playhead that show through, each so many frames from the next; null for none. */
  readonly onion: { readonly count: number; readonly step: number } | null;
  /** The frame that stands beside the one at the playhead, from a share of the scene's width on. */
  readonly compare: Compare | null;
  /** What the thing that is dragged has snapped to. */
  readonly snapped: Snapped | null;
  /** Numbers shown beside the pointer while something is dragged. */
  readonly readout: { readonly at: Point; readonly text: string } | null;
  /** The frames that the timeline shows; null shows the whole scene. */
  readonly timeReach: readonly [number, number] | null;
  /** The frame that what is dragged in the timeline has snapped to. */
  readonly snappedFrame: number | null;
  /** Whether the curves of what is selected show instead of the rows. */
  readonly curves: boolean;
  /** Whether the other scenes' ribbons stand below those of the open one. */
  readonly allScenes: boolean;
  /** Whether tucked layers are in the lists for now. */
  readonly showTucked: boolean;
  /** By the key of a value, whether the numbers that belong together are kept in proportion; as it is by itself where none was chosen. */
  readonly proportions: Readonly<Record<string, boolean>>;
  /** Whether layers that are not animated are left out of the list. */
  readonly onlyAnimated: boolean;
  /** The property whose formula is open. */
  readonly formulaAt: PropertyRef | null;
  /** A link that was dragged, and waits for how it follows. */
  readonly linking: Linking | null;
  /** What waits to go because formulas read it, or since layers are cut by it. */
  readonly removing: {
    readonly edit: Edit;
    readonly readers: readonly Reading[];
    readonly cut: readonly Layer[];
  } | null;
  /** Drawings that wait for their layers to be chosen. */
  readonly importing: { readonly files: readonly File[]; readonly at: Point | null } | null;
  /** The layer that is to be cut into panes, once it is known how many. */
  readonly paning: Id | null;
  /** The layer that something in depth is to be made of, or none for a new one, once it is known what. */
  readonly building: { readonly layer: Id | null } | null;
  /** A state of the project that stands beside how it is now. */
  readonly comparing: State | null;
  /** The pose that was kept or shown last. */
  readonly pose: Id | null;
  /** Chosen pictures of the strip of poses. */
  readonly pictures: readonly Id[];
  /** Layers for which it is being chosen how they are written on. */
  readonly revealing: readonly Id[] | null;
  /** Pictures that wait for their order to be chosen. */
  readonly ordering: { readonly assets: readonly Asset[]; readonly at: Point | null } | null;
}
export const TIDY: Workspace = {
  mode: SELECTING,
  drawer: null,
  hiding: { timeline: false, inspector: false },
  searching: false,
  rendering: false,
  brush: {
    color: FIRST_COLORS[0],
    size: 12,
    tip: 'round',
    stamp: '',
    opacity: 1,
    thins: 0.5,
    taper: 0,
    erases: false,
    smooth: 0.4,
    onScreen: false,
  },
  drawsAs: null,
  cutPart: 'gone',
  within: null,
  view: null,
  aside: null,
  fullScreen: false,
  onion: null,
  compare: null,
  snapped: null,
  readout: null,
  timeReach: null,
  snappedFrame: null,
  curves: false,
  allScenes: false,
  showTucked: false,
  proportions: {},
  onlyAnimated: false,
  formulaAt: null,
  linking: null,
  removing: null,
  importing: null,
  paning: null,
  building: null,
  comparing: null,
  pose: null,
  pictures: [],
  revealing: null,
  ordering: null,
};
