import { remembered } from '@kite/core/document/remembered';
import { together } from '@kite/core/document/patches';
import type { PictureAsset, Point } from '@kite/core/document/types';
import { addLayers } from '@kite/core/edits/layers';
import { filesIn, layersOfSvg, partsOf, type SvgFiles, type SvgPlacing } from '@kite/core/interchange/svg/layers';
import type { SvgDrawing, SvgNode } from '@kite/core/interchange/svg/nodes';
import { useEffect, useMemo, useRef, useState } from 'react';
import { toast } from '../../ui/toast';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Segments } from '../../ui/Segments';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';
import { picturesAt, sentPictures } from './picturesInside';
import { readDrawing } from './readDrawing';
import { ALL, SvgParts, unitsOf } from './SvgParts';
import { takenIn } from './takenIn';

interface Opened {
  readonly name: string;
  readonly drawing: SvgDrawing;
  /** Its pictures, before they are sent. */
  readonly pictures: SvgFiles;
}

const nameOf = (file: File): string => file.name.replace(/\.svg$/i, '') || 'Drawing';

/** Reads a file as a drawing; what is wrong with it is told. */
const opened = async (file: File, signal: AbortSignal): Promise<Opened | null> => {
  try {
    const drawing = await readDrawing(file, signal);
    return drawing && { name: nameOf(file), drawing, pictures: await picturesAt(filesIn(drawing.nodes)) };
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    toast.error(`“${file.name}” was not imported: ${reason}. Nothing was changed.`);
    return null;
  }
};

