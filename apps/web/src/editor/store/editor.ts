/**
 * The open project: its state, and everything that may be done to it. A gesture is one undo step:
 * between begin and end, each attempt starts anew from the document as it was.
 */
import { MOST_CHOSEN } from '@kite/api/live';
import { HISTORY } from '@kite/api/history';
import type { Save } from '@kite/api/projects';
import type { Change, Edit } from '@kite/core/document/patches';
import { isEqual } from '@kite/core/document/is';
import { stayingOutside } from '@kite/core/edits/outside';
import type { Id, Project, Scene } from '@kite/core/document/types';
import { turned } from '@kite/core/scene/turned';
import { wholeScene } from '@kite/core/scene/whole';
import type { Writing } from '@kite/core/motion/keys';
import { compileScene } from '@kite/core/scene/compile';
import type { Library, Program } from '@kite/core/scene/program';
import { openingFrame } from '@kite/core/scene/opening';
import { toast } from '../../ui/toast';
import type { StoreApi } from 'zustand/vanilla';
import { ask } from '../../api/client';
import { newId } from '../../api/ids';
import { myself } from '../../app/person';
import type { Preview } from '../../preview/client';
import type { BrowserMaterials } from '../../preview/materials';
import type { ProofWish } from '../../preview/proofing';
import { type First, Gesture, type Made, withMore } from './gesture';
import { surroundingsOf } from './inPlace';
import { Line } from './line';
import { Playback } from './playback';
import type { Rebased } from './queue';
import type { Saver } from './saver';
import { choosing, NOTHING, type Selection, stillAlone, stillThere } from './selection';
import { acknowledged, entryOf, rebasedLog, startsLate, type Step, stepped, stepsOf } from './steps';
import { type EditorState, sceneOf } from './state';
import { changeBack, overwritten } from './undoing';
import { isOfCard, SELECTING, toolOf, type Within, withTool } from './workspace';

export const makeId = (): Id => newId().slice(0, 12);

export class Editor {
  private gesture: Gesture | null = null;
  /** Whether a button of the pointer is down: what is dragged does not rest. */
  pressed = false;
  private readonly playback = new Playback(this);
  /** The document that is being checked. */
  private proving: Project | null = null;
  /** Where the playhead stood in scenes that were left. */
  private readonly leftAt = new Map<Id, number>();
  private readonly line: Line;
  private readonly tab = newId();

  /** See open.ts. */
  constructor(
    readonly store: StoreApi<EditorState>,
    readonly preview: Preview,
    private readonly saver: Saver,
    private readonly materials: BrowserMaterials,
  ) {
    this.line = new Line(this.state.doc.id, ({ revision, edits, people }) => {
      if (revision !== undefined) this.saver.at(revision);
      if (edits) this.saver.hear(edits);
      if (people) this.set({ others: people.filter(({ tab }) => tab !== this.tab) });
    });
    this.sayWhere();
    this.preview.onCached = (cached) => this.set({ cached });
    this.preview.onFound = (findings) => this.set({ findings, foundIn: this.proving });
    this.preview.onFailure = (message) => {
      toast.error(
        'The preview stumbled and was started anew. Nothing is lost; what is saved and rendered is not touched.',
        {
          id: 'preview-failed',
          description: message.slice(0, 200),
        },
      );
      return this.state.doc;
    };
    // What is drawn over the picture needs the fonts too.
    store.subscribe((now, before) => {
      if (now.doc !== before.doc || now.sceneId !== before.sceneId) this.fetchFonts();
      if (now.selection !== before.selection || now.sceneId !== before.sceneId) this.sayWhere();
    });
    this.fetchFonts();
  }

  private fetchFonts(): void {
    void this.fontsComing()?.then((came) => came && this.set({ fontsCame: this.state.fontsCame + 1 }));
  }

  /** Resolves once the fonts of a scene, or of the open one, are here or cannot come: whether any came. Null where all are here. */
  fontsComing(scene = this.scene): Promise<boolean> | null {
    return this.materials.fontsReady(wholeScene(scene, this.state.doc), this.state.doc.assets) ?? null;
  }

