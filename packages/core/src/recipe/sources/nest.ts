import { LIMITS } from '../../document/limits';
import { beginsAt, choice, number, percent, scene, switchParam, type Values } from '../../document/params';
import type { Rate, Scene } from '../../document/types';
import { boxOutline } from '../../geometry/bounds';
import { IDENTITY } from '../../geometry/matrix';
import { chained, flatSpace } from '../../geometry/space';
import { framesPerSecond } from '../../time/rate';
import { areaCut, bringing, flatFill, grouped, markThrough } from '../marks';
import { type Mark, pictureSource, type Shown } from '../types';

const FRAME = { unit: 'frames', min: 0, max: LIMITS.length } as const;
const RUNNING = { when: ['play', 'forward', 'backward', 'pingpong'] } as const;

const PARAMS = {
  scene: scene('Scene'),
  play: choice(
    'Plays',
    [
      { value: 'forward', label: 'Forward' },
      { value: 'backward', label: 'Backward' },
      { value: 'pingpong', label: 'Ping-pong' },
      { value: 'freeze', label: 'One frame' },
      { value: 'keyed', label: 'Keyed time' },
    ],
    'forward',
  ),
  speed: percent('Speed', 1, { min: 0.01, max: 100, ...RUNNING }),
  rounds: number('Times', 1, { min: 1, max: 10_000, ...RUNNING }),
  start: beginsAt(RUNNING),
  still: number('Frame', 0, { ...FRAME, when: ['play', 'freeze'] }),
  time: number('Time', 0, { ...FRAME, when: ['play', 'keyed'] }),
  background: switchParam('Background', false),
  space: switchParam('In depth', false),
} as const;

/**
 * The frame of the nested scene, whole or not, at a frame of the one around it; null before it begins. Time runs by the
 * clock: scenes of other rates keep their pace. After its last round a scene stays on the frame it ended with.
 */
export const nestedFrame = (
  v: Omit<Values<typeof PARAMS>, 'scene' | 'background' | 'space'>,
  frame: number,
  rate: Rate,
  inner: Pick<Scene, 'rate' | 'length'>,
): number | null => {
  const last = inner.length - 1;
  const clamp = (f: number) => Math.min(Math.max(f, 0), last);
  if (v.play === 'freeze') return clamp(v.still);
  if (v.play === 'keyed') return clamp(v.time);
  const gone = ((frame - v.start) / framesPerSecond(rate)) * framesPerSecond(inner.rate) * v.speed;
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

/** The picture of a nested scene about its middle, cut off at its edges, or its planes; nothing where it shows nothing. */
const nestMarks = (
  { width, height, background, picture, deep }: Shown,
  withBackground: boolean,
  inDepth: boolean,
  tell: (what: string) => void,
): readonly Mark[] => {
  const [x, y] = [width / 2, height / 2];
  const frame = boxOutline({ left: -x, top: -y, right: x, bottom: y });
  const ground = withBackground && background !== null ? [flatFill([frame], background)] : [];
  const cuts = [areaCut([frame], { mode: 'show' })];
  const pictured = (marks: readonly Mark[]) => [
    ...ground,
    ...marks.map((mark) => markThrough([1, 0, 0, 1, -x, -y], mark)),
  ];
  if (!inDepth) {
    const { marks, told } = picture();
    told.forEach(tell);
    const all = pictured(marks);
    return all.length > 0 ? [grouped(all, { cuts })] : [];
  }
  const { planes, told } = deep();
  told.forEach(tell);
  const away = flatSpace([1, 0, 0, 1, -x, -y]);
  const own = planes.map((plane) => ({ ...plane, space: chained(away, plane.space) }));
  const under = { space: flatSpace(IDENTITY), back: null, lit: false, alpha: 1, blend: 'normal' } as const;
  const all = [...(ground.length > 0 ? [{ ...under, marks: ground }] : []), ...own];
  return all.length > 0 ? [bringing(all, () => pictured(picture().marks), { cuts })] : [];
};

/** Plays another scene of the project, its middle at the origin: how fast, how often, which way, or by keyframes. */
export const nest = pictureSource({
  kind: 'nest',
  label: 'Nest',
  params: PARAMS,
  plays: true,
  summary: (v, nameOf) => (v.scene === '' ? 'No scene yet' : nameOf(v.scene)),
  marks: (v, { frame, supplies, settings, take, tell }) => {
    if (v.scene === '') return [];
    const inner = supplies.play(v.scene);
    if (typeof inner === 'string') {
      tell(inner);
      return [];
    }
    if (Object.keys(settings).some((id) => !inner.knobs.has(id))) tell('sets a knob that is gone');
    const at = nestedFrame(v, frame, supplies.rate, inner);
    if (at === null) return [];
    const shown = inner.at(at, settings);
    if (!take(shown.work)) return [];
    return nestMarks(shown, v.background, v.space, tell);
  },
});
