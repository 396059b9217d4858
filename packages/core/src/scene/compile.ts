/**
 * document + frame → display list. Compiled once and cached by object identity: an edit to one layer
 * recompiles one layer, and moving it about does not touch its recipe.
 */
import { NEST } from '../document/nest';
import type { Assets, Color, DrawingLayer, Id, Layer, NestLayer, PictureLayer, Scene } from '../document/types';
import { IDENTITY, type Matrix, multiply } from '../geometry/matrix';
import { type Wiring, wiringOf } from '../formula/wiring';
import { reader } from '../motion/reader';
import type { Sampler } from '../motion/sampler';
import { compileRecipe } from '../recipe/evaluate';
import { markThrough } from '../recipe/marks';
import { MOST_WORK, newRoom, SHORTAGES } from '../recipe/room';
import type { Mark } from '../recipe/types';
import { fontsOf } from '../recipe/needs';
import { nestedFrame, nestMarks } from './nest';
import { marksWithin } from './pixels';
import { placementOf, type Placement } from './placement';
import { fontLabel, NO_FONTS, type Fonts } from '../type/types';

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
  /** What it took to make and takes to draw: see recipe/room. */
  readonly work: number;
}

interface Drawn {
  readonly marks: readonly Mark[];
  readonly problems: readonly Problem[];
  readonly work: number;
}

/** What scenes draw on. Two of the same fonts and assets had better be one object: programs are kept by it. */
export interface Library {
  readonly assets: Assets;
  readonly fonts: Fonts;
}
export const NO_LIBRARY: Library = { assets: {}, fonts: NO_FONTS };

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
  /** The formulas at work: any property as it is shown. */
  readonly wiring: Wiring;
  readonly problems: readonly Problem[];
}

interface CompiledLayer {
  readonly place: Placement;
  readonly marks: (frame: number) => Drawn;
  readonly assets: Assets;
  readonly nested: Scene['nested'];
  readonly eases: Scene['eases'];
  /** What its formulas give. */
  readonly computed: readonly Sampler[];
}

/** What a layer costs that draws nothing. */
const PER_LAYER = 10;
const NOTHING: Drawn = { marks: [], problems: [], work: PER_LAYER };

const failed = (layer: Id, message: string): Drawn => ({ ...NOTHING, problems: [{ layer, message }] });

interface Compiled {
  /** By the items of a drawing. */
  readonly recipes: WeakMap<
    DrawingLayer['items'],
    { ids: readonly Id[]; computed: readonly Sampler[]; marks: CompiledLayer['marks'] }
  >;
  readonly layers: WeakMap<Layer, CompiledLayer>;
}
/** What has been compiled with a set of fonts; layers and recipes that do not change are not compiled again. */
const compiled = new WeakMap<Fonts, Compiled>();

const compiledWith = (fonts: Fonts): Compiled => {
  let known = compiled.get(fonts);
  if (!known) compiled.set(fonts, (known = { recipes: new WeakMap(), layers: new WeakMap() }));
  return known;
};

/** What is to be said of a drawing's fonts: the ones that others stand in for. */
const fontProblems = (layer: DrawingLayer, fonts: Fonts): Problem[] =>
  fontsOf(layer).flatMap((choice) => {
    const instead = fonts.find(choice)?.instead;
    if (!instead) return [];
    const message = `asks for the font ${fontLabel(choice)}, which is not here; ${fontLabel(instead)} stands in for it`;
    return [{ layer: layer.id, message }];
  });

const alike = (a: readonly unknown[], b: readonly unknown[]) => a.length === b.length && a.every((x, i) => x === b[i]);

