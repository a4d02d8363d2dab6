import { copyControls, pasteControls, type ControlState } from '../../core/show/edit-controls';
import { removeNodes, disconnect, switchNode } from '../../core/show/edit';
import { catalogue } from '../../nodes/catalogue';
import { choose, sessionStore } from '../data/session';
import { historySession } from '../data/history-session';
import { editScene } from '../data/show-store';
import { redoStep, undoStep } from '../actions/undo';
import { copy, duplicate, paste } from '../actions/clipboard';
import { removeChosenOutputs } from '../actions/wall-actions';
import { chosenNodes, chosenOutputs, sceneAtHand } from './at-hand';
import type { Command } from './command';

const hasNodes = (): boolean => chosenNodes().length > 0;
const hasScene = (): boolean => sceneAtHand() !== null;

/** Controls that were copied. */
let copied: ControlState | null = null;

function remove(): void {
  if (chosenOutputs().length) {
    removeChosenOutputs();
    return;
  }
  const scene = sceneAtHand()!;
  const nodes = chosenNodes();
  const { wire } = sessionStore.getState();
  if (nodes.length) editScene(scene.id, (draft) => removeNodes(draft, catalogue, nodes));
  else if (wire) editScene(scene.id, (draft) => disconnect(draft, wire));
  choose([]);
}

export const editCommands: readonly Command[] = [
  {
    id: 'edit.undo',
    label: 'Undo',
    help: 'Takes the last edit back',
    keys: ['Ctrl+Z'],
    run: undoStep,
  },
  {
    id: 'edit.redo',
    label: 'Redo',
    help: 'Makes the edit again that was taken back',
    keys: ['Ctrl+Shift+Z', 'Ctrl+Y'],
    run: redoStep,
  },
  {
    id: 'edit.history',
    label: 'Steps',
    help: 'Lists all steps of undo by what they did, to go back to any',
    keys: ['Alt+H'],
    isOn: () => historySession.getState().isOpen,
    run: () => historySession.setState(({ isOpen }) => ({ isOpen: !isOpen })),
  },
  {
    id: 'edit.cut',
    label: 'Cut',
    help: 'Copies the chosen nodes and deletes them',
    keys: ['Ctrl+X'],
    when: hasNodes,
    run: () => {
      copy(sceneAtHand()!, chosenNodes());
      remove();
    },
  },
  {
    id: 'edit.copy',
    label: 'Copy',
    help: 'Copies the chosen nodes with their wires',
    keys: ['Ctrl+C'],
    when: hasNodes,
    run: () => copy(sceneAtHand()!, chosenNodes()),
  },
  {
    id: 'edit.paste',
    label: 'Paste',
    help: 'Puts copied nodes into the open scene',
    keys: ['Ctrl+V'],
    when: hasScene,
    run: () => paste(sceneAtHand()!),
  },
  {
    id: 'edit.duplicate',
    label: 'Duplicate',
    help: 'Copies the chosen nodes beside themselves',
    keys: ['Ctrl+D'],
    when: hasNodes,
    run: () => duplicate(sceneAtHand()!, chosenNodes()),
  },
  {
    id: 'edit.delete',
    label: 'Delete',
    help: 'Deletes what is chosen: nodes, a wire, outputs of the wall',
    keys: ['Delete', 'Backspace'],
    when: () =>
      chosenOutputs().length > 0 || (hasScene() && (hasNodes() || sessionStore.getState().wire !== null)),
    run: remove,
  },
  {
    id: 'edit.copyControls',
    label: 'Copy controls',
    help: 'Copies what the controls of the chosen node hold, with what moves them',
    keys: ['Alt+C'],
    when: hasNodes,
    run: () => (copied = copyControls(sceneAtHand()!.nodes[chosenNodes()[0]])),
  },
  {
    id: 'edit.pasteControls',
    label: 'Paste controls',
    help: 'Gives the chosen nodes the controls that were copied, as far as they are alike',
    keys: ['Alt+Shift+C'],
    when: () => hasNodes() && copied !== null,
    run: () =>
      void editScene(sceneAtHand()!.id, (draft) => pasteControls(draft, catalogue, chosenNodes(), copied!)),
  },
  {
    id: 'edit.all',
    label: 'Select all',
    help: 'Chooses all nodes of the open scene',
    keys: ['Ctrl+A'],
    when: hasScene,
    run: () => choose(Object.keys(sceneAtHand()!.nodes)),
  },
  {
    id: 'edit.none',
    label: 'Select none',
    help: 'Leaves every node and wire',
    keys: ['Escape'],
    when: () => hasNodes() || sessionStore.getState().wire !== null,
    run: () => choose([]),
  },
  {
    id: 'edit.switch',
    label: 'Switch nodes off or on',
    help: 'Switches the chosen nodes off, or all on: a node that is off passes on what enters it',
    keys: ['Ctrl+0'],
    when: hasNodes,
    run: () => {
      const scene = sceneAtHand()!;
      const nodes = chosenNodes();
      const turnOn = !nodes.some((id) => scene.nodes[id].on);
      editScene(scene.id, (draft) => nodes.forEach((id) => switchNode(draft, id, turnOn)));
    },
  },
];
