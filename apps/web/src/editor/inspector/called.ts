import type { Id, Item } from '@kite/core/document/types';
import { kindOf } from '@kite/core/recipe/table';
import type { Editor } from '../store/editor';

/** What a file or a scene of the project is called, or a layer. */
export const called = ({ scene, state: { doc } }: Editor, id: Id): string =>
  doc.assets[id]?.name ?? doc.scenes[id]?.name ?? scene.layers[id]?.name ?? 'something that is gone';

/** What a card is called: by a name of its own, or as its kind. */
export const calledOf = (item: Item): string => item.name ?? kindOf(item.kind).label;