const recipeMarks = (layer: DrawingLayer, fonts: Fonts, wiring: Wiring): CompiledLayer['marks'] => {
  const { recipes } = compiledWith(fonts);
  const computed = wiring.allOf(layer);
  const known = recipes.get(layer.items);
  if (known?.ids === layer.recipe && alike(known.computed, computed)) return known.marks;
  const recipe = compileRecipe(layer.recipe, layer.items, fonts, (item) => wiring.computing(layer.id, item));
  const problems = fontProblems(layer, fonts);
  const marks = (frame: number): Drawn => {
    const room = newRoom();
    const flow = recipe.at(frame, room);
    const drawn = { marks: flow.marks, problems, work: PER_LAYER + MOST_WORK - room.work };
    if (!room.short) return drawn;
    return { ...drawn, problems: [...problems, { layer: layer.id, message: SHORTAGES[room.short] }] };
  };
  recipes.set(layer.items, { ids: layer.recipe, computed, marks });
  return marks;
};

const pictureMarks = (layer: PictureLayer, assets: Assets): CompiledLayer['marks'] => {
  const asset = assets[layer.asset];
  if (asset?.kind !== 'picture') {
    const drawn = failed(layer.id, 'shows a picture that is gone');
    return () => drawn;
  }
  const drawn: Drawn = {
    ...NOTHING,
    marks: [{ op: 'picture', asset, cut: layer.cut, matrix: IDENTITY, alpha: 1 }],
  };
  return () => drawn;
};

/** Nested scenes with what they take along: one for all the nests that play it in the same surroundings. */
const taken = new WeakMap<Scene, Scene>();

const nestedProgram = (inner: Scene, { nested, eases }: Scene, library: Library, depth: number): Program => {
  let whole = taken.get(inner);
  if (!whole || whole.nested !== nested || whole.eases !== eases) {
    whole = { ...inner, ...(nested && { nested }), ...(eases && { eases }) };
    taken.set(inner, whole);
  }
  return compileScene(whole, library, depth);
};

/** Of a nest, the most that is told of what it plays. */
const MOST_TOLD = 20;

/** How deep nests may lie in each other; a scene that plays itself is refused long before. */
const MOST_NESTED = 16;

const marksOfNest = (
  layer: NestLayer,
  around: Scene,
  library: Library,
  wiring: Wiring,
  depth: number,
): CompiledLayer['marks'] => {
  const problem = (message: string): CompiledLayer['marks'] => {
    const drawn = failed(layer.id, message);
    return () => drawn;
  };
  const inner = around.nested?.[layer.scene];
  if (!inner) return problem('plays a scene that is gone');
  if (depth >= MOST_NESTED) return problem('lies too deep in other nests');
  const program = nestedProgram(inner, around, library, depth + 1);
  const values = reader(NEST, layer.params, wiring.computing(layer.id));
  return (frame) => {
    const v = values.at(frame);
    const at = nestedFrame(v, layer, frame, around.rate, inner);
    if (at === null) return NOTHING;
    const list = program.at(at);
    const problems = list.problems.slice(0, MOST_TOLD).map(({ layer: id, message }) => ({
      layer: layer.id,
      message: `plays “${inner.layers[id]?.name ?? inner.name}”, which ${message}`,
    }));
    return { marks: nestMarks(list, v.background), problems, work: PER_LAYER + list.work };
  };
};

const marksOf = (
  layer: Layer,
  around: Scene,
  library: Library,
  wiring: Wiring,
  depth: number,
): CompiledLayer['marks'] => {
  switch (layer.kind) {
    case 'nest':
      return marksOfNest(layer, around, library, wiring, depth);
    case 'drawing':
      return recipeMarks(layer, library.fonts, wiring);
    case 'picture':
      return pictureMarks(layer, library.assets);
    case 'controller':
      return () => NOTHING;
  }
};

