/** Versions of a project: a table of what is said, coloured and shown otherwise, and the project as a row of it has it. */
import { isColor } from '../document/is';
import { movedTo } from '../document/lists';
import type { MakeId } from '../document/make';
import { type Edit, type ProjectDraft, plain } from '../document/patches';
import { remembered } from '../document/remembered';
import type { Asset, Delivery, Id, Project, PropertyRef, Version, VersionColumn } from '../document/types';
import { paramAt } from '../properties/find';
import { splitWordAt } from '../properties/words';
import { applyEdit } from './apply';
import { swapAsset } from './assets';
import { holderOf, NotFound } from './find';
import { removeFormula } from './formulas';
import { withUnsettled } from './settling';
import { setSwatch } from './swatches';

type ColumnDraft = ProjectDraft['versions']['columns'][number];
type RowDraft = ProjectDraft['versions']['rows'][number];

const columnIn = ({ versions }: ProjectDraft, id: Id): ColumnDraft => {
  const column = versions.columns.find((own) => own.id === id);
  if (!column) throw new NotFound('column', id);
  return column;
};

const rowIn = ({ versions }: ProjectDraft, id: Id): RowDraft => {
  const row = versions.rows.find((own) => own.id === id);
  if (!row) throw new NotFound('version', id);
  return row;
};

export const addColumns = (columns: readonly VersionColumn[]): Edit => ({
  label: columns.length === 1 ? 'Add a column' : 'Add columns',
  change: (draft) => {
    draft.versions.columns.push(...(columns as readonly ColumnDraft[]));
  },
});

export const renameColumn = (id: Id, name: string): Edit => ({
  label: 'Rename a column',
  change: (draft) => {
    columnIn(draft, id).name = name;
  },
});

/** Takes a column away with what the versions have in it. */
export const removeColumn = (id: Id): Edit => ({
  label: 'Remove a column',
  change: (draft) => {
    const { versions } = draft;
    versions.columns = versions.columns.filter((column) => column.id !== id);
    for (const row of versions.rows) delete row.values[id];
  },
});

export const addVersion = (version: Version): Edit => ({
  label: 'Add a version',
  change: (draft) => {
    draft.versions.rows.push({ ...version, values: { ...version.values } });
  },
});

export const renameVersion = (id: Id, name: string): Edit => ({
  label: 'Rename a version',
  change: (draft) => {
    rowIn(draft, id).name = name;
  },
});

/** What a version has in a column; nothing makes it as the project is. */
export const setInVersion = (id: Id, column: Id, value: string): Edit => ({
  label: 'Change a version',
  change: (draft) => {
    columnIn(draft, column);
    const { values } = rowIn(draft, id);
    if (value === '') delete values[column];
    else values[column] = value;
  },
});

export const moveVersion = (id: Id, to: number): Edit => ({
  label: 'Reorder versions',
  change: (draft) => {
    draft.versions.rows = movedTo(draft.versions.rows, rowIn(draft, id), to);
  },
});

export const removeVersion = (id: Id): Edit => ({
  label: 'Remove a version',
  change: (draft) => {
    draft.versions.rows = draft.versions.rows.filter((row) => row.id !== id);
  },
});

/** Says words in all places that are still there, instead of keyframes and formulas. */
const say = (draft: ProjectDraft, places: readonly PropertyRef[], text: string): void => {
  for (const ref of places) {
    if (paramAt(draft, ref)) {
      holderOf(draft, ref).params[ref.key] = { value: text };
      removeFormula(ref).change(draft);
      continue;
    }
    const split = splitWordAt(plain(draft.scenes[ref.scene]), ref)?.ref.layer;
    const word = draft.scenes[ref.scene]?.sets.find(({ id }) => id === split)?.word;
    if (word) word.text.params.text = { value: text };
  }
};

const putValue = (draft: ProjectDraft, column: VersionColumn, value: string, pictures: Project['assets']): void => {
  if (column.kind === 'words') return say(draft, column.places, value);
  if (column.kind === 'swatch') {
    if (draft.swatches.some(({ id }) => id === column.swatch)) {
      setSwatch(column.swatch, { color: value as `#${string}` }).change(draft);
    }
    return;
  }
  const file = pictures[value];
  if (file && draft.assets[column.asset] && value !== column.asset) swapAsset(column.asset, file).change(draft);
};

/** Puts what a version has into the project: its words, colours and pictures, wherever they are. */
export const putVersion = (id: Id): Edit => ({
  label: 'Put a version into the project',
  change: (draft) => {
    const { values } = rowIn(draft, id);
    // As they are before any of them is another: two may change places.
    const pictures = plain<{ readonly [id: Id]: Asset }>(draft.assets);
    for (const column of plain<readonly VersionColumn[]>(draft.versions.columns)) {
      const value = values[column.id];
      if (value !== undefined) putValue(draft, column, value, pictures);
    }
  },
});

const versionsMade = remembered<Project, Map<Id, Project>>(() => new Map());

/**
 * The project as a version of it is: the same object for the same version. What of it hangs on fonts is still to be settled, see
 * settling.ts. Throws NotFound where there is no such version.
 */
