import type { Stage } from '../stage';
import { isUncut } from '@kite/core/document/params';
import type { CutOut, Id, Item, Layer, Point } from '@kite/core/document/types';
import { apply, meanScale, inverted, multiply, scaling, translation } from '@kite/core/geometry/matrix';
import { type PointerEvent, useState } from 'react';
import { followPointer } from '../../../ui/drag';
import { writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { toScene, viewMatrix } from '../view';

const NOTHING_CUT: CutOut = { seeds: [], grow: 0, soften: 1, strokes: [] };
const FIRST_TOLERANCE = 0.12;

/** The picture that is cut out: the open card, or the first there is. */
const pictureCard = (layer: Layer | undefined, open: Id | null): Item | undefined => {
  if (layer?.kind !== 'drawing') return undefined;
  const pictures = Object.values(layer.items).filter((item) => item.kind === 'picture');
  return pictures.find((item) => item.id === open) ?? pictures[0];
};

/** While a picture is being cut out: clicks choose a background, strokes bring parts back or take them away. */
export const CutOutTool = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const { cutting, selection, frame } = useSlice((s) => ({
    cutting: s.mode.kind === 'cutting' ? s.mode : null,
    selection: s.selection,
    frame: s.mode.kind === 'cutting' ? s.frame : null,
    doc: s.doc,
  }));
  const [pointer, setPointer] = useState<Point | null>(null);
  const layer = editor.scene.layers[selection.layers[0] as Id];
  const item = cutting && selection.layers.length === 1 ? pictureCard(layer, selection.card) : undefined;
  const shown = layer && item && frame !== null && editor.program.cardAt(layer.id, item.id, frame);
  if (!cutting || !shown) return null;
  const asset = editor.state.doc.assets[shown.values.asset as Id];
  if (asset?.kind !== 'picture') return null;
  // From the picture's own pixels, its corner at 0, to the scene's.
  const toScenePixels = [scaling(shown.values.size as number), translation(-asset.width / 2, -asset.height / 2)].reduce(
    multiply,
    shown.matrix,
  );
  const toArea = multiply(viewMatrix(view), toScenePixels);
  const back = inverted(toScenePixels);
  if (!back) return null;
  const pixelOf = (event: { clientX: number; clientY: number }): Point => apply(back, toScene(view, pointOf(event)));
  const ref = { scene: editor.scene.id, layer: layer.id, item: item.id, key: 'cut' };
  const write = (cut: CutOut) => writeValues(editor, [[ref, cut]], 'Cut out');
  const cutNow = shown.values.cut as CutOut;
  const before = isUncut(cutNow) ? NOTHING_CUT : cutNow;

  const onPointerDown = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const [x, y] = pixelOf(event);
    if (cutting.how === 'background') {
      if (x < 0 || y < 0 || x >= asset.width || y >= asset.height) return;
      const seed = (tolerance: number): CutOut => ({
        ...before,
        seeds: [
          ...before.seeds,
          { x: Math.floor(x), y: Math.floor(y), tolerance: Math.round(tolerance * 1000) / 1000 },
        ],
      });
      editor.begin();
      write(seed(FIRST_TOLERANCE));
      followPointer(event, {
        onMove: ({ dx }) => write(seed(Math.min(1, Math.max(0, FIRST_TOLERANCE + dx / 600)))),
        onEnd: () => editor.end(),
        onCancel: () => editor.abandon(),
      });
      return;
    }
    const points: Point[] = [[Math.round(x), Math.round(y)]];
    const stroke = () =>
      write({
        ...before,
        strokes: [...before.strokes, { keep: cutting.how === 'keep', size: cutting.size, points: [...points] }],
      });
    editor.begin();
    stroke();
    followPointer(event, {
      onMove: ({ event: now }) => {
        setPointer(pointOf(now));
        const [px, py] = pixelOf(now);
        points.push([Math.round(px), Math.round(py)]);
        stroke();
      },
      onEnd: () => editor.end(),
      onCancel: () => editor.abandon(),
    });
  };

  const radius = (cutting.size / 2) * meanScale(toArea);
  return (
    <div
      data-testid="cut-out"
      className={`absolute inset-0 ${cutting.how === 'background' ? 'cursor-crosshair' : 'cursor-none'}`}
      onPointerDown={onPointerDown}
      onPointerMove={(event) => setPointer(pointOf(event))}
      onPointerLeave={() => setPointer(null)}
    >
      {pointer && cutting.how !== 'background' && (
        <svg className="pointer-events-none size-full" aria-hidden>
          <circle cx={pointer[0]} cy={pointer[1]} r={radius} fill="none" stroke="var(--paper)" strokeWidth={3} />
          <circle
            cx={pointer[0]}
            cy={pointer[1]}
            r={radius}
            fill="none"
            stroke={cutting.how === 'keep' ? 'var(--tail)' : 'var(--kite)'}
            strokeWidth={1.5}
          />
        </svg>
      )}
    </div>
  );
};