  /** Resolves while nothing is being dragged: an edit then is one of its own. */
  async atRest(): Promise<void> {
    // One that has settled goes on at once.
    while (this.state.gesturing) {
      await new Promise<void>((rested) => {
        const stop = this.store.subscribe(({ gesturing }) => {
          if (gesturing) return;
          stop();
          rested();
        });
      });
    }
  }

  /** More of the log, from before what is here. */
  async readBefore(): Promise<void> {
    const first = this.state.log.find(({ revision }) => revision !== undefined)?.revision ?? this.saver.revision + 1;
    const more = await ask(HISTORY.edits, { id: this.state.doc.id, before: String(first) });
    const log = [...more, ...this.state.log];
    this.set({ log, ...stepsOf(log, myself().id), moreBefore: startsLate(more) });
  }

  /** Tells others what is open and chosen here. */
  sayWhere(): void {
    const { sceneId, selection } = this.state;
    const layers = selection.layers.slice(0, MOST_CHOSEN);
    this.line.say({ tab: this.tab, person: myself(), scene: sceneId, layers });
  }

  get state(): EditorState {
    return this.store.getState();
  }
  get scene(): Scene {
    return sceneOf(this.state);
  }
  get library(): Library {
    return this.materials.library(this.state.doc.assets);
  }
  /** The open scene as it is, whatever a nest sets in it: what becomes values of the document is worked out from this. */
  get ownProgram(): Program {
    return compileScene(wholeScene(this.scene, this.state.doc), this.library);
  }
  /** The open scene as it is seen: with what the nest sets in it that it is seen in the place of. */
  get program(): Program {
    const settings = surroundingsOf(this)?.settings;
    return settings
      ? compileScene(turned(wholeScene(this.scene, this.state.doc), settings), this.library)
      : this.ownProgram;
  }
  /** Resolves once the server has every edit: what it is asked for next is of what is seen here. Rejects with what is in the way. */
  allSaved(): Promise<void> {
    this.settle();
    return this.saver.settled();
  }

  /** Checks the document as it is; what is found comes to the state. */
  prove(wish: ProofWish): void {
    this.proving = this.state.doc;
    this.preview.prove(wish);
  }
  stopProving(): void {
    this.preview.prove(null);
  }

  get hasUnsent(): boolean {
    return this.saver.hasUnsent;
  }

  set(part: Partial<EditorState>): void {
    this.store.setState(part);
  }

  close(): void {
    this.end();
    this.playback.stop();
    this.line.close();
    this.saver.close();
    this.preview.close();
  }

  // ---- changing the document

  /** Shows a document, keeping selection, scene and frame where they still make sense. */
  private show(doc: Project): Partial<EditorState> {
    const { sceneId, selection, frame, solo } = this.state;
    const scene = doc.scenes[sceneId];
    if (!scene) return { doc, sceneId: doc.order[0] as Id, selection: NOTHING, frame: 0, range: null, solo: [] };
    return {
      doc,
      selection: stillThere(selection, doc, scene),
      solo: stillAlone(solo, this.scene, scene),
      frame: Math.min(frame, scene.length - 1),
    };
  }

  /** The server has these edits, at these revisions. */
  saved(revisions: ReadonlyMap<string, number>): void {
    if (revisions.size > 0) this.set({ log: acknowledged(this.state.log, revisions) });
  }

  /** The document with what others did, or without what could not be saved. */
  rebased({ doc, patches, theirs, waiting }: Rebased): void {
    const me = myself().id;
    this.dropGesture();
    if (patches) this.preview.commit(patches);
    else this.preview.open(doc);
    const { log: before, past, future } = this.state;
    const log = rebasedLog(before, theirs, waiting, myself());
    // What waits stands on what others did now, and may be undone in another way.
    const steps = patches
      ? (theirs ?? []).filter(({ by }) => by?.id === me).reduce(stepped, { past, future })
      : stepsOf(log, me);
    this.set({ ...this.show(doc), log, ...steps, gesturing: false, ...(!theirs && { moreBefore: true }) });
    for (const { by, label } of overwritten(theirs ?? [], before, me, Date.now())) {
      toast.info(`${by?.name ?? 'Somebody'} changed what you had just changed: “${label}”.`, { id: 'over' });
    }
  }

