/**
 * The thread that documents are worked on in. Reading, checking, changing and writing a large one takes a second, in which
 * the server's own thread answers the others: there a document is bytes that come and go.
 */
import { createHash } from 'node:crypto';
import { parentPort } from 'node:worker_threads';
import type { Checkpoint, Logged, RemovedScene, Taken } from '@kite/api/history';
import type { Named, Person, ProjectCard, Save, Saved } from '@kite/api/projects';
import { PROJECTS, saveRule } from '@kite/api/projects';
import { Invalid } from '@kite/core/check/problem';
import { fits } from '@kite/core/check/fits';
import type { Rule } from '@kite/core/check/rules';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import { sceneOfDelivery } from '@kite/core/delivery/film';
import { settingsOf } from '@kite/core/delivery/kept';
import { fileNameOf, nameFacts } from '@kite/core/delivery/naming';
import { completed, planRender } from '@kite/core/delivery/settings';
import type { RenderPlan } from '@kite/core/delivery/types';
import { LIMITS } from '@kite/core/document/limits';
import { newProject, newScene, type SceneSize, uniqueName } from '@kite/core/document/make';
import { remembered } from '@kite/core/document/remembered';
import type { Assets, Delivery, Project, Scene } from '@kite/core/document/types';
import { applyEdit } from '@kite/core/edits/apply';
import { renameProject } from '@kite/core/edits/scenes';
import { type Shown, shownIn } from '@kite/core/edits/versions';
import { fitsArchive } from '@kite/core/interchange/archive';
import { assetsWithin, wholeScene } from '@kite/core/scene/whole';
import secureJson from 'secure-json-parse';
import { Refused } from '../errors';
import { type ToLookAt, toLookAt } from '../posters/toLookAt';
import { Line } from '../threads/line';
import { borrowedDb } from './dbLine';
import { HistoryStore } from './history';
import { newId } from './ids';
import { type ProjectHead, ProjectStore } from './projects';
import type { Lent } from './projectsApart';
import type { Written } from './written';

/** A project as an archive takes it. */
export interface Packing {
  readonly name: string;
  /** JSON. */
  readonly document: string;
  /** The SHA-256 of its files. */
  readonly files: readonly string[];
}
/** A scene as a render takes it: with all that it draws. */
export interface ToRender {
  readonly projectName: string;
  readonly sceneName: string;
  /** JSON. */
  readonly scene: string;
  readonly assets: Assets;
  /** Frames. */
  readonly total: number;
  readonly settings: RenderSettings;
  /** What its file is called. */
  readonly fileName: string;
  /** The same for what comes out the same. */
  readonly madeOf: string;
  readonly delivery: { readonly id: string; readonly name: string } | null;
  readonly version: { readonly id: string; readonly name: string } | null;
}
/** How a file of a delivery stands before it is rendered. */
export interface Standing {
  readonly delivery: string;
  readonly version: string | null;
  readonly madeOf: string;
  /** Why it cannot be made; null where it can. */
  readonly problem: string | null;
}

/** As `saves` of a request's body are; one that cannot be read is refused alone. */
const readable = (saves: readonly unknown[]): { fit: Save[]; refused: Saved['refused'] } => {
  const fit: Save[] = [];
  const refused: Saved['refused'][number][] = [];
  for (const [i, save] of saves.entries()) {
    try {
      fits(saveRule, save);
      fit.push(save as Save);
    } catch (error) {
      const id = (save as { id?: unknown } | null)?.id;
      // Without an id there is no telling whose it was: the whole request is wrong.
      if (!(error instanceof Invalid) || typeof id !== 'string') throw error;
      refused.push({ id, message: error.message, field: `saves[${i}].${error.field}` });
    }
  }
  return { fit, refused };
};

const parsed = (body: Uint8Array): unknown => {
  try {
    return secureJson.parse(Buffer.from(body).toString()) as unknown;
  } catch {
    throw new Refused('invalid', 'The request could not be read.');
  }
};

const filesOf = (document: Project): Map<string, number> =>
  new Map(Object.values(document.assets).map(({ sha, bytes }) => [sha, bytes]));

const fitsItsArchive = ({ document, size }: ProjectHead): void => fitsArchive(size, [...filesOf(document).values()]);

const planOf = (scene: Scene, settings: RenderSettings): RenderPlan => {
  try {
    return planRender(scene, settings);
  } catch (error) {
    throw new Invalid((error as Error).message, 'settings');
  }
};

