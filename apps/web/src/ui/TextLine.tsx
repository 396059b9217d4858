interface TextLineProps {
  label: string;
  value: string;
  most: number;
  onDone: (text: string) => void;
}

/** A text of one line that is never empty; it becomes the document's once it is left. */
export const TextLine = ({ label, value, most, onDone }: TextLineProps) => (
  <input
    key={value}
    aria-label={label}
    className="h-[26px] w-full min-w-0 rounded-md bg-paper-2 px-2"
    defaultValue={value}
    maxLength={most}
    onBlur={(event) => {
      const text = event.target.value.trim();
      if (text && text !== value) onDone(text);
      else event.target.value = value;
    }}
    onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
  />
);
