import { fromHex, toHex } from '../../core/colour';
import type { Transition } from '../../core/document/types';
import { editShow, endGesture, useShow } from '../data/show-store';
import { SelectField } from '../parts/field';
import { ScrubNumber } from '../parts/scrub-number';

const looks: [Transition['look'], string][] = [
  ['mix', 'Mix'],
  ['dip', 'Dip'],
  ['add', 'Add'],
  ['wipe', 'Wipe'],
  ['iris', 'Iris'],
];

/** How a take looks, how long it lasts, and when it begins. */
export function TransitionRows() {
  const transition = useShow((show) => show.transition);
  const { look, length, unit, start, angle, soft, colour } = transition;
  const edit = (change: (one: Transition) => void, gesture: string | null = null): void =>
    void editShow((show) => change(show.transition), gesture && `transition ${gesture}`);
  const edged = look === 'wipe' || look === 'iris';
  return (
    <div className="flex flex-col gap-1" role="group" aria-label="Transition">
      <div className="flex items-center gap-1">
        <SelectField
          label="Look of the transition"
          className="min-w-0 flex-1"
          value={look}
          options={looks}
          onChange={(v) => edit((one) => (one.look = v as Transition['look']))}
        />
        {look === 'dip' && (
          <input
            type="color"
            className="h-7 w-8 cursor-pointer rounded border edge bg-transparent"
            aria-label="Colour of the dip"
            value={toHex(colour)}
            onChange={(e) => edit((one) => (one.colour = fromHex(e.target.value)!), 'colour')}
            onBlur={endGesture}
          />
        )}
      </div>
      <div className="flex items-center gap-1">
        <ScrubNumber
          label="Transition length"
          value={length}
          step={0.05}
          fine={0.01}
          min={0}
          max={600}
          className="min-w-0 flex-1 text-center!"
          onChange={(v) => edit((one) => (one.length = v), 'length')}
          onDone={endGesture}
        />
        <SelectField
          label="Unit of the transition"
          className="w-20"
          value={unit}
          options={[
            ['seconds', 's'],
            ['beats', 'beats'],
          ]}
          onChange={(v) => edit((one) => (one.unit = v as Transition['unit']))}
        />
      </div>
      <SelectField
        label="Start of a take"
        value={start}
        options={[
          ['now', 'At once'],
          ['beat', 'On the beat'],
          ['bar', 'On the bar'],
        ]}
        onChange={(v) => edit((one) => (one.start = v as Transition['start']))}
      />
      {edged && (
        <div className="flex items-center gap-1">
          {look === 'wipe' && (
            <ScrubNumber
              label="Angle of the wipe"
              value={angle}
              step={1}
              fine={0.1}
              digits={0}
              min={-360}
              max={360}
              unit="°"
              className="min-w-0 flex-1"
              onChange={(v) => edit((one) => (one.angle = v), 'angle')}
              onDone={endGesture}
            />
          )}
          <ScrubNumber
            label="Softness of the edge"
            value={soft * 100}
            step={0.5}
            fine={0.1}
            digits={0}
            min={0}
            max={100}
            unit=" %"
            className="min-w-0 flex-1"
            onChange={(v) => edit((one) => (one.soft = v / 100), 'soft')}
            onDone={endGesture}
          />
        </div>
      )}
    </div>
  );
}
