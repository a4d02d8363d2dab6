import type * as Frames from '../../core/show/edit-frames';
import type { Scene } from '../../core/document/types';
import type { Command } from './command';
import { editScene } from '../data/show-store';
import { chosenNodes, sceneAtHand } from './at-hand';
import { patchActions } from '../actions/patch-actions';

const isShown = (): boolean => patchActions.current !== null;

/** Edits the open patch by what is loaded when it is first asked for. */
function edit(change: (frames: typeof Frames, draft: Scene) => unknown): void {
  const scene = sceneAtHand();
  if (scene)
    void import('../../core/show/edit-frames').then((frames) =>
      editScene(scene.id, (draft) => change(frames, draft)),
    );
}

const alignments = [
  ['row', 'Align in a row', 'Brings the chosen nodes to one height', 'Ctrl+Alt+ArrowRight'],
  ['column', 'Align in a column', 'Brings the chosen nodes under each other', 'Ctrl+Alt+ArrowDown'],
  ['across', 'Spread across', 'Spreads the chosen nodes evenly from left to right', null],
  ['down', 'Spread down', 'Spreads the chosen nodes evenly from top to bottom', null],
] as const;

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
    id: 'patch.wire',
    label: 'Wire into',
    help: 'Wires the chosen node into a port of another, found by typing',
    keys: ['Alt+W'],
    when: () => isShown() && chosenNodes().length === 1,
    run: () => patchActions.current?.wire(chosenNodes()[0]),
  },
  {
    id: 'patch.frame',
    label: 'Frame the chosen nodes',
    help: 'Lays a coloured frame around the chosen nodes, which moves them',
    keys: ['Alt+F'],
    when: () => isShown() && chosenNodes().length > 0,
    run: () => edit(({ addFrame }, draft) => addFrame(draft, chosenNodes())),
  },
  {
    id: 'patch.note',
    label: 'Add a note',
    help: 'Puts a note with words on the patch',
    keys: ['Alt+T'],
    when: isShown,
    run: () => edit(({ addNote }, draft) => addNote(draft, patchActions.current!.middle())),
  },
  ...alignments.map(([how, label, help, keys]): Command => ({
    id: `patch.${how}`,
    label,
    help,
    ...(keys ? { keys: [keys] } : {}),
    when: () => isShown() && chosenNodes().length > 1,
    run: () => edit(({ lineUp }, draft) => lineUp(draft, chosenNodes(), how)),
  })),
  {
    id: 'patch.fit',
    label: 'Whole patch',
    help: 'Shows the whole patch',
    keys: ['Ctrl+Shift+F'],
    when: isShown,
    run: () => patchActions.current?.fit(),
  },
];
