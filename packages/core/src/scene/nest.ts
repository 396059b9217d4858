/** What a nest shows of its scene at a frame. */
import type { NEST } from '../document/nest';
import type { Values } from '../document/params';
import type { NestLayer, Rate, Scene } from '../document/types';
import { IDENTITY } from '../geometry/matrix';
import { polygon } from '../geometry/outline';
import { markThrough } from '../recipe/marks';
import type { Mark } from '../recipe/types';
import { framesPerSecond } from '../time/rate';
import type { DisplayList } from './compile';

/**
 * The frame of the nested scene, whole or not, at a frame of the one around it; null before it begins. Time runs by the
 * clock: scenes of other rates keep their pace. After its last round a scene stays on the frame it ended with.
 */
export const nestedFrame = (
  v: Values<typeof NEST>,
  { start }: Pick<NestLayer, 'start'>,
  frame: number,
  rate: Rate,
  inner: Pick<Scene, 'rate' | 'length'>,
): number | null => {
  const last = inner.length - 1;
  const clamp = (f: number) => Math.min(Math.max(f, 0), last);
  if (v.play === 'freeze') return clamp(v.still);
  if (v.play === 'keyed') return clamp(v.time);
  const gone = ((frame - start) / framesPerSecond(rate)) * framesPerSecond(inner.rate) * v.speed;
  if (gone < 0) return null;
  const rounds = Math.max(1, Math.round(v.rounds));
  if (v.play === 'pingpong') {
    const turn = Math.max(1, 2 * last);
    const at = gone >= rounds * turn ? 0 : gone % turn;
    return at <= last ? at : turn - at;
  }
  const at = gone >= rounds * inner.length ? last : gone % inner.length;
  return v.play === 'backward' ? clamp(last - at) : at;
};

/** The picture of a nested scene about its middle, cut off at its edges. */
export const nestMarks = (list: DisplayList, background: boolean): Mark[] => {
  const { width, height } = list;
  const [x, y] = [width / 2, height / 2];
  const frame = polygon([
    [-x, -y],
    [x, -y],
    [x, y],
    [-x, y],
  ]);
  const ground: Mark[] =
    background && list.background !== null
      ? [
          {
            op: 'fill',
            outlines: [frame],
            rule: 'nonzero',
            ink: { style: 'solid', color: list.background },
            alpha: 1,
            matrix: IDENTITY,
          },
        ]
      : [];
  const marks = list.marks.map((mark) => markThrough([1, 0, 0, 1, -x, -y], mark));
  if (marks.length + ground.length === 0) return [];
  return [
    {
      op: 'group',
      marks: [...ground, ...marks],
      alpha: 1,
      blend: 'normal',
      clip: { outlines: [frame], matrix: IDENTITY, mode: 'show' },
    },
  ];
};
