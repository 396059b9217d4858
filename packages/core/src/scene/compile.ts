/**
 * document + frame → display list. Compiled once and cached by object identity: an edit to one layer
 * recompiles one layer, and moving it about does not touch its recipe.
 */
import { lastMade, remembered } from '../document/remembered';
import type { Assets, Color, DrawingLayer, Id, Item, Layer, Point, Scene } from '../document/types';
import type { Params, Values } from '../document/params';
import { IDENTITY, type Matrix, multiply } from '../geometry/matrix';
import { type Wiring, wiringOf } from '../formula/wiring';
import { reader } from '../motion/reader';
import { compileRecipe, settingsAt, stampsOf } from '../recipe/evaluate';
import { placeOfCard } from '../recipe/placeOfCard';
import { below } from '../recipe/sources/below';
import { samplerOf } from '../motion/sampler';
import { type Around, MOST_TOLD, MOST_WORK, newRoom, type Picture, SHORTAGES } from '../recipe/room';
import { nearestMatrix, type Through, throughBoth } from '../geometry/through';
import { marksThrough } from '../recipe/bent';
import { paramsOf } from '../recipe/table';
import { EMPTY, type Flow, type Mark, type Plane, type Playable, type Settings, type Supplies } from '../recipe/types';
import { laidOver } from '../recipe/marks';
import { needsOf } from '../recipe/needs';
import { groupsAround, inGroups, isShown } from './groups';
import { showing } from './around';
import { standings } from '../properties/standing';
import { marksWithin } from './pixels';
import { knobsOf, turned } from './turned';
import { seenFrom } from '../geometry/homography';
import { bringsPlanes, eyeOf, eyeThrough, isFromBehind, type PlaneOf, planesIn, planesSeen, throughOf } from './depth';
import { applySpace, chained, type Eye, type Space, translationAway } from '../geometry/space';
import { inSpace, isSpace, placementOf, type Placement, type Pose, posed } from '../properties/placement';
import { fontLabel } from '../motion/kinds/font';
import { NO_FONTS, type Fonts } from '../type/types';

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

interface Drawn extends Picture {
  readonly problems: readonly Problem[];
}

/** What scenes draw on. Two of the same fonts and assets had better be one object: programs are kept by it. */
export interface Library {
  readonly assets: Assets;
  readonly fonts: Fonts;
}
export const NO_LIBRARY: Library = { assets: {}, fonts: NO_FONTS };

export interface Program {
  readonly scene: Scene;
  /** What it was compiled with. */
  readonly library: Library;
  /**
   * The picture at any frame, whole or not. Pure: the same list on every machine. `shows` leaves layers
   * out, for painters that keep the rest of a picture while one layer is dragged.
   */
  readonly at: (frame: number, shows?: (layer: Id) => boolean) => DisplayList;
  /** The same as planes in the scene's space, back to front in the stack, not yet seen by an eye. */
  readonly planesAt: (frame: number) => readonly Plane[];
  /**
   * From a layer's own pixels to the scene's, its parents' places included. Of one in depth it is what comes nearest to that
   * about its pivot: handles and edits in the plane go by it.
   */
  readonly matrixAt: (layer: Id, frame: number) => Matrix;
  /** The same exactly, as it is seen. */
  readonly throughAt: (layer: Id, frame: number) => Through;
  /** From the pixels that its position is in to the scene's, as they are seen at its z, or at another. */
  readonly aroundAt: (layer: Id, frame: number, z?: number) => Through;
  /** From a layer's pixels to the scene's space. */
  readonly spaceAt: (layer: Id, frame: number) => Space;
  /** The eye that looks at the scene: that of the front camera, or the scene's own. */
  readonly eyeAt: (frame: number) => Eye;
  /** The camera that is looked through; null for none. */
  readonly cameraAt: (frame: number) => Id | null;
  /** The planes of one layer, its own and those that it brings along, in the scene's space. */
  readonly planesOf: (layer: Id, frame: number) => readonly Plane[];
  /** What an eye sees of the layers that are in depth, those first that others hide. */
  readonly seenBy: (eye: Eye, frame: number) => readonly Mark[];
  /** How far a point of a layer's own pixels lies behind the plane of the scene; null for one without depth. */
  readonly awayAt: (layer: Id, frame: number, at: Point) => number | null;
  /** Whether it shows nothing, since it is seen from behind at a point of its own and its back is hidden. */
  readonly isAway: (layer: Id, frame: number, at: Point) => boolean;
  /** What one layer draws, in its own pixels, hidden or not. */
  readonly marksAt: (layer: Id, frame: number) => readonly Mark[];
  /**
   * What some of a layer's cards give, in the layer's own pixels: those of one list, in their order, and cards that stand in
   * no layer yet.
   */
  readonly flowAt: (layer: Id, cards: readonly Id[], frame: number, others?: readonly Item[]) => Flow;
  /** A card as it is shown; null where there is no such card. */
  readonly cardAt: (layer: Id, card: Id, frame: number) => CardShown | null;
  /** The formulas at work: any property as it is shown. */
  readonly wiring: Wiring;
  readonly problems: readonly Problem[];
}

