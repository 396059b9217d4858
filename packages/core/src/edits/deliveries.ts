/** Edits to what a project delivers. */
import type { Edit } from '../document/patches';
import type { Delivery, Id } from '../document/types';
import { NotFound } from './find';

export const addDelivery = (delivery: Delivery): Edit => ({
  label: 'New delivery',
  change: (draft) => {
    draft.deliveries = [...draft.deliveries, delivery as (typeof draft.deliveries)[number]];
  },
});

export const setDelivery = (id: Id, fields: Partial<Omit<Delivery, 'id'>>): Edit => ({
  label: 'Change a delivery',
  change: (draft) => {
    const delivery = draft.deliveries.find((d) => d.id === id);
    if (!delivery) throw new NotFound('delivery', id);
    Object.assign(delivery, fields);
  },
});

export const removeDelivery = (id: Id): Edit => ({
  label: 'Delete a delivery',
  change: (draft) => {
    draft.deliveries = draft.deliveries.filter((d) => d.id !== id);
  },
});

export const moveDelivery = (id: Id, to: number): Edit => ({
  label: 'Reorder deliveries',
  change: (draft) => {
    const moved = draft.deliveries.filter((d) => d.id === id);
    const rest = draft.deliveries.filter((d) => d.id !== id);
    draft.deliveries = [...rest.slice(0, to), ...moved, ...rest.slice(to)];
  },
});
