import { Trash2 } from 'lucide-react';
import { freshMotion } from '../../../core/document/motions';
import type { DeskControl, Motion } from '../../../core/document/types';
import { SelectField } from '../../parts/field';
import { Figure, type EditControl } from './inspector-rows';
import { spokenMotion } from './motion-words';

/** Motions that move a desk control by themselves, each with its amount and speed. */
export function MotionList({ control, edit }: { control: DeskControl; edit: EditControl }) {
  const types: Motion['type'][] = ['swing', 'wander', 'ramp', 'walk'];
  return (
    <>
      {control.motions.map((motion, k) => {
        const { label, speed } = spokenMotion(motion);
        return (
          <div key={k} className="flex items-center gap-1 rounded bg-base-100 p-1">
            <input
              type="checkbox"
              className="toggle toggle-primary toggle-xs"
              aria-label={`${label} of ${control.name}`}
              checked={motion.on}
              onChange={(event) => edit((one) => void (one.motions[k].on = event.target.checked))}
            />
            <span className="w-12 truncate text-2xs">{label}</span>
            <Figure
              label={`Amount of ${label}`}
              value={motion.amount}
              set={(v) => edit((one) => void (one.motions[k].amount = v), `amount ${k}`)}
            />
            {speed && (
              <Figure
                label={`Speed of ${label}`}
                value={speed.value}
                min={0}
                set={(v) => edit((one) => speed.put(one.motions[k], v), `speed ${k}`)}
              />
            )}
            <button
              type="button"
              className="quiet px-0.5"
              aria-label={`Remove ${label}`}
              onClick={() => edit((one) => void one.motions.splice(k, 1))}
            >
              <Trash2 size={11} />
            </button>
          </div>
        );
      })}
      <SelectField
        label="Add a motion"
        value=""
        options={[
          ['', 'Add a motion …'],
          ...types.map((type) => [type, spokenMotion(freshMotion(type, [0, 1], 1)).label] as const),
        ]}
        className="w-full"
        onChange={(type) =>
          type &&
          edit(
            (one) =>
              void one.motions.push(freshMotion(type as Motion['type'], one.range, one.motions.length + 1)),
          )
        }
      />
    </>
  );
}
