import { LIMITS } from '@kite/core/document/limits';
import type { Id, Project } from '@kite/core/document/types';
import { linesOfVersions, ownValue, scenesOfVersions } from '@kite/core/edits/versionOffers';
import {
  addVersion,
  fillByNames,
  fillVersions,
  NAME_COLUMN,
  removeColumn,
  renameColumn,
  renameVersion,
} from '@kite/core/edits/versions';
import { csvFormatRows, dsvFormat, tsvFormatRows, tsvParseRows } from 'd3-dsv';
import { ArrowLeft, ClipboardCopy, EllipsisVertical, PackageCheck, Plus, Upload } from 'lucide-react';
import { type ClipboardEvent, useEffect, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { Button, buttonLook, IconButton } from '../../ui/Button';
import { downloadText } from '../../ui/download';
import { FileInput } from '../../ui/FileInput';
import { Menu } from '../../ui/Menu';
import { Panel } from '../../ui/Panel';
import { RenameField } from '../../ui/RenameField';
import { sayUnchanged } from '../../ui/says';
import { TextLine } from '../../ui/TextLine';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';
import { Cell } from './Cell';
import { KIND_ICONS, Offers } from './Columns';
import { usePosters } from './usePosters';
import { VersionPreview } from './VersionPreview';

const LINK = buttonLook('outline');
const POSTER = 54;

/** The document as it rests: what is typed is drawn once it is left, or stays. */
const useResting = (): Project => {
  const now = useSlice((s) => (s.gesturing ? null : s.doc));
  const doc = useSlice((s) => s.doc);
  const [last, setLast] = useState(doc);
  if (now && now !== last) setLast(now);
  return now ?? last;
};

/** Lines of a file by what parts its cells: tabs, semicolons where its first line has more of these than commas, or commas. */
const linesOf = (text: string): string[][] => {
  const first = text.slice(0, text.search(/\r?\n|$/));
  const count = (mark: string) => first.split(mark).length;
  const mark = count('\t') > 1 ? '\t' : count(';') > count(',') ? ';' : ',';
  return dsvFormat(mark).parseRows(text.replace(/^\uFEFF/, ''));
};

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
const Table = ({ doc, scene, opened, onOpen }: TableProps) => {
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

/** What the project says, colours and shows otherwise: a table of its versions. */
export const VersionsPage = () => {
  const editor = useEditor();
  const doc = useResting();
  const sceneId = useSlice((s) => s.sceneId);
  const [asked, setAsked] = useSearchParams();
  const opened = asked.get('open');
  const chosen = asked.get('scene');
  const show = (fields: { readonly open?: Id; readonly scene?: Id }) =>
    setAsked({ ...Object.fromEntries(asked), ...fields }, { replace: true });
  const [adding, setAdding] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const { columns, rows } = doc.versions;
  const scenes = scenesOfVersions(doc);
  const scene = [chosen, sceneId].find((id) => id !== null && scenes.includes(id)) ?? scenes[0] ?? sceneId;
  const open = rows.find(({ id }) => id === opened) ?? rows[0];
  const fill = async (given: File) => {
    try {
      const lines = linesOf(await given.text());
      if (!editor.edit(fillByNames(lines, makeId))) return;
      const known = new Set([NAME_COLUMN, ...columns.map(({ name }) => name)].map((name) => name.toLowerCase()));
      const strange = (lines[0] ?? []).filter((text) => !known.has(text.trim().toLowerCase()));
      if (strange.length > 0) toast.info(`Left out, since no column is called so: “${strange.join('”, “')}”.`);
    } catch (error) {
      sayUnchanged(error);
    }
  };
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(tsvFormatRows(linesOfVersions(doc)));
      toast.success('The table is copied: paste it into a spreadsheet, and back.');
    } catch {
      downloadText(`${doc.name} versions.csv`, 'text/csv', csvFormatRows(linesOfVersions(doc)));
    }
  };
  return (
    <main data-area="versions" className="flex min-h-0 flex-1">
      <div className="flex min-w-0 flex-1 flex-col border-r border-line bg-paper">
        <header className="flex items-center gap-2 px-4 py-2.5">
          <Link to={`/projects/${doc.id}/scenes/${sceneId}`} className={LINK}>
            <ArrowLeft size={14} /> Back to the scene
          </Link>
          <h2 className="min-w-0 flex-1 truncate pl-2 text-lg font-semibold">Versions</h2>
          {columns.length > 0 && (
            <>
              <IconButton label="Copy the table" onClick={() => void copy()}>
                <ClipboardCopy size={15} />
              </IconButton>
              <IconButton label="Fill the table from a file (CSV)" onClick={() => file.current?.click()}>
                <Upload size={15} />
              </IconButton>
              <FileInput
                input={file}
                accept=".csv,.tsv,.txt,text/csv,text/tab-separated-values"
                label="A table as CSV"
                onChoose={([first]) => first && void fill(first)}
              />
              <Panel
                label="Add columns"
                side="bottom"
                align="end"
                className="max-h-[60vh] w-72 p-3"
                open={adding}
                onOpenChange={setAdding}
                opener={<Button icon={<Plus size={15} />}>Add columns</Button>}
              >
                <Offers doc={doc} onDone={() => setAdding(false)} />
              </Panel>
            </>
          )}
          <Link to={`/projects/${doc.id}/deliveries`} className={LINK}>
            <PackageCheck size={15} /> Deliveries
          </Link>
        </header>
        {columns.length > 0 ? (
          <Table doc={doc} scene={scene} opened={open?.id} onOpen={(id) => show({ open: id })} />
        ) : (
          <div className="flex min-h-0 flex-1 justify-center overflow-y-auto border-t border-line p-8">
            <div className="flex w-96 flex-col gap-4">
              <p className="text-ink-2">
                One animation in many languages, for many stops or many offers: choose what differs, and give each
                version its own. All of them follow whatever is animated later.
              </p>
              <Offers doc={doc} />
            </div>
          </div>
        )}
      </div>
      {open && columns.length > 0 && (
        <div className="flex w-[392px] shrink-0 flex-col bg-paper">
          <VersionPreview
            key={open.id}
            doc={doc}
            version={open}
            scene={scene}
            scenes={scenes.length > 0 ? scenes : [scene]}
            onScene={(id) => show({ scene: id })}
          />
        </div>
      )}
    </main>
  );
};
