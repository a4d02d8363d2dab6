import clsx from 'clsx';
import type { LucideIcon } from 'lucide-react';
import type { Command } from './command';
import { commandOf, runCommand, titleOf } from './registry';

/** A small button that runs a command. `isOn`: for switches; `shows`: with its label where there is room. */
export function CommandButton({
  id,
  icon: Icon,
  label,
  isOn,
  shows,
  className,
}: {
  id: Command['id'];
  icon: LucideIcon;
  label?: string;
  isOn?: boolean;
  shows?: true;
  className?: string;
}) {
  const command = commandOf(id);
  const name = label ?? command.label;
  return (
    <button
      type="button"
      className={clsx('tool', className)}
      aria-pressed={isOn}
      aria-label={name}
      title={titleOf(command)}
      onClick={() => runCommand(id)}
    >
      <Icon size={15} /> {shows && <span className="max-xl:hidden">{name}</span>}
    </button>
  );
}
