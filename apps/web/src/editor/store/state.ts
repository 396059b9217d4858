/** What the editor shows besides the document: selection, time, tool, view. */
import type { Edit, Patch } from '@kite/core/document/patches';
import {
  type Asset,
  type Id,
  isKeyed,
  type Point,
  type Project,
  type PropertyRef,
  type Scene,
} from '@kite/core/document/types';
import { propertyAt } from '@kite/core/properties/find';
import type { Reading } from '@kite/core/edits/formulas';
import type { KeyChoice } from '@kite/core/edits/keyframes';
import type { Snapped } from '@kite/core/geometry/snap';
import type { Problem } from '@kite/core/scene/compile';
import type { FrameRange } from '../../preview/frameCache';
import type { Compare } from '../../preview/messages';
import type { SaveState } from './saver';

export interface Step {
  readonly label: string;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
}

/** Layers, or one card of the one selected layer, or keyframes of any of its properties. */
export interface Selection {
  readonly layers: readonly Id[];
  readonly card: Id | null;
  readonly keys: readonly KeyChoice[];
}
export const NOTHING: Selection = { layers: [], card: null, keys: [] };

export type ToolName = 'select' | 'path' | 'text' | 'rectangle' | 'ellipse' | 'wedge' | 'polygon' | 'star' | 'line';
export type Drawer = 'shapes' | 'assets' | 'moves' | 'history' | null;
/** `through` goes on to the next scene. */
export type Playing = 'loop' | 'once' | 'swing' | 'through';

/** Scene pixel (0, 0) stands at (x, y) of the canvas area, in CSS pixels. */
export interface View {
  readonly zoom: number;
  readonly x: number;
  readonly y: number;
}

/** From some properties to a property of a layer, or to a layer one of whose properties is yet to be chosen. */
export interface Linking {
  readonly refs: readonly PropertyRef[];
  readonly to: { readonly layer: Id; readonly item?: Id; readonly key?: string };
  /** Where the link was let go, in CSS pixels. */
  readonly at: Point;
}

export interface EditorState {
  readonly doc: Project;
  readonly sceneId: Id;
  readonly frame: number;
  readonly playing: boolean;
  readonly how: Playing;
  readonly speed: number;
  /** First frame and the first after it; null is the whole scene. */
  readonly range: readonly [number, number] | null;
  /** Frames drawn in the last second of playing; null while still. */
  readonly drawnRate: number | null;
  readonly autoKey: boolean;
  readonly tool: ToolName;
  readonly drawer: Drawer;
  readonly selection: Selection;
  /** Layers whose ribbons show. */
  readonly opened: ReadonlySet<Id>;
  /** The frames that the timeline shows; null shows the whole scene. */
  readonly timeReach: readonly [number, number] | null;
  /** The frame that what is dragged in the timeline has snapped to. */
  readonly snappedFrame: number | null;
  /** Whether the curves of what is selected show instead of the rows. */
  readonly curves: boolean;
  /** The property whose formula is open. */
  readonly formulaAt: PropertyRef | null;
  /** A link that was dragged, and waits for how it follows. */
  readonly linking: Linking | null;
  /** What waits to go because formulas read it. */
  readonly removing: { readonly edit: Edit; readonly readers: readonly Reading[] } | null;
  /** Whether the other scenes' ribbons stand below those of the open one. */
  readonly allScenes: boolean;
  /** Whether tucked layers are in the lists for now. */
  readonly showTucked: boolean;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
  readonly gesturing: boolean;
  readonly saving: SaveState;
  /** null fits the scene to the canvas. */
  readonly view: View | null;
  readonly problems: readonly Problem[];
  /** The text that is being typed in. */
  readonly writing: { readonly layer: Id; readonly item: Id } | null;
  /** Drawings that wait for their layers to be chosen. */
  readonly importing: { readonly files: readonly File[]; readonly at: Point | null } | null;
  /** Pictures that wait for their order to be chosen. */
  readonly ordering: { readonly assets: readonly Asset[]; readonly at: Point | null } | null;
  /** The vertices of a path that are selected on the canvas. */
  readonly vertices: readonly number[];
  /** What a press on a picture's cut-out does, and the brush's diameter in pixels of the picture. */
  readonly cutting: { readonly how: 'background' | 'keep' | 'take'; readonly size: number } | null;
  /** What the thing that is dragged has snapped to. */
  readonly snapped: Snapped | null;
  /** Numbers shown beside the pointer while something is dragged. */
  readonly readout: { readonly at: Point; readonly text: string } | null;
  /** Waits for a colour to be clicked on the canvas. */
  readonly sampling: ((color: string) => void) | null;
  /** Layers that are shown alone; none shows all. Not part of the document. */
  readonly solo: readonly Id[];
  /** Frames before and after the playhead that show through, each so many frames from the next; null for none. */
  readonly onion: { readonly count: number; readonly step: number } | null;
  /** The frame that stands beside the one at the playhead, from a share of the scene's width on. */
  readonly compare: Compare | null;
  /** The picture alone, over the whole screen. */
  readonly fullScreen: boolean;
  /** Frames that are drawn already. */
  readonly cached: readonly FrameRange[];
  /** Rises when a font comes in. */
  readonly fontsCame: number;
}

export const sceneOf = (state: EditorState): Scene => state.doc.scenes[state.sceneId] as Scene;

export const rangeOf = (state: EditorState): readonly [number, number] => state.range ?? [0, sceneOf(state).length];

/** The selection without what is no longer there. */
export const stillThere = (selection: Selection, doc: Project, scene: Scene): Selection => {
  const layers = selection.layers.filter((id) => scene.layers[id]);
  const only = layers.length === 1 ? scene.layers[layers[0] as Id] : undefined;
  const card =
    only?.kind === 'drawing' && selection.card !== null && only.items[selection.card] ? selection.card : null;
  const keys = selection.keys.flatMap((choice) => {
    const property = propertyAt(doc, choice.ref);
    if (!isKeyed(property)) return [];
    const frames = choice.frames.filter((f) => property.keys.some((k) => k.frame === f));
    return frames.length > 0 ? [{ ref: choice.ref, frames }] : [];
  });
  return { layers, card, keys };
};
