/**
 * document + frame → display list. Compiled once and cached by object identity: an edit to one layer
 * recompiles one layer, and moving it about does not touch its recipe.
 */
import { PLACE, type Values } from '../document/params';
import type { Color, DrawingLayer, Id, Layer, Scene } from '../document/types';
import { IDENTITY, type Matrix, multiply, placed } from '../geometry/matrix';
import { compileRecipe, MOST_SHAPES, newRoom, reader, type Reader } from '../recipe/evaluate';
import { markThrough } from '../recipe/marks';
import type { Mark } from '../recipe/types';

export interface Problem {
  readonly layer: Id;
  readonly message: string;
}

/** All that a painter needs: marks back to front with absolute matrices, in pixels of the scene. */
export interface DisplayList {
  readonly width: number;
  readonly height: number;
  readonly background: Color | null;
  readonly marks: readonly Mark[];
  readonly problems: readonly Problem[];
}

interface Drawn {
  readonly marks: readonly Mark[];
  readonly problems: readonly Problem[];
}

export interface Program {
  readonly scene: Scene;
  /**
   * The picture at any frame, whole or not. Pure: the same list on every machine. `shows` leaves layers
   * out, for painters that keep the rest of a picture while one layer is dragged.
   */
  readonly at: (frame: number, shows?: (layer: Id) => boolean) => DisplayList;
  /** From a layer's own pixels to the scene's, its parents' places included. */
  readonly matrixAt: (layer: Id, frame: number) => Matrix;
  /** What one layer draws, in its own pixels, hidden or not. */
  readonly marksAt: (layer: Id, frame: number) => readonly Mark[];
  readonly problems: readonly Problem[];
}

interface CompiledLayer {
  readonly place: Reader<typeof PLACE>;
  readonly marks: (frame: number) => Drawn;
}

const NOTHING: Drawn = { marks: [], problems: [] };

const recipes = new WeakMap<DrawingLayer['items'], { ids: readonly Id[]; marks: CompiledLayer['marks'] }>();

const recipeMarks = (layer: DrawingLayer): CompiledLayer['marks'] => {
  const known = recipes.get(layer.items);
  if (known?.ids === layer.recipe) return known.marks;
  const recipe = compileRecipe(layer.recipe, layer.items);
  const marks = (frame: number): Drawn => {
    const room = newRoom();
    const flow = recipe.at(frame, room);
    if (!room.full) return { marks: flow.marks, problems: [] };
    const message = `makes more than ${MOST_SHAPES.toLocaleString('en')} copies in one frame; the rest is left out`;
    return { marks: flow.marks, problems: [{ layer: layer.id, message }] };
  };
  recipes.set(layer.items, { ids: layer.recipe, marks });
  return marks;
};

const compiled = new WeakMap<Layer, CompiledLayer>();

const compileLayer = (layer: Layer): CompiledLayer => {
  let known = compiled.get(layer);
  if (!known) {
    known = {
      place: reader(PLACE, layer.params),
      marks: layer.kind === 'drawing' ? recipeMarks(layer) : () => NOTHING,
    };
    compiled.set(layer, known);
  }
  return known;
};

/** The layers above one, nearest first; a cycle is cut where it closes and named. */
const ancestry = (scene: Scene, layer: Layer): { chain: readonly Layer[]; problem: Problem | null } => {
  const chain: Layer[] = [];
  const seen = new Set<Id>([layer.id]);
  let at: Layer = layer;
  while (at.parent !== null) {
    const parent: Layer | undefined = scene.layers[at.parent];
    if (!parent) return { chain, problem: { layer: layer.id, message: 'has a parent that is gone' } };
    if (seen.has(parent.id)) {
      const names = [layer, ...chain, parent].map((l) => l.name).join(' → ');
      return { chain, problem: { layer: layer.id, message: `is its own parent: ${names}` } };
    }
    seen.add(parent.id);
    chain.push(parent);
    at = parent;
  }
  return { chain, problem: null };
};

const asLayer = (layer: Layer, marks: readonly Mark[], matrix: Matrix, opacity: number): Mark | null => {
  if (marks.length === 0 || opacity <= 0) return null;
  const inScene = marks.map((mark) => markThrough(matrix, mark));
  const only = inScene.length === 1 ? (inScene[0] as Mark) : null;
  if (only && layer.blend === 'normal') return { ...only, alpha: only.alpha * opacity };
  return { op: 'group', marks: inScene, alpha: opacity, blend: layer.blend };
};

const programs = new WeakMap<Scene, Program>();

/** The scene's program, built once for each scene object. */
export const compileScene = (scene: Scene): Program => {
  const known = programs.get(scene);
  if (known) return known;
  const lines = new Map(Object.values(scene.layers).map((layer) => [layer.id, ancestry(scene, layer)]));
  const problems = [...lines.values()].map((line) => line.problem).filter((p) => p !== null);

  const placeAt = (layer: Layer, frame: number): Values<typeof PLACE> => compileLayer(layer).place.at(frame);
  const matrixOf = (layer: Layer, frame: number, known?: Map<Id, Matrix>): Matrix => {
    const ready = known?.get(layer.id);
    if (ready) return ready;
    const line = lines.get(layer.id);
    const own = placed(placeAt(layer, frame));
    // A layer in or below a cycle stands by itself.
    const parent = line?.problem ? undefined : line?.chain[0];
    const matrix = parent ? multiply(matrixOf(parent, frame, known), own) : own;
    known?.set(layer.id, matrix);
    return matrix;
  };

  const program: Program = {
    scene,
    problems,
    matrixAt: (id, frame) => {
      const layer = scene.layers[id];
      return layer ? matrixOf(layer, frame) : IDENTITY;
    },
    marksAt: (id, frame) => {
      const layer = scene.layers[id];
      return layer ? compileLayer(layer).marks(frame).marks : [];
    },
    at: (frame, shows) => {
      const matrices = new Map<Id, Matrix>();
      const marks: Mark[] = [];
      const found: Problem[] = [...problems];
      for (let i = scene.order.length - 1; i >= 0; i--) {
        const layer = scene.layers[scene.order[i] as Id];
        if (!layer || layer.hidden || layer.kind !== 'drawing' || frame < layer.from || frame >= layer.to) continue;
        if (shows && !shows(layer.id)) continue;
        const drawn = compileLayer(layer).marks(frame);
        found.push(...drawn.problems);
        const { opacity } = placeAt(layer, frame);
        const mark = asLayer(layer, drawn.marks, matrixOf(layer, frame, matrices), opacity);
        if (mark) marks.push(mark);
      }
      return { width: scene.width, height: scene.height, background: scene.background, marks, problems: found };
    },
  };
  programs.set(scene, program);
  return program;
};
