import { Command as Menu } from 'cmdk';
import { X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { commandGroups, groupOf, type Command } from './command';
import { commandList } from './command-list-store';
import { applies, commands } from './registry';

const groups = Object.keys(commandGroups) as (keyof typeof commandGroups)[];

/** Keys as caps. */
function Keys({ keys }: { keys: string }) {
  return (
    <span className="flex gap-0.5" data-keys={keys}>
      {keys.split(/\+(?=.)/).map((key) => (
        <kbd key={key} className="figures rounded border edge px-1 text-2xs">
          {key}
        </kbd>
      ))}
    </span>
  );
}

function Row({ command, onRun }: { command: Command; onRun(): void }) {
  const isOn = command.isOn?.() ?? false;
  return (
    <Menu.Item
      value={`${command.label} ${command.help}`}
      disabled={!applies(command)}
      data-command={command.id}
      className="flex cursor-pointer items-center gap-3 rounded px-2 py-1 aria-disabled:cursor-default aria-disabled:opacity-45 aria-selected:bg-base-300"
      onSelect={onRun}
    >
      <span className="w-60 shrink-0 truncate">
        {command.label}
        {isOn && <span className="ml-2 text-2xs font-semibold text-primary">on</span>}
      </span>
      <span className="quiet grow truncate text-2xs">{command.help}</span>
      <span className="flex shrink-0 gap-2">
        {command.keys?.map((keys) => (
          <Keys key={keys} keys={keys} />
        ))}
      </span>
    </Menu.Item>
  );
}

/** Every command with its keys: read it as help, or run one from it. */
export default function CommandList() {
  const open = commandList((s) => s.open);
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    if (open) dialog.current?.showModal();
    else dialog.current?.close();
  }, [open]);
  const close = (): void => commandList.setState({ open: false });
  return (
    <dialog
      ref={dialog}
      className="modal"
      aria-label="Commands and keys"
      data-testid="commands"
      // The event comes a moment later: the list may be open again by then.
      onClose={() => dialog.current?.open || close()}
      onClick={(event) => event.target === dialog.current && close()}
    >
      {open && (
        <Menu
          label="Commands and keys"
          className="modal-box flex max-h-[80vh] w-[46rem] max-w-[92vw] flex-col border edge bg-base-200 p-0"
        >
          <div className="flex items-center gap-2 border-b edge p-2">
            <Menu.Input
              autoFocus
              placeholder="Find a command"
              className="h-8 grow bg-transparent px-2 outline-none"
            />
            <button type="button" className="tool" aria-label="Close" onClick={close}>
              <X size={15} />
            </button>
          </div>
          <Menu.List className="min-h-0 grow overflow-y-auto p-2">
            <Menu.Empty className="quiet px-2 py-3">No match</Menu.Empty>
            {groups.map((group) => (
              <Menu.Group
                key={group}
                heading={commandGroups[group]}
                className="mb-1 [&>[cmdk-group-heading]]:px-2 [&>[cmdk-group-heading]]:py-1 [&>[cmdk-group-heading]]:text-2xs [&>[cmdk-group-heading]]:font-semibold [&>[cmdk-group-heading]]:text-primary"
              >
                {commands
                  .filter((command) => groupOf(command) === group)
                  .map((command) => (
                    <Row
                      key={command.id}
                      command={command}
                      onRun={() => {
                        close();
                        command.run();
                      }}
                    />
                  ))}
              </Menu.Group>
            ))}
          </Menu.List>
        </Menu>
      )}
    </dialog>
  );
}
