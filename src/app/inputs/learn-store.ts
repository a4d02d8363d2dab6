import { create } from 'zustand';
import type { Scene } from '../../core/document/types';
import { setControl } from '../../core/show/edit';
import { editScene, showStore } from '../data/show-store';
import { say } from '../parts/notices';
import { driveBy, waitToLearn } from './learn';

interface Waiting {
  scene: string;
  node: string;
  /** Control part that is to follow; null: the node itself takes over what it listens to. */
  part: string | null;
  label: string;
}

/** What waits for a hand or device to be moved: it goes on waiting in every view. */
export const learnStore = create<{ waiting: Waiting | null }>()(() => ({ waiting: null }));

let off: (() => void) | null = null;

export function stopLearning(): void {
  off?.();
  off = null;
  learnStore.setState({ waiting: null });
}

const sceneOf = (id: string): Scene | undefined => showStore.getState().show.scenes.find((s) => s.id === id);

/** Lets a control follow whatever is moved next. */
export function learnControl(scene: string, node: string, part: string, label: string): void {
  stopLearning();
  learnStore.setState({ waiting: { scene, node, part, label } });
  off = waitToLearn((learned) => {
    const found = sceneOf(scene);
    stopLearning();
    if (!found?.nodes[node]) return;
    driveBy(found, node, part, learned);
    say({ tone: 'info', text: `${label} follows ${learned.name}.` });
  });
}

/** Lets an input node take over whatever of its kind is moved next. */
export function learnNode(scene: string, node: string, kind: string, label: string): void {
  stopLearning();
  learnStore.setState({ waiting: { scene, node, part: null, label } });
  off = waitToLearn(({ controls, name }) => {
    stopLearning();
    if (!sceneOf(scene)?.nodes[node]) return;
    editScene(scene, (draft) => {
      for (const [control, value] of Object.entries(controls)) setControl(draft, node, control, value);
    });
    say({ tone: 'info', text: `${label} listens to ${name}.` });
  }, kind);
}
