import { clamped } from '@kite/core/document/fitting';
import { BRUSH_LIMITS } from '@kite/core/document/limits';
import type { BrushStroke, PictureAsset, Point } from '@kite/core/document/types';
import { type DrawnBrush, keptPoints, pressedBySpeed, pressedIn, steadied } from '@kite/core/edits/strokes';
import { brushOutlines, printsOf } from '@kite/core/geometry/brush';
import { isTextured } from '@kite/core/geometry/texturedTips';
import { type Matrix, meanScale, multiply } from '@kite/core/geometry/matrix';
import type { Outline } from '@kite/core/geometry/outline';
import { applyThrough, isMatrix, type Through, throughBack } from '@kite/core/geometry/through';
import { type PointerEvent, useState } from 'react';
import { assetUrl } from '../../../preview/materials';
import { allOf, followPointer } from '../../../ui/drag';
import { drawStroke, strokesGoTo } from '../../commands/cels';
import { useEditor, useSlice } from '../../store/context';
import type { Brush } from '../../store/workspace';
import type { Stage } from '../stage';
import { toArea, toScene, viewMatrix } from '../view';

/** The stroke that a hand has drawn so far; `seed` is of its grain. */
const strokeOf = (drawn: DrawnBrush, brush: Brush, knows: boolean, seed: number): BrushStroke => {
  const { smooth, onScreen: _screen, stamp: _card, opacity, ...own } = brush;
  const pressed = knows ? drawn : pressedBySpeed(drawn, brush.size);
  return {
    ...own,
    points: keptPoints(steadied(pressed, smooth), brush.size),
    ...(opacity < 1 && { opacity }),
    ...(isTextured(own.tip) && { seed }),
  };
};

/** Outlines on the canvas, as a path of SVG. */
const pathOf = (outlines: readonly Outline[], place: (at: Point) => Point): string =>
  outlines
    .map(({ points: p }) => {
      const at = (k: number) => place([p[k]!, p[k + 1]!]).join(' ');
      const cubics = Array.from(
        { length: (p.length - 2) / 6 },
        (_, i) => `C${at(6 * i + 2)} ${at(6 * i + 4)} ${at(6 * i + 6)}`,
      );
      return `M${at(0)}${cubics.join('')}Z`;
    })
    .join('');

/** A stroke under the hand: as a path, or by the places where it presses a picture. */
interface Under {
  readonly d: string;
  readonly prints: readonly Matrix[] | null;
}

/** A picture pressed in one colour, where it will be. */
const Prints = ({ of, at, color }: { of: PictureAsset; at: readonly Matrix[]; color: string }) => (
  <g filter="url(#brush-colour)">
    <defs>
      <image
        id="brush-tip"
        href={assetUrl(of.sha)}
        width={of.width}
        height={of.height}
        x={-of.width / 2}
        y={-of.height / 2}
      />
      <filter id="brush-colour" colorInterpolationFilters="sRGB">
        <feFlood floodColor={color} />
        <feComposite in2="SourceAlpha" operator="in" />
      </filter>
    </defs>
    {at.map((matrix, i) => (
      <use key={i} href="#brush-tip" transform={`matrix(${matrix.join(' ')})`} />
    ))}
  </g>
);

/** The brush: each stroke is drawn by one press, and is one step to undo. Brackets change its size. */
export const DrawBrush = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const { hand, doc } = useSlice((s) => ({ hand: s.brush, selection: s.selection, frame: s.frame, doc: s.doc }));
  const [under, setUnder] = useState<Under | null>(null);
  const [pointer, setPointer] = useState<Point | null>(null);
  const goesTo = strokesGoTo(editor);
  const through: Through | null = goesTo?.through ?? null;
  const scale = (through && isMatrix(through) ? meanScale(through) : 1) * view.zoom;
  const size = hand.onScreen ? clamped(hand.size / scale, ...BRUSH_LIMITS.size, hand.size) : hand.size;
  const brush = { ...hand, size };
  const named = hand.tip === 'own' ? doc.assets[hand.stamp] : undefined;
  const layer = goesTo && editor.scene.layers[goesTo.ref.layer];
  const pressed = pressedIn(layer?.kind === 'drawing' ? layer : null, goesTo?.ref.item ?? '', hand.stamp);
  const tip = named?.kind === 'picture' && (!through || isMatrix(through)) ? named : null;

  const onPointerDown = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const back = through && throughBack(through);
    if (through && !back) return;
    const knows = event.pointerType === 'pen';
    const seed = Math.floor(Math.random() * (BRUSH_LIMITS.seed[1] + 1));
    const drawn: [x: number, y: number, pressure: number][] = [];
    const add = (now: { clientX: number; clientY: number; pressure: number }) => {
      const at = toScene(view, pointOf(now));
      drawn.push([...(back ? applyThrough(back, at) : at), knows ? now.pressure : 0.5]);
    };
    const place = (at: Point): Point => toArea(view, through ? applyThrough(through, at) : at);
    const show = () => {
      const stroke = strokeOf(drawn, brush, knows, seed);
      const way = through && isMatrix(through) ? multiply(viewMatrix(view), through) : viewMatrix(view);
      const prints = tip && printsOf(stroke, tip, pressed).map((print) => multiply(way, print));
      setUnder({ d: prints ? '' : pathOf(brushOutlines(stroke), place), prints });
    };
    add(event.nativeEvent);
    show();
    followPointer(event, {
      onMove: ({ event: now }) => {
        for (const own of allOf(now)) add(own);
        setPointer(pointOf(now));
        show();
      },
      onEnd: () => {
        drawStroke(editor, strokeOf(drawn, brush, knows, seed));
        setUnder(null);
      },
      onCancel: () => setUnder(null),
    });
  };

  return (
    <div
      data-testid="draw-brush"
      className="absolute inset-0 cursor-none"
      onPointerDown={onPointerDown}
      onPointerMove={(event) => setPointer(pointOf(event))}
      onPointerLeave={() => setPointer(null)}
    >
      <svg className="pointer-events-none size-full" aria-hidden>
        {under && (
          <g opacity={brush.erases ? 0.6 : brush.opacity}>
            {tip && under.prints ? (
              <Prints of={tip} at={under.prints} color={brush.erases ? 'var(--paper)' : brush.color} />
            ) : (
              <path
                d={under.d}
                fill={brush.erases ? 'var(--paper)' : brush.color}
                stroke={brush.erases ? 'var(--kite)' : 'none'}
              />
            )}
          </g>
        )}
        {pointer && (
          <circle
            cx={pointer[0]}
            cy={pointer[1]}
            r={Math.max(1.5, (brush.size / 2) * scale)}
            fill="none"
            stroke={brush.erases ? 'var(--kite)' : 'var(--ink)'}
            style={{ filter: 'drop-shadow(0 0 1px var(--paper))' }}
          />
        )}
      </svg>
    </div>
  );
};
