/**
 * What is dragged, typed or chosen, from its beginning to its end: one undo step. Each attempt starts anew from the document as it
 * was, and takes the place of the one before.
 */
import type { Change, Edit } from '@kite/core/document/patches';
import type { Project } from '@kite/core/document/types';
import { applyEdit } from '@kite/core/edits/apply';

/** What a gesture's moves are shown by first: the panels at once, or the picture, with the panels right after it. */
export type First = 'panels' | 'picture';

export interface Made extends Change {
  readonly label: string;
}

/** What was made and what goes with it, as one. */
export const withMore = ({ label, ...made }: Made, more: Edit): Made => {
  const { doc, patches, inverse } = applyEdit(made.doc, more);
  return { label, doc, patches: [...made.patches, ...patches], inverse: [...inverse, ...made.inverse] };
};

interface GestureEvents {
  /** The panels have waited long enough for a picture. */
  readonly onLate: () => void;
  /** It has rested: a field may be open for hours, and what rests in it is to be saved. */
  readonly onRest: () => void;
  /** Whether a hand is on it: what is dragged does not rest. */
  readonly held: () => boolean;
}

/** The longest that panels wait for a picture, in ms. */
const PATIENCE = 60;
/** How long a gesture without a hand on it stays as it is until that is saved, in ms. */
const REST = 1_500;

export class Gesture {
  private made: Made | null = null;
  /** Set while the panels wait for the picture. */
  private waiting: ReturnType<typeof setTimeout> | undefined;
  /** Set once something was changed. */
  private resting: ReturnType<typeof setTimeout> | undefined;

  constructor(
    readonly base: Project,
    readonly first: First,
    private readonly events: GestureEvents,
  ) {}

  /** What it has come to; null for nothing yet. */
  get last(): Made | null {
    return this.made;
  }

  /** RangeError for an edit that cannot be made: what it had come to stands. */
  attempt(edit: Edit): Made {
    this.made = { ...applyEdit(this.base, edit), label: edit.label };
    this.restSoon();
    if (this.first === 'picture') this.waiting ??= setTimeout(this.events.onLate, PATIENCE);
    return this.made;
  }

  /** What follows from what it has come to, as part of it; null where it has come to nothing. */
  add(edit: Edit): Made | null {
    if (this.made) this.made = withMore(this.made, edit);
    return this.made;
  }

  private restSoon(): void {
    clearTimeout(this.resting);
    this.resting = setTimeout(() => {
      if (this.events.held()) this.restSoon();
      else this.events.onRest();
    }, REST);
  }

  /** The panels wait no longer. Whether they did. */
  stopWaiting(): boolean {
    const waited = this.waiting !== undefined;
    clearTimeout(this.waiting);
    this.waiting = undefined;
    return waited;
  }

  /** Nothing is heard of it any more. */
  end(): void {
    this.stopWaiting();
    clearTimeout(this.resting);
  }
}
