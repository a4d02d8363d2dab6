import { Command as Menu } from 'cmdk';
import { BookOpen, X } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { commandGroups, groupOf, type Command } from './command';
import { commandList, noteRun, usedCommands } from './command-list-store';
import { applies, commandOf, commands } from './registry';
import { searchCommands } from './search-commands';

type GroupName = keyof typeof commandGroups;

/** Groups of the view that is shown: they come first. */
const groupsOfView: Record<string, readonly GroupName[]> = {
  build: ['patch', 'module', 'edit', 'scene'],
  play: ['play'],
  wall: ['wall'],
  record: ['record'],
};

/** Commands under a heading. What is listed twice has a value of its own in each group. */
interface Group {
  name: string;
  heading: string;
  commands: readonly Command[];
}

/** What is found for a text; with none, what was run last, then all by groups, those of the view first. */
function groupsOf(text: string, recent: readonly string[]): Group[] {
  if (text.trim()) return [{ name: 'found', heading: '', commands: searchCommands(text) }];
  const own = groupsOfView[location.pathname.split('/')[1]] ?? [];
  const names = [
    ...own,
    ...(Object.keys(commandGroups) as GroupName[]).filter((name) => !own.includes(name)),
  ];
  return [
    {
      name: 'recent',
      heading: 'Run last',
      commands: recent.flatMap((id) => commands.find((command) => command.id === id) ?? []),
    },
    ...names.map((name) => ({
      name,
      heading: commandGroups[name],
      commands: commands.filter((command) => groupOf(command) === name),
    })),
  ].filter((group) => group.commands.length > 0);
}

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

function Row({ command, value, onRun }: { command: Command; value: string; onRun(): void }) {
  const isOn = command.isOn?.() ?? false;
  return (
    <Menu.Item
      value={value}
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

function List({ onClose }: { onClose(): void }) {
  const [text, setText] = useState('');
  const { recent } = usedCommands();
  const groups = useMemo(() => groupsOf(text, recent), [text, recent]);
  return (
    <Menu
      label="Commands and keys"
      shouldFilter={false}
      className="modal-box flex max-h-[80vh] w-[46rem] max-w-[92vw] flex-col border edge bg-base-200 p-0"
    >
      <div className="flex items-center gap-2 border-b edge p-2">
        <Menu.Input
          autoFocus
          value={text}
          onValueChange={setText}
          placeholder="Find a command: say what it should do"
          className="h-8 grow bg-transparent px-2 outline-none"
        />
        <button
          type="button"
          className="tool"
          title={commandOf('view.help').help}
          onClick={() => {
            onClose();
            commandOf('view.help').run();
          }}
        >
          <BookOpen size={14} /> Help <kbd className="figures quiet text-2xs">F1</kbd>
        </button>
        <button type="button" className="tool" aria-label="Close" onClick={onClose}>
          <X size={15} />
        </button>
      </div>
      <Menu.List className="min-h-0 grow overflow-y-auto p-2">
        {groups.every((group) => group.commands.length === 0) && (
          <p className="quiet px-2 py-3">No match. Try what it should do, such as “save” or “dark”.</p>
        )}
        {groups.map(({ name, heading, commands: members }) => (
          <Menu.Group
            key={name}
            heading={heading}
            className="mb-1 [&>[cmdk-group-heading]]:px-2 [&>[cmdk-group-heading]]:py-1 [&>[cmdk-group-heading]]:text-2xs [&>[cmdk-group-heading]]:font-semibold [&>[cmdk-group-heading]]:text-primary"
          >
            {members.map((command) => (
              <Row
                key={command.id}
                value={`${name} ${command.id}`}
                command={command}
                onRun={() => {
                  onClose();
                  noteRun(command.id);
                  command.run();
                }}
              />
            ))}
          </Menu.Group>
        ))}
      </Menu.List>
    </Menu>
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
      {open && <List onClose={close} />}
    </dialog>
  );
}
