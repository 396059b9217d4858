/** Renders: asked for, followed, cancelled, and what came of them. */
import { isId, isNumber, isObject } from '@kite/core/document/is';
import { LIMITS } from '@kite/core/document/limits';
import { flag, nameRule, oneOf, rule } from '@kite/core/check/rules';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import type { RenderResult } from '@kite/core/delivery/types';
import { bytes, call, listOf, shape } from './call';
import { countRule, idRule, orNull, textRule, timeRule } from './rules';

export const RENDER_STATES = ['queued', 'running', 'done', 'failed', 'cancelled'] as const;

export interface Render {
  readonly id: string;
  readonly projectId: string;
  readonly projectName: string;
  readonly sceneName: string;
  readonly settings: RenderSettings;
  /** The delivery of the project that it was made for; null where it was asked for by itself. */
  readonly delivery: string | null;
  readonly deliveryName: string | null;
  /** The version of the project that it shows, and its name; null for the project as it is. */
  readonly version: string | null;
  readonly versionName: string | null;
  /** What its file is called. */
  readonly fileName: string;
  /** What was asked for at once has the same. */
  readonly batch: string | null;
  /** From where it was asked for: an address, or this machine. */
  readonly askedBy: string;
  /** Whether there is a small picture of it. */
  readonly pictured: boolean;
  readonly status: (typeof RENDER_STATES)[number];
  /** Frames. */
  readonly done: number;
  readonly total: number;
  readonly attempts: number;
  readonly error: string | null;
  readonly result: RenderResult | null;
  /** The SHA-256 of what came of it. */
  readonly file: string | null;
  readonly createdAt: string;
  readonly startedAt: string | null;
  readonly finishedAt: string | null;
}

const isParts = (v: unknown): boolean =>
  v === undefined ||
  (Array.isArray(v) && v.every((p) => isObject(p) && typeof p.name === 'string' && isNumber(p.bytes)));

const partsRule = rule('what the weight is made of, each with a name and bytes; may be left out', isParts);

/** What a render would weigh. */
export interface Weight extends Pick<RenderResult, 'bytes' | 'parts'> {
  readonly estimated: boolean;
}

const resultRule = shape<RenderResult>({
  width: countRule,
  height: countRule,
  frames: countRule,
  seconds: rule('a number', isNumber),
  bytes: countRule,
  parts: partsRule,
  notes: listOf(textRule(2_000)),
});
const renderRule = shape<Render>({
  id: idRule,
  projectId: idRule,
  projectName: nameRule,
  sceneName: nameRule,
  settings: rule('the settings', isObject),
  delivery: orNull(idRule, 'the delivery of the project that it was made for'),
  deliveryName: orNull(nameRule, 'its name'),
  version: orNull(idRule, 'the version of the project that it shows'),
  versionName: orNull(nameRule, 'its name'),
  fileName: textRule(200),
  batch: orNull(idRule, 'the same for what was asked for at once'),
  askedBy: textRule(200),
  pictured: flag,
  status: oneOf(RENDER_STATES),
  done: countRule,
  total: countRule,
  attempts: countRule,
  error: orNull(textRule(2_000), 'why it failed'),
  result: orNull(resultRule, 'width, height, frames, seconds, bytes and notes'),
  file: orNull(textRule(2_000), 'the SHA-256 of what came of it'),
  createdAt: timeRule,
  startedAt: orNull(timeRule, 'a time'),
  finishedAt: orNull(timeRule, 'a time'),
});

/** How a file of a delivery stands. */
export interface Delivered {
  readonly delivery: string;
  /** The version that it shows; null for the project as it is. */
  readonly version: string | null;
  /** The last render that came to a file; null for none yet. */
  readonly last: Render | null;
  /** Whether its file is what would be made now. */
  readonly current: boolean;
  /** Why it cannot be made; null where it can. */
  readonly problem: string | null;
}

