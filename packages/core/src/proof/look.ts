/** A scene made ready to be checked. */
import type { Delivery, Id, Project, Scene, Version } from '../document/types';
import { sizeAt } from '../geometry/size';
import { compileScene } from '../scene/compile';
import type { Library, Program } from '../scene/program';
import { wholeScene } from '../scene/whole';
import { lightsOf } from './light';
import { textsOf } from './texts';
import { CHECKS } from './table';
import type { CheckKind, Finding, Look, Rules, See, Small, Steps } from './types';

/** Pixels along the longer side. */
const SMALL_SIDE = 64;
/** A longer scene is looked at as far as this. */
const MOST_FRAMES = 3_000;

/** Worked out by whoever asks first. */
const once = <T>(make: () => Steps<T>): (() => Steps<T>) => {
  let made: { readonly value: T } | null = null;
  return function* known() {
    made ??= { value: yield* make() };
    return made.value;
  };
};

/** What looking through a scene may cost, in units of work: see recipe/room.ts. Heavy ones are looked at as far as that goes. */
const MOST_WORK = 50_000_000;
/** However heavy it is. */
const LEAST_FRAMES = 30;

/** How many of its frames a scene is looked at, from its first on. */
const framesSeen = ({ scene, at }: Program): number => {
  const within = Math.floor(MOST_WORK / Math.max(1, at(scene.poster).work));
  return Math.min(scene.length, MOST_FRAMES, Math.max(LEAST_FRAMES, within));
};

function* smallOf(program: Program, see: See): Steps<Small> {
  const { scene } = program;
  const count = framesSeen(program);
  const scale = SMALL_SIDE / Math.max(scene.width, scene.height);
  const { width, height } = sizeAt(scene, scale);
  const matrix = [width / scene.width, 0, 0, height / scene.height, 0, 0] as const;
  const frames: Float32Array[] = [];
  for (let frame = 0; frame < count; frame++) {
    frames.push(lightsOf(see(frame, { width, height, matrix })));
    yield;
  }
  return { width, height, frames };
}

export interface Asked {
  readonly project: Project;
  readonly library: Library;
  readonly rules: Rules;
  readonly weights: ReadonlyMap<Id, number>;
  /** Draws frames of a scene. */
  readonly seeing: (scene: Scene) => See;
}

/** Those that show one scene; a film's are checked in each of its scenes. */
const deliveriesOf = ({ deliveries }: Project, id: Id): readonly Delivery[] =>
  deliveries.filter(({ scenes }) => scenes.length === 1 && scenes[0] === id);

function* foundBy(
  checks: readonly CheckKind[],
  own: Scene,
  { project, library, rules, weights, seeing }: Asked,
): Steps<readonly Finding[]> {
  const scene = wholeScene(own, project);
  const program = compileScene(scene, library);
  const see = seeing(scene);
  const look: Look = {
    project,
    scene,
    program,
    rules,
    see,
    weights,
    deliveries: deliveriesOf(project, scene.id),
    texts: once(() => textsOf(program)),
    small: once(() => smallOf(program, see)),
  };
  const found: Finding[] = [];
  for (const check of checks) found.push(...(yield* check.find(look)));
  return found;
}

/** All that is to be said of a scene and of what is delivered of it. */
export const proofOf = (own: Scene, asked: Asked): Steps<readonly Finding[]> => foundBy(CHECKS, own, asked);

const OF_VERSIONS = CHECKS.filter(({ ofVersions }) => ofVersions);

/** Whether a scene is shown otherwise in a version, `shown` being the project as that is. */
export const isOtherwise = (own: Scene, project: Project, shown: Project): boolean => {
  const scene = shown.scenes[own.id];
  return (
    scene !== undefined && (wholeScene(scene, shown) !== wholeScene(own, project) || shown.assets !== project.assets)
  );
};

/** What is to be said of a scene as a version has it, `asked` being the project as that is, beside what was found in it `usual`ly. */
export function* proofOfVersion(
  id: Id,
  version: Version,
  asked: Asked,
  usual: readonly Finding[],
): Steps<readonly Finding[]> {
  const scene = asked.project.scenes[id];
  if (!scene) return [];
  const found = yield* foundBy(OF_VERSIONS, scene, asked);
  const isUsual = ({ check, layer }: Finding) => usual.some((own) => own.check === check && own.layer === layer);
  return found
    .filter((finding) => !isUsual(finding))
    .map(({ mend: _ofTheProject, value: _ofThat, message, ...finding }) => ({
      ...finding,
      message: `In “${version.name}”: ${message}`,
      version: version.id,
    }));
}

/** All at once, where nobody waits. */
export const finished = <T>(steps: Steps<T>): T => {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
};
