import type { ComponentProps } from 'react';
import { IconButton } from '../../ui/Button';
import { useEditor } from '../store/context';
import { COMMANDS, type CommandName, keysOf } from './table';

type CommandButtonProps = Omit<ComponentProps<typeof IconButton>, 'label' | 'shortcut' | 'onClick'> & {
  command: CommandName;
  /** What it means here; else the command's own name. */
  label?: string;
};

/** A command as a button. */
export const CommandButton = ({ command, label, ...rest }: CommandButtonProps) => {
  const editor = useEditor();
  const own = COMMANDS[command];
  const shortcut = keysOf(own);
  return (
    <IconButton label={label ?? own.label} {...(shortcut && { shortcut })} onClick={() => own.run(editor)} {...rest} />
  );
};
