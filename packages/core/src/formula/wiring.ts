/**
 * The formulas of a scene, wired to what they read. Worked out in the order in which they depend on each other; one whose
 * inputs are what they were is taken over from the scene before an edit, with all the values that it has kept.
 */
import { lastMade } from '../document/remembered';
import { cycleFrom, sorted } from '../document/order';
import type { Param, PointParam } from '../document/params';
import { thousands } from '../document/text';
import {
  type Id,
  isApart,
  isKeyed,
  type Item,
  type Layer,
  type Properties,
  type Property,
  type Scene,
} from '../document/types';
import { paramsIn, partOf } from '../properties/find';
import { keyFrames } from '../motion/keys';
import { type Sampler, samplerOf } from '../motion/sampler';
import type { Computing } from '../motion/reader';
import { text as textKind } from '../recipe/sources/text';
import { framesPerSecond } from '../time/rate';
import type { Fonts } from '../type/types';
import { compile } from './compile';
import { type Computed, failing, working } from './computed';
import { ALONE, type Entry, entriesOf, keyOf, ranks, type Wired } from './entries';
import { keptOr } from './kept';
import { type TextSize, textSizeOf } from './textSize';
import { half, joined } from './halves';
import { remembering } from './moments';
import { factsOf } from './facts';
import { carriedPoint, carrying, holdersOf } from './ground';
import type { Readable, Setting } from './parts';
import { leadsOfFormula } from './reads';
import { awayOf, pathOf, referenceOf, type Target } from './refs';
import { FormulaError, type Node, NUMBER, typeOf } from './types';

/** Formulas that may stand behind each other. */
export const MOST_BEHIND = 500;
/** In one scene. */
export const MOST_FORMULAS = 5_000;

export interface FormulaProblem {
  readonly layer: Id;
  readonly message: string;
}

export interface Wiring {
  /** Any property of the scene, its formula at work. */
  readonly sampler: (of: Wired) => Sampler | null;
  /** The formula of a property, or of one part of it. */
  readonly computed: (of: Wired) => Computed | null;
  /** The formulas of a property and of its parts. */
  readonly computedOn: (of: Target) => readonly Computed[];
  /** What stands in for the keyframes of a layer’s own properties, or of those of one of its parts. */
  readonly computing: (layer: Id, item?: Id) => Computing | undefined;
  /** Everything of a layer that is computed: two layers with the same are drawn alike. */
  readonly allOf: (layer: Layer) => readonly Computed[];
  readonly problems: readonly FormulaProblem[];
  /** What goes wrong with a layer’s formulas at one frame alone. */
  readonly problemsAt: (layer: Layer, frame: number) => readonly FormulaProblem[];
}

class Wires implements Wiring {
  private readonly byKey = new Map<string, Entry>();
  private readonly done = new Map<Entry, Computed>();
  private readonly rankOf: ReturnType<typeof ranks>;
  readonly problems: FormulaProblem[] = [];

  constructor(
    private readonly scene: Scene,
    private readonly fonts: Fonts,
  ) {
    this.rankOf = ranks(scene);
    const all = Object.values(scene.layers).flatMap(entriesOf);
    const entries = all.slice(0, MOST_FORMULAS);
    for (const { at } of all.slice(MOST_FORMULAS)) {
      const message = `has a formula beyond the ${thousands(MOST_FORMULAS)} that a scene may have`;
      this.problems.push({ layer: at.layer, message });
    }
    for (const entry of entries) this.byKey.set(keyOf(entry.at), entry);
    const reads = new Map(entries.map((e) => [e, this.readsOf(e)]));
    const { ready, left } = sorted(entries, reads);
    const stuck = new Set(left);
    // Those in a cycle fall back to their keyframes first; what reads them then works.
    const inCycle = new Set<Entry>();
    for (const entry of left) {
      const cycle = inCycle.has(entry)
        ? null
        : cycleFrom(entry, (of) => (reads.get(of) ?? []).filter((source) => stuck.has(source)));
      for (const [i, member] of (cycle ?? []).entries()) {
        // Each names it from itself on.
        const line = [...(cycle ?? []).slice(i), ...(cycle ?? []).slice(0, i)];
        if (!inCycle.has(member)) this.settle(member, this.circular(member, line));
        inCycle.add(member);
      }
    }
    const rest = left.filter((e) => !inCycle.has(e));
    const free = new Map(rest.map((e) => [e, (reads.get(e) ?? []).filter((s) => stuck.has(s) && !inCycle.has(s))]));
    for (const entry of [...ready, ...sorted(rest, free).ready]) this.settle(entry, this.compute(entry));
  }

