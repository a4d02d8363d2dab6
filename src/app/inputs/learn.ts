import type { Learned } from '../../core/kind/kind';
import { isMeant, type InputEvent } from '../../core/inputs/inputs';
import { addNode, connect, disconnect, renameNode, setFormula } from '../../core/show/edit';
import { freePlace } from '../../core/show/free-place';
import type { ControlValue, Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { editScene } from '../data/show-store';
import { onHeard } from './controllers';

/** A node that follows an event, with its kind. */
type LearnedNode = Learned & { kind: string };

/** The node that follows an event: of the given kind, or of the first that listens to it. */
function learnedFrom(event: InputEvent, only: string | null = null): LearnedNode | null {
  for (const kind of catalogue.values()) {
    if (kind.output !== 'signal' || (only !== null && kind.id !== only)) continue;
    const learned = kind.learn?.(event);
    if (learned) return { kind: kind.id, ...learned };
  }
  return null;
}

/** Whether a kind can learn what to follow. */
export const canLearn = (kind: string): boolean => {
  const found = catalogue.get(kind);
  return found?.output === 'signal' && found.learn !== undefined;
};

/** Waits for something that a hand or device does and hands over what would follow it; gives the way to stop waiting. */
export function waitToLearn(take: (learned: LearnedNode) => void, only: string | null = null): () => void {
  const off = onHeard((event) => {
    // The button that was pressed to learn, and keys that leave it, are not meant.
    if (event.type === 'key' && ['Escape', 'Enter', 'Tab'].includes(event.code)) return;
    const learned = isMeant(event) ? learnedFrom(event, only) : null;
    if (!learned) return;
    off();
    take(learned);
  });
  return off;
}

const sameControls = (a: Record<string, ControlValue>, b: Record<string, ControlValue>): boolean =>
  Object.entries(b).every(([name, value]) => a[name] === value);

/** Wires a control part to a node that follows what was learned: one that is there already, or a new one. */
export function driveBy(
  scene: Scene,
  node: string,
  part: string,
  { kind, controls, name, lane }: LearnedNode,
): void {
  editScene(scene.id, (draft) => {
    const there = Object.values(draft.nodes).find(
      (n) => n.kind === kind && sameControls(n.controls, controls),
    );
    let id = there?.id;
    if (!id) {
      const [x, y] = draft.nodes[node].place;
      id = addNode(draft, catalogue, kind, freePlace(draft, [x, y + 200]));
      Object.assign(draft.nodes[id].controls, controls);
      renameNode(draft, id, name);
    }
    const [control] = part.split('.');
    for (const wire of Object.values(draft.wires))
      if (wire.to.node === node && (wire.to.port === part || wire.to.port === control))
        disconnect(draft, wire.id);
    setFormula(draft, node, part, null);
    const wire = connect(draft, catalogue, id, node, part);
    if (lane) draft.wires[wire].lane = lane;
  });
}
