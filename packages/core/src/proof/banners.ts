/** What checks of banners share. */
import type { FormatSettings } from '../delivery/formats/table';
import { settingsOf } from '../delivery/kept';
import { planRender } from '../delivery/settings';
import type { Delivery, Id, KeptSettings, Project, Value } from '../document/types';
import type { Edit } from '../document/patches';
import { setDelivery } from '../edits/deliveries';
import { sizeAt } from '../geometry/size';
import { framesPerSecond } from '../time/rate';
import { lightsOf } from './light';
import { atOnce, type CheckKind, type Finding, type Look } from './types';

export interface Banner {
  readonly delivery: Delivery;
  readonly settings: FormatSettings<'html5'>;
  /** How long it plays once. */
  readonly seconds: number;
  /** How long it moves in all; Infinity for ever. */
  readonly moves: number;
}

const movesFor = ({ loop, stop }: Banner['settings'], seconds: number): number =>
  Math.min(loop === 0 ? Infinity : loop * seconds, stop === 0 ? Infinity : stop);

/** The banners of a scene. */
export const bannersOf = ({ scene, deliveries }: Look): Banner[] =>
  deliveries.flatMap((delivery) => {
    const settings = settingsOf(delivery, scene);
    if (settings.format !== 'html5') return [];
    const { frames, rate } = planRender(scene, settings);
    const seconds = frames.length / framesPerSecond(rate);
    return [{ delivery, settings, seconds, moves: movesFor(settings, seconds) }];
  });

/** Another value for one setting of the delivery that was found. */
export const setting = ({ delivery = '' }: Finding, project: Project, key: string, value: Value): Edit => {
  const known: KeptSettings = project.deliveries.find(({ id }) => id === delivery)?.settings ?? { format: 'html5' };
  return setDelivery(delivery, { settings: { ...known, [key]: value } });
};

/** A check of each banner by its settings: what is wrong with it, or null. */
export const ofBanners = (
  kind: string,
  about: string,
  wrong: (banner: Banner) => string | null,
  mend?: { readonly says: string; readonly set: readonly [key: string, value: Value] },
): CheckKind => ({
  kind,
  about,
  find: atOnce((look) =>
    bannersOf(look).flatMap((banner): Finding[] => {
      const message = wrong(banner);
      if (message === null) return [];
      const where: { readonly scene: Id; readonly delivery: Id } = {
        scene: look.scene.id,
        delivery: banner.delivery.id,
      };
      return [{ check: kind, message, ...where, ...(mend && { mend: mend.says }) }];
    }),
  ),
  ...(mend && { mend: (finding, project) => setting(finding, project, ...mend.set) }),
});

/** A frame as large as banners are, and how light it is. */
export const bannerLights = ({ scene, see }: Look, frame: number) => {
  const scale = Math.min(1, 320 / Math.max(scene.width, scene.height));
  const { width, height } = sizeAt(scene, scale);
  const matrix = [width / scene.width, 0, 0, height / scene.height, 0, 0] as const;
  return { width, height, lights: lightsOf(see(frame, { width, height, matrix })) };
};
