import {
  addSwatch,
  addSwatches,
  removeSwatch,
  setSwatch,
  swatchesOfLayers,
  usesOfSwatches,
} from '@kite/core/edits/swatches';
import { type NamedColor, paletteAsCss, paletteAsJson } from '@kite/core/interchange/palette';
import type { Swatch } from '@kite/core/document/types';
import { Download, Plus, Trash2, Upload } from 'lucide-react';
import { useMemo, useRef } from 'react';
import { toast } from '../../ui/toast';
import { Button, IconButton } from '../../ui/Button';
import { ColorField } from '../../ui/ColorField';
import { downloadText } from '../../ui/download';
import { FileInput } from '../../ui/FileInput';
import { Menu } from '../../ui/Menu';
import { RenameField } from '../../ui/RenameField';
import { colorsOfFile } from '../importing/colorsOfFile';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';
import { DrawerFrame } from './DrawerFrame';

const NEW_COLOR = '#808080';

export const SwatchRow = ({ swatch, uses }: { swatch: Swatch; uses: number }) => {
  const editor = useEditor();
  return (
    <li
      data-testid="swatch"
      aria-label={`Swatch ${swatch.name}`}
      className="flex flex-col gap-1 rounded-md border border-line p-1.5"
    >
      <span className="flex items-center gap-1.5">
        <RenameField
          label="Name of the swatch"
          value={swatch.name}
          className="min-w-0 flex-1 font-medium"
          onRename={(name) => editor.edit(setSwatch(swatch.id, { name }))}
        />
        <span className="text-sm text-ink-2">{uses === 0 ? 'not used' : `${uses} layer${uses === 1 ? '' : 's'}`}</span>
        <IconButton label={`Remove ${swatch.name}`} size="small" onClick={() => editor.edit(removeSwatch(swatch.id))}>
          <Trash2 size={13} />
        </IconButton>
      </span>
      <ColorField
        label={`Colour of ${swatch.name}`}
        value={swatch.color}
        onStart={() => editor.begin()}
        onEnd={() => editor.end()}
        onChange={(color) => editor.edit(setSwatch(swatch.id, { color }))}
      />
    </li>
  );
};

/** The colours of the project: what is taken from them follows them. Palettes come in from files, and go out. */
export const ColorsDrawer = () => {
  const editor = useEditor();
  const file = useRef<HTMLInputElement>(null);
  const { swatches, scenes, chosen } = useSlice((s) => ({
    swatches: s.doc.swatches,
    scenes: s.doc.scenes,
    chosen: s.selection.layers,
  }));
  const uses = useMemo(() => usesOfSwatches({ scenes }), [scenes]);
  const take = (colors: readonly NamedColor[]) => {
    const known = new Set(swatches.map(({ color }) => color));
    const fresh = colors.filter(({ color }) => !known.has(color));
    if (fresh.length > 0) editor.edit(addSwatches(fresh.map((one) => ({ ...one, id: makeId() }))));
    const there = colors.length - fresh.length;
    toast.info(
      `${fresh.length} colour${fresh.length === 1 ? '' : 's'} added${there > 0 ? `, ${there} were there already` : ''}.`,
    );
  };
  const read = async (given: File) => {
    try {
      take(await colorsOfFile(given));
    } catch (error) {
      toast.error(`“${given.name}”: ${error instanceof Error ? error.message : String(error)}. Nothing was changed.`);
    }
  };
  return (
    <DrawerFrame title="Colours">
      <div className="grid grid-cols-3 gap-1.5">
        <Button
          className="!px-1.5"
          icon={<Plus size={14} />}
          onClick={() =>
            editor.edit(addSwatch({ id: makeId(), name: `Colour ${swatches.length + 1}`, color: NEW_COLOR }))
          }
        >
          Add
        </Button>
        <Button className="!px-1.5" icon={<Upload size={14} />} onClick={() => file.current?.click()}>
          Read
        </Button>
        <Menu
          align="start"
          entries={[
            {
              label: 'As CSS custom properties',
              onSelect: () => downloadText('palette.css', 'text/css', paletteAsCss(swatches)),
            },
            {
              label: 'As JSON',
              onSelect: () => downloadText('palette.json', 'application/json', paletteAsJson(swatches)),
            },
          ]}
          trigger={
            <Button className="!px-1.5" icon={<Download size={14} />} disabled={swatches.length === 0}>
              Save
            </Button>
          }
        />
      </div>
      <Button
        className="mt-1.5 w-full !px-1.5"
        disabled={chosen.length === 0}
        title="All colours of the selected layers become swatches, and follow them"
        onClick={() => editor.edit(swatchesOfLayers(editor.scene.id, chosen, makeId))}
      >
        Colours of the selected layers
      </Button>
      <FileInput
        input={file}
        testId="read-palette"
        accept=".css,.json,.svg,.txt,image/*"
        onChoose={([chosen]) => chosen && void read(chosen)}
      />
      {swatches.length === 0 ? (
        <p className="mt-3 text-ink-2">
          A colour that is taken from a swatch follows it, wherever it is used. Palettes are read from CSS, JSON, SVG
          and pictures.
        </p>
      ) : (
        <ul className="mt-2 flex flex-col gap-1.5">
          {swatches.map((swatch) => (
            <SwatchRow key={swatch.id} swatch={swatch} uses={uses.get(swatch.id) ?? 0} />
          ))}
        </ul>
      )}
    </DrawerFrame>
  );
};