/** Drawings that were brought in, one after another: which of their layers come, how large, and what is lost. */
export const SvgDialog = () => {
  const editor = useEditor();
  const importing = useSlice((s) => s.importing);
  const [open, setOpen] = useState<Opened | null>(null);
  const reading = useRef<AbortController | null>(null);
  const file = importing?.files[0];
  const rest = () => {
    const files = importing?.files.slice(1) ?? [];
    setOpen(null);
    editor.set({ importing: files.length > 0 && importing ? { ...importing, files } : null });
  };
  useEffect(() => {
    if (!file) return;
    const stop = new AbortController();
    reading.current = stop;
    void opened(file, stop.signal).then((drawing) => {
      if (stop.signal.aborted) return;
      if (drawing) setOpen(drawing);
      else rest();
    });
    return () => stop.abort();
    // Each file is read once.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [file]);
  if (file && !open) {
    const giveUp = () => {
      reading.current?.abort();
      rest();
    };
    return (
      <Dialog
        open
        onClose={giveUp}
        title={`Reading ${nameOf(file)} …`}
        about="Large drawings take a few seconds."
        width={420}
      >
        <div
          role="progressbar"
          aria-label="Reading the drawing"
          className="h-1.5 overflow-hidden rounded-full bg-paper-2"
        >
          <div className="h-full w-1/3 animate-pulse rounded-full bg-sky motion-reduce:animate-none" />
        </div>
        <div className="flex justify-end pt-3">
          <Button onClick={giveUp}>Cancel</Button>
        </div>
      </Dialog>
    );
  }
  if (!open || !importing) return null;
  return (
    <Chooser
      key={open.name + importing.files.length}
      opened={open}
      at={importing.at}
      waiting={importing.files.length - 1}
      onDone={rest}
    />
  );
};

interface ChooserProps {
  opened: Opened;
  at: Point | null;
  waiting: number;
  onDone: () => void;
}

const Chooser = ({ opened: { name, drawing, pictures }, at, waiting, onDone }: ChooserProps) => {
  const editor = useEditor();
  const { scene } = editor;
  const parts = useMemo(() => partsOf(drawing.nodes), [drawing]);
  const [choice, setChoice] = useState(ALL);
  const units = unitsOf(parts, choice.open);
  const [how, setHow] = useState<SvgPlacing['layers']>(parts.length > 30 ? 'one-for-all' : 'one-each');
  const larger = drawing.width > scene.width || drawing.height > scene.height;
  const fit = Math.min(scene.width / drawing.width, scene.height / drawing.height);
  const [size, setSize] = useState<'keep' | 'fit'>(larger || fit > 8 ? 'fit' : 'keep');

  const made = (nodes: readonly SvgNode[], files = pictures) =>
    layersOfSvg(
      drawing,
      nodes,
      scene,
      name,
      { scale: size === 'fit' ? fit * 0.8 : 1, at: at ?? [scene.width / 2, scene.height / 2], layers: how },
      makeId,
      files,
    );
  const nodes = units.filter((unit) => !choice.out.has(unit));
  const { layers: coming, notes } = useMemo(() => made(nodes), [drawing, choice, how, size]); // eslint-disable-line react-hooks/exhaustive-deps
  const layerOf = useMemo(
    () =>
      remembered(
        (node: SvgNode) =>
          layersOfSvg(drawing, [node], scene, name, { scale: 1, at: [0, 0], layers: 'one-for-all' }, makeId, pictures)
            .layers[0],
      ),
    // The pictures are of the file alone.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [drawing],
  );
  const [, setFonts] = useState(editor.library.fonts);
  useEffect(() => {
    // The fonts of its texts come while the pictures of its parts are looked at.
    const layers = Object.fromEntries(coming.map((layer) => [layer.id, layer]));
    const fonts = editor.fontsComing({ ...scene, order: Object.keys(layers), layers });
    void fonts?.then(() => setFonts(editor.library.fonts));
    // Once, for all that is in it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [drawing]);
  const shown = useMemo(() => Object.fromEntries([...pictures].map(([, asset]) => [asset.id, asset])), [pictures]);
  const [sending, setSending] = useState(false);
  const bring = async () => {
    setSending(true);
    const sent = await sentPictures(
      filesIn(nodes).filter((file) => pictures.has(file)),
      name,
    );
    setSending(false);
    if (!sent) return;
    const { assets, edits } = takenIn(
      editor.state.doc.assets,
      sent.map(([, asset]) => asset),
    );
    const files = sent.map(([address], i) => [address, assets[i] as PictureAsset] as const);
    const { layers } = made(nodes, new Map(files));
    onDone();
    if (layers.length === 0) return;
    editor.edit(together(`Import ${name}`, [...edits, addLayers(scene.id, layers, editor.state.selection.layers[0])]));
    editor.select({ layers: layers.map((l) => l.id) });
  };
  const row = 'flex items-center justify-between gap-3';
  return (
    <Dialog
      open
      onClose={onDone}
      title={`Import ${name}`}
      about={`A drawing of ${Math.round(drawing.width)} × ${Math.round(drawing.height)}${waiting > 0 ? `; ${waiting} more after it` : ''}`}
      width={620}
    >
      <div className="flex items-center justify-between pb-1">
        <h3 className="font-medium">
          {nodes.length} of {units.length} part{units.length === 1 ? '' : 's'}
        </h3>
        <span className="flex gap-1">
          <Button className="!h-6 text-sm" onClick={() => setChoice({ ...choice, out: new Set() })}>
            All
          </Button>
          <Button className="!h-6 text-sm" onClick={() => setChoice({ ...choice, out: new Set(units) })}>
            None
          </Button>
        </span>
      </div>
      <div className="max-h-[270px] overflow-y-auto rounded-md bg-paper-2 p-2">
        <SvgParts nodes={parts} choice={choice} onChange={setChoice} layerOf={layerOf} pictures={shown} />
        {parts.length === 0 && <p className="p-3 text-ink-2">There is nothing in it that can be drawn.</p>}
      </div>
      <div className="mt-3 grid grid-cols-2 gap-x-6 gap-y-2">
        <span className={row}>
          As
          <Segments
            label="Layers"
            value={how}
            options={[
              { value: 'one-each', label: 'A layer each' },
              { value: 'one-for-all', label: 'One layer' },
            ]}
            onChange={setHow}
          />
        </span>
        <span className={row}>
          Size
          <Segments
            label="Size"
            value={size}
            options={[
              { value: 'keep', label: 'As it is' },
              { value: 'fit', label: 'Fit the scene' },
            ]}
            onChange={setSize}
          />
        </span>
      </div>
      {notes.length > 0 && (
        <section aria-label="What cannot be kept" className="mt-3 rounded-md bg-sun-2 px-3 py-2 text-sm text-sun">
          <h3 className="font-semibold">What cannot be kept</h3>
          <ul className="list-disc pl-4">
            {notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        </section>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onDone}>{waiting > 0 ? 'Leave this one out' : 'Cancel'}</Button>
        <Button look="primary" disabled={nodes.length === 0 || sending} onClick={() => void bring()}>
          {sending ? 'Importing …' : 'Import'}
        </Button>
      </div>
    </Dialog>
  );
};
