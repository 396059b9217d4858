/** Edits to paths: a change of the number of vertices is made to every keyframe that has as many. */
import { newItem, type MakeId } from '../document/make';
import type { Edit } from '../document/patches';
import type { Id, PathValue, Property, PropertyRef, Value } from '../document/types';
import { mappedValues } from '../motion/keys';
import { pathOfOutline } from '../motion/paths';
import { samplerOf } from '../motion/sampler';
import { reader } from '../motion/reader';
import { bareSupplies } from '../recipe/evaluate';
import { kindOf } from '../recipe/table';
import type { Fonts } from '../type/types';
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
    const now = params[ref.key] && (JSON.parse(JSON.stringify(params[ref.key])) as Property);
    const count = (samplerOf(param, now).at(frame) as PathValue).vertices.length;
    const fits = (value: Value) => (value as PathValue).vertices.length === count;
    const next = mappedValues(now, param.default, (v) => (fits(v) ? reshape(v as PathValue) : v));
    params[ref.key] = next as (typeof params)[string];
  },
});

/** Turns a source into paths, as it is at a frame: one card, or a group of them where it has several outlines. */
export const turnIntoPath = (
  { scene, layer: layerId, item: itemId }: { scene: Id; layer: Id; item: Id },
  frame: number,
  fonts: Fonts,
  makeId: MakeId,
): Edit => ({
  label: 'Turn into a path',
  change: (draft) => {
    const layer = drawingIn(draft, scene, layerId);
    const item = itemIn(layer, itemId);
    const kind = kindOf(item.kind);
    if (kind.role !== 'source' || !('outlines' in kind)) throw new NotFound('source', itemId);
    const params = JSON.parse(JSON.stringify(item.params)) as typeof item.params;
    const outlines = kind.outlines(reader(kind.params, params).at(frame), bareSupplies(fonts));
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
