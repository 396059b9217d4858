import { useState } from 'react';

/**
 * What is typed in a field that shows something else while nobody is in it: a number rounded, a time that goes on. Whoever comes and
 * leaves without typing changes nothing, though what the field showed is not quite what it is of.
 */
export const useTyping = () => {
  const [typing, setTyping] = useState<{ readonly begun: string | null; readonly text: string } | null>(null);
  return {
    /** What stands in the field; null while it shows its own. */
    text: typing?.text ?? null,
    /** The same, where it is another than what one came to. */
    typed: typing && typing.text !== typing.begun ? typing.text : null,
    begin: (text: string) => setTyping({ begun: text, text }),
    type: (text: string) => setTyping((was) => ({ begun: was?.begun ?? null, text })),
    end: () => setTyping(null),
  };
};
