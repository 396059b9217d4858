import type { Finding } from '@kite/core/proof/types';
import { mendOf } from '@kite/core/proof/table';
import { Eye, Wrench } from 'lucide-react';
import { useNavigate } from 'react-router';
import { Button } from '../../ui/Button';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';

/** What was found, to be seen where it is, and mended where a press can do that. */
export const FindingRow = ({ finding, onShow }: { finding: Finding; onShow?: () => void }) => {
  const editor = useEditor();
  const navigate = useNavigate();
  const { scene, layer, frame, delivery, version } = finding;
  // What was found before the last edit is looked for again.
  const known = useSlice((s) => s.foundIn === s.doc);
  const atScene = layer !== undefined || frame !== undefined;
  const show = () => {
    onShow?.();
    if (!atScene && delivery !== undefined) {
      void navigate(`/projects/${editor.state.doc.id}/deliveries?open=${delivery}`);
      return;
    }
    if (version !== undefined) {
      void navigate(`/projects/${editor.state.doc.id}/versions?open=${version}&scene=${scene}`);
      return;
    }
    void navigate(`/projects/${editor.state.doc.id}/scenes/${scene}`);
    editor.showScene(scene);
    if (frame !== undefined) editor.setFrame(frame);
    if (layer !== undefined) editor.select({ layers: [layer] });
  };
  const mend = () => {
    const edit = mendOf(finding, editor.state.doc, makeId);
    if (edit) editor.edit({ ...edit, label: finding.mend ?? edit.label });
  };
  return (
    <li className="rounded-[5px] px-2 py-1.5" data-testid="finding" data-check={finding.check}>
      <p>{finding.message}</p>
      <p className="mt-1 flex gap-1.5">
        <Button className="!h-6 !px-2 text-sm" icon={<Eye size={13} />} onClick={show}>
          Show me
        </Button>
        {finding.mend !== undefined && (
          <Button className="!h-6 !px-2 text-sm" icon={<Wrench size={13} />} disabled={!known} onClick={mend}>
            {finding.mend}
          </Button>
        )}
      </p>
    </li>
  );
};
