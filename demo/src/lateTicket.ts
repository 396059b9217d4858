/** Late ticket: a small banner, and all that is delivered of it and of the other scenes. */
import type { Delivery, FontChoice, Id, KeptSettings } from '@kite/core/document/types';
import { newDelivery } from '@kite/core/delivery/kept';
import { addDelivery } from '@kite/core/edits/deliveries';
import { columnsOffered } from '@kite/core/edits/versionOffers';
import { addColumns, fillVersions } from '@kite/core/edits/versions';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder } from './builder';
import { PALETTE } from './palette';

const arrive = easeOfStrength({ start: 0.1, end: 0.85 });
const HEAD: FontChoice = { family: 'Unbounded', weight: 600, italic: false };
const BODY: FontChoice = { family: 'Space Grotesk', weight: 500, italic: false };

const WIDE = 252;
const TALL = 96;

export const lateTicket = (project: ProjectBuilder): void => {
  const scene = project.scene('Late ticket', {
    width: 300,
    height: 250,
    rate: { num: 30, den: 1 },
    length: 240,
    background: PALETTE.midnight,
  });
  scene.drawing({
    name: 'Frame',
    tag: 'slate',
    at: [150, 125],
    items: [
      scene.card('rectangle', { width: 299, height: 249 }),
      scene.card('stroke', { color: PALETTE.teal, width: 1 }),
    ],
  });
  scene.drawing({
    name: 'Last tram',
    tag: 'blue',
    at: [150, 48],
    items: scene.words('Last tram 02:40', HEAD, 23, PALETTE.fog),
    keys: {
      position: [
        [0, [150, -30], arrive],
        [18, [150, 48]],
      ],
    },
  });
  const ticket = scene.drawing({
    name: 'Ticket',
    tag: 'amber',
    at: [150, 116],
    items: scene.ticket({ width: WIDE, height: TALL, radius: 10 }, 22, PALETTE.amber),
    keys: {
      position: [
        [14, [150, 330], arrive],
        [38, [150, 116]],
      ],
      rotation: [
        [14, -9, arrive],
        [44, 0],
      ],
    },
  });
  scene.drawing({
    name: 'Pass',
    tag: 'slate',
    parent: ticket,
    at: [0, 4],
    items: scene.words('Night pass 3.80', HEAD, 20, PALETTE.ink),
  });
  scene.drawing({
    name: 'Every',
    tag: 'slate',
    parent: ticket,
    at: [0, 30],
    items: scene.words('Every 12 minutes till dawn', BODY, 14, PALETTE.ink),
  });
  const button = scene.drawing({
    name: 'Button',
    tag: 'coral',
    at: [150, 209],
    items: [
      scene.card('rectangle', { width: 150, height: 40, radius: 20 }),
      scene.card('fill', { color: PALETTE.coral }),
    ],
    keys: {
      scale: [
        [52, [0, 0], easeOfStrength({ start: 0.05, end: 0.9 })],
        [72, [1, 1], arrive],
        [150, [1, 1], arrive],
        [160, [1.08, 1.08], arrive],
        [172, [1, 1]],
      ],
    },
  });
  scene.drawing({
    name: 'Plan my ride',
    tag: 'slate',
    parent: button,
    at: [0, 6],
    items: scene.words('Plan my ride', BODY, 17, PALETTE.ink),
  });
  scene.poster(200);
  vary(project);
  deliver(project, scene.id);
};

/** The last tram and where it leads, at three stops. */
const STOPS = [
  ['Harbour Steps', 'Last tram 02:22', ''],
  ['Quill Square', '', ''],
  ['Observatory', 'Last tram 02:58', 'See the stars'],
] as const;

/** A version for each stop: what differs in them is said wherever it is said here. */
const vary = (project: ProjectBuilder): void => {
  const said = ['Last tram 02:40', 'Plan my ride'];
  const columns = columnsOffered(project.doc, project.makeId).filter(({ name }) => said.includes(name));
  project.do(addColumns(columns.toSorted((a, b) => said.indexOf(a.name) - said.indexOf(b.name))));
  project.do(fillVersions(STOPS, { row: 0, column: -1 }, project.makeId));
};

/** Of the banner a file for each place, and a film of the two titles. */
const deliver = (project: ProjectBuilder, banner: Id): void => {
  const titles = ['Mark reveal', 'Route title'].flatMap(
    (name) => Object.values(project.doc.scenes).find((s) => s.name === name)?.id ?? [],
  );
  const keep = (
    name: string,
    settings: KeptSettings,
    { scenes = [banner], ...fields }: Partial<Omit<Delivery, 'id'>> = {},
  ) => {
    const delivery = newDelivery(project.makeId(), name, scenes, settings);
    project.do(addDelivery({ ...delivery, file: '{scene}-{size}-v{take}', ...fields }));
  };
  const banners = { format: 'html5', click: 'https://nighttram.example/plan', loop: 3 } as const;
  keep('Banner for the ad server', banners);
  keep('Banner at each stop', banners, { everyVersion: true, file: '{scene}-{version}-{size}' });
  keep('GIF for the page', { format: 'gif', rate: { num: 15, den: 1 }, hold: 2 });
  keep('Video, twice as large', { format: 'mp4', scale: 2 });
  keep('Still for the newsletter', { format: 'jpeg', scale: 2 });
  if (titles.length > 1) keep('Both titles as a film', { format: 'mp4', scale: 0.5 }, { scenes: titles, fade: 12 });
};
