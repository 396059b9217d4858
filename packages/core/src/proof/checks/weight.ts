import { settingsOf } from '../../delivery/kept';
import { atOnce, type CheckKind, type Finding } from '../types';

/** Files that were heavier than they may be when they were last made. */
export const weight: CheckKind = {
  kind: 'weight',
  about: 'Files over their weight',
  find: atOnce(({ scene, deliveries, weights }) =>
    deliveries.flatMap((delivery): Finding[] => {
      const { budget = 0 } = settingsOf(delivery, scene) as { readonly budget?: number };
      const bytes = weights.get(delivery.id);
      if (budget === 0 || bytes === undefined || bytes <= budget * 1024) return [];
      const message = `“${delivery.name}” weighed ${Math.ceil(bytes / 1024)} KB when it was last rendered; its budget is ${budget} KB.`;
      return [{ check: 'weight', message, scene: scene.id, delivery: delivery.id }];
    }),
  ),
};
