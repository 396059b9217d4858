import { memo } from 'react';
import { isKeyed, type Layer, type PropertyRef } from '@kite/core/document/types';
import { paramIn, propertyIn } from '@kite/core/edits/find';
import { samplerOf } from '@kite/core/motion/sampler';
import { PressMenu } from '../../ui/Menu';
import { KeyDot } from '../inspector/KeyDot';
import { useEditor, useSlice } from '../store/context';
import { keyMenu } from './keyMenu';
import { RibbonTrack } from './RibbonTrack';
import { shownValue } from './ribbons';
import { ribbonName } from './rows';
import { NAMES_WIDTH, ROW } from './scale';

interface RibbonRowProps {
  layer: Layer;
  refTo: PropertyRef;
}

const ValueText = ({ layer, refTo }: { layer: Layer; refTo: PropertyRef }) => {
  const frame = useSlice((s) => s.frame);
  const param = paramIn(layer, refTo);
  if (!param) return null;
  const value = samplerOf(param, propertyIn(layer, refTo)).at(frame);
  return <span className="tabular shrink-0 truncate text-sm text-ink-2">{shownValue(param, value)}</span>;
};

/** One animated property: its name, its value at the playhead, and its track. */
export const RibbonRow = memo(({ layer, refTo }: RibbonRowProps) => {
  const editor = useEditor();
  const param = paramIn(layer, refTo);
  const property = propertyIn(layer, refTo);
  if (!param || !isKeyed(property)) return null;
  const name = ribbonName(layer, refTo);
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
        <RibbonTrack layer={layer} refTo={refTo} param={param} property={property} />
      </PressMenu>
    </div>
  );
});
RibbonRow.displayName = 'RibbonRow';
