import { number } from '../../document/params';
import { formatKind, MOST_PIXELS, type RenderPlan } from '../types';

export interface SheetPlan {
  readonly columns: number;
  readonly rows: number;
  /** In pixels. */
  readonly width: number;
  readonly height: number;
}

/** How frames stand on a sheet: row by row, in so many columns, or in as many as make it most nearly square. */
export const sheetOf = ({ width, height, frames }: RenderPlan, wanted: number): SheetPlan => {
  const count = frames.length;
  const square = Math.ceil(Math.sqrt((count * height) / width));
  const most = Math.max(1, Math.floor(MOST_PIXELS / width));
  const columns = Math.min(count, wanted > 0 ? wanted : Math.min(most, Math.max(1, square)));
  const rows = Math.ceil(count / columns);
  return { columns, rows, width: columns * width, height: rows * height };
};

export const sheet = formatKind({
  format: 'sheet',
  label: 'Sheet of frames',
  about:
    'All frames on one PNG, with a JSON that says where each is and for how long, in a zip: for games and programs.',
  extension: 'zip',
  mime: 'application/zip',
  span: 'range',
  params: { columns: number('Columns', 0, { min: 0, max: 1_000, whole: true, hint: '0 is nearly square' }) },
  transparent: true,
  shownAs: 'file',
  check: (plan, { columns }) => {
    const { width, height } = sheetOf(plan, columns);
    if (width <= MOST_PIXELS && height <= MOST_PIXELS) return;
    throw new RangeError(
      `frames: make a sheet of ${width} × ${height} pixels; the most is ${MOST_PIXELS} a side: take a smaller size, a lower rate or a shorter range`,
    );
  },
});
