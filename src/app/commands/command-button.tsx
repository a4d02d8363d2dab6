import clsx from 'clsx';
import type { LucideIcon } from 'lucide-react';
import { memo } from 'react';
import type { Command } from './command';
import { commandOf, runCommand, titleOf } from './registry';

/**
 * A small button that runs a command. `isOn`: for switches; `shows`: with its label, always or where there is room; `look`: classes in the
 * place of those of a tool; `shortcut`: a key that is shown beside; `isBusy`: what it runs is under way.
 */
export const CommandButton = memo(function CommandButton({
  id,
  icon: Icon,
  label,
  isOn,
  shows,
  look = 'tool',
  shortcut,
  isBusy,
  className,
}: {
  id: Command['id'];
  icon: LucideIcon;
  label?: string;
  isOn?: boolean;
  shows?: 'always' | 'wide';
  look?: string;
  shortcut?: string;
  isBusy?: boolean;
  className?: string;
}) {
  const command = commandOf(id);
  const name = label ?? command.label;
  return (
    <button
      type="button"
      className={clsx(look, className)}
      data-tool={id}
      aria-pressed={isOn}
      aria-label={name}
      aria-busy={isBusy}
      disabled={isBusy}
      title={titleOf(command)}
      onClick={() => runCommand(id)}
    >
      <Icon size={15} /> {shows && <span className={clsx(shows === 'wide' && 'max-xl:hidden')}>{name}</span>}{' '}
      {shortcut && <kbd className="figures quiet text-2xs">{shortcut}</kbd>}
    </button>
  );
});