  begin(first: First = 'panels'): void {
    if (this.gesture) this.end();
    this.saver.hold(true);
    this.gesture = new Gesture(this.state.doc, first, {
      onLate: () => this.catchUp(),
      onRest: () => this.settle(),
      held: () => this.pressed,
    });
    this.set({ gesturing: true });
  }

  /**
   * An edit by itself, or within a gesture the gesture's newest state. False for one that cannot be made: why is told,
   * and everything stays as it was.
   */
  edit(edit: Edit): boolean {
    if (!this.gesture) {
      this.begin();
      const made = this.edit(edit);
      this.end();
      return made;
    }
    let change: Change;
    try {
      change = this.gesture.attempt(edit);
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      const said = `${error.message.charAt(0).toUpperCase()}${error.message.slice(1)}`;
      toast.error(`${said}. Nothing was changed.`, { id: edit.label });
      return false;
    }
    this.saver.touch();
    this.preview.attempt(change.patches);
    if (this.gesture.first === 'panels') this.set(this.show(change.doc));
    return true;
  }

  /** What an open gesture has come to is a step, and it goes on from there: what comes next may be another's. */
  settle(): void {
    const { gesture } = this;
    if (!gesture?.last) return;
    this.end();
    this.begin(gesture.first);
  }

  /** What follows from a gesture's newest state, as part of it: a layer is called by the words that were typed. */
  also(edit: Edit): void {
    const made = this.gesture?.add(edit);
    if (!made) return void this.edit(edit);
    this.preview.attempt(made.patches);
    this.set(this.show(made.doc));
  }

  /** Lets the panels show what the picture shows; called when a picture has been drawn. */
  catchUp(): void {
    const { gesture } = this;
    if (gesture?.stopWaiting() && gesture.last) this.set(this.show(gesture.last.doc));
  }

  /** Takes the open gesture out of hand. */
  private dropGesture(): Gesture | null {
    const { gesture } = this;
    gesture?.end();
    this.gesture = null;
    return gesture;
  }

  end(): void {
    this.catchUp();
    const { base, last } = this.dropGesture() ?? {};
    // What was dragged away and back is no step: one that is taken back is to be seen.
    if (!base || !last || isEqual(base, last.doc)) {
      if (last) this.preview.attempt([]);
      this.set({ gesturing: false });
    } else {
      const step = this.settled(base, last);
      this.record(step.label, step);
      this.set({ gesturing: false });
    }
    this.saver.hold(false);
  }

  /** A change that is shown already is sent, and one more step. */
  private record(label: string, { patches, inverse }: Change, of: Pick<Save, 'undoes' | 'redoes'> = {}): void {
    this.preview.commit(patches);
    const entry = entryOf({ id: this.saver.add(label, patches, of), label, patches, inverse, ...of }, myself());
    this.set({ log: [...this.state.log, entry], ...stepped(this.state, entry) });
  }

  /** A step with what follows from it, shown: what is to stay as it was meant, whatever else was changed. */
  private settled(base: Project, step: Made): Made {
    const more = stayingOutside(base, step.doc, (scene) => compileScene(wholeScene(scene, step.doc), this.library));
    if (!more) return step;
    const settled = withMore(step, more);
    this.set(this.show(settled.doc));
    return settled;
  }

  /** Gives a gesture up: the document is as it was. */
  abandon(): void {
    const { base } = this.dropGesture() ?? {};
    if (base) {
      this.preview.attempt([]);
      this.set({ ...this.show(base), gesturing: false });
    }
    this.saver.hold(false);
  }