/** A card at a frame. */
export interface CardShown {
  readonly values: Values<Params>;
  /** From its pixels to the scene's; of one in depth the matrix that comes nearest. */
  readonly matrix: Matrix;
  /** The same exactly, as it is seen. */
  readonly through: Through;
  /** What the settings in it say. */
  readonly settings: Settings;
}

interface CompiledLayer {
  readonly place: Placement;
  readonly marks: (frame: number, around: Around) => Drawn;
}

/** What a layer costs that draws nothing. */
const PER_LAYER = 10;
const NOTHING: Drawn = { marks: [], problems: [], work: PER_LAYER };

/** What has been compiled with a set of fonts; layers and recipes that do not change are not compiled again. */
const newlyCompiled = () => ({
  /** By the items of a drawing. */
  recipes: lastMade<DrawingLayer['items'], CompiledLayer['marks']>(),
  layers: lastMade<Layer, CompiledLayer>(),
});
const compiledWith = remembered<Fonts, ReturnType<typeof newlyCompiled>>(newlyCompiled);

/** What is to be said of a drawing's fonts: the ones that others stand in for. */
const fontProblems = (layer: DrawingLayer, fonts: Fonts): Problem[] =>
  needsOf(layer).fonts.flatMap((choice) => {
    const instead = fonts.find(choice)?.instead;
    if (!instead) return [];
    const message = `asks for the font ${fontLabel(choice)}, which is not here; ${fontLabel(instead)} stands in for it`;
    return [{ layer: layer.id, message }];
  });

const recipeMarks = (
  layer: DrawingLayer,
  supplies: Supplies,
  wiring: Wiring,
  from: readonly unknown[],
): CompiledLayer['marks'] =>
  compiledWith(supplies.fonts).recipes(layer.items, [layer.recipe, ...from], () => {
    const recipe = compileRecipe(layer.recipe, layer.items, supplies, (item) => wiring.computing(layer.id, item));
    const fonts = fontProblems(layer, supplies.fonts);
    return (frame, around) => {
      const room = newRoom(around);
      const flow = recipe.at(frame, room);
      const told = [...room.told, ...(room.short ? [SHORTAGES[room.short]] : [])];
      const problems = told.length === 0 ? fonts : [...fonts, ...told.map((message) => ({ layer: layer.id, message }))];
      return { marks: flow.marks, problems, work: PER_LAYER + MOST_WORK - room.work };
    };
  });

/** Nested scenes with what they take along: one for all the nests that play it in the same surroundings. */
const taken = lastMade<Scene, Scene>();

const nestedProgram = (inner: Scene, { nested, eases }: Scene, library: Library, depth: number): Program => {
  const whole = taken(inner, [nested, eases], () => ({
    ...inner,
    ...(nested && { nested }),
    ...(eases && { eases }),
  }));
  return compileScene(whole, library, depth);
};

/** How deep nests may lie in each other; a scene that plays itself is refused long before. */
const MOST_NESTED = 16;

