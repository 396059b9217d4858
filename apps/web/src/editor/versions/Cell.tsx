import { MOST_LETTERS } from '@kite/core/document/params';
import type { Project, Version, VersionColumn } from '@kite/core/document/types';
import { setInVersion } from '@kite/core/edits/versions';
import { ownValue } from '@kite/core/edits/versionOffers';
import { X } from 'lucide-react';
import type { KeyboardEvent } from 'react';
import { IconButton } from '../../ui/Button';
import { ColorField } from '../../ui/ColorField';
import { Select } from '../../ui/Select';
import { useLasting } from '../../ui/useLasting';
import { useEditor } from '../store/context';

interface CellProps {
  doc: Project;
  column: VersionColumn;
  version: Version;
  /** Enter in it: to the one below. */
  onNext: () => void;
}

/** What a cell of any kind knows: `own` is what the project has there, null where nothing of it is left. */
type Writing = Omit<CellProps, 'doc'> & { label: string; own: string | null };

/** The words are the document's as they are typed; until the field rests or is left they are one step. */
const WordsCell = ({ column, version, label, own, onNext }: Writing) => {
  const editor = useEditor();
  const writing = useLasting(
    () => editor.begin(),
    () => editor.end(),
  );
  const onKeyDown = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    event.stopPropagation();
    if (event.key === 'Escape') event.currentTarget.blur();
    if (event.key !== 'Enter' || event.shiftKey || event.nativeEvent.isComposing) return;
    event.preventDefault();
    onNext();
  };
  return (
    <textarea
      rows={1}
      aria-label={label}
      value={version.values[column.id] ?? ''}
      placeholder={own ?? ''}
      maxLength={MOST_LETTERS}
      dir="auto"
      spellCheck={false}
      className="field-sizing-content block max-h-32 min-h-[26px] w-full resize-none rounded-md bg-paper-2 px-2 py-1 select-text"
      onFocus={writing.start}
      onBlur={writing.end}
      onChange={(event) => editor.edit(setInVersion(version.id, column.id, event.target.value))}
      onKeyDown={onKeyDown}
    />
  );
};

const ColorCell = ({ column, version, label, own }: Writing) => {
  const editor = useEditor();
  const value = version.values[column.id];
  return (
    <span className="flex items-center gap-1">
      <span className={`min-w-0 flex-1 ${value === undefined ? 'text-ink-2' : ''}`}>
        <ColorField
          label={label}
          value={value ?? own}
          onStart={() => editor.begin()}
          onChange={(color) => editor.edit(setInVersion(version.id, column.id, color))}
          onEnd={() => editor.end()}
        />
      </span>
      {value !== undefined && (
        <IconButton
          label={`${label}: as in the project`}
          onClick={() => editor.edit(setInVersion(version.id, column.id, ''))}
        >
          <X size={13} />
        </IconButton>
      )}
    </span>
  );
};

const PictureCell = ({ doc, column, version, label, own }: Writing & { doc: Project }) => {
  const editor = useEditor();
  const pictures = Object.values(doc.assets).filter(({ kind, id }) => kind === 'picture' && id !== own);
  return (
    <Select
      aria-label={label}
      className="w-full"
      value={version.values[column.id] ?? ''}
      options={[
        { value: '', label: `As in the project: ${doc.assets[own ?? '']?.name ?? 'none'}` },
        ...pictures.map(({ id, name }) => ({ value: id, label: name })),
      ]}
      onChange={(id) => editor.edit(setInVersion(version.id, column.id, id))}
    />
  );
};

/** What a version has in a column; what it leaves open shows faintly as the project has it. */
export const Cell = ({ doc, column, version, onNext }: CellProps) => {
  const writing: Writing = {
    ...{ column, version, onNext },
    label: `${column.name} of ${version.name}`,
    own: ownValue(doc, column),
  };
  if (column.kind === 'words') return <WordsCell {...writing} />;
  return column.kind === 'swatch' ? <ColorCell {...writing} /> : <PictureCell {...writing} doc={doc} />;
};
