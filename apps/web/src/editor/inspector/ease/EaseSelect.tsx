import type { Ease } from '@kite/core/document/types';
import { Select } from '../../../ui/Select';
import { PRESETS, standsFor } from './presets';

const EASES = PRESETS.map(({ name, ease }) => ({ value: name, label: name, ease }));

interface EaseSelectProps {
  label: string;
  value: Ease;
  onChange: (ease: Ease) => void;
  className?: string;
  disabled?: boolean;
}

/** An ease out of a short list, where it is not shaped by hand. */
export const EaseSelect = ({ label, value, onChange, ...rest }: EaseSelectProps) => {
  const named = EASES.find(({ ease }) => standsFor(ease, value));
  return (
    <Select
      aria-label={label}
      value={named?.value ?? ''}
      options={named ? EASES : [{ value: '', label: 'Own' }, ...EASES]}
      onChange={(name) => onChange(EASES.find((e) => e.value === name)?.ease ?? value)}
      {...rest}
    />
  );
};