  /** Takes a step back, or one that was taken back. */
  private turn(step: Step, label: string, of: Pick<Save, 'undoes' | 'redoes'>): void {
    const change = changeBack(this.state.doc, this.state.log, step, myself().id);
    if (change) {
      this.set(this.show(change.doc));
      this.record(label, change, of);
      return;
    }
    toast.info(`Nothing is left of “${step.label}” to be changed back: it was changed by others since.`);
    const left = (steps: readonly Step[]) => steps.filter(({ id }) => id !== step.id);
    this.set({ past: left(this.state.past), future: left(this.state.future) });
  }

  undo(): void {
    const step = this.state.past.at(-1);
    if (!step || this.gesture) return;
    this.turn(step, `Undo: ${step.label}`, { undoes: step.id });
    // There may be more to be undone than was read of the log.
    if (this.state.past.length === 0 && this.state.moreBefore) void this.readBefore().catch(() => undefined);
  }

  redo(): void {
    const step = this.state.future.at(-1);
    if (step && !this.gesture) this.turn(step, step.label, { redoes: step.id });
  }

  /** Undoes or redoes until a step is the last one that stands. */
  goTo(id: string): void {
    if (this.gesture) return;
    while (this.state.future.some((step) => step.id === id)) this.redo();
    while (this.state.past.some((step) => step.id === id) && this.state.past.at(-1)?.id !== id) this.undo();
  }

  /** How a change of value at the playhead is written. */
  get writing(): Writing {
    return { write: this.state.autoKey ? 'key' : 'curve', frame: Math.round(this.state.frame) };
  }

  // ---- selection

  select(part: Partial<Selection>): void {
    const chosen = choosing(this.state, part);
    // The points that were selected went with their card, and so does what works on them.
    this.set(chosen.vertices && isOfCard(this.state.mode) ? { ...chosen, mode: SELECTING } : chosen);
  }

  /** Adds to or takes from the selected layers. */
  toggleLayer(id: Id): void {
    const { layers } = this.state.selection;
    this.select({ layers: layers.includes(id) ? layers.filter((l) => l !== id) : [...layers, id] });
  }

  /** Puts the members of a group out of the list, or back into it. */
  fold(group: Id, folded: boolean): void {
    const next = new Set(this.state.folded);
    if (folded) next.add(group);
    else next.delete(group);
    this.set({ folded: next });
  }

  setOpened(ids: readonly Id[], opened: boolean): void {
    const next = new Set(this.state.opened);
    for (const id of ids) {
      if (opened) next.add(id);
      else next.delete(id);
    }
    this.set({ opened: next });
  }

  showScene(sceneId: Id, at?: { readonly frame: number; readonly within: Within }): void {
    const { doc } = this.state;
    const scene = doc.scenes[sceneId];
    if (sceneId === this.state.sceneId || !scene) return;
    this.pause();
    this.leftAt.set(this.state.sceneId, this.state.frame);
    const frame =
      at?.frame ?? this.leftAt.get(sceneId) ?? openingFrame(compileScene(wholeScene(scene, doc), this.library));
    this.set({
      sceneId,
      within: at?.within ?? null,
      selection: NOTHING,
      frame: Math.min(frame, scene.length - 1),
      range: null,
      timeReach: null,
      compare: null,
      view: null,
      mode: withTool(toolOf(this.state.mode)),
      solo: [],
    });
  }

  // ---- time

  setFrame(frame: number): void {
    this.set({ frame: Math.min(Math.max(Math.round(frame), 0), this.scene.length - 1) });
  }

  /** Moves the playhead by hand: playing stops. */
  seek(frame: number): void {
    this.pause();
    this.setFrame(frame);
  }

  pause(): void {
    this.playback.stop();
    if (this.state.playing) this.set({ playing: false, drawnRate: null, coarse: false });
  }

  play(): void {
    this.playback.start();
  }

  togglePlay(): void {
    if (this.state.playing) this.pause();
    else this.play();
  }
}