  private settle(entry: Entry, computed: Computed): void {
    this.done.set(entry, computed);
    const { error } = computed;
    if (!error) return;
    this.problems.push({
      layer: entry.at.layer,
      message: `has a formula on ${this.nameOf(entry)} that does not work: ${error.message}`,
    });
  }

  /** Without its layer: `Trim / End`. */
  private nameOf({ at }: Entry): string {
    const name = pathOf(at, this.scene, at)?.replace(/^this \/ /, '') ?? at.key;
    return at.part === undefined ? name : `${name}.${'xy'.charAt(at.part)}`;
  }

  /** The entries whose formulas an entry reads, each once. */
  private readsOf(entry: Entry): Entry[] {
    const found = new Set<Entry>();
    const add = (at: Wired) => {
      const source = this.byKey.get(keyOf(at));
      if (source) found.add(source);
    };
    // A part stands on the formula of the whole.
    if (entry.at.part !== undefined) add({ ...entry.at, part: undefined } as Wired);
    const { readsSizes, readsPlaces } = factsOf(entry.formula);
    // Also the entry itself, should it stand in what it moves: a circle.
    const addPlaces = (of: Target) => {
      for (const other of readsPlaces ? this.placing(of) : []) found.add(other);
    };
    addPlaces(entry.at);
    for (const { to, part } of leadsOfFormula(entry.formula, this.scene, entry.at)) {
      add(to);
      if (part !== 1) add({ ...to, part: 0 });
      if (part !== 0) add({ ...to, part: 1 });
      addPlaces(to);
      if (!readsSizes || !this.isText(to)) continue;
      // The size of a text depends on all that its card has.
      for (const other of entriesOf(this.scene.layers[to.layer] as Layer)) {
        if (other.at.item === to.item && other !== entry) found.add(other);
      }
    }
    return [...found];
  }

  /** The formulas on the places of all that a point stands in. */
  private placing(of: Target): readonly Entry[] {
    return holdersOf(this.scene, of).flatMap(({ layer, item }) =>
      entriesOf(this.scene.layers[layer] as Layer).filter(({ at }) => at.item === item),
    );
  }

  /** The same at work, with what they are for. */
  private placed(of: Target): readonly Computed[] {
    return this.placing(of).flatMap((entry) => this.done.get(entry) ?? []);
  }

  private isText({ layer, item }: Target): boolean {
    const owner = this.scene.layers[layer];
    return item !== undefined && owner?.kind === 'drawing' && owner.items[item]?.kind === textKind.kind;
  }

  private paramAt({ layer, item, key }: Target): Param | undefined {
    const owner = this.scene.layers[layer];
    return owner && paramsIn(owner, item)[key];
  }

  private storedIn(layer: Id, item?: Id): Properties | undefined {
    const owner = this.scene.layers[layer];
    return (item === undefined ? owner : partOf(owner, item))?.params;
  }

  private storedAt({ layer, item, key }: Target): Property | undefined {
    return this.storedIn(layer, item)?.[key];
  }

  readonly computed = (of: Wired): Computed | null => {
    const entry = this.byKey.get(keyOf(of));
    return (entry && this.done.get(entry)) ?? null;
  };

  readonly computedOn = (of: Target): readonly Computed[] =>
    ([undefined, 0, 1] as const).flatMap((part) => this.computed({ ...of, ...(part !== undefined && { part }) }) ?? []);

  readonly sampler = (of: Wired): Sampler | null => {
    const { part, ...target } = of;
    const param = this.paramAt(target);
    if (!param) return null;
    const stage = this.computed(target) ?? samplerOf(param, this.storedAt(target));
    if (param.kind !== 'point') return part === undefined ? stage : null;
    const [x, y] = [this.computed({ ...target, part: 0 }), this.computed({ ...target, part: 1 })];
    if (part === undefined) return x || y ? joined(x ?? half(stage, 0), y ?? half(stage, 1)) : stage;
    return (part === 0 ? x : y) ?? half(stage, part);
  };

