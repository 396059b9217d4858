interface CheckFieldProps {
  label: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
}

/** Something that is so or not. */
export const CheckField = ({ label, checked, onChange }: CheckFieldProps) => (
  <label className="flex items-center gap-2 text-ink-2">
    <input type="checkbox" className="size-4" checked={checked} onChange={(event) => onChange(event.target.checked)} />
    {label}
  </label>
);
