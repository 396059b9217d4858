import { changeKey, setEase } from '@kite/core/edits/keyframes';
import type { Point, Scene, Value } from '@kite/core/document/types';
import { sameRef } from '@kite/core/properties/find';
import { framesPerSecond } from '@kite/core/time/rate';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { Eye, EyeOff } from 'lucide-react';
import { type PointerEvent, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { followPointer } from '../../../ui/drag';
import { Button } from '../../../ui/Button';
import { Segments } from '../../../ui/Segments';
import { factorOf, UNITS } from '../../inspector/fields/units';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import type { Selection } from '../../store/selection';
import { Bead } from '../Bead';
import { dragKeys } from '../dragKeys';
import { heapsOf, middleOf } from '../heaps';
import { NAMES_WIDTH, type TimeScale } from '../scale';
import { APART, gripsOf } from './grips';
import { type Handle, handlesOf } from './handles';
import { type CurveMode, sampledCurve, type ShownCurve, shownCurves } from './shown';
import { type Extent, extentsOf } from './extents';

/** Pixels within which a handle snaps to being flat, or to standing still. */
const NEAR = 6;

/** Value or speed against time, with handles, for what is selected. */
export const CurvesView = ({ scale }: { scale: TimeScale }) => {
  const editor = useEditor();
  const { scene, selection, gesturing } = useSlice((s) => ({
    scene: sceneOf(s),
    selection: s.selection,
    gesturing: s.gesturing,
  }));
  const [mode, setMode] = useState<CurveMode>('value');
  // It opens with the properties whose beads are selected, if any are.
  const [hidden, setHidden] = useState<ReadonlySet<string>>(() => notChosen(scene, selection));
  const [height, setHeight] = useState(160);
  const area = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    const element = area.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setHeight(Math.max(40, element.clientHeight)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const all = useMemo(() => shownCurves(scene, selection.layers, mode), [scene, selection.layers, mode]);
  const curves = all.filter((c) => !hidden.has(c.id));
  const rate = framesPerSecond(scene.rate);
  // While something is dragged the heights stay as they were, so that it stays under the pointer.
  const fitted = extentsOf(curves, mode, scene.length, rate);
  const [kept, setKept] = useState<{ mode: CurveMode; extents: ReadonlyMap<string, Extent> } | null>(null);
  const extents = gesturing && kept?.mode === mode ? kept.extents : fitted;

  const yOf = (curve: ShownCurve) =>
    scaleLinear()
      .domain(extents.get(curve.unit) ?? [0, 1])
      .range([height - 4, 4]);
  const hold = () => setKept({ mode, extents: fitted });
  const lead = curves[0];
  const axis = lead && yOf(lead);

  const fit = () => {
    const frames = curves.flatMap((c) => c.property.keys.map((k) => k.frame));
    if (frames.length === 0) return;
    const [first, last] = [Math.min(...frames), Math.max(...frames)];
    const pad = Math.max(1, (last - first) * 0.1);
    editor.set({ timeReach: [Math.max(0, first - pad), Math.min(scene.length, last + pad)] });
  };

  // Handles that are out of sight, or had no room, are left out until there is some.
  const [left, right, room] = [scale.frame(0), scale.frame(scale.width), scale.frames(2 * APART)];
  const isSeen = (from: number, to: number) => to > left && from < right;
  const isRoomy = (from: number, to: number) => to - from >= room && isSeen(from, to);
  const shown = curves.map((of) => {
    const y = yOf(of);
    const frames = of.property.keys.map((key) => key.frame);
    const heaps = heapsOf(frames, scale).map((heap) => ({ heap, y: y(of.at(middleOf(heap))) }));
    return { of, heaps, chosen: new Set(selection.keys.find((choice) => sameRef(choice.ref, of.ref))?.frames) };
  });
  const handles = curves.flatMap((of) => {
    const y = yOf(of);
    return handlesOf(of, mode, rate, isRoomy).map((handle) => ({
      of,
      handle,
      bead: [scale.x(handle.at[0]), y(handle.at[1])] as const,
      tip: [scale.x(handle.tip[0]), y(handle.tip[1])] as const,
      way: handle.which === 'start' ? (1 as const) : (-1 as const),
    }));
  });
  const isCrowded = handles.length === 0 && curves.some((of) => handlesOf(of, mode, rate, isSeen).length > 0);
  const beads = shown.flatMap(({ heaps }) => heaps.map(({ heap, y }): Point => [scale.x(middleOf(heap)), y]));
  const grips = gripsOf(handles, beads);

  const onHandle = (curve: ShownCurve, handle: Handle) => (event: PointerEvent) => {
    if (event.button !== 0 || scene.layers[curve.ref.layer]?.locked) return;
    event.stopPropagation();
    const y = yOf(curve);
    const [x0, y0] = [scale.x(handle.tip[0]), y(handle.tip[1])];
    const flat = y(mode === 'speed' ? 0 : handle.at[1]);
    hold();
    followPointer(event, {
      onStart: () => editor.begin(),
      onMove: ({ dx, dy, event: now }) => {
        const at = y0 + dy;
        const snapped = !now.ctrlKey && Math.abs(at - flat) < NEAR ? flat : at;
        const ease = handle.moved(scale.frame(x0 + dx), y.invert(snapped));
        editor.edit(setEase([{ ref: curve.ref, frames: [handle.key.frame] }], ease));
      },
      onEnd: (_drag, moved) => moved && editor.end(),
      onCancel: () => editor.abandon(),
    });
  };

  /** A bead goes up and down with its value, and along with its frame; in the speed view, and several of them, along only. */
  const onBead = (curve: ShownCurve, heap: readonly number[]) => (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const { layers, keys } = editor.state.selection;
    const [frame] = heap as [number];
    const own = new Set(keys.find((c) => sameRef(c.ref, curve.ref))?.frames);
    const chosen = heap.every((one) => own.has(one));
    const only = { ref: curve.ref, frames: heap };
    const count = keys.reduce((n, c) => n + c.frames.length, 0);
    if (scene.layers[curve.ref.layer]?.locked) return;
    const select = () => editor.select({ layers, keys: [only] });
    if (mode === 'speed' || heap.length > 1 || (chosen && count > 1)) {
      if (!chosen) editor.select({ layers, keys: [only] });
      hold();
      dragKeys(editor, event, scale, select);
      return;
    }
    const key = curve.property.keys.find((k) => k.frame === frame);
    if (!key) return;
    const y = yOf(curve);
    const y0 = y(curve.at(frame));
    hold();
    followPointer(event, {
      onStart: () => editor.begin(),
      onMove: ({ dx, dy, event: now }) => {
        const along = now.shiftKey && Math.abs(dx) < Math.abs(dy) ? 0 : dx;
        const up = now.shiftKey && Math.abs(dy) <= Math.abs(dx) ? 0 : dy;
        const to = Math.max(0, frame + Math.round(scale.frames(along)));
        const stored = Number((y.invert(y0 + up) / factorOf(curve.unit)).toFixed(3));
        editor.edit(
          changeKey(curve.ref, frame, { frame: to, value: up === 0 ? key.value : withPart(key.value, curve, stored) }),
        );
      },
      onEnd: (_drag, moved) => {
        if (moved) editor.end();
        else select();
      },
      onCancel: () => editor.abandon(),
    });
  };

  const toggle = (id: string) => {
    const next = new Set(hidden);
    if (!next.delete(id)) next.add(id);
    setHidden(next);
  };

  return (
    <div className="flex min-h-0 flex-1" data-testid="curves">
      <div
        style={{ width: NAMES_WIDTH }}
        className="flex shrink-0 flex-col gap-1 overflow-y-auto border-r border-line p-1.5"
      >
        <span className="flex shrink-0 items-center gap-1">
          <Segments
            label="What the curves show"
            value={mode}
            options={[
              { value: 'value', label: 'Value' },
              { value: 'speed', label: 'Speed' },
            ]}
            onChange={setMode}
          />
          <Button className="!h-[26px] !px-2 text-sm" title="Show all their keyframes" onClick={fit}>
            Fit
          </Button>
        </span>
        {all.map((curve) => (
          <button
            key={curve.id}
            type="button"
            aria-pressed={!hidden.has(curve.id)}
            className={`flex h-[22px] shrink-0 items-center gap-1.5 rounded-sm px-1 text-left text-sm hover:bg-paper-2 ${hidden.has(curve.id) ? 'text-ink-2 opacity-60' : ''}`}
            onClick={() => toggle(curve.id)}
          >
            <span className="h-0.5 w-3 shrink-0 rounded-full" style={{ background: curve.color }} />
            <span className="min-w-0 flex-1 truncate" title={curve.label}>
              {curve.label}
            </span>
            {hidden.has(curve.id) ? <EyeOff size={12} /> : <Eye size={12} className="text-ink-2" />}
          </button>
        ))}
      </div>
      <div ref={area} className="relative min-w-0 flex-1 overflow-hidden bg-paper-2">
        {curves.length === 0 && (
          <p className="px-4 py-6 text-ink-2">Select a layer, or beads of it, with numbers that are animated.</p>
        )}
        {isCrowded && (
          <p className="absolute right-3 bottom-2 z-10 rounded-sm bg-paper px-2 py-0.5 text-sm text-ink-2">
            Zoom in on the time for the handles of eases
          </p>
        )}
        <svg className="absolute inset-0 size-full">
          {axis?.ticks(4).map((tick) => (
            <g key={tick}>
              <path d={`M0 ${axis(tick)}H${scale.width}`} stroke="var(--line)" strokeWidth={tick === 0 ? 2 : 1} />
              <text x={4} y={axis(tick) - 3} fontSize={11} fill="var(--ink-2)" className="tabular select-none">
                {tick}
                {lead && (UNITS[lead.unit] ?? '')}
                {mode === 'speed' ? '/s' : ''}
              </text>
            </g>
          ))}
          {curves.map((curve) => {
            const y = yOf(curve);
            const reach = [Math.max(0, scale.frame(0)), Math.min(scale.length, scale.frame(scale.width))] as const;
            const path = line<readonly [number, number]>()
              .x(([f]) => scale.x(f))
              .y(([, v]) => y(v))(sampledCurve(curve, ...reach, Math.max(0.1, scale.frames(2))));
            return (
              <path
                key={curve.id}
                d={path ?? ''}
                fill="none"
                stroke={curve.color}
                strokeWidth={1.75}
                data-testid="curve"
              />
            );
          })}
          {shown.map(({ of: curve, heaps, chosen }) => (
            <g key={curve.id}>
              {handles.flatMap(({ handle, of, bead: [x1, y1] }, i) => {
                if (of !== curve) return [];
                const [x2, y2] = grips[i] as Point;
                return (
                  <g key={`${handle.key.frame}-${handle.which}`}>
                    <path d={`M${x1} ${y1}L${x2} ${y2}`} stroke={curve.color} opacity={0.6} />
                    <circle
                      role="slider"
                      aria-label={`${handle.which === 'start' ? 'Start' : 'End'} of the ease at ${handle.key.frame} of ${curve.label}`}
                      aria-valuenow={handle.tip[1]}
                      data-testid="curve-handle"
                      cx={x2}
                      cy={y2}
                      r={4}
                      fill="var(--paper)"
                      stroke={curve.color}
                      strokeWidth={1.5}
                      className="cursor-move"
                      onPointerDown={onHandle(curve, handle)}
                    />
                  </g>
                );
              })}
              {heaps.map(({ heap, y }) => (
                <Bead
                  key={heap[0]}
                  frames={heap}
                  of={curve.label}
                  color={curve.color}
                  testId="curve-bead"
                  {...{ chosen, scale, y }}
                  className="cursor-move"
                  onPointerDown={onBead(curve, heap)}
                />
              ))}
            </g>
          ))}
        </svg>
      </div>
    </div>
  );
};

/** The curves, in both modes, of properties without a selected bead; none while no bead is selected. */
const notChosen = (scene: Scene, { layers, keys }: Selection): ReadonlySet<string> => {
  if (keys.length === 0) return new Set();
  const both = (['value', 'speed'] as const).flatMap((mode) => shownCurves(scene, layers, mode));
  return new Set(both.filter((c) => !keys.some((k) => sameRef(k.ref, c.ref))).map((c) => c.id));
};

const withPart = (value: Value, { component }: ShownCurve, part: number): Value => {
  if (component === null) return part;
  const [x, y] = value as Point;
  return component === 0 ? [part, y] : [x, part];
};
