import clsx from 'clsx';
import { Code, Pipette, Spline, Waves, Zap } from 'lucide-react';
import { useState } from 'react';
import { fromHex, toHex } from '../../../core/colour';
import { partLabel, partName, partsOf, type ControlSpec } from '../../../core/kind/controls';
import { numbersOf, plainValue } from '../../../core/run/node-run';
import { sendHome, setControl } from '../../../core/show/edit';
import type { ControlValue, CurveLane, Scene, Stop } from '../../../core/show/types';
import { catalogue } from '../../../nodes/catalogue';
import { sessionStore } from '../../data/session';
import { editScene, endGesture } from '../../data/show-store';
import { liveStore } from '../../engine/live';
import { SelectField, TextField } from './field';
import { GradientEditor } from './gradient-editor';
import { DeviceRow } from './device-row';
import { FileRow } from './file-row';
import { OpenText } from './open-text';
import { KeyField } from './key-field';
import { MotionRows } from './motion-rows';
import { NumberRow } from './number-row';

interface Props {
  scene: Scene;
  node: string;
  control: string;
  spec: ControlSpec;
}

const partWords: Record<string, string> = { r: 'red', g: 'green', b: 'blue', a: 'alpha' };

function Label({ spec, onHome }: { spec: ControlSpec; onHome(): void }) {
  return (
    <span
      className="w-24 shrink-0 truncate"
      title={`${spec.help} Double-click to reset.`}
      onDoubleClick={onHome}
    >
      {spec.label}
    </span>
  );
}

