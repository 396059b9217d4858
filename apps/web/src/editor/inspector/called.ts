import type { Id } from '@kite/core/document/types';
import type { Editor } from '../store/editor';

/** What a file or a scene of the project is called, or a layer. */
export const called = ({ scene, state: { doc } }: Editor, id: Id): string =>
  doc.assets[id]?.name ?? doc.scenes[id]?.name ?? scene.layers[id]?.name ?? 'something that is gone';
