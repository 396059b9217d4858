/**
 * What waits to be sent, on top of the document that the server has. Nothing here asks the server or keeps anything: it is
 * what edits and answers make of each other.
 */
import type { Logged } from '@kite/api/history';
import type { Head } from '@kite/api/projects';
import { checkProject } from '@kite/core/check/project';
import { applyPatches, type Patch } from '@kite/core/document/patches';
import type { Project } from '@kite/core/document/types';
import { onTopOf } from '@kite/core/edits/merge';
import type { Unsent } from './outbox';

/** An edit that waits to be sent, as it stands on what is before it. */
export interface Waiting extends Unsent {
  readonly inverse: readonly Patch[];
}

/** What the document has become by others, or without an edit that was taken back. */
export interface Rebased {
  readonly doc: Project;
  /** What makes it of the one before, where that is known. */
  readonly patches: readonly Patch[] | null;
  /** What others did, in order; null where only the document is known. */
  readonly theirs: readonly Logged[] | null;
  /** What waits here, on top. */
  readonly waiting: readonly Waiting[];
}

/** What became of edits that waited: `lost` are those of which nothing is left, or that no longer fit. */
interface Put {
  readonly doc: Project;
  readonly waiting: readonly Waiting[];
  readonly lost: readonly Unsent[];
}

/** An edit that was made of `before` on top of `now`; null where nothing is left of it, or it does not fit. */
const onTop = (edit: Unsent, before: Project, later: Project, now: Project): { doc: Project; edit: Waiting } | null => {
  try {
    const { doc, patches, inverse } = onTopOf(before, later, now);
    return patches.length > 0 ? { doc: checkProject(doc), edit: { ...edit, patches, inverse } } : null;
  } catch {
    return null;
  }
};

/** What an edit makes of a document; as it was where it does not fit. */
const made = (doc: Project, { patches }: Unsent): Project => {
  try {
    return applyPatches(doc, patches);
  } catch {
    return doc;
  }
};

export class Queue {
  private waits: readonly Unsent[] = [];
  /** The edits of this page. */
  private readonly mine = new Set<string>();

  constructor(private server: Head) {}

  /** The document as the server has it, at its revision. */
  get head(): Head {
    return this.server;
  }
  get edits(): readonly Unsent[] {
    return this.waits;
  }

  add(edit: Unsent): void {
    this.mine.add(edit.id);
    this.waits = [...this.waits, edit];
  }

  /** The server has these, the first ones, at this revision, and nothing else. */
  arrived(edits: readonly Unsent[], revision: number): void {
    const document = edits.reduce((doc, edit) => applyPatches(doc, edit.patches), this.server.document);
    this.server = { document, revision };
    this.waits = this.waits.slice(edits.length);
  }

  /**
   * What waits on top of another document of the server, each edit as it was made on the ones before it. What is gone
   * arrived there, or is taken back.
   */
  rebase(head: Head, gone: ReadonlySet<string>, edits = this.waits): Put {
    let [before, doc] = [this.server.document, head.document];
    const waiting: Waiting[] = [];
    const lost: Unsent[] = [];
    for (const edit of edits) {
      const later = made(before, edit);
      if (!gone.has(edit.id)) {
        const next = onTop(edit, before, later, doc);
        if (next) {
          doc = next.doc;
          waiting.push(next.edit);
        } else lost.push(edit);
      }
      before = later;
    }
    this.server = head;
    this.waits = waiting.map(({ inverse: _inverse, ...edit }) => edit);
    for (const { id } of waiting) this.mine.add(id);
    return { doc, waiting, lost };
  }

  /** Edits of the log that follow on the server's document: what it becomes, and whose they are. */
  following(edits: readonly Logged[]): {
    readonly head: Head;
    readonly patches: readonly Patch[];
    /** Those of this page, by their revisions. */
    readonly own: ReadonlyMap<string, number>;
    readonly theirs: readonly Logged[];
  } {
    const patches = edits.flatMap((edit) => edit.patches);
    const { document, revision } = this.server;
    const own = new Map(edits.filter(({ id }) => this.mine.has(id)).map((edit) => [edit.id, edit.revision]));
    return {
      head: { document: applyPatches(document, patches), revision: revision + edits.length },
      patches,
      own,
      theirs: edits.filter(({ id }) => !own.has(id)),
    };
  }
}
