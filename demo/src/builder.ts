/** Builds a project through core's own edits, one after another, as a person would. */
import {
  countingIds,
  type MakeId,
  newController,
  newDrawing,
  newItem,
  newNest,
  type SceneSize,
} from '@kite/core/document/make';
import type { Edit } from '@kite/core/document/patches';
import { applyEdit } from '@kite/core/edits/apply';
import { makeSolid } from '@kite/core/edits/solids';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import type {
  Color,
  Ease,
  FontChoice,
  Id,
  Item,
  KnobKind,
  PictureAsset,
  Point,
  Project,
  Scene,
  Tag,
  Value,
  Vertex,
} from '@kite/core/document/types';
import type { HeldPose } from '@kite/core/document/poses';
import { newKnob } from '@kite/core/document/knobs';
import { addAsset } from '@kite/core/edits/assets';
import { sceneIn } from '@kite/core/edits/find';
import { setFormula } from '@kite/core/edits/formulas';
import { joinPoint } from '@kite/core/edits/joints';
import { addKnob } from '@kite/core/edits/knobs';
import { addLayers, setLayers } from '@kite/core/edits/layers';
import { matteBy } from '@kite/core/edits/mattes';
import { setEven, setHandles } from '@kite/core/edits/keyframes';
import { addMarker } from '@kite/core/edits/markers';
import { cutIntoPanes, type Panes } from '@kite/core/edits/panes';
import { addHeld, keepPose, setStrip } from '@kite/core/edits/poses';
import { animate, setValue } from '@kite/core/edits/properties';
import { addScene, setScene } from '@kite/core/edits/scenes';
import { makeSet } from '@kite/core/edits/sets';
import { setKnobHere } from '@kite/core/edits/settings';
import { knobsOf } from '@kite/core/scene/turned';
import { storedText } from '@kite/core/formula/refs';

type Keys = readonly (readonly [frame: number, value: Value, ease?: Ease])[];

export interface LayerPlan {
  readonly name: string;
  readonly items: readonly Item[];
  readonly at?: Point;
  readonly tag?: Tag;
  readonly from?: number;
  readonly to?: number;
  readonly parent?: Id;
  /** Keyframes of the layer's place. */
  readonly keys?: { readonly [key: string]: Keys };
}

export interface KnobPlan {
  readonly kind?: KnobKind;
  readonly name: string;
  readonly value: Value;
  readonly min?: number;
  readonly max?: number;
}

export interface NestPlan {
  readonly name: string;
  readonly inner: Id;
  readonly at: Point;
  /** The frame at which it begins. */
  readonly start: number;
  readonly settings: { readonly [knob: string]: Value };
  /** Whether its layers come into the depth of the scene around it. */
  readonly inDepth?: true;
}

export type CornerPlan = readonly [layer: Id, card: Item, key: string];

export class SceneBuilder {
  constructor(
    private readonly project: ProjectBuilder,
    readonly id: Id,
  ) {}

  /** A card; a group takes its cards' ids. */
  card(kind: string, values: { readonly [key: string]: Value } = {}): Item {
    return newItem(this.project.makeId(), kind, values);
  }

  /** A card that holds others, with them. */
  holding(kind: string, cards: readonly Item[], values: { readonly [key: string]: Value } = {}, name?: string): Item[] {
    const inside = new Set(cards.flatMap((card) => card.children ?? []));
    const children = cards.map(({ id }) => id).filter((id) => !inside.has(id));
    return [{ ...this.card(kind, values), ...(name !== undefined && { name }), children }, ...cards];
  }

  /** A text in one colour, its middle above the origin. */
  words(text: string, font: FontChoice, size: number, color: Color): Item[] {
    return [this.card('text', { text, font, size, align: 'center' }), this.card('fill', { color })];
  }

  /** A ticket with a notch at each end. */
  ticket(
    size: { readonly width: number; readonly height: number; readonly radius: number },
    notch: number,
    color: Color,
  ): Item[] {
    const at = (x: number) => this.card('ellipse', { width: notch, height: notch, centre: [x, 0] });
    return [
      this.card('rectangle', size),
      at(-size.width / 2),
      at(size.width / 2),
      this.card('combine', { operation: 'subtract' }),
      this.card('fill', { color }),
    ];
  }

  /** Cuts layers by what another one shows. */
  cut(by: Id, layers: readonly Id[]): void {
    this.project.do(matteBy(this.id, by, layers, this.project.makeId));
  }

  controller(name: string, at: Point, tag: Tag): Id {
    const id = this.project.makeId();
    this.project.do(addLayers(this.id, [newController(this.scene, id, name, { position: at, tag })]));
    return id;
  }

  /** Adds a drawing in front of what is there. */
  drawing(plan: LayerPlan): Id {
    const id = this.project.makeId();
    const { name, items, at, tag } = plan;
    this.project.do(
      addLayers(this.id, [
        newDrawing(this.scene, id, name, items, { ...(at && { position: at }), ...(tag && { tag }) }),
      ]),
    );
    const { from, to, parent } = plan;
    const fields = { ...(from !== undefined && { from }), ...(to !== undefined && { to }), ...(parent && { parent }) };
    if (Object.keys(fields).length > 0) this.project.do(setLayers(this.id, [id], fields));
    for (const [key, keys] of Object.entries(plan.keys ?? {})) this.animate(id, undefined, key, keys);
    return id;
  }

  animate(layer: Id, item: Item | undefined, key: string, keys: Keys): void {
    this.project.do(animate({ scene: this.id, layer, ...(item && { item: item.id }), key }, keys));
  }

