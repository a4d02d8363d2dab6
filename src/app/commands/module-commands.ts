import { isInModule, leaveModule, moduleOfNode, openModule } from '../actions/module-actions';
import { showStore } from '../data/show-store';
import { chosenNodes, sceneAtHand } from './at-hand';
import type { Command } from './command';

/** What makes modules is loaded when it is first asked for. */
const makers = () => import('../actions/make-modules');
const library = () => import('../actions/library-actions');

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
    run: () => void makers().then(({ makeModuleOf }) => makeModuleOf(sceneAtHand()!, chosenNodes())),
  },
  {
    id: 'module.dissolve',
    label: 'Dissolve the module',
    help: 'Puts what lies in the chosen modules back into the patch',
    keys: ['Ctrl+Shift+G'],
    when: () => chosenModules().length > 0,
    run: () => void makers().then(({ dissolve }) => dissolve(sceneAtHand()!, chosenModules())),
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
    run: () => void library().then(({ chooseModuleFiles }) => chooseModuleFiles(sceneAtHand()!)),
  },
  {
    id: 'module.own',
    label: 'Give it a module of its own',
    help: 'Copies the module of the chosen node, so that it can change alone',
    when: hasOneModule,
    run: () => void makers().then(({ separate }) => separate(sceneAtHand()!, chosenModules()[0])),
  },
];