/** JSON with its keys in order: a document keeps none. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_key, inner: unknown) =>
    typeof inner === 'object' && inner !== null && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );

const sha = (text: string): string => createHash('sha256').update(text).digest('hex');

/** Of a scene without what it takes along: scenes are large, and most are the same from one time to the next. */
const printOf = remembered(({ nested: _nested, eases: _eases, ...own }: Scene): string => sha(inOrder(own)));

/** The same for what comes out the same. */
const madeOf = (scene: Scene, assets: Assets, settings: RenderSettings): string => {
  const inner = Object.values(scene.nested ?? {}).map(printOf);
  return sha(inOrder([printOf(scene), inner, scene.eases ?? [], assets, settings]));
};

/** A scene with all that a render of it takes along; `take` is how often it was asked for, this time included. */
const asked = (
  { project: document, version }: Shown,
  own: Scene,
  settings: RenderSettings,
  delivery: Delivery | null,
  take: number,
): ToRender => {
  const scene = wholeScene(own, document);
  const plan = planOf(scene, settings);
  const assets = assetsWithin(scene, document.assets);
  return {
    projectName: document.name,
    sceneName: scene.name,
    settings,
    total: plan.frames.length,
    scene: JSON.stringify(scene),
    assets,
    delivery: delivery && { id: delivery.id, name: delivery.name },
    version: version && { id: version.id, name: version.name },
    madeOf: madeOf(scene, assets, settings),
    fileName: fileNameOf(
      delivery?.file ?? '{scene}',
      nameFacts({ project: document, scene, delivery, plan, version, take, time: new Date() }),
    ),
  };
};

const delivered = (shown: Shown, delivery: Delivery, take: number): ToRender => {
  const scene = sceneOfDelivery(delivery, shown.project);
  return asked(shown, scene, settingsOf(delivery, scene), delivery, take);
};

/** How a file stands: what it would be made of, or why it cannot be made. */
const standingOf = (delivery: Delivery, { project, version }: Shown): Standing => {
  const file = { delivery: delivery.id, version: version?.id ?? null };
  try {
    const scene = wholeScene(sceneOfDelivery(delivery, project), project);
    const settings = settingsOf(delivery, scene);
    planOf(scene, settings);
    return { ...file, madeOf: madeOf(scene, assetsWithin(scene, project.assets), settings), problem: null };
  } catch (error) {
    return { ...file, madeOf: '', problem: (error as Error).message };
  }
};

const port = parentPort;
if (!port) throw new Error('projectsThread runs as a thread');

/** A copy as a project of its own. */
const copied = async (document: Project): Promise<Named> => {
  const copy = await projects.create({ ...document, name: uniqueName(document.name, await names()) });
  return { id: copy.document.id, name: copy.document.name };
};
const names = async () => (await projects.list()).map((p) => p.name);

