import { SELECTING } from '../../store/workspace';
import type { Stage } from '../stage';
import type { Values } from '@kite/core/document/params';
import type { DrawingLayer, Item, Point } from '@kite/core/document/types';
import { setLayers } from '@kite/core/edits/layers';
import { cutText } from '@kite/core/document/text';
import { boxAbout, cornersOf } from '@kite/core/geometry/bounds';
import { apply, inverted, type Matrix, multiply, translation } from '@kite/core/geometry/matrix';
import type { Program } from '@kite/core/scene/program';
import type { text as textKind } from '@kite/core/recipe/sources/text';
import { textLayout } from '@kite/core/recipe/sources/text';
import { caretAt, indexAt, type TextLayout } from '@kite/core/type/layout';
import { readPairs, writePairs } from '@kite/core/type/pairs';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { followPointer } from '../../../ui/drag';
import { settleText } from '../../commands/inside';
import { writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { toScene, viewMatrix } from '../view';

/** What a layer is called by its text. */
const line = (text: string): string =>
  cutText(
    text
      .split('\n')
      .find((l) => l.trim())
      ?.trim() ?? 'Text',
    60,
  );

/** Typing into a text where it stands. A hidden field has the letters; caret and selection are drawn over the picture. */
export const TextEditing = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const { writing, frame } = useSlice((s) => ({
    writing: s.mode.kind === 'writing' ? s.mode : null,
    frame: s.mode.kind === 'writing' ? s.frame : null,
    doc: s.doc,
    fontsCame: s.fontsCame,
  }));
  const layer = writing ? editor.scene.layers[writing.layer] : undefined;
  const item = layer?.kind === 'drawing' && writing ? layer.items[writing.item] : undefined;
  const shown = layer && item && frame !== null && editor.program.cardAt(layer.id, item.id, frame);
  if (layer?.kind !== 'drawing' || !shown) return null;
  return <Field key={item.id} layer={layer} item={item} view={view} pointOf={pointOf} shown={shown} />;
};

interface FieldProps extends Stage {
  layer: DrawingLayer;
  item: Item;
  shown: NonNullable<ReturnType<Program['cardAt']>>;
}

