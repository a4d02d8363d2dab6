import { searchWords } from '../parts/word-search';
import { commandGroups, groupOf, type Command } from './command';
import { applies, commands } from './registry';

/** Commands by what they should do, best first; of what fits as well, those that apply now. */
export const searchCommands = (text: string): Command[] =>
  searchWords(
    commands,
    text,
    (command) => ({
      name: command.label,
      words: [...(command.words ?? []), commandGroups[groupOf(command)]],
      summary: command.help,
    }),
    (command) => Number(!applies(command)),
  );
