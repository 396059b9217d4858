import { RENDERS } from '@kite/api/renders';
import { type Format, FORMATS } from '@kite/core/delivery/formats/table';
import { defaultSettings } from '@kite/core/delivery/settings';
import { Play } from 'lucide-react';
import { useNavigate } from 'react-router';
import { toast } from '../../ui/toast';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { Menu } from '../../ui/Menu';
import { prepareRender } from '../render/prepare';
import { showFullScreen } from '../canvas/looks/fullScreen';
import { useEditor } from '../store/context';

/** Looking at the whole thing: over the screen, or the very file that would be delivered. */
export const PreviewMenu = () => {
  const editor = useEditor();
  const navigate = useNavigate();

  /** Renders the scene as it stands and plays the file itself in a new tab. */
  const openDelivered = async (format: Format) => {
    // The tab is opened by the press itself: one that comes later would be stopped as a pop-up.
    const tab = window.open('', '_blank');
    try {
      await editor.allSaved();
      const render = await ask(RENDERS.ask, {
        project: editor.state.doc.id,
        scene: editor.scene.id,
        settings: defaultSettings(format, editor.scene),
      });
      const address = `/delivered/${render.id}`;
      if (tab) tab.location.href = address;
      else void navigate(address);
    } catch (error) {
      tab?.close();
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };

  return (
    <Menu
      onOpen={prepareRender}
      trigger={
        <Button className="ml-1" icon={<Play size={14} />}>
          Preview
        </Button>
      }
      entries={[
        { label: 'Full screen', shortcut: 'F', onSelect: () => showFullScreen(editor) },
        null,
        ...FORMATS.filter(({ span, shownAs }) => span === 'range' && shownAs !== 'file').map(({ format, label }) => ({
          label: `Open as delivered: ${label}`,
          onSelect: () => void openDelivered(format),
        })),
      ]}
    />
  );
};