export const RENDERS = {
  list: call({
    method: 'GET',
    path: '/renders',
    does: 'The last 200 renders, the newest first.',
    answer: listOf(renderRule),
  }),
  ask: call({
    method: 'POST',
    path: '/renders',
    does: 'Asks for a render of a scene as it is now. One is made at a time, in order.',
    body: shape<{ project: string; scene: string; settings: RenderSettings }>({
      project: textRule(64),
      scene: textRule(64),
      settings: rule('the settings of a format, as below', isObject),
    }),
    answer: renderRule,
    makes: true,
    refuses: ['not_found'],
  }),
  deliver: call({
    method: 'POST',
    path: '/projects/:id/deliveries/render',
    does: `Asks for renders of deliveries of a project as they are now, of each version where they have one for each, ${LIMITS.filesAtOnce} at the most. They share a \`batch\`.`,
    body: shape<{ deliveries: readonly string[]; stale?: boolean }>({
      deliveries: rule(
        `1 to ${LIMITS.deliveries} ids of deliveries`,
        (v) => Array.isArray(v) && v.length > 0 && v.length <= LIMITS.deliveries && v.every(isId),
      ),
      stale: rule(
        'true for files alone that are out of date or not there yet; may be left out',
        (v) => v === undefined || typeof v === 'boolean',
      ),
    }),
    answer: listOf(renderRule),
    makes: true,
    refuses: ['not_found'],
  }),
  delivered: call({
    method: 'GET',
    path: '/projects/:id/deliveries',
    does: 'How the deliveries of a project stand: the last file of each, or of each version, and whether it is out of date.',
    answer: listOf(
      shape<Delivered>({
        delivery: idRule,
        version: orNull(idRule, 'the version that it shows'),
        last: orNull(renderRule, 'the last render that came to a file'),
        current: flag,
        problem: orNull(textRule(2_000), 'why it cannot be made'),
      }),
    ),
    refuses: ['not_found'],
  }),
  batch: call({
    method: 'GET',
    path: '/renders/batch/:batch/files',
    does: 'The files of all that was asked for at once, as one zip.',
    answer: bytes('application/zip'),
    refuses: ['not_found', 'not_ready'],
  }),
  picture: call({
    method: 'GET',
    path: '/renders/:id/picture',
    does: 'A small picture of a render.',
    answer: bytes('image/webp'),
    refuses: ['not_found', 'not_ready'],
  }),
  prepare: call({
    method: 'POST',
    path: '/renders/prepare',
    does: 'Has what draws a render begin, for who is about to ask for one: that begins a second sooner then. It ends after a minute without work.',
  }),
  weigh: call({
    method: 'POST',
    path: '/renders/weigh',
    does: 'What a render of a scene, as it is now, would weigh: a banner by part, a file of many frames nearly, from some of them. Nothing is kept of it.',
    body: shape<{ project: string; scene: string; settings: RenderSettings }>({
      project: textRule(64),
      scene: textRule(64),
      settings: rule('the settings, as below', isObject),
    }),
    answer: shape<Weight>({
      bytes: countRule,
      parts: partsRule,
      estimated: rule('whether it was told from some of its frames', (v) => typeof v === 'boolean'),
    }),
    refuses: ['not_found'],
  }),
  cancel: call({
    method: 'POST',
    path: '/renders/:id/cancel',
    does: 'Cancels a render that waits or is under way.',
    answer: renderRule,
    refuses: ['not_found', 'not_ready'],
  }),
  retry: call({
    method: 'POST',
    path: '/renders/:id/retry',
    does: 'Puts a render that failed or was cancelled at the end of the queue again.',
    answer: renderRule,
    refuses: ['not_found', 'not_ready'],
  }),
  remove: call({
    method: 'DELETE',
    path: '/renders/:id',
    does: 'Takes a render away. It is kept for a day, and its file where no other has the same.',
    refuses: ['not_found'],
  }),
  removed: call({
    method: 'GET',
    path: '/renders/removed',
    does: 'Renders that were taken away in the last day, the last one first.',
    answer: listOf(renderRule),
  }),
  forget: call({
    method: 'DELETE',
    path: '/renders/removed',
    does: 'Lets go of all renders that were taken away: they cannot be brought back, and their files give their room back.',
  }),
  restore: call({
    method: 'POST',
    path: '/renders/:id/restore',
    does: 'Brings a render back that was taken away.',
    answer: renderRule,
    refuses: ['not_found'],
  }),
  file: call({
    method: 'GET',
    path: '/renders/:id/file',
    does: 'What came of a render, whole or in byte ranges (RFC 9110, section 14).',
    query: { download: 'to be kept under its own name' },
    answer: bytes('of its format'),
    refuses: ['not_found', 'not_ready', 'out_of_range'],
  }),
  banner: call({
    method: 'GET',
    path: '/renders/:id/banner/:name',
    does: 'One file of a banner, as it plays: its script is shut off from everything else of the server.',
    answer: bytes('text/html', 'text/javascript', 'image/png'),
    refuses: ['not_found', 'not_ready'],
  }),
  events: call({
    method: 'GET',
    path: '/renders/events',
    does: 'Each render as it changes, as server-sent events (HTML Living Standard, 9.2): a message is a render; the event `removed` has its `id`.',
    answer: bytes('text/event-stream'),
  }),
};

export const HEALTH = call({
  method: 'GET',
  path: '/health',
  does: 'Answers once the server is there and what is stored is open. Pages are given before.',
  answer: shape<{ ok: boolean }>({ ok: flag }),
});
