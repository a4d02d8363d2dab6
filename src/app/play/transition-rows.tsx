import { fromHex, toHex } from '../../core/colour';
import type { Transition } from '../../core/document/types';
import { editShow, endGesture, useShow } from '../data/show-store';
import { SelectField } from '../parts/field';
import { ScrubNumber } from '../parts/scrub-number';

const transitionLooks: [Transition['look'], string][] = [
  ['mix', 'Mix'],
  ['dip', 'Dip'],
  ['add', 'Add'],
  ['wipe', 'Wipe'],
  ['iris', 'Iris'],
  ['mask', 'Mask'],
  ['blur', 'Blur'],
  ['displace', 'Displace'],
];

/** When something that is asked for begins. */
export const takeStarts: [Transition['start'], string][] = [
  ['now', 'At once'],
  ['beat', 'On the beat'],
  ['bar', 'On the bar'],
];

/** A scene or picture file as the value of a list. */
const maskKey = (mask: Transition['mask']): string => (mask ? `${mask.from}:${mask.id}` : '');

function maskOf(key: string): Transition['mask'] {
  const at = key.indexOf(':');
  return at < 0 ? null : { from: key.slice(0, at) as 'scene' | 'file', id: key.slice(at + 1) };
}

/** How a take looks, how long it lasts, and when it begins. */
export function TransitionRows() {
  const transition = useShow((show) => show.transition);
  return (
    <TransitionFields
      transition={transition}
      edit={(change, gesture = null) =>
        void editShow((show) => change(show.transition), gesture && `transition ${gesture}`)
      }
    />
  );
}

/** The settings of any transition. */
export function TransitionFields({
  transition,
  edit,
}: {
  transition: Transition;
  edit(change: (one: Transition) => void, gesture?: string | null): void;
}) {
  const { look, length, unit, start, angle, soft, colour, mask, amount } = transition;
  const scenes = useShow((show) => show.scenes);
  const files = useShow((show) => show.files);
  const pictures = Object.entries(files).filter(([, { type }]) => type.startsWith('image/'));
  const edged = look === 'wipe' || look === 'iris' || look === 'mask';
  const bends = look === 'blur' || look === 'displace';
  return (
    <div className="flex flex-wrap gap-1" role="group" aria-label="Transition">
      <div className="flex min-w-0 flex-1 basis-24 items-center gap-1">
        <SelectField
          label="Look of the transition"
          className="h-11! min-w-0 flex-1"
          value={look}
          options={transitionLooks}
          onChange={(v) => edit((one) => (one.look = v as Transition['look']))}
        />
        {look === 'dip' && (
          <input
            type="color"
            className="h-11 w-11 cursor-pointer rounded border edge bg-transparent"
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
          className="h-11! w-14 text-center!"
          onChange={(v) => edit((one) => (one.length = v), 'length')}
          onDone={endGesture}
        />
        <SelectField
          label="Unit of the transition"
          className="h-11! w-16"
          value={unit}
          options={[
            ['seconds', 's'],
            ['beats', 'beats'],
          ]}
          onChange={(v) => edit((one) => (one.unit = v as Transition['unit']))}
        />
      </div>
      {look === 'mask' && (
        <SelectField
          label="Mask of the transition"
          value={maskKey(mask)}
          className="h-11! min-w-0 flex-1 basis-full"
          options={[
            ['', 'Choose a scene or picture'],
            ...scenes.map(({ id, name }) => [`scene:${id}`, name] as const),
            ...pictures.map(([id, { name }]) => [`file:${id}`, name] as const),
          ]}
          onChange={(key) => edit((one) => (one.mask = maskOf(key)))}
        />
      )}
      {bends && (
        <ScrubNumber
          label="Strength of the transition"
          value={amount * 100}
          step={0.5}
          fine={0.1}
          digits={0}
          min={0}
          max={100}
          unit=" %"
          className="h-11! flex-1"
          onChange={(v) => edit((one) => (one.amount = v / 100), 'amount')}
          onDone={endGesture}
        />
      )}
      <SelectField
        label="Start of a take"
        className="h-11! w-24"
        value={start}
        options={takeStarts}
        onChange={(v) => edit((one) => (one.start = v as Transition['start']))}
      />
      {edged && (
        <div className="flex flex-1 items-center gap-1">
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
              className="h-11! min-w-0 flex-1"
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
            className="h-11! min-w-0 flex-1"
            onChange={(v) => edit((one) => (one.soft = v / 100), 'soft')}
            onDone={endGesture}
          />
        </div>
      )}
    </div>
  );
}
