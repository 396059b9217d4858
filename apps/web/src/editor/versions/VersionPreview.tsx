import type { Id, Project, Version } from '@kite/core/document/types';
import { settling, unsettledScenes } from '@kite/core/edits/settling';
import { asVersion, moveVersion, putVersion, removeVersion } from '@kite/core/edits/versions';
import { ArrowDown, ArrowUp, Pause, Play, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from '../../ui/toast';
import { useMoving } from '../../preview/useMoving';
import { Button, IconButton } from '../../ui/Button';
import { Select } from '../../ui/Select';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';

const BOX = { width: 360, height: 300 };

interface VersionPreviewProps {
  doc: Project;
  version: Version;
  scene: Id;
  scenes: readonly Id[];
  onScene: (id: Id) => void;
}

/** A version as it plays, in a scene of those that show it. */
export const VersionPreview = ({ doc, version, scene, scenes, onScene }: VersionPreviewProps) => {
  const editor = useEditor();
  const findings = useSlice((s) => (s.findings ?? []).filter((finding) => finding.version === version.id));
  const [playing, setPlaying] = useState(() => !window.matchMedia('(prefers-reduced-motion: reduce)').matches);
  const shown = asVersion(doc, version.id);
  const { canvas, style } = useMoving(shown, scene, BOX, playing ? null : (shown.scenes[scene]?.poster ?? 0));
  const at = doc.versions.rows.indexOf(version);
  const last = doc.versions.rows.length - 1;
  const options = scenes.map((id) => ({ value: id, label: doc.scenes[id]?.name ?? id }));
  const put = async () => {
    await Promise.all(unsettledScenes(shown).map((own) => editor.fontsComing(own)));
    const edit = settling(putVersion(version.id), shown, editor.library, makeId);
    if (editor.edit(edit)) toast.success(`The project is as “${version.name}” now.`);
  };
  return (
    <section aria-label={`Version ${version.name}`} className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto p-4">
      <div className="flex items-center gap-1">
        <h3 className="min-w-0 flex-1 truncate font-semibold">{version.name}</h3>
        <IconButton
          label="Move the version up"
          disabled={at <= 0}
          onClick={() => editor.edit(moveVersion(version.id, at - 1))}
        >
          <ArrowUp size={14} />
        </IconButton>
        <IconButton
          label="Move the version down"
          disabled={at === last}
          onClick={() => editor.edit(moveVersion(version.id, at + 1))}
        >
          <ArrowDown size={14} />
        </IconButton>
        <IconButton label="Remove the version" onClick={() => editor.edit(removeVersion(version.id))}>
          <Trash2 size={14} />
        </IconButton>
      </div>
      <div className="grid h-[300px] shrink-0 place-items-center overflow-hidden rounded-md bg-surround">
        <canvas ref={canvas} aria-hidden data-testid="version-playing" style={style} />
      </div>
      <div className="flex items-center gap-2">
        <IconButton label={playing ? 'Stop' : 'Play'} onClick={() => setPlaying(!playing)}>
          {playing ? <Pause size={15} /> : <Play size={15} />}
        </IconButton>
        <Select aria-label="Scene shown" className="flex-1" value={scene} options={options} onChange={onScene} />
      </div>
      {findings.length > 0 && (
        <ul aria-label="To look at" className="flex flex-col gap-1 rounded-md bg-sun-2 p-2 text-sm">
          {findings.map(({ check, layer, scene: where, message }) => (
            <li key={`${check} ${where} ${layer}`}>{message}</li>
          ))}
        </ul>
      )}
      <Button onClick={() => void put()}>Put it into the project</Button>
      <p className="text-sm text-ink-2">
        The project itself stays as it is, until a version is put into it. On the page of deliveries each can have a
        file for every version.
      </p>
    </section>
  );
};
