import { cutText } from '@kite/core/document/text';

interface KeepFieldProps {
  label: string;
  placeholder?: string;
  /** Called with the name, once Enter is pressed on one. */
  onKeep: (name: string) => void;
}

/** The longest name that something is kept under, in characters. */
const LONGEST = 60;

/** A name to keep something under: Enter keeps it, and the field is empty again. */
export const KeepField = ({ label, placeholder = 'Keep as …', onKeep }: KeepFieldProps) => (
  <input
    aria-label={label}
    placeholder={placeholder}
    className="h-6 min-w-0 flex-1 rounded-md bg-paper-2 px-2 text-sm"
    onKeyDown={(event) => {
      event.stopPropagation();
      const name = cutText(event.currentTarget.value.trim(), LONGEST);
      if (event.key !== 'Enter' || !name) return;
      onKeep(name);
      event.currentTarget.value = '';
    }}
  />
);