  /** Values that stay, of a layer or of one of its cards. */
  values(layer: Id, values: { readonly [key: string]: Value }, item?: Id): void {
    for (const [key, value] of Object.entries(values)) {
      const ref = { scene: this.id, layer, ...(item !== undefined && { item }), key };
      this.project.do(setValue(ref, value, { write: 'curve', frame: 0 }));
    }
  }

  /** Makes a box of a layer, and gives the controller in its middle. */
  box(layer: Id, depth: number, color: Color): Id {
    const about = this.project.makeId();
    const program = compileScene(this.scene as Scene, NO_LIBRARY);
    const solid = { form: 'box', depth, color, count: 2, angle: 0, gap: 0 } as const;
    this.project.do(makeSolid(program, layer, solid, 0, about, this.project.makeId));
    return about;
  }

  knob(controller: Id, { kind = 'number', name, value, ...limits }: KnobPlan): void {
    const knob = { ...newKnob(this.project.makeId(), kind, name), ...limits, params: { value: { value } } };
    this.project.do(addKnob(this.id, controller, knob));
  }

  /** Plays another scene, with values of its own for knobs inside, by their names. */
  nest({ name, inner, at, start, settings, inDepth }: NestPlan): Id {
    const id = this.project.makeId();
    const nest = newNest(this.scene, id, name, inner, { position: at });
    this.project.do(addLayers(this.id, [nest]));
    const card = { scene: this.id, layer: id, item: nest.recipe[0] as Id };
    this.project.do(setValue({ ...card, key: 'start' }, start, { write: 'curve', frame: 0 }));
    if (inDepth) this.values(id, { space: true }, card.item);
    for (const knob of knobsOf(sceneIn(this.project.doc, inner)).values()) {
      const value = settings[knob.name];
      if (value !== undefined) this.project.do(setKnobHere(card, knob, value, this.project.makeId()));
    }
    return id;
  }

  hang(layer: Id, parent: Id): void {
    this.project.do(setLayers(this.id, [layer], { parent }));
  }

  set(name: string, members: readonly Id[]): void {
    this.project.do(makeSet(this.id, { id: this.project.makeId(), name, members }));
  }

  /** A formula as it is typed, by names. */
  formula(layer: Id, key: string, text: string, item?: Item): void {
    const here = { layer, key, ...(item && { item: item.id }) };
    this.project.do(setFormula({ scene: this.id, ...here }, storedText(text, this.scene as Scene, here)));
  }

  /** Joins a corner of a card to one of another layer’s. */
  join([layer, card, key]: CornerPlan, [to, other, at]: CornerPlan): void {
    const ref = (id: Id, item: Item, of: string) => ({ scene: this.id, layer: id, item: item.id, key: of });
    this.project.do(joinPoint(ref(layer, card, key), ref(to, other, at)));
  }

  /** Cuts a layer into panes, and gives them row by row. */
  panes(layer: Id, panes: Panes): readonly Id[] {
    const before = new Set(this.scene.order);
    const program = compileScene(this.scene as Scene, { ...NO_LIBRARY, assets: this.project.doc.assets });
    this.project.do(cutIntoPanes(program, layer, panes, 0, this.project.makeId));
    return this.scene.order.filter((id) => !before.has(id));
  }

  marker(frame: number, name: string): void {
    this.project.do(addMarker(this.id, { id: this.project.makeId(), frame, name }));
  }

  /** Lets a layer ride along a path at one pace, turned as the path is, from one frame to another. */
  ride(layer: Id, path: readonly Vertex[], from: number, to: number, ease: Ease): void {
    const ref = { scene: this.id, layer, key: 'position' };
    const frameOf = (i: number) => Math.round(from + ((to - from) * i) / (path.length - 1));
    this.project.do(
      animate(
        ref,
        path.map(([x, y], i) => [frameOf(i), [x, y], ease]),
      ),
    );
    path.forEach(([, , ...handles], i) => this.project.do(setHandles(ref, frameOf(i), handles)));
    this.project.do(setEven(ref, true));
    this.project.do(setValue({ ...ref, key: 'along' }, true, { write: 'curve', frame: from }));
  }

  /** Keeps what the scene shows as a pose. */
  pose(name: string): Id {
    const id = this.project.makeId();
    this.project.do(keepPose(this.id, id, name, 0));
    return id;
  }

  /** Puts poses one after another, so that the last leads back to the first. */
  strip(poses: readonly Id[], stays: Pick<HeldPose, 'hold' | 'between' | 'each'>): void {
    const held = poses.map((pose) => ({ id: this.project.makeId(), pose, ...stays }));
    this.project.do(setStrip(this.id, { loops: true }));
    this.project.do(addHeld(this.id, held, 0));
  }

  poster(frame: number): void {
    this.project.do(setScene(this.id, { poster: frame }));
  }

  private get scene() {
    return sceneIn(this.project.doc, this.id);
  }
}

export class ProjectBuilder {
  readonly makeId: MakeId = countingIds('q');

  constructor(public doc: Project) {}

  do(edit: Edit): void {
    this.doc = applyEdit(this.doc, edit).doc;
  }

  /** Takes a picture in. */
  take(picture: PictureAsset): void {
    this.do(addAsset(picture));
  }

  scene(name: string, size: SceneSize): SceneBuilder {
    const id = this.makeId();
    this.do(addScene(id, name, size));
    return new SceneBuilder(this, id);
  }
}
