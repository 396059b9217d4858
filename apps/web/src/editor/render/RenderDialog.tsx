import { RENDERS } from '@kite/api/renders';
import { checkSettings } from '@kite/core/check/settings';
import { formatOf, type RenderSettings } from '@kite/core/delivery/formats/table';
import { keptSettings, newDelivery } from '@kite/core/delivery/kept';
import { defaultSettings, isStill } from '@kite/core/delivery/settings';
import { uniqueName } from '@kite/core/document/make';
import type { Scene } from '@kite/core/document/types';
import { addDelivery } from '@kite/core/edits/deliveries';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from '../../ui/toast';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { FindingList } from '../checks/FindingList';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';
import { sceneOf } from '../store/state';
import { prepareRender } from './prepare';
import { planned, SettingsForm } from './SettingsForm';

const KEPT = 'kite-render';

/** The settings that a project was last rendered with, of the whole of another scene; an MP4 at first. */
const asLastTime = (project: string, scene: Scene): RenderSettings => {
  const fallback = defaultSettings('mp4', scene);
  try {
    const kept = JSON.parse(localStorage.getItem(`${KEPT}-${project}`) ?? 'null') as RenderSettings | null;
    if (!kept) return fallback;
    const own = defaultSettings(kept.format, scene);
    const shown = isStill(own) ? { frame: own.frame } : { from: own.from, to: own.to };
    return checkSettings({ ...own, ...kept, ...shown });
  } catch {
    return fallback;
  }
};

export const RenderDialog = ({ onClose }: { onClose: () => void }) => {
  const editor = useEditor();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { scene, range, frame } = useSlice((s) => ({ scene: sceneOf(s), range: s.range, frame: s.frame }));
  const project = editor.state.doc.id;
  const [settings, setSettings] = useState<RenderSettings>(() => asLastTime(project, scene));
  const [busy, setBusy] = useState(false);
  const findings = useSlice((s) => (s.findings ?? []).filter((f) => f.scene === s.sceneId && !f.delivery));
  useEffect(prepareRender, []);
  const kind = formatOf(settings.format);
  const plan = planned(scene, settings);
  const start = async () => {
    setBusy(true);
    try {
      await editor.allSaved();
      await ask(RENDERS.ask, { project, scene: scene.id, settings });
      localStorage.setItem(`${KEPT}-${project}`, JSON.stringify(settings));
      await queries.invalidateQueries({ queryKey: ['renders'] });
      onClose();
      toast.success(`“${scene.name}” is in the queue.`, {
        action: { label: 'Show renders', onClick: () => void navigate('/renders') },
      });
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };

  const keep = () => {
    const taken = editor.state.doc.deliveries.map((d) => d.name);
    const name = uniqueName(`${scene.name}, ${kind.label}`, taken);
    editor.edit(addDelivery(newDelivery(makeId(), name, [scene.id], keptSettings(settings, scene))));
    onClose();
    toast.success(`“${name}” is kept with the project.`, {
      action: { label: 'Show deliveries', onClick: () => void navigate(`/projects/${project}/deliveries`) },
    });
  };

  return (
    <Dialog open onClose={onClose} title={`Render “${scene.name}”`} about={kind.about} width={540}>
      <form
        className="flex flex-col gap-2.5 pt-2"
        onSubmit={(event) => {
          event.preventDefault();
          void start();
        }}
      >
        <SettingsForm
          scene={scene}
          settings={settings}
          onChange={setSettings}
          playhead={frame}
          range={range && [range[0], range[1]]}
        />
        {findings.length > 0 && (
          <details className="rounded-md bg-sun-2 px-2.5 py-1.5 text-sm">
            <summary className="cursor-pointer text-sun">
              {findings.length} to look at in this scene before it is rendered
            </summary>
            <FindingList findings={findings} onShow={onClose} />
          </details>
        )}
        <div className="mt-1 flex justify-end gap-2">
          <Button className="mr-auto" disabled={typeof plan === 'string'} onClick={keep}>
            Keep as a delivery
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="primary" disabled={busy || typeof plan === 'string'}>
            {busy ? 'Sending …' : 'Render'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
};