const compileLayer = (layer: Layer, around: Scene, library: Library, wiring: Wiring, depth: number): CompiledLayer => {
  const { layers } = compiledWith(library.fonts);
  const computed = wiring.allOf(layer);
  const known = layers.get(layer);
  // A picture's file may be swapped under it, a nest's scene changed, and what a formula reads.
  const same =
    known &&
    alike(known.computed, computed) &&
    ((layer.kind !== 'picture' && layer.kind !== 'nest') || known.assets === library.assets) &&
    (layer.kind !== 'nest' || (known.nested === around.nested && known.eases === around.eases));
  if (same) return known;
  const made: CompiledLayer = {
    place: placementOf(layer.params, wiring.computing(layer.id)),
    marks: marksOf(layer, around, library, wiring, depth),
    assets: library.assets,
    nested: around.nested,
    eases: around.eases,
    computed,
  };
  layers.set(layer, made);
  return made;
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

const TOO_MUCH =
  'and what is in front of it are left out: together with what is behind it takes too much for one frame';

const programs = new WeakMap<Scene, { readonly library: Library; readonly depth: number; readonly program: Program }>();

/** The scene's program, built once for each scene object and library. A scene with nests comes with them: see wholeScene. */
export const compileScene = (scene: Scene, library: Library, depth = 0): Program => {
  const known = programs.get(scene);
  if (known?.library === library && known.depth === depth) return known.program;
  const wiring = wiringOf(scene, library.fonts);
  // Within one scene object nothing changes: each layer is looked up once.
  const here = new Map<Id, CompiledLayer>();
  const layerOf = (layer: Layer): CompiledLayer => {
    let own = here.get(layer.id);
    if (!own) here.set(layer.id, (own = compileLayer(layer, scene, library, wiring, depth)));
    return own;
  };
  const lines = new Map(Object.values(scene.layers).map((layer) => [layer.id, ancestry(scene, layer)]));
  const problems = [...[...lines.values()].map((line) => line.problem).filter((p) => p !== null), ...wiring.problems];

  const matrixOf = (layer: Layer, frame: number, known?: Map<Id, Matrix>): Matrix => {
    const ready = known?.get(layer.id);
    if (ready) return ready;
    const line = lines.get(layer.id);
    const own = layerOf(layer).place.matrix(frame);
    // A layer in or below a cycle stands by itself.
    const parent = line?.problem ? undefined : line?.chain[0];
    const matrix = parent ? multiply(matrixOf(parent, frame, known), own) : own;
    known?.set(layer.id, matrix);
    return matrix;
  };

  // Nests of one scene that are on the same frame show the same.
  let last: (DisplayList & { readonly frame: number }) | null = null;
  const program: Program = {
    scene,
    problems,
    wiring,
    matrixAt: (id, frame) => {
      const layer = scene.layers[id];
      return layer ? matrixOf(layer, frame) : IDENTITY;
    },
    marksAt: (id, frame) => {
      const layer = scene.layers[id];
      return layer ? layerOf(layer).marks(frame).marks : [];
    },
    at: (frame, shows) => {
      if (last?.frame === frame && !shows) return last;
      const matrices = new Map<Id, Matrix>();
      const marks: Mark[] = [];
      const layers: Id[] = [];
      const found: Problem[] = [...problems];
      let work = 0;
      for (let i = scene.order.length - 1; i >= 0; i--) {
        const layer = scene.layers[scene.order[i] as Id];
        if (!layer || layer.hidden || frame < layer.from || frame >= layer.to) continue;
        if (shows && !shows(layer.id)) continue;
        const known = layerOf(layer);
        const drawn = known.marks(frame);
        work += drawn.work;
        if (work > MOST_WORK) {
          found.push({ layer: layer.id, message: TOO_MUCH });
          break;
        }
        found.push(...drawn.problems, ...wiring.problemsAt(layer, frame));
        const { opacity } = known.place.at(frame);
        const mark = asLayer(layer, drawn.marks, matrixOf(layer, frame, matrices), opacity);
        if (!mark) continue;
        marks.push(mark);
        layers.push(layer.id);
      }
      const { width, height, background } = scene;
      const fitting = marksWithin(marks, width, height);
      const over = layers[fitting];
      if (over !== undefined) found.push({ layer: over, message: TOO_MUCH });
      const list = { width, height, background, marks: marks.slice(0, fitting), problems: found, work, frame };
      if (!shows) last = list;
      return list;
    },
  };
  programs.set(scene, { library, depth, program });
  return program;
};