/** What the recipes of a scene are handed. */
const suppliesOf = (around: Scene, library: Library, depth: number): Supplies => ({
  ...library,
  rate: around.rate,
  playing: [library.assets, around.nested, around.eases, around.rate, depth],
  play: (id): Playable | string => {
    const inner = around.nested?.[id];
    if (!inner) return 'plays a scene that is gone';
    if (depth >= MOST_NESTED) return 'lies too deep in other nests';
    return {
      rate: inner.rate,
      length: inner.length,
      knobs: knobsOf(inner),
      at: (frame, settings) => {
        const program = nestedProgram(turned(inner, settings), around, library, depth + 1);
        const list = program.at(frame);
        const told = list.problems
          .slice(0, MOST_TOLD)
          .map(({ layer, message }) => `plays “${inner.layers[layer]?.name ?? inner.name}”, which ${message}`);
        return { ...list, planes: () => program.planesAt(frame), told };
      },
    };
  },
});

const compileLayer = (layer: Layer, supplies: Supplies, wiring: Wiring): CompiledLayer => {
  const from = [...wiring.allOf(layer), ...stampsOf(needsOf(layer).asks, supplies)];
  return compiledWith(supplies.fonts).layers(layer, from, () => ({
    place: placementOf(layer.params, wiring.computing(layer.id)),
    marks: layer.kind === 'drawing' ? recipeMarks(layer, supplies, wiring, from) : () => NOTHING,
  }));
};

/** Whether what is behind a layer is shown by the layer itself, and not by itself as well. */
const standsInstead = (layer: Layer): boolean =>
  needsOf(layer).asks.behind &&
  layer.kind === 'drawing' &&
  Object.values(layer.items).some(
    ({ kind, on, params }) =>
      kind === below.kind && on && samplerOf(below.params.stays, params.stays).at(0) === 'instead',
  );

const TOO_MUCH =
  'and what is in front of it are left out: together with what is behind it takes too much for one frame';

const programs = lastMade<Scene, Program>();

/** The scene's program, built once for each scene object and library. A scene with nests comes with them: see wholeScene. */
export const compileScene = (scene: Scene, library: Library, depth = 0): Program =>
  programs(scene, [library, depth], () => programOf(scene, library, depth));

