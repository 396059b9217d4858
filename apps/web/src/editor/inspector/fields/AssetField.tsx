import type { AssetParam } from '@kite/core/document/params';
import type { Id } from '@kite/core/document/types';
import { Select } from '../../../ui/Select';
import { useSlice } from '../../store/context';

interface AssetFieldProps {
  label: string;
  value: Id | null;
  param: AssetParam;
  onChange: (asset: Id) => void;
}

/** One of the project's files of a kind. */
export const AssetField = ({ label, value, param, onChange }: AssetFieldProps) => {
  const assets = useSlice((s) => s.doc.assets);
  const fits = Object.values(assets).filter((a) => a.kind === param.of);
  const missing = value === null || !assets[value];
  return (
    <Select
      aria-label={label}
      value={value ?? ''}
      options={[
        ...(missing ? [{ value: value ?? '', label: fits.length > 0 ? 'Choose …' : 'Nothing imported yet' }] : []),
        ...fits.map((a) => ({ value: a.id, label: a.name })),
      ]}
      onChange={onChange}
    />
  );
};
