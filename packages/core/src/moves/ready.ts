/** The moves that come with the product. */
import type { Ease } from '../document/types';
import type { EmphasisMove, Move, SideMove } from '../document/moves';

const QUICK: Ease = { kind: 'bezier', x1: 0.1, y1: 0.8, x2: 0.2, y2: 1 };
const SOFT: Ease = { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.4, y2: 1 };
const BACK: Ease = { kind: 'bezier', x1: 0.3, y1: 0, x2: 0.3, y2: 1.5 };
const AWAY: Ease = { kind: 'bezier', x1: 0.7, y1: 0, x2: 0.9, y2: 0.3 };

const still = { angle: 180, distance: 0, outside: false, fade: 1, scale: 1, turn: 0 };
const entrance = (name: string, o: Partial<SideMove>): SideMove => ({
  kind: 'entrance',
  name,
  frames: 20,
  ease: QUICK,
  ...still,
  ...o,
});
const exit = (name: string, o: Partial<SideMove>): SideMove => ({
  kind: 'exit',
  name,
  frames: 16,
  ease: AWAY,
  ...still,
  ...o,
});
const emphasis = (name: string, form: EmphasisMove['form'], o: Partial<EmphasisMove>): EmphasisMove => ({
  kind: 'emphasis',
  name,
  form,
  frames: 18,
  ease: SOFT,
  strength: 0.4,
  times: 1,
  ...o,
});

export const READY_MOVES: readonly Move[] = [
  entrance('Slide in', { distance: 240, fade: 0 }),
  entrance('In from outside', { outside: true, frames: 24 }),
  entrance('Rise in', { angle: 90, distance: 120, fade: 0 }),
  entrance('Rise from behind', { angle: 90, behind: 1 }),
  entrance('Draw on', { drawn: 0, frames: 30, ease: SOFT }),
  entrance('Fade in', { fade: 0, ease: SOFT }),
  entrance('Grow in', { scale: 0, ease: BACK }),
  entrance('Turn over in', { turnY: -90, frames: 22, ease: BACK }),
  entrance('Tip up', { turnX: 100, fade: 0, frames: 24, ease: BACK }),
  entrance('Spin in', { scale: 0, turn: -180, fade: 0, frames: 26 }),
  exit('Slide out', { angle: 0, distance: 240, fade: 0 }),
  exit('Out of the scene', { angle: 0, outside: true, frames: 20 }),
  exit('Sink behind', { angle: 90, behind: 1 }),
  exit('Draw off', { drawn: 0, frames: 24, ease: SOFT }),
  exit('Fade out', { fade: 0, ease: SOFT }),
  exit('Turn over out', { turnY: 90 }),
  exit('Shrink out', { scale: 0 }),
  {
    kind: 'passage',
    name: 'In, drift, out',
    frames: 14,
    ease: QUICK,
    angle: 180,
    distance: 400,
    outside: true,
    drift: 80,
    fade: 1,
  },
  emphasis('Pulse', 'pulse', {}),
  emphasis('Shake', 'shake', { frames: 24, times: 3 }),
  emphasis('Wobble', 'wobble', { frames: 30 }),
  emphasis('Pop', 'pop', { frames: 14 }),
];
