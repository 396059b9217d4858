/** A picture cut into six panes, which unfold one after another and close again, and a name over it. */
import { newProject } from '@kite/core/document/make';
import type { FontChoice, PictureAsset, Scene } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import { ProjectBuilder } from '../builder';
import { PALETTE } from '../palette';

const arrive = easeOfStrength({ start: 0.1, end: 0.85 });
const leave = easeOfStrength({ start: 0.7, end: 0.1 });
const HEAD: FontChoice = { family: 'Unbounded', weight: 700, italic: false };
const SIZE = { width: 1920, height: 1080, rate: { num: 25, den: 1 }, length: 150 } as const;

/** The picture that stands in it until it is replaced: the town by night. */
export const nightOutside = (): Scene => {
  const project = new ProjectBuilder(newProject('view', 'View', []));
  const scene = project.scene('Night outside', { ...SIZE, background: PALETTE.ink });
  scene.drawing({
    name: 'Sky',
    at: [960, 540],
    items: [
      scene.card('rectangle', { width: 1920, height: 1080 }),
      scene.card('fill', {
        style: 'linear',
        gradient: {
          stops: [
            { at: 0, color: PALETTE.ink },
            { at: 0.7, color: PALETTE.teal },
            { at: 1, color: PALETTE.amber },
          ],
        },
        from: [0, -540],
        to: [0, 640],
      }),
    ],
  });
  scene.drawing({
    name: 'Moon',
    at: [1_460, 260],
    items: [scene.card('ellipse', { width: 230, height: 230 }), scene.card('fill', { color: PALETTE.fog })],
  });
  [260, 420, 340, 560, 300, 480, 380, 620].forEach((height, i) =>
    scene.drawing({
      name: `House ${i + 1}`,
      at: [120 + i * 240, 1080 - height / 2],
      items: [
        scene.card('rectangle', { width: 250, height }),
        scene.card('fill', { color: i % 2 === 0 ? PALETTE.midnight : PALETTE.ink }),
        ...scene.holding('group', [
          scene.card('rectangle', { width: 34, height: 46, centre: [-60, -height / 2 + 70] }),
          scene.card('repeater', { layout: 'grid', columns: 3, rows: 1 + (i % 3), spacing: [60, 84] }),
          scene.card('fill', { color: PALETTE.amber }),
        ]),
      ],
    }),
  );
  return project.doc.scenes[scene.id] as Scene;
};

export const pictureGrid = (project: ProjectBuilder, [picture]: readonly PictureAsset[]): void => {
  if (!picture) throw new RangeError('a picture grid needs a picture');
  project.take(picture);
  const scene = project.scene('Picture grid', { ...SIZE, background: PALETTE.midnight });
  const whole = scene.drawing({
    name: 'Picture',
    tag: 'blue',
    at: [960, 540],
    items: [scene.card('picture', { asset: picture.id, size: 1_920 / picture.width })],
  });
  scene.panes(whole, { rows: 2, columns: 3, gap: 0 }).forEach((pane, i) =>
    scene.animate(pane, undefined, 'scale', [
      [6 + 5 * i, [0, 1], arrive],
      [24 + 5 * i, [1, 1], leave],
      [110 + 4 * i, [1, 1], leave],
      [126 + 4 * i, [1, 0]],
    ]),
  );
  scene.drawing({
    name: 'Name',
    tag: 'amber',
    at: [760, 330],
    items: scene.words('Quill Square', HEAD, 120, PALETTE.fog),
    keys: {
      opacity: [
        [48, 0],
        [62, 1],
        [104, 1],
        [116, 0],
      ],
    },
  });
  scene.poster(90);
};
