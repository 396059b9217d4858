import { settingsOf } from '../../delivery/kept';
import { planRender } from '../../delivery/settings';
import type { FormatSettings } from '../../delivery/formats/table';
import { newDrawing, newItem } from '../../document/make';
import type { Delivery, Id, KeptSettings, Project, Value } from '../../document/types';
import { addLayers } from '../../edits/layers';
import { setDelivery } from '../../edits/deliveries';
import { framesPerSecond } from '../../time/rate';
import { lightsOf } from '../light';
import { atOnce, type CheckKind, type Finding, type Look } from '../types';

type Banner = FormatSettings<'html5'>;

/** The banners of a scene, and how long each plays once, in seconds. */
const bannersOf = ({
  scene,
  deliveries,
}: Look): { readonly delivery: Delivery; readonly banner: Banner; readonly seconds: number }[] =>
  deliveries.flatMap((delivery) => {
    const settings = settingsOf(delivery, scene);
    if (settings.format !== 'html5') return [];
    const { frames, rate } = planRender(scene, settings);
    return [{ delivery, banner: settings, seconds: frames.length / framesPerSecond(rate) }];
  });

/** Another value for one setting of a delivery. */
const setting = (project: Project, delivery: Id | undefined, key: string, value: Value) => {
  const known: KeptSettings = project.deliveries.find(({ id }) => id === delivery)?.settings ?? { format: 'html5' };
  return setDelivery(delivery ?? '', { settings: { ...known, [key]: value } });
};

const MOST_SECONDS = 30;
const MOST_PLAYS = 3;

/** How long a banner moves, in seconds. */
const movesFor = ({ loop, stop }: Banner, seconds: number): number =>
  Math.min(loop === 0 ? Infinity : loop * seconds, stop === 0 ? Infinity : stop);

export const bannerTime: CheckKind = {
  kind: 'bannerTime',
  about: 'Banners that move for longer than 30 seconds',
  find: atOnce((look) =>
    bannersOf(look)
      .filter(({ banner, seconds }) => movesFor(banner, seconds) > MOST_SECONDS + 1e-6)
      .map(({ delivery, banner, seconds }): Finding => {
        const lasts = movesFor(banner, seconds);
        const long = lasts === Infinity ? 'for ever' : `for ${Math.round(lasts)} seconds`;
        const message = `“${delivery.name}” moves ${long}; ad servers allow ${MOST_SECONDS} seconds.`;
        return {
          check: 'bannerTime',
          message,
          scene: look.scene.id,
          delivery: delivery.id,
          mend: `Stop after ${MOST_SECONDS} seconds`,
        };
      }),
  ),
  mend: ({ delivery }, project) => setting(project, delivery, 'stop', MOST_SECONDS),
};

export const bannerLoops: CheckKind = {
  kind: 'bannerLoops',
  about: 'Banners that play more than three times',
  find: atOnce((look) =>
    bannersOf(look)
      .filter(({ banner, seconds }) => movesFor(banner, seconds) > MOST_PLAYS * seconds + 1e-6)
      .map(({ delivery }): Finding => {
        const message = `“${delivery.name}” plays more than ${MOST_PLAYS} times, which is what ad servers allow.`;
        return {
          check: 'bannerLoops',
          message,
          scene: look.scene.id,
          delivery: delivery.id,
          mend: `Play it ${MOST_PLAYS} times`,
        };
      }),
  ),
  mend: ({ delivery }, project) => setting(project, delivery, 'loop', MOST_PLAYS),
};

export const bannerClick: CheckKind = {
  kind: 'bannerClick',
  about: 'Banners whose click leads nowhere',
  find: atOnce((look) =>
    bannersOf(look)
      .filter(({ banner }) => banner.click === '')
      .map(({ delivery }): Finding => {
        const message = `A click on “${delivery.name}” leads nowhere unless the ad server says where.`;
        return { check: 'bannerClick', message, scene: look.scene.id, delivery: delivery.id };
      }),
  ),
};

export const bannerWeight: CheckKind = {
  kind: 'bannerWeight',
  about: 'Files over their weight',
  find: atOnce(({ scene, deliveries, weights }) =>
    deliveries.flatMap((delivery): Finding[] => {
      const { budget = 0 } = settingsOf(delivery, scene) as { readonly budget?: number };
      const bytes = weights.get(delivery.id);
      if (budget === 0 || bytes === undefined || bytes <= budget * 1024) return [];
      const message = `“${delivery.name}” weighed ${Math.ceil(bytes / 1024)} KB when it was last rendered; its budget is ${budget} KB.`;
      return [{ check: 'bannerWeight', message, scene: scene.id, delivery: delivery.id }];
    }),
  ),
};

const seen = ({ scene, see }: Look, frame: number): { width: number; height: number; lights: Float32Array } => {
  const scale = Math.min(1, 320 / Math.max(scene.width, scene.height));
  const [width, height] = [Math.round(scene.width * scale), Math.round(scene.height * scale)].map((s) =>
    Math.max(1, s),
  ) as [number, number];
  const matrix = [width / scene.width, 0, 0, height / scene.height, 0, 0] as const;
  return { width, height, lights: lightsOf(see(frame, { width, height, matrix })) };
};

export const bannerFallback: CheckKind = {
  kind: 'bannerFallback',
  about: 'Fallback pictures on which nothing is seen',
  *find(look) {
    const found: Finding[] = [];
    for (const { delivery, banner } of bannersOf(look)) {
      const { lights } = seen(look, banner.fallback);
      yield;
      const first = lights[0] as number;
      if (lights.some((light) => Math.abs(light - first) > 0.01)) continue;
      const message = `The fallback picture of “${delivery.name}”, frame ${banner.fallback}, is empty.`;
      const { poster } = look.scene;
      const mend = poster === banner.fallback ? {} : { mend: `Take frame ${poster}`, value: poster };
      found.push({
        check: 'bannerFallback',
        message,
        scene: look.scene.id,
        frame: banner.fallback,
        delivery: delivery.id,
        ...mend,
      });
    }
    return found;
  },
  mend: ({ delivery, value = 0 }, project) => setting(project, delivery, 'fallback', value),
};

/** The share of the pixels along the edges that are as light as a page. */
const whiteEdges = ({ width, height, lights }: ReturnType<typeof seen>): number => {
  let [white, all] = [0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x += y === 0 || y === height - 1 ? 1 : Math.max(1, width - 1)) {
      all++;
      if ((lights[y * width + x] as number) > 0.85) white++;
    }
  }
  return white / all;
};

export const bannerBorder: CheckKind = {
  kind: 'bannerBorder',
  about: 'Banners on white without a border',
  *find(look) {
    const banners = bannersOf(look);
    if (banners.length === 0) return [];
    const share = whiteEdges(seen(look, look.scene.poster));
    yield;
    if (share < 0.6) return [];
    const message = 'The banner is white at its edges and has no border: on a white page nobody sees where it ends.';
    return [{ check: 'bannerBorder', message, scene: look.scene.id, frame: look.scene.poster, mend: 'Draw a border' }];
  },
  mend: ({ scene: id }, project, makeId) => {
    const scene = project.scenes[id];
    if (!scene) throw new RangeError('the scene is gone');
    const items = [
      newItem(makeId(), 'rectangle', { width: scene.width - 1, height: scene.height - 1 }),
      newItem(makeId(), 'stroke', { color: '#8A8F9C', width: 1 }),
    ];
    return addLayers(id, [newDrawing(scene, makeId(), 'Border', items)]);
  },
};