export const asVersion = (project: Project, id: Id): Project => {
  const made = versionsMade(project);
  const known = made.get(id) ?? withUnsettled(applyEdit(project, putVersion(id)).doc, project);
  made.set(id, known);
  return known;
};

/** What one file of a delivery shows. */
export interface Shown {
  /** null for the project as it is. */
  readonly version: Version | null;
  readonly project: Project;
}

/** What the files of a delivery show: the project, or each of its versions. */
export const shownIn = ({ everyVersion }: Pick<Delivery, 'everyVersion'>, project: Project): readonly Shown[] => {
  const { rows } = project.versions;
  if (!everyVersion || rows.length === 0) return [{ version: null, project }];
  return rows.map((version) => ({ version, project: asVersion(project, version.id) }));
};

/** How a cell of the table is read: as words, as a colour, or as the name of a picture. Throws a RangeError that says what it is not. */
const read = (column: VersionColumn, text: string, project: ProjectDraft): string => {
  const said = text.trim();
  if (said === '' || column.kind === 'words') return said === '' ? '' : text;
  if (column.kind === 'swatch') {
    const color = said.startsWith('#') ? said : `#${said}`;
    if (!isColor(color)) throw new RangeError(`“${said}” in “${column.name}” is no colour, as #FFB23E is`);
    return color.toUpperCase();
  }
  const file = Object.values(project.assets).find(
    ({ kind, id, name }) => kind === 'picture' && (id === said || name === said),
  );
  if (!file) throw new RangeError(`“${said}” in “${column.name}” is no picture of this project`);
  return file.id;
};

/** The name of the first column, that of the names of versions. */
export const NAME_COLUMN = 'Version';

/** What each cell of a first line names: a column by its place, −1 for the names of versions, null for nothing. */
type Head = readonly (number | null)[];

const headOf = (line: readonly string[], columns: readonly VersionColumn[]): Head => {
  const names = [NAME_COLUMN, ...columns.map(({ name }) => name)].map((name) => name.toLowerCase());
  const found = line.map((text) => names.indexOf(text.trim().toLowerCase()));
  return found.map((i) => (i < 0 ? null : i - 1));
};

const namesColumns = (head: Head): boolean => head.some((i) => i !== null && i >= 0);

/** Whether a line is the head of a table like this one, and not one that says by chance what a column is called. */
const isHead = (head: Head): boolean => namesColumns(head) && head.filter((i) => i !== null).length * 2 > head.length;

/** Where a line of a table goes: each of its cells to a column, −1 for the names, or nowhere. */
interface Placing {
  readonly row: number;
  readonly columnOf: (cell: number) => number | null;
}

/** Puts a line into a row, which is added where there are not so many yet. */
const fillRow = (draft: ProjectDraft, cells: readonly string[], { row, columnOf }: Placing, makeId: MakeId): void => {
  const { columns, rows } = draft.versions;
  if (row >= rows.length) rows.push({ id: makeId(), name: `Version ${rows.length + 1}`, values: {} });
  const own = rows[Math.min(row, rows.length - 1)] as RowDraft;
  cells.forEach((text, i) => {
    const place = columnOf(i);
    if (place === -1 && text.trim() !== '') own.name = text.trim();
    const column = place === null ? undefined : columns[place];
    if (!column) return;
    const value = read(plain<VersionColumn>(column), text, draft);
    if (value === '') delete own.values[column.id];
    else own.values[column.id] = value;
  });
};

/**
 * Fills the table by the columns that the first line names, each other line into the version that is called so, else into a new one; what is
 * under other names is left out. Throws a RangeError where no column is named, or for what a column does not take.
 */
export const fillByNames = (lines: readonly (readonly string[])[], makeId: MakeId): Edit => ({
  label: 'Fill the table',
  change: (draft) => {
    const head = headOf(lines[0] ?? [], plain<readonly VersionColumn[]>(draft.versions.columns));
    if (!namesColumns(head)) throw new RangeError('the first line names no column of this table');
    for (const cells of lines.slice(1)) {
      if (cells.every((text) => text.trim() === '')) continue;
      const { rows } = draft.versions;
      const name = cells[head.indexOf(-1)]?.trim();
      const known = rows.findIndex((row) => row.name === name);
      fillRow(draft, cells, { row: known < 0 ? rows.length : known, columnOf: (i) => head[i] ?? null }, makeId);
    }
  },
});

/**
 * Fills the table from a cell on, to the right and down, as spreadsheets do; column −1 are the names of versions, and what is beyond the
 * last one is left out. Lines that begin with a head go by its names. Throws a RangeError for what a column does not take.
 */
export const fillVersions = (
  lines: readonly (readonly string[])[],
  from: { readonly row: number; readonly column: number },
  makeId: MakeId,
): Edit => ({
  label: 'Fill the table',
  change: (draft) => {
    if (isHead(headOf(lines[0] ?? [], plain<readonly VersionColumn[]>(draft.versions.columns)))) {
      fillByNames(lines, makeId).change(draft);
      return;
    }
    lines.forEach((cells, j) => {
      fillRow(draft, cells, { row: from.row + j, columnOf: (i) => from.column + i }, makeId);
    });
  },
});
