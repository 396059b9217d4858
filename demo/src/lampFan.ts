/** Lamp fan: a ray, a repeater with delay per copy, a repeater of a repeater, a wipe to the next colour. */
import type { Ease } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder } from './builder';
import { PALETTE } from './palette';

const arrive = easeOfStrength({ start: 0.2, end: 0.8 });
const back: Ease = { kind: 'bezier', x1: 0.3, y1: 0, x2: 0.3, y2: 1.4 };

export const lampFan = (project: ProjectBuilder): void => {
  const scene = project.scene('Lamp fan', {
    width: 1080,
    height: 1080,
    rate: { num: 30, den: 1 },
    length: 90,
    background: PALETTE.midnight,
  });

  const disc = scene.card('ellipse', { width: 0, height: 0 });
  const wipe = scene.drawing({
    name: 'Wipe',
    tag: 'teal',
    items: [disc, scene.card('fill', { color: PALETTE.teal })],
  });
  for (const side of ['width', 'height']) {
    scene.animate(wipe, disc, side, [
      [58, 0, arrive],
      [82, 1560],
    ]);
  }

  const ray = scene.card('path', {
    path: {
      closed: true,
      vertices: [
        [0, -150, 0, 0, 0, 0],
        [40, -450, 0, 0, 14, -26],
        [-40, -450, -14, -26, 0, 0],
      ],
    },
  });
  const group = { ...scene.card('group'), children: [ray.id] };
  const fan = scene.drawing({
    name: 'Lamp fan',
    tag: 'amber',
    items: [
      ray,
      group,
      scene.card('fill', {
        style: 'linear',
        gradient: {
          stops: [
            { at: 0, color: PALETTE.amber },
            { at: 1, color: PALETTE.coral },
          ],
        },
        from: [0, -150],
        to: [0, -450],
      }),
      scene.card('repeater', { copies: 12, position: [0, 0], rotation: 30, delay: 2 }),
      scene.card('repeater', {
        copies: 2,
        position: [0, 0],
        rotation: 15,
        scale: [0.62, 0.62],
        delay: 10,
        endOpacity: 0.75,
      }),
    ],
    keys: {
      rotation: [
        [0, -30, arrive],
        [89, 30],
      ],
    },
  });
  scene.animate(fan, group, 'scale', [
    [0, [0, 0], back],
    [18, [1, 1], arrive],
    [56, [1, 1], arrive],
    [70, [0, 0]],
  ]);

  const dots = scene.card('ellipse', { width: 196, height: 196 });
  const dotted = scene.card('stroke', { color: PALETTE.fog, width: 8, dashes: [0, 25.66] });
  const halo = { ...scene.card('group'), children: [dots.id, dotted.id] };
  scene.drawing({
    name: 'Lamp',
    tag: 'coral',
    items: [
      scene.card('ellipse', { width: 150, height: 150 }),
      scene.card('fill', { color: PALETTE.fog }),
      dots,
      dotted,
      halo,
    ],
    keys: {
      scale: [
        [0, [0.8, 0.8], arrive],
        [20, [1, 1], arrive],
        [60, [1, 1], back],
        [84, [0.8, 0.8]],
      ],
      rotation: [
        [0, 0, { kind: 'linear' }],
        [89, 90],
      ],
    },
  });
  scene.poster(36);
};
