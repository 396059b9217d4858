import { useVirtualizer } from '@tanstack/react-virtual';
import { type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { type Id, isKeyed } from '@kite/core/document/types';
import type { KeyChoice } from '@kite/core/edits/keyframes';
import { propertyAt } from '@kite/core/properties/find';
import { followPointer } from '../../ui/drag';
import { Button } from '../../ui/Button';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { CelsRow, CurvesView, PosesRow, RibbonRow, StretchFrame } from '../later';
import { ElsewhereRow, SceneRow } from './row/SceneRow';
import { LayerRow } from './row/LayerRow';
import { rowsElsewhere, rowsOf } from './rows';
import { Ruler } from './Ruler';
import { NAMES_WIDTH, panned, ROW, type TimeScale, timeScale, zoomed } from './scale';
import { ScaleContext } from './scaleContext';

/** The playhead, and the frame that what is dragged has snapped to, over all rows. */
const Lines = ({ scale }: { scale: TimeScale }) => {
  const { frame, autoKey, snappedFrame } = useSlice((s) => ({
    frame: s.frame,
    autoKey: s.autoKey,
    snappedFrame: s.snappedFrame,
  }));
  return (
    <div
      aria-hidden
      className="pointer-events-none absolute inset-y-0 right-0 z-10 overflow-hidden"
      style={{ left: NAMES_WIDTH }}
    >
      {snappedFrame !== null && (
        <div className="absolute inset-y-0 w-px bg-sky" style={{ left: Math.round(scale.x(snappedFrame)) }} />
      )}
      <div
        className="absolute inset-y-0 w-0.5 bg-kite"
        style={{
          left: Math.round(scale.x(frame)) - 1,
          boxShadow: autoKey ? '0 0 0 2px color-mix(in srgb, var(--kite) 35%, transparent)' : 'none',
        }}
      />
    </div>
  );
};

const rowHeight = () => ROW;

export const Timeline = () => {
  const editor = useEditor();
  const section = useRef<HTMLElement>(null);
  const body = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(800);
  const [sweep, setSweep] = useState<{ left: number; top: number; width: number; height: number } | null>(null);
  const { scene, doc, opened, folded, showTucked, onlyAnimated, timeReach, curves, only, keys } = useSlice((s) => ({
    scene: sceneOf(s),
    // Only while other scenes show is it drawn anew for edits to them.
    doc: s.allScenes ? s.doc : null,
    opened: s.opened,
    folded: s.folded,
    showTucked: s.showTucked,
    onlyAnimated: s.onlyAnimated,
    timeReach: s.timeReach,
    curves: s.curves,
    only: s.selection.layers.length === 1 ? s.selection.layers[0] : undefined,
    keys: s.selection.keys.length > 0,
  }));
  const posed = (scene.poses?.strip.held.length ?? 0) > 0;
  const rows = useMemo(
    () => [
      ...rowsOf(scene, opened, { tucked: showTucked, animated: onlyAnimated, folded }),
      ...(doc ? rowsElsewhere(doc, scene.id, opened) : []),
    ],
    [scene, doc, opened, folded, showTucked, onlyAnimated],
  );
  const still = onlyAnimated ? scene.order.length - rows.filter((r) => r.kind === 'layer').length : 0;
  const tucked = scene.order.filter((id) => scene.layers[id]?.tucked).length;
  // Rows know where they could be dropped without being drawn again whenever any layer changes.
  const latest = useRef(rows);
  useEffect(() => {
    latest.current = rows;
  }, [rows]);
  const layersBefore = useCallback(
    (row: number, moving: ReadonlySet<Id>) => {
      const next = latest.current.slice(row).find((r) => r.kind === 'layer' && !moving.has(r.layer));
      const rest = editor.scene.order.filter((id) => !moving.has(id));
      return next?.kind === 'layer' ? rest.indexOf(next.layer) : rest.length;
    },
    [editor],
  );
  const scale = useMemo(() => timeScale(scene.length, width, timeReach), [scene.length, width, timeReach]);

  useEffect(() => {
    const element = section.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setWidth(Math.max(80, element.clientWidth - NAMES_WIDTH)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  // Rows are measured again only when there are other rows.
  const keyOf = useCallback((i: number) => rows[i]?.key ?? i, [rows]);
  // The rows are drawn anew whenever it says so; nothing of it is handed on.
  // eslint-disable-next-line react-hooks/incompatible-library
  const scroller = useVirtualizer({
    count: rows.length,
    getScrollElement: () => body.current,
    estimateSize: rowHeight,
    overscan: 2,
    getItemKey: keyOf,
  });

  // What is selected on the canvas, or was just made, is shown; a row that is in view stays where it is.
  const hasRow = useMemo(() => rows.some((r) => r.kind === 'layer' && r.layer === only), [rows, only]);
  useEffect(() => {
    if (!hasRow) return;
    const index = latest.current.findIndex((r) => r.kind === 'layer' && r.layer === only);
    const { scrollOffset, scrollRect, measurementsCache } = scroller;
    const row = measurementsCache[index];
    const from = scrollOffset ?? 0;
    // Asked of what is known: the page is not laid out for it.
    const inView = row && scrollRect && row.start >= from && row.end <= from + scrollRect.height;
    if (!inView) scroller.scrollToIndex(index, { align: 'auto' });
  }, [hasRow, only, scroller]);

  // The wheel moves through time with Shift or sideways, and zooms about the pointer with Ctrl.
  const latestScale = useRef(scale);
  useEffect(() => {
    latestScale.current = scale;
  }, [scale]);
  useEffect(() => {
    const element = section.current;
    const onWheel = (event: WheelEvent) => {
      const now = latestScale.current;
      const sideways = event.shiftKey ? event.deltaY || event.deltaX : event.deltaX;
      if (event.ctrlKey || event.metaKey) {
        event.preventDefault();
        const x = event.clientX - (element?.getBoundingClientRect().left ?? 0) - NAMES_WIDTH;
        const factor = Math.exp(-event.deltaY * 0.0025);
        editor.set({ timeReach: zoomed(now, factor, now.frame(Math.min(Math.max(x, 0), now.width))) });
      } else if (sideways !== 0) {
        event.preventDefault();
        const next = panned(now, now.frames(sideways));
        if (next) editor.set({ timeReach: next });
      }
    };
    element?.addEventListener('wheel', onWheel, { passive: false });
    return () => element?.removeEventListener('wheel', onWheel);
  }, [editor]);

  /** Beads whose middle lies in a rectangle of the rows' area. */
  const beadsIn = (left: number, top: number, right: number, bottom: number): KeyChoice[] =>
    rows.flatMap((row, i): KeyChoice[] => {
      const y = i * ROW + ROW / 2;
      if (row.kind !== 'ribbon' || y < top || y > bottom) return [];
      const property = propertyAt(editor.state.doc, row.ref);
      if (!isKeyed(property)) return [];
      const frames = property.keys
        .map((k) => k.frame)
        .filter((f) => NAMES_WIDTH + scale.x(f) >= left && NAMES_WIDTH + scale.x(f) <= right);
      return frames.length > 0 ? [{ ref: row.ref, frames }] : [];
    });

  /** A drag over the rows' empty parts sweeps over beads. */
  const onSweep = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0 || !body.current) return;
    const box = body.current.getBoundingClientRect();
    const x = event.clientX - box.left;
    const y = event.clientY - box.top + body.current.scrollTop;
    if (x < NAMES_WIDTH) return;
    const layers = editor.state.selection.layers;
    followPointer(event, {
      onMove: ({ dx, dy }) => {
        const area = { left: Math.min(x, x + dx), top: Math.min(y, y + dy), width: Math.abs(dx), height: Math.abs(dy) };
        setSweep(area);
        editor.select({ layers, keys: beadsIn(area.left, area.top, area.left + area.width, area.top + area.height) });
      },
      onEnd: (_drag, moved) => {
        setSweep(null);
        if (!moved) editor.select({});
      },
      onCancel: () => setSweep(null),
    });
  };

  const row = (index: number) => {
    const at = rows[index];
    if (!at) return null;
    if (at.kind === 'scene') return <SceneRow scene={at.scene} open={opened.has(at.scene)} />;
    const owner = at.kind === 'elsewhere' ? at.scene : at.kind === 'ribbon' ? at.ref.scene : scene.id;
    const layer = (owner === scene.id ? scene : doc?.scenes[owner])?.layers[at.layer];
    if (!layer) return null;
    if (at.kind === 'elsewhere') return <ElsewhereRow layer={layer} />;
    if (at.kind === 'layer') {
      return <LayerRow layer={layer} index={index} layersBefore={layersBefore} open={opened.has(layer.id)} />;
    }
    if (at.kind === 'cels') return layer.kind === 'drawing' ? <CelsRow layer={layer} cels={at.cels} /> : null;
    if (at.kind === 'ribbon') return <RibbonRow layer={layer} refTo={at.ref} />;
    return (
      <div
        className="flex items-center border-b border-line bg-paper-2 pl-12 text-sm text-ink-2"
        style={{ height: ROW }}
      >
        Nothing is animated yet: press a value’s ring in the inspector, or
        <button
          type="button"
          className="mx-1 text-sky underline"
          onPointerDown={(event) => event.stopPropagation()}
          onClick={() => editor.set({ autoKey: true })}
        >
          turn auto-key on
        </button>
        and change something.
      </div>
    );
  };

  return (
    <section
      ref={section}
      aria-label="Timeline"
      className="relative flex min-h-0 flex-1 flex-col overflow-hidden bg-paper"
    >
      <Ruler scale={scale} />
      {posed && (
        <ScaleContext value={scale}>
          <PosesRow />
        </ScaleContext>
      )}
      {curves && <CurvesView scale={scale} />}
      <div
        ref={body}
        data-testid="timeline-rows"
        hidden={curves}
        className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto"
        onPointerDown={onSweep}
      >
        {rows.length === 0 && scene.order.length === 0 && (
          <div className="flex flex-col items-start gap-2 px-4 py-5 text-ink-2">
            <p>No layers yet. Each one gets a row here.</p>
            <Button className="!h-[26px]" onClick={() => editor.set({ drawer: 'shapes' })}>
              Draw the first one
            </Button>
          </div>
        )}
        <div className="relative" style={{ height: scroller.getTotalSize() }}>
          <ScaleContext value={scale}>
            {scroller.getVirtualItems().map(({ key, index, start }) => (
              <div key={key} className="absolute inset-x-0" style={{ transform: `translateY(${start}px)` }}>
                {row(index)}
              </div>
            ))}
          </ScaleContext>
          {keys && <StretchFrame rows={rows} scale={scale} />}
        </div>
        {still > 0 && (
          <button
            type="button"
            className="h-[26px] px-3 text-sm text-ink-2 hover:text-ink"
            onPointerDown={(event) => event.stopPropagation()}
            onClick={() => editor.set({ onlyAnimated: false })}
          >
            Show {still} more that {still === 1 ? 'is' : 'are'} not animated
          </button>
        )}
        {tucked > 0 && !onlyAnimated && (
          <button
            type="button"
            className="h-[26px] px-3 text-sm text-ink-2 hover:text-ink"
            onPointerDown={(event) => event.stopPropagation()}
            onClick={() => editor.set({ showTucked: !showTucked })}
          >
            {showTucked ? 'Leave' : 'Show'} {tucked} tucked layer{tucked === 1 ? '' : 's'}
            {showTucked ? ' out of the list' : ''}
          </button>
        )}
        {sweep && <div className="pointer-events-none absolute z-20 border border-sky bg-sky/10" style={sweep} />}
      </div>
      <Lines scale={scale} />
    </section>
  );
};
