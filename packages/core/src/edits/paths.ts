/** Edits to paths: a change of the number of vertices is made to every keyframe that has as many. */
import { newItem, type MakeId } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { Id, PathValue, Property, PropertyRef, Value } from '../document/types';
import { mappedValues } from '../motion/keys';
import { pathOfOutline } from '../motion/paths';
import { samplerOf } from '../motion/sampler';
import { bareSupplies } from '../recipe/evaluate';
import { kindOf } from '../recipe/table';
import type { Program } from '../scene/program';
import { drawingIn, holderOf, itemIn, NotFound } from './find';
import { paramAt } from '../properties/find';

/**
 * Gives every keyframe of a path the same change: a vertex that goes in or out at one of them goes in
 * or out at the same place of all that have as many vertices as the path has at `frame`.
 */
export const reshapePath = (
  ref: PropertyRef,
  label: string,
  frame: number,
  reshape: (path: PathValue) => PathValue,
): Edit => ({
  label,
  change: (draft) => {
    const param = paramAt(draft, ref);
    if (param?.kind !== 'path') throw new NotFound('path', ref.key);
    const { params } = holderOf(draft, ref);
    const now = params[ref.key] && plain<Property>(params[ref.key]);
    const count = (samplerOf(param, now).at(frame) as PathValue).vertices.length;
    const fits = (value: Value) => (value as PathValue).vertices.length === count;
    const next = mappedValues(now, param.default, (v) => (fits(v) ? reshape(v as PathValue) : v));
    params[ref.key] = next as (typeof params)[string];
  },
});

/** Turns a source into paths, as it is shown at a frame of the scene's program: one card, or a group of them where it has several outlines. */
export const turnIntoPath = (
  { scene, layer: layerId, item: itemId }: { scene: Id; layer: Id; item: Id },
  frame: number,
  program: Program,
  makeId: MakeId,
): Edit => ({
  label: 'Turn into a path',
  change: (draft) => {
    const layer = drawingIn(draft, scene, layerId);
    const item = itemIn(layer, itemId);
    const kind = kindOf(item.kind);
    if (kind.role !== 'source' || !('outlines' in kind)) throw new NotFound('source', itemId);
    const shown = program.cardAt(layerId, itemId, frame);
    if (!shown) throw new NotFound('card', itemId);
    const outlines = kind.outlines(shown.values, bareSupplies(program.library.fonts));
    // What worked on the source's own properties has nothing to work on.
    delete item.formulas;
    const name = item.name ?? kind.label;
    const paths = outlines.map((outline) => ({ closed: outline.closed, path: pathOfOutline(outline) }));
    if (paths.length === 1) {
      Object.assign(item, { kind: 'path', name, params: { path: { value: paths[0]?.path } } });
      return;
    }
    const cards = paths.map(({ path }) => newItem(makeId(), 'path', { path }));
    for (const card of cards) layer.items[card.id] = card as typeof item;
    Object.assign(item, { kind: 'group', name, params: {}, children: cards.map((c) => c.id) });
  },
});
