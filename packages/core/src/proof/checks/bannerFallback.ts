import { bannerLights, bannersOf, setting } from '../banners';
import type { CheckKind, Finding } from '../types';

/** Two pixels whose luminance differs by less look the same. */
const SAME = 0.01;

export const bannerFallback: CheckKind = {
  kind: 'bannerFallback',
  about: 'Fallback pictures on which nothing is seen',
  *find(look) {
    const found: Finding[] = [];
    const { id: scene, poster } = look.scene;
    for (const { delivery, settings } of bannersOf(look)) {
      const { lights } = bannerLights(look, settings.fallback);
      yield;
      const first = lights[0] as number;
      if (lights.some((light) => Math.abs(light - first) > SAME)) continue;
      const message = `The fallback picture of “${delivery.name}”, frame ${settings.fallback}, is empty.`;
      const mend = poster === settings.fallback ? {} : { mend: `Take frame ${poster}`, value: poster };
      found.push({ check: 'bannerFallback', message, scene, frame: settings.fallback, delivery: delivery.id, ...mend });
    }
    return found;
  },
  mend: (finding, project) => setting(finding, project, 'fallback', finding.value ?? 0),
};
