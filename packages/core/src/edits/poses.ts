/** Edits to poses and to the strip that is made of them: whatever is changed, what follows it is written anew. */
import { isEqual } from '../document/is';
import { LIMITS } from '../document/limits';
import { movedTo } from '../document/lists';
import { type Edit, plain, type ProjectDraft } from '../document/patches';
import { type HeldPose, NO_POSES, type Poses, type PoseStrip, type ScenePose } from '../document/poses';
import { type Id, isKeyed, type Scene } from '../document/types';
import { withValue, type Writing } from '../motion/keys';
import { samplerOf } from '../motion/sampler';
import { changesOf, posedAt, posedLike, posedValues, showsIn, withChanges } from '../moves/poses';
import { fittedStrip, followsStrip, stripTimes, type WrittenPose, writtenBy, writtenIn } from '../moves/poseStrip';
import { propertyIn } from '../properties/find';
import { layerIn, NotFound, type SceneDraft, sceneIn } from './find';
import { change } from './properties';
import { setScene } from './scenes';

const posesIn = (scene: Scene): Poses => scene.poses ?? NO_POSES;

const poseIn = ({ kept }: Poses, id: Id): ScenePose => {
  const pose = kept.find((p) => p.id === id);
  if (!pose) throw new NotFound('pose', id);
  return pose;
};

type PosesDraft = NonNullable<SceneDraft['poses']>;

/** Other poses in place of a scene's: what stays is not written, for a pose holds all that a scene shows. */
const putPoses = (scene: SceneDraft, before: Poses, after: Poses): void => {
  const own = (scene.poses ??= { kept: [], strip: { ...before.strip } as PosesDraft['strip'] });
  if (!isEqual(after.strip, before.strip)) own.strip = after.strip as PosesDraft['strip'];
  const ids = ({ kept }: Poses) => kept.map(({ id }) => id);
  if (isEqual(ids(after).slice(0, before.kept.length), ids(before))) {
    after.kept.forEach((pose, i) => {
      if (pose !== before.kept[i]) own.kept[i] = pose as PosesDraft['kept'][number];
    });
  } else own.kept = after.kept as PosesDraft['kept'];
};

/** The scene lasts as long as its strip, or at least as long; what a pose shows that is new in it is there to be seen. */
const makeRoom = (draft: ProjectDraft, scene: SceneDraft, before: Poses, { kept, strip }: Poses): void => {
  const { end } = stripTimes(strip);
  if (end > LIMITS.length) {
    throw new RangeError(`The poses would last ${end} frames: a scene has at most ${LIMITS.length}`);
  }
  if (strip.fits ? end !== scene.length : end > scene.length) setScene(scene.id, { length: end }).change(draft);
  const used = new Set(strip.held.map(({ pose }) => pose));
  const old = stripTimes(before.strip).end;
  const known = new Set(before.strip.held.flatMap(({ pose }) => before.kept.find(({ id }) => id === pose) ?? []));
  const fresh = kept.filter((pose) => used.has(pose.id) && !known.has(pose));
  for (const layer of Object.values(scene.layers)) {
    if (fresh.some((pose) => showsIn(pose, layer.id))) {
      layer.hidden = false;
      layer.from = Math.min(layer.from, strip.from);
      layer.to = Math.max(layer.to, end);
    } else if (layer.to === old && known.size > 0) layer.to = Math.max(layer.from + 1, end);
  }
};

/**
 * Other poses, or another strip, and all that follows it written anew. What moves otherwise stays as it is, but for what is
 * `asked` for.
 */
const withPoses = (
  draft: ProjectDraft,
  sceneId: Id,
  how: (poses: Poses) => Poses,
  asked: (one: WrittenPose, before: WrittenPose | undefined) => boolean = () => false,
): void => {
  const scene = sceneIn(draft, sceneId);
  const now = plain<Scene>(scene);
  const before = posesIn(now);
  const asPosed = how(before);
  const after = { ...asPosed, strip: fittedStrip(asPosed.strip) };
  const old = writtenIn(now);
  const next = writtenBy(now, after);
  for (const [key, one] of next) {
    const property = propertyIn(now.layers[one.ref.layer], one.ref);
    const known = old.get(key);
    // What comes under the poses shows as they have it, however it moved before.
    const free = !known || followsStrip(known, property);
    const rests = !isKeyed(one.property) && !isKeyed(property);
    if (!asked(one, known) && (!free || (rests && known))) continue;
    if (!isEqual(one.property, property ?? { value: one.param.default })) change(draft, one.ref, () => one.property);
  }
  // What no pose knows any more rests as the first one had it.
  for (const [key, { ref, param, property }] of old) {
    if (next.has(key) || !isKeyed(property)) continue;
    const own = propertyIn(now.layers[ref.layer], ref);
    if (followsStrip({ ref, param, property }, own))
      change(draft, ref, () => ({ value: property.keys[0]?.value ?? 0 }));
  }
  if (after.strip.held.length > 0) makeRoom(draft, scene, before, after);
  putPoses(scene, before, after);
};