/** The row of one control, made from its definition. */
export function ControlRow({ scene, node, control, spec }: Props) {
  const [parts, setParts] = useState(false);
  const [ways, setWays] = useState(false);
  const moving = Boolean(scene.nodes[node].motions[control]?.length);
  const stored = scene.nodes[node].controls[control];
  const fault = liveStore((s) => s.faults[scene.id]?.[node]);
  const set = (value: ControlValue): void => {
    editScene(scene.id, (draft) => setControl(draft, node, control, value), `${node} ${control}`);
  };
  const once = (value: ControlValue): void => {
    set(value);
    endGesture();
  };
  const home = (): void => {
    editScene(scene.id, (draft) => sendHome(draft, catalogue, node, control));
  };
  const names = partsOf(spec);
  const value = plainValue(spec, stored);
  const numbers = names.length ? numbersOf(spec, stored) : [];
  const rows = names.map((part, k) => (
    <NumberRow
      key={part}
      place={{ scene, node, control, part: partName(control, part), spec }}
      label={spec.type === 'colour' ? partWords[part] : partLabel(spec, k)}
      value={numbers[k]}
      onChange={(v) => set(names.length === 1 ? v : numbers.map((old, j) => (j === k ? v : old)))}
    />
  ));

  switch (spec.type) {
    case 'number':
    case 'whole':
    case 'angle':
    case 'point':
    case 'vector':
      return <>{rows}</>;
    case 'toggle':
      return (
        <div className="flex h-7 items-center gap-2" data-part={control}>
          <Label spec={spec} onHome={home} />
          <input
            type="checkbox"
            aria-label={spec.label}
            className="toggle toggle-xs toggle-primary"
            checked={numbers[0] > 0.5}
            onChange={(e) => once(e.target.checked)}
          />
        </div>
      );
    case 'button':
      return (
        <div className="flex h-7 items-center gap-2" data-part={control}>
          <Label spec={spec} onHome={home} />
          <button
            type="button"
            className="btn btn-xs border edge bg-base-100"
            onClick={() => once(numbers[0] + 1)}
          >
            <Zap size={13} /> {spec.label}
          </button>
        </div>
      );
    case 'curves':
      return (
        <div className="flex h-7 items-center gap-2" data-part={control}>
          <Label spec={spec} onHome={home} />
          <button
            type="button"
            className="btn btn-xs border edge bg-base-100"
            onClick={() =>
              sessionStore.setState({ benchOpen: true, benchTab: 'curves', benchControl: control })
            }
          >
            <Spline size={13} /> Draw{' '}
            {(value as CurveLane[]).length > 1 ? `${(value as CurveLane[]).length} lanes` : ''}
          </button>
        </div>
      );
    case 'choice':
      return (
        <div className="flex h-7 items-center gap-2" data-part={control}>
          <Label spec={spec} onHome={home} />
          <SelectField
            label={spec.label}
            value={String(value)}
            options={Object.entries(spec.options)}
            className="grow"
            onChange={once}
          />
        </div>
      );
    case 'colour':
      return (
        <div data-part={control}>
          <div className="flex h-7 items-center gap-2">
            <Label spec={spec} onHome={home} />
            <input
              type="color"
              aria-label={spec.label}
              className="h-6 w-10 cursor-pointer rounded border edge bg-transparent"
              value={toHex(numbers)}
              onChange={(e) => set([...fromHex(e.target.value)!, numbers[3]])}
              onBlur={endGesture}
            />
            <TextField
              label={`${spec.label} hex`}
              value={toHex(numbers)}
              mono
              className="w-20!"
              onChange={(text) => {
                const rgb = fromHex(text);
                if (rgb) once([...rgb, numbers[3]]);
              }}
            />
            <span className="grow" />
            <button
              type="button"
              className={clsx('tool', moving && 'text-primary')}
              aria-expanded={ways}
              aria-label={`Colours of ${spec.label} over time`}
              title="Leads it through the colours of a gradient"
              onClick={() => setWays(!ways)}
            >
              <Waves size={13} />
            </button>
            <button
              type="button"
              className="tool"
              aria-expanded={parts}
              aria-label={`Parts of ${spec.label}`}
              title="Red, green, blue and alpha, each to be driven"
              onClick={() => setParts(!parts)}
            >
              <Pipette size={13} />
            </button>
          </div>
          {parts ? rows : rows[3]}
          {ways && (
            <div className="mt-1 mb-2 flex flex-col gap-2 rounded border-l-2 border-primary bg-base-100/60 p-2">
              <MotionRows place={{ scene, node, control, part: control, spec }} />
            </div>
          )}
        </div>
      );
    case 'gradient':
      return (
        <div data-part={control}>
          <Label spec={spec} onHome={home} />
          <GradientEditor label={spec.label} stops={value as Stop[]} onChange={set} onDone={endGesture} />
        </div>
      );
    case 'text':
      return (
        <div className="flex min-h-7 items-center gap-2" data-part={control}>
          <Label spec={spec} onHome={home} />
          <TextField label={spec.label} value={String(value)} lines={spec.lines} onChange={once} />
          {spec.opens && <OpenText label={spec.label} accepts={spec.opens} onOpen={once} />}
        </div>
      );
    case 'numbers':
      return (
        <div className="flex min-h-7 items-center gap-2" data-part={control}>
          <Label spec={spec} onHome={home} />
          <TextField
            label={spec.label}
            mono
            value={(value as number[]).join(' ')}
            onChange={(text) =>
              once(
                text
                  .split(/[\s,;]+/)
                  .filter(Boolean)
                  .map(Number)
                  .filter(Number.isFinite),
              )
            }
          />
        </div>
      );
    case 'file':
      return (
        <FileRow
          label={<Label spec={spec} onHome={home} />}
          spec={spec}
          value={String(value)}
          onChange={once}
        />
      );
    case 'device':
      return (
        <DeviceRow
          label={<Label spec={spec} onHome={home} />}
          spec={spec}
          value={String(value)}
          onChange={once}
        />
      );
    case 'code':
      return (
        <div className="flex h-7 items-center gap-2" data-part={control}>
          <Label spec={spec} onHome={home} />
          <button
            type="button"
            className="btn btn-xs border edge bg-base-100"
            onClick={() => sessionStore.setState({ benchOpen: true, benchTab: 'code' })}
          >
            <Code size={13} /> Write code
          </button>
        </div>
      );
    case 'key':
      return (
        <div className="flex h-7 items-center gap-2" data-part={control}>
          <Label spec={spec} onHome={home} />
          <KeyField label={spec.label} value={String(value)} onChange={once} />
        </div>
      );
    case 'formula':
      return (
        <div data-part={control} className="py-1">
          <Label spec={spec} onHome={home} />
          <TextField
            label={spec.label}
            value={String(value)}
            lines={spec.lanes ? 4 : 1}
            mono
            live
            invalid={Boolean(fault)}
            className="mt-1"
            onChange={set}
            onDone={endGesture}
          />
          <p className="quiet mt-0.5 text-2xs">{spec.help}</p>
        </div>
      );
  }
}
