import type { Command } from './command';
import { patchActions } from '../actions/patch-actions';

const isShown = (): boolean => patchActions.current !== null;

export const patchCommands: readonly Command[] = [
  {
    id: 'patch.add',
    label: 'Add a node',
    help: 'Finds a node by what it is to do',
    keys: ['/'],
    when: isShown,
    run: () => patchActions.current?.add(),
  },
  {
    id: 'patch.find',
    label: 'Find a node',
    help: 'Finds a node of the show by its name, kind, formula or value, and goes to it',
    keys: ['Ctrl+F'],
    when: isShown,
    run: () => patchActions.current?.find(),
  },
  {
    id: 'patch.tidy',
    label: 'Tidy',
    help: 'Lays the patch out',
    keys: ['Ctrl+Shift+L'],
    when: isShown,
    run: () => patchActions.current?.tidy(),
  },
  {
    id: 'patch.fit',
    label: 'Whole patch',
    help: 'Shows the whole patch',
    keys: ['Ctrl+Shift+F'],
    when: isShown,
    run: () => patchActions.current?.fit(),
  },
];
