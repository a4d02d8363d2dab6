import {
  isInModule,
  dissolve,
  leaveModule,
  makeModuleOf,
  moduleOfNode,
  openModule,
  separate,
} from '../actions/module-actions';
import { chooseModuleFiles } from '../actions/library-actions';
import { showStore } from '../data/show-store';
import { chosenNodes, sceneAtHand } from './at-hand';
import type { Command } from './command';

/** The chosen nodes that are modules. */
function chosenModules(): string[] {
  const { show } = showStore.getState();
  const scene = sceneAtHand();
  return scene ? chosenNodes().filter((id) => moduleOfNode(show, scene.nodes[id])) : [];
}
const hasOneModule = (): boolean => chosenModules().length === 1;

export const moduleCommands: readonly Command[] = [
  {
    id: 'module.make',
    label: 'Make a module',
    help: 'Makes one node of the chosen ones, which can be used again',
    keys: ['Ctrl+G'],
    when: () => chosenNodes().length > 0,
    run: () => makeModuleOf(sceneAtHand()!, chosenNodes()),
  },
  {
    id: 'module.dissolve',
    label: 'Dissolve the module',
    help: 'Puts what lies in the chosen modules back into the patch',
    keys: ['Ctrl+Shift+G'],
    when: () => chosenModules().length > 0,
    run: () => dissolve(sceneAtHand()!, chosenModules()),
  },
  {
    id: 'module.open',
    label: 'Open the module',
    help: 'Opens what lies in the chosen module',
    keys: ['Alt+ArrowDown'],
    when: hasOneModule,
    run: () => openModule(sceneAtHand()!, chosenModules()[0]),
  },
  {
    id: 'module.leave',
    label: 'Leave the module',
    help: 'Goes back to the patch in which the open module is used',
    keys: ['Alt+ArrowUp'],
    when: () => sceneAtHand() !== null && isInModule(),
    run: leaveModule,
  },
  {
    id: 'module.import',
    label: 'Bring in module files',
    help: 'Brings modules from files into the open patch; they can be dropped on it as well',
    when: () => sceneAtHand() !== null,
    run: () => chooseModuleFiles(sceneAtHand()!),
  },
  {
    id: 'module.own',
    label: 'Give it a module of its own',
    help: 'Copies the module of the chosen node, so that it can change alone',
    when: hasOneModule,
    run: () => separate(sceneAtHand()!, chosenModules()[0]),
  },
];
