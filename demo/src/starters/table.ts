/** What a project can start from: pieces of the demo's scenario, whose words, colours and pictures are there to be replaced. */
import { newProject } from '@kite/core/document/make';
import type { KeptSettings, PictureAsset, Project, Scene } from '@kite/core/document/types';
import { nestedIn } from '@kite/core/scene/whole';
import { newDelivery } from '@kite/core/delivery/kept';
import { addDelivery } from '@kite/core/edits/deliveries';
import { setSwatch, swatchesOfLayers } from '@kite/core/edits/swatches';
import { ProjectBuilder } from '../builder';
import { fogAndLamp } from '../fogAndLamp';
import { lateTicket } from '../lateTicket';
import { namedReveal } from '../markReveal';
import { nextStop } from '../nextStop';
import { nightPass } from '../nightPass';
import { PALETTE } from '../palette';
import { ridersByHour } from '../ridersByHour';
import { turningSign } from '../turningSign';
import { badge } from './badge';
import { burst } from './burst';
import { letterTitle } from './letterTitle';
import { nightOutside, pictureGrid } from './pictureGrid';
import { storyAd } from './storyAd';

export interface Starter {
  readonly id: string;
  readonly name: string;
  /** One line: what it is, and what it is done with. */
  readonly about: string;
  /** Scenes whose posters are pictures in it. */
  readonly pictures?: readonly (() => Scene)[];
  /** What it is delivered as, where that is not for the one who opens it to say. */
  readonly delivers?: KeptSettings;
  readonly build: (project: ProjectBuilder, pictures: readonly PictureAsset[]) => void;
}

export const STARTERS: readonly Starter[] = [
  { id: 'title', name: 'Title', about: 'Letters rise one after another, from one text', build: letterTitle },
  { id: 'logo', name: 'Logo reveal', about: 'A mark, and a name whose outlines are drawn', build: namedReveal },
  { id: 'badge', name: 'Badge', about: 'Words come letter by letter round a ring that turns', build: badge },
  { id: 'strip', name: 'Lower strip', about: 'Bars follow each other, a name slides out', build: nextStop },
  { id: 'burst', name: 'Burst', about: 'Dashes from one line, round a disc that pops', build: burst },
  {
    id: 'grid',
    name: 'Picture grid',
    about: 'One picture in six panes, which unfold and close',
    pictures: [nightOutside],
    build: pictureGrid,
  },
  { id: 'sign', name: 'Turning sign', about: 'Lettered cubes that tumble in depth', build: turningSign },
  { id: 'chart', name: 'Chart', about: 'A ring from a table of numbers, with its shares', build: ridersByHour },
  { id: 'story', name: 'Story ad', about: 'Upright: two lines, a ticket and a button', build: storyAd },
  { id: 'banner', name: 'Banner', about: '300 × 250, for the ad server, as GIF and as video', build: lateTicket },
  {
    id: 'energy',
    name: 'Energy in a word',
    about: 'Flames in a word, as a small looping GIF',
    delivers: { format: 'gif' },
    build: nightPass,
  },
  {
    id: 'drawn',
    name: 'Drawn loop',
    about: 'Frames drawn by hand, before drifting fog',
    delivers: { format: 'gif' },
    build: fogAndLamp,
  },
];

/** Its project: colours are swatches, so that each of them is changed in one place. */
export const starterProject = ({ id, name, build, delivers }: Starter, pictures: readonly PictureAsset[]): Project => {
  const project = new ProjectBuilder(newProject(`starter-${id}`, name, []));
  build(project, pictures);
  for (const scene of Object.values(project.doc.scenes)) {
    project.do(swatchesOfLayers(scene.id, scene.order, project.makeId));
  }
  for (const [called, color] of Object.entries(PALETTE)) {
    const swatch = project.doc.swatches.find((own) => own.color === color);
    if (swatch) project.do(setSwatch(swatch.id, { name: called[0]!.toUpperCase() + called.slice(1) }));
  }
  // What is opened first is the whole, not what stands in it.
  const inside = new Set(Object.values(project.doc.scenes).flatMap((scene) => nestedIn(scene, project.doc.scenes)));
  const order = project.doc.order.toSorted((a, b) => Number(inside.has(a)) - Number(inside.has(b)));
  const [main] = order;
  if (delivers && main !== undefined) {
    const delivery = newDelivery(project.makeId(), 'Looping GIF', [main], delivers);
    project.do(addDelivery({ ...delivery, file: '{scene}-{size}-v{take}' }));
  }
  return { ...project.doc, order };
};
