/** The server's API. Errors carry the server's own sentence. */
import { formatOf, type RenderSettings } from '@kite/core/delivery/formats/table';
import type { SceneSize } from '@kite/core/document/make';
import type { Patch } from '@kite/core/document/patches';
import type { Asset, Project } from '@kite/core/document/types';

export class ApiError extends Error {
  constructor(
    message: string,
    readonly code: string,
    readonly status: number,
    /** The ids of saves that are there already, where others were not taken. */
    readonly done: ReadonlySet<string> = new Set(),
  ) {
    super(message);
    this.name = 'ApiError';
  }
}
/** The server did not answer at all. */
export class Away extends Error {
  constructor() {
    super('The server cannot be reached.');
    this.name = 'Away';
  }
}

const call = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
  const binary = body instanceof Blob;
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      ...(body !== undefined && {
        body: binary ? body : JSON.stringify(body),
        headers: { 'content-type': binary ? body.type || 'application/zip' : 'application/json' },
      }),
    });
  } catch {
    throw new Away();
  }
  if (response.status === 204) return undefined as T;
  const text = await response.text();
  if (response.ok) return JSON.parse(text) as T;
  let error: { message?: string; code?: string; done?: readonly string[] } = {};
  try {
    error = (JSON.parse(text) as { error?: typeof error }).error ?? {};
  } catch {
    // Not ours. A proxy in front of a server that is away answers for it; else the status says all there is.
    if (response.status === 502 || response.status === 503 || response.status === 504) throw new Away();
  }
  throw new ApiError(
    error.message ?? `The server answered ${response.status}.`,
    error.code ?? '',
    response.status,
    new Set(error.done),
  );
};

export interface ProjectCard {
  readonly id: string;
  readonly name: string;
  readonly scenes: number;
  readonly updatedAt: string;
}
export interface Head {
  readonly document: Project;
  readonly revision: number;
}
/** One edit, as it is saved. */
export interface Save {
  readonly id: string;
  readonly label: string;
  readonly patches: readonly Patch[];
}
export interface Saved {
  readonly revision: number;
  readonly refused: readonly { readonly id: string; readonly message: string }[];
}
export interface Render {
  readonly id: string;
  readonly projectId: string;
  readonly projectName: string;
  readonly sceneName: string;
  readonly settings: RenderSettings;
  readonly status: 'queued' | 'running' | 'done' | 'failed' | 'cancelled';
  readonly done: number;
  readonly total: number;
  readonly error: string | null;
  readonly result: {
    readonly width: number;
    readonly height: number;
    readonly frames: number;
    readonly seconds: number;
    readonly bytes: number;
    readonly notes: readonly string[];
  } | null;
  readonly createdAt: string;
  readonly startedAt: string | null;
  readonly finishedAt: string | null;
}

export interface SavedSize {
  readonly id: string;
  readonly name: string;
  readonly size: SceneSize;
}

export const api = {
  health: () => call<{ ok: boolean }>('GET', '/health'),
  sizes: () => call<SavedSize[]>('GET', '/sizes'),
  saveSize: (name: string, size: SceneSize) => call<SavedSize>('POST', '/sizes', { name, size }),
  deleteSize: (id: string) => call<undefined>('DELETE', `/sizes/${id}`),

  addAsset: (file: Blob, name: string) =>
    call<Asset>(
      'POST',
      `/assets?name=${encodeURIComponent(name)}`,
      new Blob([file], { type: 'application/octet-stream' }),
    ),

  projects: () => call<ProjectCard[]>('GET', '/projects'),
  newProject: (name: string, scene: string, size: SceneSize) =>
    call<{ id: string }>('POST', '/projects', { name, scene, size }),
  importProject: (file: Blob) => call<{ id: string; name: string }>('POST', '/projects/import', file),
  project: (id: string) => call<Head>('GET', `/projects/${id}`),
  save: (id: string, base: number, saves: readonly Save[]) => call<Saved>('PATCH', `/projects/${id}`, { base, saves }),
  /** Which of these saves the server has. */
  arrived: (id: string, ids: readonly string[]) => call<{ ids: string[] }>('POST', `/projects/${id}/arrived`, { ids }),
  renameProject: (id: string, name: string) => call<{ revision: number }>('POST', `/projects/${id}/rename`, { name }),
  duplicateProject: (id: string) => call<{ id: string; name: string }>('POST', `/projects/${id}/duplicate`),
  deleteProject: (id: string) => call<undefined>('DELETE', `/projects/${id}`),
  restoreProject: (id: string) => call<undefined>('POST', `/projects/${id}/restore`),
  /** Rejects with what keeps the archive of a project from being made. */
  checkArchive: (id: string) => call<undefined>('GET', `/projects/${id}/archive/check`),
  archiveUrl: (id: string) => `/api/projects/${id}/archive`,

  renders: () => call<Render[]>('GET', '/renders'),
  render: (project: string, scene: string, settings: RenderSettings) =>
    call<Render>('POST', '/renders', { project, scene, settings }),
  cancelRender: (id: string) => call<Render>('POST', `/renders/${id}/cancel`),
  retryRender: (id: string) => call<Render>('POST', `/renders/${id}/retry`),
  deleteRender: (id: string) => call<undefined>('DELETE', `/renders/${id}`),
  fileUrl: (id: string) => `/api/renders/${id}/file`,
  /** Where a render plays by itself, as it is delivered. */
  deliveredUrl: ({ id, settings }: Render) =>
    formatOf(settings.format).shownAs === 'page' ? `/api/renders/${id}/banner/index.html` : `/api/renders/${id}/file`,
  bannerUrl: (id: string) => `/api/renders/${id}/banner/index.html`,
};