const onStrip = (label: string, sceneId: Id, how: (strip: PoseStrip) => PoseStrip): Edit => ({
  label,
  change: (draft) => withPoses(draft, sceneId, (poses) => ({ ...poses, strip: how(poses.strip) })),
});

const withHeld = (strip: PoseStrip, held: readonly HeldPose[], at: number): PoseStrip => ({
  ...strip,
  held: [...strip.held.slice(0, at), ...held, ...strip.held.slice(at)],
});

/** Where a pose that is kept goes in the strip, and the pose that was shown before it was changed: the strip shows that as it was. */
export interface KeptNext {
  readonly held: HeldPose;
  readonly at: number;
  readonly since: Id | null;
}

/** Keeps what a scene shows at a frame, under a name; as a picture of the strip too, if that is wanted. */
export const keepPose = (sceneId: Id, id: Id, name: string, frame: number, next?: KeptNext): Edit => ({
  label: 'Keep a pose',
  change: (draft) => {
    const scene = plain<Scene>(sceneIn(draft, sceneId));
    const layers = posedAt(scene, frame);
    const since = scene.poses?.kept.find((pose) => pose.id === next?.since);
    const changes = since && changesOf(since, layers);
    const asked = ({ ref }: WrittenPose) => {
      const own = changes?.get(ref.layer);
      return (ref.item === undefined ? own?.own : own?.parts.get(ref.item))?.has(ref.key) ?? false;
    };
    const kept = (poses: Poses): Poses => ({
      kept: [...poses.kept, { id, name, frame, layers }],
      strip: next ? withHeld(poses.strip, [next.held], next.at) : poses.strip,
    });
    withPoses(draft, sceneId, kept, asked);
  },
});

/**
 * What the scene shows at a frame otherwise than a pose does goes into poses: that one, others or all. The strip shows them so
 * wherever it has them, with what was edited by hand there.
 */
export const changePoses = (sceneId: Id, pose: Id, ids: readonly Id[], frame: number): Edit => ({
  label: ids.length === 1 ? 'Change a pose' : 'Change poses',
  change: (draft) => {
    const scene = plain<Scene>(sceneIn(draft, sceneId));
    const before = posesIn(scene);
    const changes = changesOf(poseIn(before, pose), posedAt(scene, frame));
    const after = { ...before, kept: before.kept.map((p) => (ids.includes(p.id) ? withChanges(p, changes) : p)) };
    withPoses(
      draft,
      sceneId,
      () => after,
      ({ property }, known) => !isEqual(known?.property, property),
    );
  },
});

/** What poses are called and where they stand in their list changes nothing that is shown. */
const onKept = (
  label: string,
  sceneId: Id,
  id: Id,
  how: (poses: PosesDraft, pose: PosesDraft['kept'][number]) => void,
): Edit => ({
  label,
  change: (draft) => {
    const { poses } = sceneIn(draft, sceneId);
    const pose = poses?.kept.find((p) => p.id === id);
    if (!poses || !pose) throw new NotFound('pose', id);
    how(poses, pose);
  },
});

export const renamePose = (sceneId: Id, id: Id, name: string): Edit =>
  onKept('Rename a pose', sceneId, id, (_poses, pose) => {
    pose.name = name;
  });

/** Another place among the poses. */
export const movePose = (sceneId: Id, id: Id, to: number): Edit =>
  onKept('Reorder poses', sceneId, id, (poses, pose) => {
    poses.kept = movedTo(poses.kept, pose, to);
  });

