/**
 * document + frame → display list. Compiled once and cached by object identity: an edit to one layer
 * recompiles one layer, and moving it about does not touch its recipe.
 */
import { lastMade } from '../document/remembered';
import type { Id, Layer, Scene } from '../document/types';
import { wiringOf } from '../formula/wiring';
import { multiply } from '../geometry/matrix';
import { throughBoth } from '../geometry/through';
import { reader } from '../motion/reader';
import { inSpace, isSpace } from '../properties/placement';
import { standings } from '../properties/standing';
import { marksThrough } from '../recipe/marksThrough';
import { compileRecipe, settingsAt } from '../recipe/evaluate';
import { bringsPlanes, laidOver } from '../recipe/marks';
import { placeOfCard } from '../recipe/placeOfCard';
import { type Around, MOST_TOLD, MOST_WORK, newRoom } from '../recipe/room';
import { paramsOf } from '../recipe/table';
import { EMPTY, type Mark, type Plane, type Playable, type Supplies } from '../recipe/types';
import { showing } from './around';
import { type PlaneOf, planesIn, planesSeen } from './depth';
import { groupsAround, inGroups, isShown } from './groups';
import { type CompiledLayer, compileLayer, type Drawn, standsInstead } from './layers';
import { marksWithin } from './pixels';
import type { DisplayList, Library, Problem, Program } from './program';
import { knobsOf, turned } from './turned';
import { whereabouts } from './whereabouts';

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
        const { width, height, background } = program.scene;
        const { work, problems } = program.weighedAt(frame);
        const toldOf = (found: readonly Problem[]) =>
          found
            .slice(0, MOST_TOLD)
            .map(({ layer, message }) => `plays “${inner.layers[layer]?.name ?? inner.name}”, which ${message}`);
        return {
          ...{ width, height, background, work },
          picture: () => {
            const list = program.at(frame);
            return { marks: list.marks, told: toldOf(list.problems) };
          },
          deep: () => ({ planes: program.planesAt(frame), told: toldOf(problems) }),
        };
      },
    };
  },
});

const TOO_MUCH =
  'and what is in front of it are left out: together with what is behind it takes too much for one frame';

/** What a frame shows, before any of it is seen. */
interface Weighed {
  readonly frame: number;
  /** The layers that show something, from the back. */
  readonly standing: readonly { readonly layer: Layer; readonly marks: readonly Mark[]; readonly alpha: number }[];
  readonly problems: readonly Problem[];
  readonly work: number;
}

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

  const where = whereabouts(scene, (layer) => layerOf(layer).place);
  const { poseOf, eyeAt } = where;

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
    throughOf: where.seenThrough,
    opacityAt: (layer, frame) => layerOf(layer).place.at(frame).opacity,
  });
  const arounds = new Map<Id, Around>();
  const aroundOf = (layer: Layer): Around => {
    let own = arounds.get(layer.id);
    if (!own) arounds.set(layer.id, (own = shows.around(layer)));
    return own;
  };

  const standsAt = (layer: Layer, frame: number, alpha: number): Omit<Plane, 'marks'> => {
    const back = layerOf(layer).place.depthAt(frame);
    return { space: inSpace(poseOf(layer, frame)), back, lit: back?.lit ?? false, alpha, blend: layer.blend };
  };

  /** The planes of a layer that is shown, faded with the groups that it is in. */
  const planesOf = (id: Id, frame: number): readonly Plane[] => {
    const layer = scene.layers[id];
    if (!layer || !isShown(scene, layer, frame)) return [];
    const around = [layer, ...groupsAround(scene, id)];
    const alpha = around.reduce((all, of) => all * layerOf(of).place.at(frame).opacity, 1);
    return alpha > 0 ? planesIn(drawnAt(layer, frame).marks, standsAt(layer, frame, alpha)) : [];
  };

  let lastWeighed: Weighed | null = null;
  const weighedAt = (frame: number, wanted?: (layer: Id) => boolean): Weighed => {
    if (lastWeighed?.frame === frame && !wanted) return lastWeighed;
    const standing: Weighed['standing'][number][] = [];
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
      const { opacity: alpha } = layerOf(layer).place.at(frame);
      if (drawn.marks.length === 0 || alpha <= 0) continue;
      if (standsInstead(layer)) standing.length = 0;
      standing.push({ layer, marks: drawn.marks, alpha });
    }
    const weighed = { frame, standing, problems: found, work };
    if (!wanted) lastWeighed = weighed;
    return weighed;
  };

  // Nests of one scene that are on the same frame show the same.
  let last: (DisplayList & { readonly frame: number }) | null = null;
  return {
    scene,
    library,
    problems,
    wiring,
    ...where.shown,
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
        matrix: multiply(where.matrixOf(layer, frame), within),
        through: throughBoth(where.seenThrough(layer, frame), within),
        settings: settingsAt(item, layer.items, frame, computing),
      };
    },
    weighedAt,
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
      const { standing, problems: weighed, work } = weighedAt(frame, wanted);
      const found: Problem[] = [...weighed];
      for (const { layer, marks: own, alpha } of standing) {
        const pose = poseOf(layer, frame);
        if (isSpace(pose) || bringsPlanes(own)) {
          for (const plane of planesIn(own, standsAt(layer, frame, alpha))) run.push({ ...plane, of: layer.id });
          continue;
        }
        flush();
        const mark = laidOver(marksThrough(pose, own), layer.blend, alpha);
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