const Field = ({ layer, item, view, pointOf, shown }: FieldProps) => {
  const editor = useEditor();
  const field = useRef<HTMLTextAreaElement>(null);
  /** The pairs, once they have been changed here. */
  const kerned = useRef<string | null>(null);
  const [range, setRange] = useState<readonly [number, number]>([0, 0]);
  const values = shown.values as Values<typeof textKind.params>;
  /** As it was when it was opened: a layer that is called by its text goes on being so. */
  const [opened] = useState({
    named: layer.name === 'Text' || layer.name === line(values.text),
    isNew: layer.name === 'Text' && values.text === 'Text',
  });
  const laid = textLayout(values, editor.library.fonts);
  const ref = (key: string) => ({ scene: editor.scene.id, layer: layer.id, item: item.id, key });

  // What is typed until it rests, or the field is left, is one step.
  useEffect(() => {
    const area = field.current;
    editor.begin();
    area?.focus();
    area?.select();
    return () => {
      if (opened.isNew) settleText(editor, layer.id, item.id);
      editor.end();
    };
    // Once for each text that is opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);

  useEffect(() => {
    const onSelection = () => {
      const area = field.current;
      if (area && document.activeElement === area) setRange([area.selectionStart, area.selectionEnd]);
    };
    document.addEventListener('selectionchange', onSelection);
    return () => document.removeEventListener('selectionchange', onSelection);
  }, []);

  const toLayout = multiply(shown.matrix, translation(values.place[0], values.place[1] + (laid?.down ?? 0)));
  const finish = () => {
    editor.set({ mode: SELECTING });
    // With its card open the sides of its box are at hand.
    if (values.frame === 'box') editor.select({ layers: [layer.id], card: item.id });
  };

  const indexOf = (event: { clientX: number; clientY: number }): number | null => {
    const back = inverted(toLayout);
    return back && laid && indexAt(laid.layout, apply(back, toScene(view, pointOf(event))));
  };

  const onPointerDown = (event: PointerEvent) => {
    event.preventDefault();
    event.stopPropagation();
    const from = indexOf(event);
    const area = field.current;
    if (from === null || !area) return;
    area.focus();
    area.setSelectionRange(from, from);
    setRange([from, from]);
    followPointer(event, {
      onMove: ({ event: now }) => {
        const to = indexOf(now) ?? from;
        area.setSelectionRange(Math.min(from, to), Math.max(from, to));
        setRange([Math.min(from, to), Math.max(from, to)]);
      },
    });
  };

  /** Each state of a gesture holds all that was changed in it. */
  const write = (text: string) => {
    const pairs = kerned.current === null ? [] : [[ref('pairs'), kerned.current] as const];
    writeValues(editor, [[ref('text'), text], ...pairs], 'Type');
    if (opened.named) editor.also(setLayers(editor.scene.id, [layer.id], { name: line(text) }));
  };

  /** Moves the letters on both sides of the caret together or apart. */
  const kern = (by: number) => {
    // The field's own caret: the one that is drawn follows a moment later.
    const caret = field.current?.selectionStart ?? range[0];
    const [before] = [...values.text.slice(0, caret)].slice(-1);
    const [after] = values.text.slice(caret);
    if (!before || !after || /\s/.test(before + after)) return;
    const pair = before + after;
    const pairs = new Map(readPairs(values.pairs));
    pairs.set(pair, (pairs.get(pair) ?? 0) + by);
    kerned.current = writePairs(pairs);
    write(values.text);
  };

  return (
    <>
      <div className="absolute inset-0" onPointerDown={finish} />
      <svg className="pointer-events-none absolute inset-0 size-full" aria-hidden>
        {values.frame === 'box' && (
          <polygon
            points={cornersOf(boxAbout(values.place, values))
              .map((p) => apply(multiply(viewMatrix(view), shown.matrix), p).join())
              .join(' ')}
            fill="none"
            stroke="var(--tail)"
            strokeWidth={1.5}
          />
        )}
        {laid && (
          <TextMarks
            layout={laid.layout}
            range={range}
            matrix={multiply(viewMatrix(view), toLayout)}
            onPointerDown={onPointerDown}
          />
        )}
      </svg>
      <textarea
        ref={field}
        aria-label="Text on the canvas"
        data-testid="canvas-text"
        value={values.text}
        spellCheck={false}
        wrap="off"
        className="pointer-events-none absolute top-0 left-0 h-px w-64 resize-none opacity-0"
        onChange={(event) => {
          write(event.target.value);
          setRange([event.target.selectionStart, event.target.selectionEnd]);
        }}
        onBlur={(event) => {
          // Somewhere else in the page has been chosen.
          if (event.relatedTarget) finish();
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape' || (event.key === 'Enter' && (event.ctrlKey || event.metaKey))) finish();
          else if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
            event.preventDefault();
            kern((event.key === 'ArrowLeft' ? -1 : 1) * (event.shiftKey ? 50 : 10));
          }
        }}
      />
      <p className="pointer-events-none absolute top-2 left-1/2 -translate-x-1/2 rounded-md bg-ink px-3 py-1 text-sm text-paper">
        Type · Alt with ← → moves two letters together or apart · Esc ends
      </p>
    </>
  );
};

interface TextMarksProps {
  layout: TextLayout;
  range: readonly [number, number];
  /** From the layout's pixels to the area's. */
  matrix: Matrix;
  onPointerDown: (event: PointerEvent) => void;
}

const TextMarks = ({ layout, range: [from, to], matrix, onPointerDown }: TextMarksProps) => {
  const { ascent, descent, lines } = layout;
  const quad = (left: number, right: number, baseline: number) =>
    [
      [left, baseline - ascent],
      [right, baseline - ascent],
      [right, baseline + descent],
      [left, baseline + descent],
    ]
      .map((p) => apply(matrix, p as unknown as Point).join())
      .join(' ');
  const caret = caretAt(layout, from);
  const [cx, cy] = caret.at;
  const [top, bottom] = [apply(matrix, [cx, cy - ascent]), apply(matrix, [cx, cy + descent])];
  return (
    <g>
      {lines.map((l, i) => {
        const [a, b] = [Math.max(from, l.from), Math.min(to, l.to)];
        return (
          <g key={i}>
            <polygon
              points={quad(l.left - ascent * 0.2, Math.max(l.right, l.left + 8) + ascent * 0.2, l.baseline)}
              fill="transparent"
              style={{ pointerEvents: 'all', cursor: 'text' }}
              onPointerDown={onPointerDown}
            />
            <path
              d={`M${apply(matrix, [l.left, l.baseline]).join()}L${apply(matrix, [l.right, l.baseline]).join()}`}
              stroke="var(--sky)"
              strokeOpacity={0.6}
            />
            {a < b && (
              <polygon
                points={quad(
                  a === l.from ? l.left : caretAt(layout, a).at[0],
                  b === l.to ? l.right : caretAt(layout, b).at[0],
                  l.baseline,
                )}
                fill="var(--sky)"
                fillOpacity={0.3}
              />
            )}
          </g>
        );
      })}
      {from === to && (
        <path
          className="motion-safe:animate-pulse"
          d={`M${top.join()}L${bottom.join()}`}
          stroke="var(--kite)"
          strokeWidth={2}
        />
      )}
    </g>
  );
};
