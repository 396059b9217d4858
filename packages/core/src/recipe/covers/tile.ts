import { choice, number, percent, point } from '../../document/params';
import type { Matrix } from '../../geometry/matrix';
import { boxOfMarks, grouped, markThrough } from '../marks';
import { workOfMark } from '../room';
import { cover, type Mark, short } from '../types';

/** Tiles to each side of the one in the middle. */
export const MOST_TILES = 50;

/** `n` brought into 0..size. */
const wrapped = (n: number, size: number): number => ((n % size) + size) % size;

/** What is above it again and again, as tiles of its own size beside each other; moved along, they come in again on the other side. */
export const tile = cover({
  kind: 'tile',
  label: 'Tile',
  again: true,
  params: {
    across: number('To each side', 2, { min: 0, max: MOST_TILES, whole: true }),
    down: number('Up and down', 2, { min: 0, max: MOST_TILES, whole: true }),
    gap: point('Gap', [0, 0]),
    moved: point('Moved by', [0, 0]),
    shift: percent('Every other row by', 0, { min: -1, max: 1 }),
    mirror: choice(
      'Mirrored',
      [
        { value: 'none', label: 'No' },
        { value: 'across', label: 'Across' },
        { value: 'down', label: 'Down' },
        { value: 'both', label: 'Both' },
      ],
      'none',
    ),
  },
  summary: (v) => `${short(2 * v.across + 1)} × ${short(2 * v.down + 1)}`,
  cover: (marks, { across, down, gap, moved, shift, mirror }, { room }) => {
    const box = boxOfMarks(marks, false) ?? boxOfMarks(marks);
    if (!box) return marks;
    const [width, height] = [box.right - box.left + gap[0], box.bottom - box.top + gap[1]];
    if (width < 1 || height < 1) return marks;
    const middle = [(box.left + box.right) / 2, (box.top + box.bottom) / 2] as const;
    const [columns, rows] = [Math.round(across), Math.round(down)];
    const one = marks.length === 1 ? (marks[0] as Mark) : grouped(marks);
    const work = workOfMark(one);
    const tiles: Mark[] = [];
    // One more column and row on the far side, for what moves in there.
    const [dx, dy] = [wrapped(moved[0], 2 * width), wrapped(moved[1], 2 * height)];
    const [extraX, extraY] = [dx > 0 || shift !== 0 ? 2 : 0, dy > 0 ? 2 : 0];
    for (let j = -rows - extraY; j <= rows; j++) {
      for (let i = -columns - extraX; i <= columns; i++) {
        if (!room.take(1, work)) return tiles;
        const flipX = (mirror === 'across' || mirror === 'both') && i % 2 !== 0 ? -1 : 1;
        const flipY = (mirror === 'down' || mirror === 'both') && j % 2 !== 0 ? -1 : 1;
        const x = i * width + dx + (j % 2 !== 0 ? shift * width : 0);
        const y = j * height + dy;
        const m: Matrix = [flipX, 0, 0, flipY, x + middle[0] * (1 - flipX), y + middle[1] * (1 - flipY)];
        tiles.push(markThrough(m, one));
      }
    }
    return tiles;
  },
});
