/** Edits to the markers of a scene. */
import type { Edit } from '../document/patches';
import type { Id, Marker } from '../document/types';
import { NotFound, sceneIn } from './find';

export const addMarker = (scene: Id, marker: Marker): Edit => ({
  label: 'Add a marker',
  change: (draft) => {
    const { markers } = sceneIn(draft, scene);
    sceneIn(draft, scene).markers = [...markers, marker].sort((a, b) => a.frame - b.frame);
  },
});

export const setMarker = (scene: Id, id: Id, fields: Partial<Omit<Marker, 'id'>>): Edit => ({
  label: fields.name === undefined ? 'Move a marker' : 'Rename a marker',
  change: (draft) => {
    const { markers } = sceneIn(draft, scene);
    if (!markers.some((m) => m.id === id)) throw new NotFound('marker', id);
    sceneIn(draft, scene).markers = markers
      .map((m) => (m.id === id ? { ...m, ...fields } : m))
      .sort((a, b) => a.frame - b.frame);
  },
});

export const removeMarker = (scene: Id, id: Id): Edit => ({
  label: 'Remove a marker',
  change: (draft) => {
    const { markers } = sceneIn(draft, scene);
    sceneIn(draft, scene).markers = markers.filter((m) => m.id !== id);
  },
});
