/** Turning sign: one cube with a letter on two of its faces, used five times with letters of its own, tumbling one after another. */
import type { Ease } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder } from './builder';
import { PALETTE } from './palette';

const RATE = { num: 24, den: 1 } as const;
const LENGTH = 72;
const SIDE = 260;
/** The frame of the cube's own scene on which it begins to tumble: before it, it stands. */
const BEGINS = 30;
const FONT = { family: 'Anton', weight: 400, italic: false } as const;
const tumble: Ease = easeOfStrength({ start: 0.4, end: 0.6 });
const settle: Ease = easeOfStrength({ start: 0.5, end: 0.5 });

const letterCube = (project: ProjectBuilder): string => {
  const scene = project.scene('Letter cube', {
    width: 600,
    height: 600,
    rate: RATE,
    length: LENGTH,
    background: null,
  });
  const knobs = scene.controller('Cube knobs', [60, 60], 'violet');
  scene.knob(knobs, { kind: 'text', name: 'First letter', value: 'A' });
  scene.knob(knobs, { kind: 'text', name: 'Second letter', value: 'B' });
  scene.knob(knobs, { kind: 'color', name: 'Front', value: PALETTE.amber });

  const color = scene.card('fill', { color: PALETTE.amber });
  const front = scene.drawing({
    name: 'Front',
    tag: 'amber',
    at: [300, 300],
    items: [scene.card('rectangle', { width: SIDE, height: SIDE }), color],
  });
  scene.formula(front, 'color', '{Cube knobs / Front}', color);
  const cube = scene.box(front, SIDE, PALETTE.teal);
  const letter = (name: string, place: Parameters<typeof scene.values>[1]) => {
    const text = scene.card('text', { text: name, size: 210, font: FONT, align: 'center' });
    const id = scene.drawing({
      name,
      tag: 'slate',
      parent: cube,
      items: [text, scene.card('fill', { color: PALETTE.ink })],
    });
    scene.values(id, { depth: true, ...place });
    scene.formula(id, 'text', `{Cube knobs / ${name}}`, text);
  };
  // On the faces themselves: what stands in one plane keeps the order of the stack.
  const half = SIDE / 2;
  letter('First letter', { position: [0, 88], z: -half });
  letter('Second letter', { position: [0, -half], pivot: [0, -88], turnX: 90 });
  scene.animate(cube, undefined, 'turnX', [
    [BEGINS, 0, tumble],
    [BEGINS + 16, -104, settle],
    [BEGINS + 22, -84, settle],
    [BEGINS + 27, -92, settle],
    [BEGINS + 31, -90],
  ]);
  scene.poster(8);
  return scene.id;
};

export const turningSign = (project: ProjectBuilder): void => {
  const cube = letterCube(project);
  const scene = project.scene('Turning sign', {
    width: 1920,
    height: 1080,
    rate: RATE,
    length: LENGTH,
    background: PALETTE.midnight,
  });
  const sign = scene.controller('Sign', [960, 540], 'violet');
  scene.values(sign, { depth: true });
  scene.animate(sign, undefined, 'turnY', [
    [0, -32, settle],
    [71, 26],
  ]);
  scene.animate(sign, undefined, 'turnX', [
    [0, -14, settle],
    [71, 12],
  ]);
  const fronts = [PALETTE.amber, PALETTE.coral, PALETTE.fog, PALETTE.amber, PALETTE.coral];
  [...'NIGHT'].forEach((first, i) => {
    const nest = scene.nest({
      name: `Cube ${first}`,
      inner: cube,
      at: [(i - 2) * 300, 0],
      // Each four frames after the one before it, the first on frame 12.
      start: 12 - BEGINS + 4 * i,
      settings: { 'First letter': first, 'Second letter': [...'TRAM!'][i] as string, Front: fronts[i] as string },
      inDepth: true,
    });
    scene.hang(nest, sign);
  });
  scene.poster(30);
};
