import { SHORTCUTS } from '../../editor/commands/subjects';
import { KeyTable } from '../../ui/Keys';
import { HelpFrame } from './HelpFrame';

export const KeyboardPage = () => (
  <HelpFrame title="Keyboard">
    <p>
      On a Mac the command key stands for Ctrl. In the editor, ? shows this list. Number fields are dragged sideways,
      take sums such as 1920/3, and step with the arrow keys; Shift steps by ten.
    </p>
    <KeyTable subjects={SHORTCUTS} />
  </HelpFrame>
);
