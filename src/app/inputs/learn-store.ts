import { sceneAt } from '../../core/module/open-place';
import { create } from 'zustand';
import type { BindTarget, Scene } from '../../core/document/types';
import { setControl } from '../../core/show/edit';
import { bind } from '../../core/show/edit-desk';
import { sourceName, sourceOf } from '../../core/desk/bindings';
import { editScene, editShow, showStore } from '../data/show-store';
import { onHeard } from './controllers';
import { say } from '../parts/notices';
import { driveBy, waitToLearn } from './learn';

/** What waits for a hand or device to be moved, in words: it goes on waiting in every view. */
export const learnStore = create<{ waiting: { label: string } | null }>()(() => ({ waiting: null }));

let off: (() => void) | null = null;

export function stopLearning(): void {
  off?.();
  off = null;
  learnStore.setState({ waiting: null });
}

const sceneOf = (place: string): Scene | null => sceneAt(showStore.getState().show, place);

/** Lets a control follow whatever is moved next. */
export function learnControl(scene: string, node: string, part: string, label: string): void {
  stopLearning();
  learnStore.setState({ waiting: { label } });
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
  learnStore.setState({ waiting: { label } });
  off = waitToLearn(({ controls, name }) => {
    stopLearning();
    if (!sceneOf(scene)?.nodes[node]) return;
    editScene(scene, (draft) => {
      for (const [control, value] of Object.entries(controls)) setControl(draft, node, control, value);
    });
    say({ tone: 'info', text: `${label} listens to ${name}.` });
  }, kind);
}

/** Binds whatever is moved next to a control of the desk, a command, a scene. */
export function learnBinding(target: BindTarget, label: string): void {
  stopLearning();
  learnStore.setState({ waiting: { label } });
  off = onHeard((event) => {
    // The key that leaves, and those that press the buttons of the page, are not meant.
    if (event.type === 'key' && ['Escape', 'Enter', 'Tab'].includes(event.code)) return;
    const source = sourceOf(event);
    if (!source) return;
    stopLearning();
    editShow((show) => bind(show, source, target));
    say({ tone: 'info', text: `${sourceName(source)} moves ${label}.` });
  });
}
