import { memo } from 'react';
import { isKeyed, type Keyframe, type Layer, type PropertyRef } from '@kite/core/document/types';
import { paramIn, propertyIn } from '@kite/core/properties/find';
import { type Sampler, samplerOf } from '@kite/core/motion/sampler';
import type { Param } from '@kite/core/document/params';
import { SquareFunction } from 'lucide-react';
import { PressMenu } from '../../../ui/Menu';
import { FormulaButton } from '../../formula/FormulaButton';
import { targetOf } from '../../commands/formulas';
import { useComputed } from '../../formula/useComputed';
import { KeyDot } from '../../inspector/fields/KeyDot';
import { useEditor, useSlice } from '../../store/context';
import { keyMenu } from './keyMenu';
import { RibbonTrack } from './RibbonTrack';
import { shownValue } from '../ribbons';
import { ribbonName } from '../rows';
import { NAMES_WIDTH, ROW } from '../scale';

interface RibbonRowProps {
  layer: Layer;
  refTo: PropertyRef;
}

const NO_KEYS: readonly Keyframe[] = [];

const ValueText = ({ param, sampler }: { param: Param; sampler: Sampler }) => {
  const frame = useSlice((s) => s.frame);
  return <span className="tabular shrink-0 truncate text-sm text-ink-2">{shownValue(param, sampler.at(frame))}</span>;
};

/** One property that changes over time: its name, its value at the playhead, and its track. */
export const RibbonRow = memo(({ layer, refTo }: RibbonRowProps) => {
  const editor = useEditor();
  const computed = useComputed(refTo);
  const param = paramIn(layer, refTo);
  const property = propertyIn(layer, refTo);
  const keyed = isKeyed(property);
  if (!param || (!keyed && !computed)) return null;
  const name = ribbonName(layer, refTo);
  const sampler = samplerOf(param, property);
  return (
    <div
      role="group"
      aria-label={`Ribbon ${name}`}
      data-testid="ribbon-row"
      data-property={JSON.stringify(targetOf(refTo))}
      className="group flex border-b border-line bg-paper-2"
      style={{ height: ROW }}
    >
      <div
        style={{ width: NAMES_WIDTH }}
        className="flex shrink-0 items-center gap-2 border-r border-line pr-2 pl-[38px]"
      >
        {keyed ? <KeyDot refs={[refTo]} label={name} /> : <span className="size-4 shrink-0" />}
        <span className="min-w-0 flex-1 truncate text-ink-2" title={name}>
          {name}
        </span>
        {computed && (
          <span className="relative size-5 shrink-0 text-tail">
            <SquareFunction size={13} className="absolute top-1 left-1" />
            <FormulaButton refs={[refTo]} label={name} />
          </span>
        )}
        <ValueText param={param} sampler={computed ?? sampler} />
      </div>
      <PressMenu entries={() => keyMenu(editor, refTo)}>
        <RibbonTrack
          layer={layer}
          refTo={refTo}
          param={param}
          keys={keyed ? property.keys : NO_KEYS}
          sampler={sampler}
          computed={computed}
        />
      </PressMenu>
    </div>
  );
});
RibbonRow.displayName = 'RibbonRow';
