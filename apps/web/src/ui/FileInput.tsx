import type { RefObject } from 'react';

interface FileInputProps {
  /** What opens it presses it. */
  input: RefObject<HTMLInputElement | null>;
  /** The ends of names, or media types, that are taken. */
  accept: string;
  onChoose: (files: readonly File[]) => void;
  multiple?: boolean;
  testId?: string;
  label?: string;
}

/** Asks for files, unseen: a button of its own opens it. The same file can be chosen twice. */
export const FileInput = ({ input, accept, onChoose, multiple, testId, label }: FileInputProps) => (
  <input
    ref={input}
    type="file"
    hidden
    multiple={multiple}
    accept={accept}
    data-testid={testId}
    aria-label={label}
    onChange={(event) => {
      const files = [...(event.target.files ?? [])];
      if (files.length > 0) onChoose(files);
      event.target.value = '';
    }}
  />
);