  readonly computing = (layer: Id, item?: Id): Computing | undefined => {
    const owner = this.scene.layers[layer];
    if (!owner || !entriesOf(owner).some((e) => e.at.item === item)) return undefined;
    return (key) => {
      const some = [undefined, 0, 1] as const;
      const own = { layer, key, ...(item !== undefined && { item }) };
      if (!some.some((part) => this.byKey.has(keyOf({ ...own, ...(part !== undefined && { part }) }))))
        return undefined;
      return this.sampler(own) ?? undefined;
    };
  };

  readonly allOf = (layer: Layer): readonly Computed[] =>
    entriesOf(layer).flatMap((entry) => this.done.get(entry) ?? []);

  readonly problemsAt = (layer: Layer, frame: number): readonly FormulaProblem[] =>
    entriesOf(layer).flatMap((entry) => {
      const message = this.done.get(entry)?.problemAt(frame) ?? null;
      if (message === null) return [];
      return [{ layer: layer.id, message: `has a formula on ${this.nameOf(entry)} that ${message}` }];
    });

  /** The property as it is without this formula. */
  private baseOf({ at, param }: Entry): Sampler {
    const { part, ...target } = at;
    const whole = part === undefined ? undefined : (this.paramAt(target) as PointParam);
    if (part === undefined || !whole) return samplerOf(param, this.storedAt(target));
    return half(this.computed(target) ?? samplerOf(whole, this.storedAt(target)), part);
  }

  private circular(entry: Entry, cycle: readonly Entry[]): Computed {
    const names = [...cycle, cycle[0] as Entry].map(
      ({ at }) => `${pathOf(at, this.scene) ?? at.key}${at.part === undefined ? '' : `.${'xy'.charAt(at.part)}`}`,
    );
    const error = new FormulaError(`It goes round in a circle: ${names.join(' → ')}.`, [0, entry.formula.text.length]);
    return failing(this.baseOf(entry), error);
  }

  private compute(entry: Entry): Computed {
    const { at, formula, param } = entry;
    const base = this.baseOf(entry);
    const { tree } = factsOf(formula);
    if (tree instanceof FormulaError) return failing(base, tree);
    const { order, count } = this.rankOf.get(at.layer) ?? ALONE;
    const { width, height, rate, eases } = this.scene;
    const sources = this.sourcesOf(entry);
    const inputs = [param, base, order, count, width, height, rate.num, rate.den, eases, this.fonts, ...sources];
    return keptOr(formula, `${this.scene.id}/${keyOf(at)}`, inputs, () =>
      this.build(entry, tree, base, { order, count }),
    );
  }

  /** Everything that an entry reads, to know whether it is still the same; what leads nowhere, as the reason. */
  private sourcesOf({ at, formula }: Entry): unknown[] {
    const { reads, readsPlaces } = factsOf(formula);
    const places = (of: Target): unknown[] =>
      readsPlaces
        ? holdersOf(this.scene, of)
            .map(({ layer, item }): unknown => this.storedIn(layer, item))
            .concat(this.placed(of))
        : [];
    const sources = reads.flatMap(({ path, part }): unknown[] => {
      const to = referenceOf(path, this.scene, at);
      if (typeof to === 'string') return [to];
      if (to.kind === 'ease') return [to.id];
      const away = part === 2 ? awayOf(to.to) : null;
      if (away) return [this.sampler(away)];
      const own = [this.sampler(to.to), ...places(to.to)];
      if (!this.isText(to.to)) return own;
      return [...own, partOf(this.scene.layers[to.to.layer], to.to.item as Id), ...this.cardOf(to.to)];
    });
    return [...sources, ...places(at)];
  }

