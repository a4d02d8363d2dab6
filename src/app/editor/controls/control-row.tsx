import clsx from 'clsx';
import { Link2, Unlink2 } from 'lucide-react';
import { memo, type ComponentType } from 'react';
import { limit, partLabel, partName, partsOf, type ControlSpec } from '../../../core/kind/controls';
import { numbersOf, plainValue } from '../../../core/run/node-run';
import { structuredCloneOf } from '../../../core/show/create';
import { alikeAmong } from '../../../core/show/edit-controls';
import { sendHome, setControl } from '../../../core/show/edit';
import type { ControlValue, Scene } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { lockedControls, toggleLocked } from '../../data/locked-controls';
import { sessionStore } from '../../data/session';
import { editScene, endGesture } from '../../data/show-store';
import { NumberRow } from './number-row';
import { hasProportions, inProportion } from './proportions';
import type { RowProps } from './row';
import { rowOfType } from './rows';
import { isSameRow } from './same-row';

interface Props {
  scene: Scene;
  node: string;
  control: string;
  spec: ControlSpec;
}

const isSameProps = (a: Props, b: Props): boolean =>
  a.node === b.node &&
  a.control === b.control &&
  a.spec === b.spec &&
  isSameRow(a.scene, b.scene, a.node, a.control);

const colourParts: Record<string, string> = { r: 'red', g: 'green', b: 'blue', a: 'alpha' };

/** The row of one control, made from its definition. */
export const ControlRow = memo(function ControlRow({ scene, node, control, spec }: Props) {
  const stored = scene.nodes[node].controls[control];
  const set = (value: ControlValue): void => {
    // Of several chosen nodes, all of this kind are set.
    const ids = alikeAmong(scene, node, sessionStore.getState().selection);
    editScene(
      scene.id,
      (draft) => ids.forEach((id) => setControl(draft, id, control, structuredCloneOf(value))),
      `${node} ${control}`,
    );
  };
  const names = partsOf(spec);
  const numbers = names.length ? numbersOf(spec, stored) : [];
  const lockKey = `${scene.nodes[node].kind} ${control}`;
  const isLocked = lockedControls((s) => s.locked.includes(lockKey));
  const canLock = hasProportions(spec);
  const setPart = (k: number, to: number): void => {
    if (names.length === 1) set(to);
    else if (canLock && isLocked) set(inProportion(numbers, k, to).map((v) => limit(spec, v)));
    else set(numbers.map((old, j) => (j === k ? to : old)));
  };
  const parts = names.map((part, k) => (
    <NumberRow
      key={part}
      place={{ scene, node, control, part: partName(control, part), spec }}
      label={spec.type === 'colour' ? colourParts[part] : partLabel(spec, k)}
      value={numbers[k]}
      onChange={(v) => setPart(k, v)}
      lock={
        canLock ? (
          <button
            type="button"
            className={clsx(
              'rounded p-0.5 hover:bg-base-300',
              isLocked ? 'text-primary' : 'quiet',
              k && 'invisible',
            )}
            aria-pressed={isLocked}
            aria-label={`Keep the proportions of ${spec.label}`}
            title="Keeps the proportions: the other parts follow"
            onClick={() => toggleLocked(lockKey)}
          >
            {isLocked ? <Link2 size={12} /> : <Unlink2 size={12} />}
          </button>
        ) : null
      }
    />
  ));
  // The registry has for each type of control a row that takes just that type.
  const TypeRow = rowOfType[spec.type] as ComponentType<RowProps>;
  return (
    <TypeRow
      {...{ scene, node, control, spec, numbers, parts, set, done: endGesture }}
      value={plainValue(spec, stored)}
      once={(value) => {
        set(value);
        endGesture();
      }}
      reset={() => void editScene(scene.id, (draft) => sendHome(draft, catalogue, node, control))}
    />
  );
}, isSameProps);
