import type { Command } from './command';
import { editCommands } from './edit-commands';
import { matches, parseKeys } from './keys';
import { moduleCommands } from './module-commands';
import { patchCommands } from './patch-commands';
import { playCommands } from './play-commands';
import { recordCommands } from './record-commands';
import { sceneCommands } from './scene-commands';
import { stageCommands } from './stage-commands';
import { transportCommands } from './transport-commands';
import { viewCommands } from './view-commands';
import { wallCommands } from './wall-commands';

/** Every command there is, in the order of menu and help. */
export const commands: readonly Command[] = [
  ...stageCommands,
  ...playCommands,
  ...wallCommands,
  ...recordCommands,
  ...transportCommands,
  ...editCommands,
  ...patchCommands,
  ...moduleCommands,
  ...sceneCommands,
  ...viewCommands,
];

const byId = new Map(commands.map((command): [string, Command] => [command.id, command]));

/** The command of that id. Throws a TypeError if there is none: ids are written in code only. */
export function commandOf(id: Command['id']): Command {
  const command = byId.get(id);
  if (!command) throw new TypeError(`There is no command ${id}.`);
  return command;
}

export const applies = (command: Command): boolean => command.when?.() ?? true;

export function runCommand(id: Command['id']): void {
  const command = commandOf(id);
  if (applies(command)) command.run();
}

/** The same for an id that comes from a file: one that is not known does nothing. */
export function runCommandNamed(id: string): void {
  const command = byId.get(id);
  if (command && applies(command)) command.run();
}

/** Tooltip of what runs a command: what it does, and its key. */
export const titleOf = ({ help, keys }: Command): string => (keys ? `${help} (${keys[0]})` : help);

const chords = commands.flatMap((command) =>
  (command.keys ?? []).map((keys) => ({ command, chord: parseKeys(keys) })),
);

/** The command that an event asks for, if it applies now. */
export function commandFor(event: KeyboardEvent, isTyping: boolean): Command | undefined {
  return chords.find(
    ({ command, chord }) => (command.everywhere || !isTyping) && matches(event, chord) && applies(command),
  )?.command;
}
