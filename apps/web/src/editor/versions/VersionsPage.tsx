import type { Id, Project } from '@kite/core/document/types';
import { linesOfVersions, scenesOfVersions } from '@kite/core/edits/versionOffers';
import { fillByNames, NAME_COLUMN } from '@kite/core/edits/versions';
import { csvFormatRows, dsvFormat, tsvFormatRows } from 'd3-dsv';
import { ClipboardCopy, PackageCheck, Plus, Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { toast } from '../../ui/toast';
import { Button, buttonLook, IconButton } from '../../ui/Button';
import { downloadText } from '../../ui/download';
import { FileInput } from '../../ui/FileInput';
import { Panel } from '../../ui/Panel';
import { sayUnchanged } from '../../ui/says';
import { PageBar } from '../header/PageBar';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';
import { Offers } from './Columns';
import { VersionPreview } from './VersionPreview';
import { VersionsTable } from './VersionsTable';

const LINK = buttonLook('outline');
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
        <PageBar title="Versions">
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
        </PageBar>
        {columns.length > 0 ? (
          <VersionsTable doc={doc} scene={scene} opened={open?.id} onOpen={(id) => show({ open: id })} />
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