const programOf = (scene: Scene, library: Library, depth: number): Program => {
  const wiring = wiringOf(scene, library.fonts);
  const supplies = suppliesOf(scene, library, depth);
  // Within one scene object nothing changes: each layer is looked up once.
  const here = new Map<Id, CompiledLayer>();
  const layerOf = (layer: Layer): CompiledLayer => {
    let own = here.get(layer.id);
    if (!own) here.set(layer.id, (own = compileLayer(layer, supplies, wiring)));
    return own;
  };
  const standing = standings(scene);
  const problems = [...[...standing.values()].flatMap(({ problem }) => problem ?? []), ...wiring.problems];

  const poseOf = (layer: Layer, frame: number, known?: Map<Id, Pose>): Pose => {
    const ready = known?.get(layer.id);
    if (ready) return ready;
    const own = layerOf(layer).place.pose(frame);
    const parent = standing.get(layer.id)?.parent;
    const pose = parent ? posed(poseOf(parent, frame, known), own) : own;
    known?.set(layer.id, pose);
    return pose;
  };
  const ownEye = eyeOf(scene);
  // Those that may be cameras, the front one first.
  const cameras = scene.order.flatMap((id) => {
    const layer = scene.layers[id];
    return layer?.kind === 'controller' && (layer.params.camera || layer.formulas?.camera) ? [layer] : [];
  });
  let lastEye: { readonly frame: number; readonly eye: Eye } | null = null;
  const cameraAt = (frame: number): Layer | undefined =>
    cameras.find((layer) => isShown(scene, layer, frame) && layerOf(layer).place.depthAt(frame)?.camera);
  const eyeAt = (frame: number): Eye => {
    if (cameras.length === 0) return ownEye;
    if (lastEye?.frame === frame) return lastEye.eye;
    const camera = cameraAt(frame);
    const own = camera && layerOf(camera).place.depthAt(frame);
    const eye = (camera && own && eyeThrough(scene, inSpace(poseOf(camera, frame)), own)) ?? ownEye;
    lastEye = { frame, eye };
    return eye;
  };
  const seenThrough = (layer: Layer, frame: number): Through => throughOf(eyeAt(frame), poseOf(layer, frame));
  const matrixOf = (layer: Layer, frame: number): Matrix => {
    const pose = poseOf(layer, frame);
    return isSpace(pose) ? nearestMatrix(throughOf(eyeAt(frame), pose), layerOf(layer).place.at(frame).pivot) : pose;
  };

  // What several layers are cut by, or show as what is behind, is worked out once for each frame.
  const lastDrawn = new Map<Id, { readonly frame: number; readonly drawn: Drawn }>();
  const drawnAt = (layer: Layer, frame: number): Drawn => {
    const known = lastDrawn.get(layer.id);
    if (known?.frame === frame) return known.drawn;
    const drawn = layerOf(layer).marks(frame, aroundOf(layer));
    lastDrawn.set(layer.id, { frame, drawn });
    return drawn;
  };
  const shows = showing(scene, {
    drawnAt,
    throughOf: seenThrough,
    opacityAt: (layer, frame) => layerOf(layer).place.at(frame).opacity,
  });
  const arounds = new Map<Id, Around>();
  const aroundOf = (layer: Layer): Around => {
    let own = arounds.get(layer.id);
    if (!own) arounds.set(layer.id, (own = shows.around(layer)));
    return own;
  };

  /** The planes of a layer that is shown, faded with the groups that it is in. */
  const planesOf = (id: Id, frame: number): readonly Plane[] => {
    const layer = scene.layers[id];
    if (!layer || !isShown(scene, layer, frame)) return [];
    const around = [layer, ...groupsAround(scene, id)];
    const alpha = around.reduce((all, of) => all * layerOf(of).place.at(frame).opacity, 1);
    const depth = layerOf(layer).place.depthAt(frame);
    const lit = depth?.lit ?? false;
    const placed = { space: inSpace(poseOf(layer, frame)), back: depth, lit, alpha, blend: layer.blend };
    return alpha > 0 ? planesIn(drawnAt(layer, frame).marks, placed) : [];
  };

  // Nests of one scene that are on the same frame show the same.
  let last: (DisplayList & { readonly frame: number }) | null = null;
  return {
    scene,
    library,
    problems,
    wiring,
    matrixAt: (id, frame) => {
      const layer = scene.layers[id];
      return layer ? matrixOf(layer, frame) : IDENTITY;
    },
    throughAt: (id, frame) => {
      const layer = scene.layers[id];
      return layer ? seenThrough(layer, frame) : IDENTITY;
    },
    awayAt: (id, frame, [x, y]) => {
      const layer = scene.layers[id];
      const pose = layer && poseOf(layer, frame);
      return pose && isSpace(pose) ? applySpace(pose, [x, y, 0])[2] : null;
    },
    isAway: (id, frame, at) => {
      const layer = scene.layers[id];
      const pose = layer && poseOf(layer, frame);
      if (!pose || !isSpace(pose) || layerOf(layer).place.depthAt(frame)?.back !== 'hidden') return false;
      return isFromBehind(seenFrom(eyeAt(frame), pose), at);
    },
    aroundAt: (id, frame, z) => {
      const layer = scene.layers[id];
      const parent = standing.get(id)?.parent;
      const pose = parent ? poseOf(parent, frame) : IDENTITY;
      const depth = layer && layerOf(layer).place.depthAt(frame);
      return throughOf(eyeAt(frame), depth ? chained(inSpace(pose), translationAway(z ?? depth.z)) : pose);
    },
    marksAt: (id, frame) => {
      const layer = scene.layers[id];
      return layer ? drawnAt(layer, frame).marks : [];
    },
    flowAt: (id, cards, frame, others = []) => {
      const layer = scene.layers[id];
      if (layer?.kind !== 'drawing') return EMPTY;
      const computing = (item: Id) => wiring.computing(id, item);
      const items =
        others.length === 0
          ? layer.items
          : { ...layer.items, ...Object.fromEntries(others.map((item) => [item.id, item])) };
      return compileRecipe(cards, items, supplies, computing).at(frame, newRoom(aroundOf(layer)));
    },
    cardAt: (id, card, frame) => {
      const layer = scene.layers[id];
      const item = layer?.kind === 'drawing' ? layer.items[card] : undefined;
      if (layer?.kind !== 'drawing' || !item) return null;
      const computing = (of: Id) => wiring.computing(id, of);
      const within = placeOfCard(layer.items, card, computing).at(frame);
      return {
        values: reader(paramsOf(item.kind), item.params, computing(card)).at(frame),
        matrix: multiply(matrixOf(layer, frame), within),
        through: throughBoth(seenThrough(layer, frame), within),
        settings: settingsAt(item, layer.items, frame, computing),
      };
    },
    spaceAt: (id, frame) => {
      const layer = scene.layers[id];
      return inSpace(layer ? poseOf(layer, frame) : IDENTITY);
    },
    eyeAt,
    cameraAt: (frame) => cameraAt(frame)?.id ?? null,
    planesAt: (frame) => scene.order.toReversed().flatMap((id) => planesOf(id, frame)),
    planesOf,
    seenBy: (eye, frame) => {
      const deep = scene.order.toReversed().filter((id) => {
        const layer = scene.layers[id];
        if (!layer || !isShown(scene, layer, frame)) return false;
        return isSpace(poseOf(layer, frame)) || bringsPlanes(drawnAt(layer, frame).marks);
      });
      const planes = deep.flatMap((id) => planesOf(id, frame).map((plane) => ({ ...plane, of: id })));
      return planesSeen(planes, eye, scene.light).map(({ mark }) => mark);
    },
    at: (frame, wanted) => {
      if (last?.frame === frame && !wanted) return last;
      const poses = new Map<Id, Pose>();
      const marks: Mark[] = [];
      const layers: Id[] = [];
      // Those in depth that stand next to each other in the stack.
      let run: PlaneOf<Id>[] = [];
      const flush = () => {
        for (const { of, mark } of run.length > 0 ? planesSeen(run, eyeAt(frame), scene.light) : []) {
          marks.push(mark);
          layers.push(of);
        }
        run = [];
      };
      const found: Problem[] = [...problems];
      let work = 0;
      for (let i = scene.order.length - 1; i >= 0; i--) {
        const layer = scene.layers[scene.order[i] as Id];
        if (!layer || (wanted && !wanted(layer.id))) continue;
        if (!isShown(scene, layer, frame)) continue;
        const drawn = drawnAt(layer, frame);
        work += drawn.work;
        if (work > MOST_WORK) {
          found.push({ layer: layer.id, message: TOO_MUCH });
          break;
        }
        found.push(...drawn.problems, ...wiring.problemsAt(layer, frame));
        const { place } = layerOf(layer);
        const { opacity: alpha } = place.at(frame);
        if (drawn.marks.length === 0 || alpha <= 0) continue;
        if (standsInstead(layer)) {
          marks.length = 0;
          layers.length = 0;
          run = [];
        }
        const pose = poseOf(layer, frame, poses);
        const { blend } = layer;
        if (isSpace(pose) || bringsPlanes(drawn.marks)) {
          const depth = place.depthAt(frame);
          const placed = { space: inSpace(pose), back: depth, lit: depth?.lit ?? false, alpha, blend };
          for (const plane of planesIn(drawn.marks, placed)) run.push({ ...plane, of: layer.id });
          continue;
        }
        flush();
        const mark = laidOver(marksThrough(pose, drawn.marks), blend, alpha);
        if (!mark) continue;
        marks.push(mark);
        layers.push(layer.id);
      }
      flush();
      const { width, height, background } = scene;
      const fitting = marksWithin(marks, width, height);
      const over = layers[fitting];
      if (over !== undefined) found.push({ layer: over, message: TOO_MUCH });
      const shown = inGroups(
        scene,
        layers.slice(0, fitting),
        marks.slice(0, fitting),
        (group) => layerOf(group).place.at(frame).opacity,
      );
      const list = { width, height, background, marks: shown, problems: found, work, frame };
      if (!wanted) last = list;
      return list;
    },
  };
};