  private build(entry: Entry, tree: Node, base: Sampler, rank: { order: number; count: number }): Computed {
    const { at, param } = entry;
    // A part stands on the formula of the whole.
    let depth =
      at.part === undefined
        ? 0
        : (this.computed({ layer: at.layer, key: at.key, ...(at.item !== undefined && { item: at.item }) })?.depth ??
          0);
    const read = (path: string, wanted: 0 | 1 | 2 | null) => {
      const named = referenceOf(path, this.scene, at);
      if (typeof named === 'string') return named;
      if (named.kind === 'ease') return 'An ease stands within ease(…) alone.';
      // The z of a point is a property of its own.
      const [to, part] = wanted === 2 ? [awayOf(named.to), null] : [named.to, wanted];
      if (!to) return 'Only the position, pivot, scale and target of a layer have a z.';
      const found = this.paramAt(to);
      const sampler = this.sampler({ ...to, ...(part !== null && { part }) });
      if (!found || (!sampler && part === null)) return this.gone(to);
      if (!sampler) return 'Only a vector has .x and .y.';
      const behind = Math.max(0, ...this.computedOn(to).map((computed) => computed.depth));
      depth = Math.max(depth, behind);
      // Formulas keep moments of their own.
      const moments = behind > 0 ? sampler : remembering(part === null ? found.kind : 'number', sampler);
      return { sampler, moments, type: part === null ? typeOf(found) : NUMBER };
    };
    const property = this.storedAt(at);
    const own = at.part !== undefined && isApart(property) ? property.parts[at.part] : property;
    const setting: Setting = {
      ...rank,
      type: typeOf(param),
      fps: framesPerSecond(this.scene.rate),
      width: this.scene.width,
      height: this.scene.height,
      inRecipe: at.item !== undefined && this.scene.layers[at.layer]?.kind === 'drawing',
      base,
      keyFrames: isKeyed(own) || isApart(own) ? keyFrames(own) : [],
      property: read,
      ease: (path) => {
        const to = referenceOf(path, this.scene, at);
        if (typeof to === 'string') return to;
        const ease = to.kind === 'ease' ? this.scene.eases?.find((e) => e.id === to.id) : undefined;
        return ease?.ease ?? 'The ease that was kept under this name is gone.';
      },
      textSize: (path) => {
        const to = referenceOf(path, this.scene, at);
        if (typeof to === 'string') return to;
        if (to.kind !== 'property' || !this.isText(to.to)) return 'This wants a text: {Layer / Text / Text}.';
        for (const computed of this.cardOf(to.to)) depth = Math.max(depth, computed.depth);
        return this.textSize(to.to);
      },
      carried: (path) => {
        const to = referenceOf(path, this.scene, at);
        if (typeof to === 'string') return to;
        const point = to.kind === 'property' && this.paramAt(to.to)?.kind === 'point' ? this.sampler(to.to) : null;
        if (to.kind !== 'property' || !point) return 'This wants a point: {Layer / Position}, {Layer / Card / Point}.';
        const along = [...this.computedOn(to.to), ...this.placed(to.to), ...this.placed(at)];
        for (const computed of along) depth = Math.max(depth, computed.depth);
        return carriedPoint(point, carrying(this.scene, to.to, at, this.computing), along);
      },
    };
    const part = compile(tree, setting);
    if (part instanceof FormulaError) return failing(base, part);
    if (depth >= MOST_BEHIND) {
      const error = new FormulaError(`It stands behind more than ${MOST_BEHIND} other formulas.`, tree.at);
      return failing(base, error);
    }
    const perCopy = setting.inRecipe && factsOf(entry.formula).readsRank;
    return working(param, base, part, depth + 1, perCopy);
  }

  private gone({ layer, item, key }: Target): string {
    const owner = this.scene.layers[layer];
    if (!owner) return 'It reads a layer that is gone.';
    return `It reads “${item ?? key}” of “${owner.name}”, which is gone.`;
  }

  /** Everything that is computed of a card. */
  private cardOf({ layer, item }: Target): readonly Computed[] {
    const owner = this.scene.layers[layer];
    const entries = owner ? entriesOf(owner).filter((entry) => entry.at.item === item) : [];
    return entries.flatMap((entry) => this.done.get(entry) ?? []);
  }

  private textSize(of: Target): Readable<TextSize> | string {
    const card = partOf(this.scene.layers[of.layer], of.item as Id) as Item | undefined;
    if (!card) return this.gone(of);
    return textSizeOf(card, this.computing(of.layer, of.item), this.cardOf(of), this.fonts);
  }
}

const wirings = lastMade<Scene, Wiring>();

/** The wiring of a scene, made once for each scene object and set of fonts. */
export const wiringOf = (scene: Scene, fonts: Fonts): Wiring => wirings(scene, [fonts], () => new Wires(scene, fonts));
