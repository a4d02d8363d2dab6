import { describeChange, type Described } from '../../core/show/describe-change';
import type { Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';

/** A step that can be gone back to. */
interface Step {
  text: string;
  scene: string | null;
  /** How many steps of undo (below 0: of redo) lead to the state after it. */
  back: number;
}

const told = new WeakMap<Show, { before: Show; said: Described }>();

/** What led from one state to the next; states stay the same objects, so that each is looked at once. */
function saidOf(before: Show, after: Show): Described {
  const known = told.get(after);
  if (known?.before === before) return known.said;
  const said = describeChange(before, after, catalogue);
  told.set(after, { before, said });
  return said;
}

/** All steps of undo, the newest first; those that were undone stand above. */
export function stepsOf(past: readonly Show[], now: Show, future: readonly Show[]): Step[] {
  const states = [...past, now, ...future.toReversed()];
  const at = past.length;
  return states
    .map((state, k): Step => {
      const said = k === 0 ? { text: 'As it was opened', scene: null } : saidOf(states[k - 1], state);
      return { ...said, back: at - k };
    })
    .reverse();
}
