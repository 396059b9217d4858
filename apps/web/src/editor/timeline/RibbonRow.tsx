import { memo, type MouseEvent, type PointerEvent, useMemo } from 'react';
import { isKeyed, type KeyedProperty, type Layer, type PropertyRef } from '@kite/core/document/types';
import { addKey } from '@kite/core/edits/keys';
import { samplerOf } from '@kite/core/motion/sampler';
import { paramIn, propertyIn } from '@kite/core/edits/find';
import { PressMenu } from '../../ui/Menu';
import { KeyDot } from '../inspector/KeyDot';
import { useEditor, useSlice } from '../store/context';
import { sameRef } from '@kite/core/edits/properties';
import { ribbonColors, ribbonCurves, shownValue } from './ribbons';
import { ribbonName } from './rows';
import { dragKeys } from './dragKeys';
import { keyMenu } from './keyMenu';
import { NAMES_WIDTH, ROW, type TimeScale } from './scale';

interface RibbonRowProps {
  layer: Layer;
  refTo: PropertyRef;
  scale: TimeScale;
}

const COLORS = ['var(--sky)', 'var(--tail)'];

const ValueText = ({ layer, refTo }: { layer: Layer; refTo: PropertyRef }) => {
  const frame = useSlice((s) => s.frame);
  const param = paramIn(layer, refTo);
  if (!param) return null;
  const value = samplerOf(param, propertyIn(layer, refTo)).at(frame);
  return <span className="tabular shrink-0 truncate text-sm text-ink-2">{shownValue(param, value)}</span>;
};

/** One property over time: its curve, and a bead for each keyframe. */
export const RibbonRow = memo(({ layer, refTo, scale }: RibbonRowProps) => {
  const editor = useEditor();
  const chosen = useSlice((s) => s.selection.keys.find((c) => sameRef(c.ref, refTo))?.frames ?? NONE);
  const param = paramIn(layer, refTo);
  const property = propertyIn(layer, refTo);
  const curves = useMemo(
    () => (param && isKeyed(property) ? ribbonCurves(param, property, scale, ROW - 1) : []),
    [param, property, scale],
  );
  if (!param || !isKeyed(property)) return null;
  const name = ribbonName(layer, refTo);
  const strip = ribbonColors(param, property, scale);
  const main = curves.toSorted((a, b) => b.reach - a.reach)[0];
  const beadY = (frame: number) => main?.y(frame) ?? ROW / 2;

  const selectKeys = (frames: readonly number[], event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => {
    const { selection } = editor.state;
    const others = selection.keys.filter((c) => !sameRef(c.ref, refTo));
    const more = event.shiftKey || event.ctrlKey || event.metaKey;
    const mine = more ? toggled(chosen, frames) : frames;
    const keys = [...(more ? others : []), ...(mine.length > 0 ? [{ ref: refTo, frames: mine }] : [])];
    const layers = selection.layers.includes(layer.id) ? selection.layers : [layer.id];
    editor.select({ layers, keys });
  };

  const onBead = (frame: number) => (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    if (!chosen.includes(frame) || event.shiftKey) selectKeys([frame], event);
    if (layer.locked) return;
    dragKeys(editor, event, scale, () => {
      if (!event.shiftKey) selectKeys([frame], event);
    });
  };

  const frameAt = (event: MouseEvent<SVGSVGElement>) =>
    scale.frame(event.clientX - event.currentTarget.getBoundingClientRect().left);

  /** A click between two beads selects the span between them. */
  const onSpan = (event: MouseEvent<SVGSVGElement>) => {
    const start = spanAt(property, frameAt(event));
    if (start !== null) selectKeys([start], event);
  };
  const onAdd = (event: MouseEvent<SVGSVGElement>) => {
    if (layer.locked) return;
    const frame = Math.max(0, Math.round(frameAt(event)));
    editor.edit(addKey(refTo, frame));
    selectKeys([frame], { shiftKey: false, ctrlKey: false, metaKey: false });
  };

  return (
    <div
      role="group"
      aria-label={`Ribbon ${name}`}
      data-testid="ribbon-row"
      className="flex border-b border-line bg-paper-2"
      style={{ height: ROW }}
    >
      <div
        style={{ width: NAMES_WIDTH }}
        className="flex shrink-0 items-center gap-2 border-r border-line pr-2 pl-[38px]"
      >
        <KeyDot refs={[refTo]} label={name} />
        <span className="min-w-0 flex-1 truncate text-ink-2" title={name}>
          {name}
        </span>
        <ValueText layer={layer} refTo={refTo} />
      </div>
      <PressMenu entries={() => keyMenu(editor, refTo)}>
        <svg className="h-full min-w-0 flex-1" onClick={onSpan} onDoubleClick={onAdd}>
          {strip && (
            <foreignObject x={0} y={8} width={scale.width} height={ROW - 17}>
              <div className="h-full" style={{ background: strip }} />
            </foreignObject>
          )}
          {curves.length === 0 && !strip && <path d={`M0 ${ROW / 2}H${scale.width}`} stroke="var(--line)" />}
          {curves.map((c, i) => (
            <path
              key={i}
              d={c.path}
              fill="none"
              stroke={COLORS[i]}
              strokeWidth={1.5}
              strokeLinejoin="round"
              pointerEvents="none"
            />
          ))}
          {property.keys
            .slice(0, -1)
            .map((key, i) =>
              chosen.includes(key.frame) ? (
                <rect
                  key={key.frame}
                  x={scale.x(key.frame)}
                  y={ROW - 4}
                  width={scale.x(property.keys[i + 1]?.frame ?? key.frame) - scale.x(key.frame)}
                  height={3}
                  fill="var(--sky)"
                  opacity={0.5}
                  pointerEvents="none"
                />
              ) : null,
            )}
          {property.keys.map(({ frame }) =>
            scale.x(frame) < -6 || scale.x(frame) > scale.width + 6 ? null : (
              <circle
                key={frame}
                role="button"
                aria-label={`Keyframe of ${name} at ${frame}`}
                aria-pressed={chosen.includes(frame)}
                data-testid="bead"
                cx={scale.x(frame)}
                cy={beadY(frame)}
                r={4.5}
                fill={chosen.includes(frame) ? 'var(--sky)' : 'var(--paper)'}
                stroke={chosen.includes(frame) ? 'var(--ink)' : 'var(--sky)'}
                strokeWidth={2}
                onPointerDown={onBead(frame)}
                onClick={(event) => event.stopPropagation()}
                onDoubleClick={(event) => event.stopPropagation()}
              />
            ),
          )}
        </svg>
      </PressMenu>
    </div>
  );
});
RibbonRow.displayName = 'RibbonRow';

const NONE: readonly number[] = [];

const toggled = (before: readonly number[], frames: readonly number[]): number[] => [
  ...before.filter((f) => !frames.includes(f)),
  ...frames.filter((f) => !before.includes(f)),
];

/** The frame that starts the span around a frame; null outside. */
const spanAt = ({ keys }: KeyedProperty, frame: number): number | null => {
  const next = keys.findIndex((k) => k.frame > frame);
  return next > 0 ? (keys[next - 1]?.frame ?? null) : null;
};