/** Forgets a pose; the strip goes on without it. */
export const removePose = (sceneId: Id, id: Id): Edit => ({
  label: 'Forget a pose',
  change: (draft) =>
    withPoses(draft, sceneId, (poses) => {
      const pose = poseIn(poses, id);
      const held = poses.strip.held.filter((h) => h.pose !== id);
      return { kept: poses.kept.filter((p) => p !== pose), strip: { ...poses.strip, held } };
    }),
});

/** The scene as a pose has it, at a frame: where there are keyframes, by `how`. */
export const showPose = (sceneId: Id, id: Id, how: Writing): Edit => ({
  label: 'Show a pose',
  change: (draft) => {
    const scene = plain<Scene>(sceneIn(draft, sceneId));
    const pose = poseIn(posesIn(scene), id);
    for (const layer of Object.values(scene.layers)) {
      for (const { ref, param, value } of posedValues(sceneId, pose, layer)) {
        const shown = samplerOf(param, propertyIn(layer, ref)).at(how.frame);
        if (!isEqual(shown, value)) change(draft, ref, (own) => withValue(param, own, value, how));
      }
      if (layer.hidden && showsIn(pose, layer.id)) layerIn(sceneIn(draft, sceneId), layer.id).hidden = false;
    }
  },
});

/** Puts pictures into the strip, before the one that stands at a place now. */
export const addHeld = (sceneId: Id, held: readonly HeldPose[], at: number): Edit => ({
  label: 'Put poses one after another',
  change: (draft) =>
    withPoses(draft, sceneId, (poses) => {
      for (const { pose } of held) poseIn(poses, pose);
      return { ...poses, strip: withHeld(poses.strip, held, at) };
    }),
});

type HeldFields = Partial<Omit<HeldPose, 'id'>>;

/** How long pictures of the strip stay, and what is between them and the next: of one, several or all, the same or each its own. */
export const setHeld = (sceneId: Id, ids: readonly Id[], fields: HeldFields | ((own: HeldPose) => HeldFields)): Edit =>
  onStrip('Change how long poses stay', sceneId, (strip) => ({
    ...strip,
    held: strip.held.map((h) =>
      ids.includes(h.id) ? { ...h, ...(typeof fields === 'function' ? fields(h) : fields) } : h,
    ),
  }));

export const moveHeld = (sceneId: Id, id: Id, to: number): Edit =>
  onStrip('Reorder poses', sceneId, (strip) => {
    const own = strip.held.find((h) => h.id === id);
    return own ? { ...strip, held: movedTo(strip.held, own, to) } : strip;
  });

/** Takes pictures out of the strip; with the last of them what it moved comes to rest. */
export const removeHeld = (sceneId: Id, ids: readonly Id[]): Edit =>
  onStrip('Take poses out', sceneId, (strip) => ({
    ...strip,
    held: strip.held.filter((h) => !ids.includes(h.id)),
  }));

export const setStrip = (sceneId: Id, fields: Partial<Omit<PoseStrip, 'held'>>): Edit =>
  onStrip('Change how poses follow each other', sceneId, (strip) => ({ ...strip, ...fields }));

/** What was edited by hand is again as the poses have it. */
export const followPoses = (sceneId: Id): Edit => ({
  label: 'Back to the poses',
  change: (draft) =>
    withPoses(
      draft,
      sceneId,
      (poses) => poses,
      ({ property }) => isKeyed(property),
    ),
});

/** The strip goes, its keyframes stay. */
export const dropStrip = (sceneId: Id): Edit => ({
  label: 'Keep the keyframes alone',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    if (scene.poses) scene.poses.strip.held = [];
  },
});

/** Copies of layers are in the poses that those are in. */
export const joinPoses = (sceneId: Id, copies: ReadonlyMap<Id, Id>): Edit => ({
  label: 'Pose along',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const now = plain<Scene>(scene);
    if (!now.poses) return;
    const kept = now.poses.kept.map((pose) => {
      const joined = [...copies].flatMap(([id, copy]) => {
        const [own, layer, other] = [pose.layers[id], now.layers[id], now.layers[copy]];
        return own && layer && other ? [[copy, posedLike(own, layer, other)] as const] : [];
      });
      return joined.length > 0 ? { ...pose, layers: { ...pose.layers, ...Object.fromEntries(joined) } } : pose;
    });
    putPoses(scene, now.poses, { ...now.poses, kept });
  },
});
