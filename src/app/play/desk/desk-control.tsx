import clsx from 'clsx';
import { Home, Waves } from 'lucide-react';
import type { ComponentType } from 'react';
import type { DeskControl } from '../../../core/document/types';
import { shortNumber } from '../../../core/text/short-number';
import { Bindable } from '../bindable';
import { Dial, Fader, XyPad } from './slides';
import { Chip, Choice, Pad, Switch, Title } from './touches';
import { sendHome, useDeskValue } from './use-desk';

const faces: Readonly<Record<DeskControl['type'], ComponentType<{ control: DeskControl }>>> = {
  fader: Fader,
  dial: Dial,
  xy: XyPad,
  pad: Pad,
  switch: Switch,
  chip: Chip,
  choice: Choice,
  title: Title,
};

/** What a control stands at, in a few letters; none where its face says it. */
function Figures({ control }: { control: DeskControl }) {
  const value = useDeskValue(control);
  if (typeof value === 'string' || !['fader', 'dial', 'xy'].includes(control.type)) return null;
  return (
    <output className="figures quiet block truncate text-center text-2xs" data-desk-value={control.id}>
      {value.map((v) => shortNumber(v, 2)).join(' ')}
      {control.unit}
    </output>
  );
}

/** A desk control in its cells: name, face, value, and the way home. */
export function DeskControlView({ control }: { control: DeskControl }) {
  const Face = faces[control.type];
  const moves = control.motions.some(({ on }) => on);
  return (
    <Bindable
      target={{ type: 'desk', control: control.id, from: 0 }}
      label={control.name}
      className="flex h-full min-w-0 flex-col gap-0.5"
    >
      <div className="group relative flex h-4 items-center gap-0.5">
        <span
          className={clsx('min-w-0 grow truncate text-2xs', control.targets.length === 0 && 'text-warning')}
          title={
            control.targets.length === 0
              ? `${control.name} moves nothing: what it moved is gone.`
              : control.name
          }
        >
          {control.name}
        </span>
        {moves && <Waves size={10} className="shrink-0 text-primary" aria-label="Moves by itself" />}
        {control.type !== 'pad' && (
          <button
            type="button"
            className="quiet absolute top-0 right-0 rounded bg-base-200 p-0.5 opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
            aria-label={`${control.name} home`}
            title="Home (double-click)"
            onClick={() => sendHome(control)}
          >
            <Home size={10} />
          </button>
        )}
      </div>
      <Face control={control} />
      <Figures control={control} />
    </Bindable>
  );
}