const methods = {
  list: (): Promise<ProjectCard[]> => projects.list(),
  create: async (project: Project): Promise<string> => (await projects.create(project)).document.id,
  createEmpty: async (name: string, scene: string, size: SceneSize): Promise<string> =>
    methods.create(newProject(newId(), name, [newScene(newId(), scene, size)])),
  take: (written: Written): Promise<void> => projects.take(written),
  /** The head, as JSON. */
  open: async (id: string): Promise<Uint8Array> => {
    const { document, revision } = await projects.head(id);
    return new TextEncoder().encode(JSON.stringify({ document, revision }));
  },
  /** `body` is a request's, as JSON. */
  save: async (id: string, body: Uint8Array): Promise<Saved> => {
    const asked = parsed(body);
    fits(PROJECTS.save.body as Rule, asked);
    const { base, saves, by } = asked as { base: number; saves: readonly unknown[]; by?: Person };
    const { fit, refused } = readable(saves);
    const saved = await projects.save(id, base, fit, by ?? null);
    return { ...saved, refused: [...refused, ...saved.refused] };
  },
  arrived: (id: string, saves: readonly string[]): Promise<string[]> => projects.arrived(id, saves),
  rename: async (id: string, name: string): Promise<number> => {
    const { document, revision } = await projects.head(id);
    const edit = renameProject(name);
    const { patches } = applyEdit(document, edit);
    if (patches.length === 0) return revision;
    return (await projects.save(id, revision, [{ id: newId(), label: edit.label, patches }])).revision;
  },
  duplicate: async (id: string): Promise<Named> => copied((await projects.head(id)).document),
  edits: (id: string, asked: { readonly before?: number; readonly after?: number }): Promise<Logged[]> =>
    asked.after === undefined ? history.before(id, asked.before ?? null) : history.after(id, asked.after),
  /** As JSON. */
  state: async (id: string, state: string): Promise<Uint8Array> =>
    new TextEncoder().encode(JSON.stringify({ document: await history.state(id, state) })),
  copyState: async (id: string, state: string): Promise<Named> => copied(await history.state(id, state)),
  checkpoints: (id: string): Promise<Checkpoint[]> => history.checkpoints(id),
  keepCheckpoint: (id: string, name: string, revision: number | null, by: string | null): Promise<Checkpoint> =>
    history.keep(id, name, revision, by),
  renameCheckpoint: (id: string, checkpoint: string, name: string): Promise<void> =>
    history.rename(id, checkpoint, name),
  removeCheckpoint: (id: string, checkpoint: string): Promise<void> => history.setLetGo(id, checkpoint, true),
  restoreCheckpoint: (id: string, checkpoint: string): Promise<void> => history.setLetGo(id, checkpoint, false),
  removedScenes: (id: string): Promise<RemovedScene[]> => history.removedScenes(id),
  removedScene: (id: string, scene: string): Promise<Taken> => history.removedScene(id, scene),
  removed: (): Promise<ProjectCard[]> => projects.removed(),
  forget: (): Promise<void> => history.forget(),
  /** The revision that it is at. */
  revision: async (id: string): Promise<number> => (await projects.head(id)).revision,
  tag: (id: string, tags: readonly string[]): Promise<void> => projects.tag(id, tags),
  setDeleted: (id: string, deleted: boolean): Promise<void> => projects.setDeleted(id, deleted),
  /** Throws Invalid where it weighs more than an archive may. */
  checkArchive: async (id: string): Promise<void> => fitsItsArchive(await projects.head(id)),
  toLookAt: async (id: string): Promise<ToLookAt> => toLookAt((await projects.head(id)).document),
  toPack: async (id: string): Promise<Packing> => {
    const head = await projects.head(id);
    fitsItsArchive(head);
    const { document } = head;
    return { name: document.name, document: JSON.stringify(document), files: [...filesOf(document).keys()] };
  },
  /** A render goes on with what there was when it was asked for, nested scenes too. */
  toRender: async (id: string, sceneId: string, settings: RenderSettings): Promise<ToRender> => {
    const { document } = await projects.head(id);
    const own = Object.hasOwn(document.scenes, sceneId) ? document.scenes[sceneId] : undefined;
    if (!own) throw new Refused('not_found', 'This scene is not in the project.');
    return asked({ project: document, version: null }, own, completed(settings, own), null, 1);
  },
  /** The files of deliveries as they are now, in the order in which those are named; `counts` is how often each was asked for before. */
  toDeliver: async (
    id: string,
    deliveries: readonly string[],
    counts: { readonly [delivery: string]: number },
  ): Promise<ToRender[]> => {
    const { document } = await projects.head(id);
    const files = deliveries.flatMap((own) => {
      const delivery = document.deliveries.find((d) => d.id === own);
      if (!delivery) throw new Refused('not_found', 'This delivery is not in the project.');
      return shownIn(delivery, document).map((shown) => ({ delivery, shown }));
    });
    if (files.length > LIMITS.filesAtOnce) {
      throw new Invalid(`these are ${files.length} files; at most ${LIMITS.filesAtOnce} at once`, 'deliveries');
    }
    try {
      return files.map(({ delivery, shown }) => delivered(shown, delivery, (counts[delivery.id] ?? 0) + 1));
    } catch (error) {
      if (error instanceof RangeError) throw new Invalid(error.message, 'deliveries');
      throw error;
    }
  },
  /** What each file of the deliveries of a project would be made of. */
  standing: async (id: string): Promise<Standing[]> => {
    const { document } = await projects.head(id);
    return document.deliveries.flatMap((delivery) =>
      shownIn(delivery, document).map((shown) => standingOf(delivery, shown)),
    );
  },
};
export type ProjectMethods = typeof methods;

const server = new Line<Lent>(port, methods).ask;
const projects = new ProjectStore(borrowedDb(server), (id, edits) => void server.told(id, edits));
const history = new HistoryStore(borrowedDb(server), projects);
