export interface SearchProps {
  text: string;
  onText: (text: string) => void;
  /** One of what was found is chosen. */
  onDone: () => void;
}

export const PLACEHOLDER = 'A command, card, move, setting or page, by any name';
export const INPUT = 'my-0.5 mb-2 h-9 w-full rounded-md bg-paper-2 px-3';
export const LIST = 'h-[50vh] overflow-y-auto';

/** What is searched for alone, to be typed until the list of what there is has come over the wire. */
export const PlainSearch = ({ text, onText }: SearchProps) => (
  <>
    <input
      autoFocus
      aria-label="Search"
      value={text}
      onChange={(event) => onText(event.target.value)}
      placeholder={PLACEHOLDER}
      className={INPUT}
    />
    <div className={LIST} />
  </>
);
