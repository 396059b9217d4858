import { LIMITS } from '@kite/core/document/limits';
import type { Id, Project } from '@kite/core/document/types';
import { ownValue } from '@kite/core/edits/versionOffers';
import {
  addVersion,
  fillVersions,
  NAME_COLUMN,
  removeColumn,
  renameColumn,
  renameVersion,
} from '@kite/core/edits/versions';
import { tsvParseRows } from 'd3-dsv';
import { EllipsisVertical, Plus } from 'lucide-react';
import { type ClipboardEvent, useEffect, useRef, useState } from 'react';
import { Button, IconButton } from '../../ui/Button';
import { Menu } from '../../ui/Menu';
import { RenameField } from '../../ui/RenameField';
import { TextLine } from '../../ui/TextLine';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';
import { Cell } from './Cell';
import { KIND_ICONS } from './Columns';
import { usePosters } from './usePosters';

/** How tall the picture of a version is, in CSS pixels. */
const POSTER = 54;

/** Where a cell stands in the table. */
const placeOf = (element: Element): { row: number; column: number } | null => {
  const cell = element.closest<HTMLElement>('[data-row]');
  return cell ? { row: Number(cell.dataset.row), column: Number(cell.dataset.column) } : null;
};

/** What is being written ends here: what comes is a step of its own. */
const leave = (): void => (document.activeElement as HTMLElement | null)?.blur();

const ColumnHead = ({ doc, column }: { doc: Project; column: Project['versions']['columns'][number] }) => {
  const editor = useEditor();
  const [renaming, setRenaming] = useState(false);
  const Icon = KIND_ICONS[column.kind];
  const isThere = ownValue(doc, column) !== null;
  return (
    <th scope="col" className="min-w-40 border-b border-line px-1.5 py-1 text-left font-medium">
      <span className="flex items-center gap-1.5">
        <Icon size={13} className="shrink-0 text-ink-2" />
        <RenameField
          label="Column name"
          value={column.name}
          className="min-w-0 flex-1"
          editing={renaming}
          onRename={(name) => editor.edit(renameColumn(column.id, name))}
          onDone={() => setRenaming(false)}
        />
        <Menu
          trigger={
            <IconButton label={`Column ${column.name}`}>
              <EllipsisVertical size={13} />
            </IconButton>
          }
          entries={[
            { label: 'Rename', onSelect: () => setRenaming(true) },
            { label: 'Remove the column', onSelect: () => editor.edit(removeColumn(column.id)) },
          ]}
        />
      </span>
      {!isThere && <span className="block text-sm font-normal text-kite">It is in no scene any more.</span>}
    </th>
  );
};

const ToLookAt = ({ version }: { version: Id }) => {
  const count = useSlice((s) => (s.findings ?? []).filter((finding) => finding.version === version).length);
  return count > 0 && <span className="block px-2 pt-1 text-sm text-sun">{count} to look at</span>;
};

interface TableProps {
  doc: Project;
  scene: Id;
  opened: Id | undefined;
  onOpen: (id: Id) => void;
}

/** A line for each version, a column for what may be another in it. Lines of a spreadsheet that are pasted fill it from a cell on. */
export const VersionsTable = ({ doc, scene, opened, onOpen }: TableProps) => {
  const editor = useEditor();
  const { columns, rows } = useSlice((s) => s.doc.versions);
  const canvasOf = usePosters(doc, scene, POSTER);
  const table = useRef<HTMLTableElement>(null);
  const add = () => {
    const id = makeId();
    if (editor.edit(addVersion({ id, name: `Version ${rows.length + 1}`, values: {} }))) onOpen(id);
  };
  /** Where to write on once there is a line more. */
  const wanted = useRef<string | null>(null);
  const write = (cell: string) => table.current?.querySelector<HTMLElement>(`${cell} textarea`)?.focus();
  useEffect(() => {
    if (wanted.current !== null) write(wanted.current);
    wanted.current = null;
  }, [rows]);
  /** To the cell below; where there is none, of a version more. */
  const below = (row: number, column: number) => {
    const cell = `[data-row="${row + 1}"][data-column="${column}"]`;
    if (row + 1 < rows.length) return write(cell);
    wanted.current = cell;
    leave();
    add();
  };
  const onPaste = (event: ClipboardEvent<HTMLElement>) => {
    const at = placeOf(event.target as Element);
    const text = event.clipboardData.getData('text/plain').replace(/\r?\n$/, '');
    const lines = tsvParseRows(text);
    if (!at || (lines.length < 2 && (lines[0]?.length ?? 0) < 2)) return;
    event.preventDefault();
    leave();
    editor.edit(fillVersions(lines, at, makeId));
  };
  const scenery = doc.scenes[scene];
  const width = scenery ? Math.min(120, (POSTER * scenery.width) / scenery.height) : POSTER;
  return (
    <div className="min-h-0 flex-1 overflow-auto border-t border-line" onPaste={onPaste}>
      <table ref={table} className="w-full border-separate border-spacing-0">
        <thead className="sticky top-0 z-10 bg-paper">
          <tr>
            <th scope="col" className="w-36 border-b border-line py-1 pr-1.5 pl-4 text-left font-medium" colSpan={2}>
              {NAME_COLUMN}
            </th>
            {columns.map((column) => (
              <ColumnHead key={column.id} doc={doc} column={column} />
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr
              key={row.id}
              aria-current={row.id === opened}
              className={row.id === opened ? 'bg-sky-2' : ''}
              onFocus={() => row.id !== opened && onOpen(row.id)}
            >
              <td className="border-b border-line py-1.5 pr-1.5 pl-4 align-top" style={{ width: width + 22 }}>
                <button type="button" aria-label={`Show ${row.name}`} title="Show it" onClick={() => onOpen(row.id)}>
                  <canvas
                    ref={canvasOf(row.id)}
                    aria-hidden
                    className="block rounded-sm border border-line bg-surround object-contain"
                    style={{ height: POSTER, width }}
                  />
                </button>
              </td>
              <td className="w-36 min-w-36 border-b border-line p-1.5 align-top" data-row={i} data-column={-1}>
                <TextLine
                  label={`Name of version ${i + 1}`}
                  value={row.name}
                  most={LIMITS.name}
                  onDone={(name) => editor.edit(renameVersion(row.id, name))}
                />
                <ToLookAt version={row.id} />
              </td>
              {columns.map((column, j) => (
                <td key={column.id} className="border-b border-line p-1.5 align-top" data-row={i} data-column={j}>
                  <Cell doc={doc} column={column} version={row} onNext={() => below(i, j)} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="px-4 py-2">
        <Button icon={<Plus size={15} />} disabled={rows.length >= LIMITS.versions} onClick={add}>
          Add a version
        </Button>
      </div>
    </div>
  );
};
