/** Next stop strip: bars that follow a lead by formula, a box that fits its words, three knobs for all of it. */
import type { FontChoice } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder } from './builder';
import { PALETTE } from './palette';

const arrive = easeOfStrength({ start: 0.1, end: 0.85 });
const leave = easeOfStrength({ start: 0.7, end: 0.2 });

const STOP: FontChoice = { family: 'Unbounded', weight: 600, italic: false };
const LABEL: FontChoice = { family: 'Space Grotesk', weight: 500, italic: false };
const COLORS = [PALETTE.teal, PALETTE.fog, PALETTE.coral, PALETTE.teal, PALETTE.fog];

export const nextStop = (project: ProjectBuilder): void => {
  const scene = project.scene('Next stop strip', {
    width: 1920,
    height: 1080,
    rate: { num: 30, den: 1 },
    length: 150,
    background: PALETTE.midnight,
  });
  const rig = scene.controller('Rig', [160, 160], 'violet');
  scene.knob(rig, { name: 'Delay', value: 0.1, min: 0, max: 0.5 });
  scene.knob(rig, { name: 'Step', value: 20, min: 0, max: 60 });
  scene.knob(rig, { name: 'Room', value: 72, min: 0, max: 200 });

  const bar = (name: string, color: string) =>
    scene.drawing({
      name,
      tag: color === PALETTE.amber ? 'amber' : 'teal',
      at: [-760, 800],
      items: [scene.card('rectangle', { width: 1320, height: 12, radius: 6 }), scene.card('fill', { color })],
    });
  const followers = COLORS.map((color, i) => bar(`Bar ${i + 1}`, color));
  const lead = bar('Lead bar', PALETTE.amber);
  scene.animate(lead, undefined, 'position', [
    [6, [-760, 800], arrive],
    [40, [820, 800], { kind: 'linear' }],
    [112, [880, 800], leave],
    [138, [2720, 800]],
  ]);
  scene.set('Bars', [lead, ...followers]);
  for (const layer of followers) {
    scene.formula(layer, 'position', 'lag({Lead bar / Position}, {Rig / Delay} * order) + [0, {Rig / Step} * order]');
    scene.formula(layer, 'opacity', '100% - 14% * order');
  }

  const rectangle = scene.card('rectangle', { width: 600, height: 190, radius: 24 });
  const box = scene.drawing({
    name: 'Sign',
    tag: 'amber',
    at: [0, 660],
    items: [rectangle, scene.card('fill', { color: PALETTE.amber })],
  });
  const words = { font: STOP, size: 84, align: 'center', place: [0, 54] } as const;
  const stop = scene.drawing({
    name: 'Stop name',
    tag: 'slate',
    parent: box,
    at: [0, 0],
    items: [scene.card('text', { ...words, text: 'Quill Square' }), scene.card('fill', { color: PALETTE.ink })],
  });
  const minutes = scene.card('text', { text: 'Next stop', font: LABEL, size: 40, place: [0, -42] });
  const clock = scene.drawing({
    name: 'Minutes',
    tag: 'slate',
    parent: box,
    at: [0, 0],
    items: [minutes, scene.card('fill', { color: PALETTE.midnight })],
  });
  scene.formula(clock, 'text', '"Next stop in " + text(remap(time, 1, 4, 3, 1)) + " min"', minutes);
  scene.formula(box, 'width', 'textWidth({Stop name / Text / Text}) + {Rig / Room} * 2', rectangle);
  // Its left edge stands where the lead's does.
  scene.formula(
    box,
    'position',
    '{Lead bar / Position} + [{this / Rectangle / Width} / 2 - 660, 0 - 140 - drift(0.4, 6, 2)]',
  );
  scene.formula(stop, 'opacity', 'remap(time, 0.7, 1.2, 0%, 100%)');
  scene.poster(75);
};
