import { type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { type Id, isKeyed } from '@kite/core/document/types';
import type { KeyChoice } from '@kite/core/edits/properties';
import { followPointer } from '../../ui/drag';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { LayerRow } from './LayerRow';
import { RibbonRow } from './RibbonRow';
import { propertyOfLayer, rowsOf } from './rows';
import { Ruler } from './Ruler';
import { NAMES_WIDTH, ROW, timeScale } from './scale';

const Playhead = ({ x }: { x: (frame: number) => number }) => {
  const { frame, autoKey } = useSlice((s) => ({ frame: s.frame, autoKey: s.autoKey }));
  return (
    <div
      aria-hidden
      className="pointer-events-none absolute inset-y-0 z-10 w-0.5 bg-kite"
      style={{
        left: NAMES_WIDTH + Math.round(x(frame)) - 1,
        boxShadow: autoKey ? '0 0 0 2px color-mix(in srgb, var(--kite) 35%, transparent)' : 'none',
      }}
    />
  );
};

export const Timeline = () => {
  const editor = useEditor();
  const body = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(800);
  const [sweep, setSweep] = useState<{ left: number; top: number; width: number; height: number } | null>(null);
  const { scene, opened, showTucked } = useSlice((s) => ({
    scene: sceneOf(s),
    opened: s.opened,
    showTucked: s.showTucked,
  }));
  const rows = useMemo(() => rowsOf(scene, opened, showTucked), [scene, opened, showTucked]);
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
      return next ? rest.indexOf(next.layer) : rest.length;
    },
    [editor],
  );
  const scale = useMemo(() => timeScale(scene.length, width), [scene.length, width]);

  useEffect(() => {
    const element = body.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setWidth(Math.max(80, element.clientWidth - NAMES_WIDTH)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  /** Beads whose middle lies in a rectangle of the rows' area. */
  const beadsIn = (left: number, top: number, right: number, bottom: number): KeyChoice[] =>
    rows.flatMap((row, i): KeyChoice[] => {
      const y = i * ROW + ROW / 2;
      const layer = scene.layers[row.layer];
      if (row.kind !== 'ribbon' || !layer || y < top || y > bottom) return [];
      const property = propertyOfLayer(layer, row.ref);
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
        // The click that ends a sweep is not a click on what lies under it.
        else window.addEventListener('click', (click) => click.stopPropagation(), { capture: true, once: true });
      },
      onCancel: () => setSweep(null),
    });
  };

  return (
    <section aria-label="Timeline" className="relative flex min-h-0 flex-1 flex-col overflow-hidden bg-paper">
      <Ruler scale={scale} />
      <div ref={body} className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto" onPointerDown={onSweep}>
        {rows.length === 0 && (
          <p className="px-4 py-6 text-ink-2">No layers yet. Add a shape from the dock; each one gets a row here.</p>
        )}
        {rows.map((row, i) => {
          const layer = scene.layers[row.layer];
          if (!layer) return null;
          if (row.kind === 'layer') {
            return (
              <LayerRow
                key={row.key}
                layer={layer}
                index={i}
                layersBefore={layersBefore}
                scale={scale}
                open={opened.has(layer.id)}
              />
            );
          }
          if (row.kind === 'ribbon') return <RibbonRow key={row.key} layer={layer} refTo={row.ref} scale={scale} />;
          return (
            <div
              key={row.key}
              className="flex items-center border-b border-line bg-paper-2 pl-12 text-sm text-ink-2"
              style={{ height: ROW }}
            >
              Nothing is animated yet: press a value’s ring in the inspector, or turn auto-key on and change something.
            </div>
          );
        })}
        {tucked > 0 && (
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
      <Playhead x={scale.x} />
    </section>
  );
};
