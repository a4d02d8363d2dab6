import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { sourceName } from '../../../core/desk/bindings';
import { numbersOfType, targetSpec } from '../../../core/desk/value';
import { freshMotion } from '../../../core/document/motions';
import { kindOf } from '../../../core/kind/kind';
import { partLabel, partName, partsOf } from '../../../core/kind/controls';
import {
  addTarget,
  canLieOnDesk,
  controlOf,
  putOnDesk,
  removeDeskControl,
  removePage,
} from '../../../core/show/edit-desk';
import type { Binding, DeskControl, DeskPage, Motion } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { playSession } from '../../data/play-session';
import { editShow, endGesture, showStore, useShow } from '../../data/show-store';
import { engine } from '../../engine/client';
import { liveStore } from '../../engine/live';
import { learnBinding } from '../../inputs/learn-store';
import { SelectField, TextField } from '../../parts/field';
import { ScrubNumber } from '../../parts/scrub-number';
import { spokenMotion } from './motion-words';

/** Types that a control can be changed to: those with as many numbers. */
const typeNames: Readonly<Record<DeskControl['type'], string>> = {
  fader: 'Fader',
  dial: 'Dial',
  pad: 'Pad',
  switch: 'Switch',
  chip: 'Colour chip',
  xy: 'Pad x/y',
  choice: 'Choice',
  title: 'Title',
};

const Line = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <div className="flex min-h-7 items-center gap-1.5">
    <span className="quiet w-14 shrink-0 text-2xs">{label}</span>
    {children}
  </div>
);

function Figure({
  label,
  value,
  step = 0.01,
  min,
  max,
  unit,
  set,
}: {
  label: string;
  value: number;
  step?: number;
  min?: number;
  max?: number;
  unit?: string;
  set(value: number): void;
}) {
  return (
    <ScrubNumber
      label={label}
      value={value}
      step={step}
      fine={step / 10}
      min={min}
      max={max}
      unit={unit}
      className="min-w-0 flex-1"
      onChange={set}
      onDone={endGesture}
    />
  );
}

type Edit = (change: (control: DeskControl) => void, gesture?: string) => void;

/** What of the patches can be put on the desk: controls that a hand can move and no wire drives. */
function useCandidates(scene: string | null): [string, string][] {
  const scenes = useShow((show) => show.scenes);
  return scenes
    .filter(({ id }) => scene === null || id === scene)
    .flatMap((one) =>
      Object.values(one.nodes).flatMap((node) => {
        const kind = kindOf(catalogue, node);
        if (!kind) return [];
        return Object.entries(kind.controls).flatMap(([control, spec]): [string, string][] => {
          if (!canLieOnDesk(spec)) return [];
          const parts = partsOf(spec);
          const whole = spec.type === 'colour' || spec.type === 'point' || parts.length < 2;
          const before = scene === null ? `${one.name} · ` : '';
          const names: [string, string][] = whole
            ? [[control, spec.label]]
            : parts.map((part, k) => [partName(control, part), partLabel(spec, k)]);
          return names.map(([part, label]) => [
            JSON.stringify([one.id, node.id, part]),
            `${before}${node.name} · ${label}`,
          ]);
        });
      }),
    );
}

function Targets({ control, edit }: { control: DeskControl; edit: Edit }) {
  const scenes = useShow((show) => show.scenes);
  const nameOf = (k: number): string => {
    const target = control.targets[k];
    const found = targetSpec({ scenes }, target, catalogue);
    const node = scenes.find(({ id }) => id === target.scene)?.nodes[target.node];
    return found && node ? `${node.name} · ${partLabel(found.spec, found.part)}` : 'gone';
  };
  const isFitted = numbersOfType[control.type] > 0 && control.type !== 'chip';
  return (
    <>
      {control.targets.map((target, k) => (
        <div key={`${target.node} ${target.part}`} className="rounded bg-base-100 p-1">
          <div className="flex items-center">
            <span className="min-w-0 grow truncate text-2xs">{nameOf(k)}</span>
            {control.targets.length > 1 && (
              <button
                type="button"
                className="quiet px-1"
                aria-label={`Take ${nameOf(k)} off`}
                onClick={() => edit((one) => void one.targets.splice(k, 1))}
              >
                <Trash2 size={11} />
              </button>
            )}
          </div>
          {isFitted && (
            <div className="flex gap-1">
              {([0, 1] as const).map((end) => (
                <Figure
                  key={end}
                  label={`${nameOf(k)} at the ${end ? 'high' : 'low'} end`}
                  value={target.to[end]}
                  set={(v) => edit((one) => void (one.targets[k].to[end] = v), `to ${k} ${end}`)}
                />
              ))}
              <Figure
                label={`Bend of ${nameOf(k)}`}
                value={target.bend}
                min={0.05}
                max={20}
                set={(v) => edit((one) => void (one.targets[k].bend = v), `bend ${k}`)}
              />
            </div>
          )}
        </div>
      ))}
    </>
  );
}

function Motions({ control, edit }: { control: DeskControl; edit: Edit }) {
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

function Bindings({ control }: { control: DeskControl }) {
  const all = useShow((show) => show.bindings);
  const bindings = all.filter(({ target }) => target.type === 'desk' && target.control === control.id);
  const edit = (id: string, change: (one: Binding) => void): void =>
    void editShow((show) => {
      const found = show.bindings.find((one) => one.id === id);
      if (found) change(found);
    });
  const count = numbersOfType[control.type];
  return (
    <>
      {bindings.map((one) => (
        <div key={one.id} className="rounded bg-base-100 p-1 text-2xs" data-binding={sourceName(one.source)}>
          <div className="flex items-center">
            <span className="min-w-0 grow truncate">{sourceName(one.source)}</span>
            <button
              type="button"
              className="quiet px-1"
              aria-label={`Unbind ${sourceName(one.source)}`}
              onClick={() =>
                editShow((show) => void (show.bindings = show.bindings.filter(({ id }) => id !== one.id)))
              }
            >
              <Trash2 size={11} />
            </button>
          </div>
          <div className="flex flex-wrap gap-x-2">
            {(
              [
                ['pickup', 'picks up'],
                ['feedback', 'sends back'],
              ] as const
            ).map(([key, words]) => (
              <label key={key} className="flex items-center gap-1">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={one[key]}
                  onChange={(event) => edit(one.id, (b) => void (b[key] = event.target.checked))}
                />
                {words}
              </label>
            ))}
            <label className="flex items-center gap-1">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={one.way === 'relative'}
                onChange={(event) =>
                  edit(one.id, (b) => void (b.way = event.target.checked ? 'relative' : 'absolute'))
                }
              />
              endless
            </label>
            {one.source.type === 'control' && (
              <label className="flex items-center gap-1">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={one.source.fine}
                  onChange={(event) =>
                    edit(one.id, (b) => {
                      if (b.source.type === 'control') b.source.fine = event.target.checked;
                    })
                  }
                />
                14 bit
              </label>
            )}
          </div>
        </div>
      ))}
      <div className="flex gap-1">
        {Array.from({ length: Math.min(2, Math.max(1, count)) }, (_, from) => (
          <button
            key={from}
            type="button"
            className="btn h-7 min-w-0 flex-1 border edge bg-base-100 text-2xs font-normal"
            onClick={() => learnBinding({ type: 'desk', control: control.id, from }, control.name)}
          >
            Learn {control.type === 'xy' ? 'xy'[from] : ''}
          </button>
        ))}
      </div>
    </>
  );
}

/** The settings of a desk control while the desk is laid out; without one, what can be put on the page. */
export function ControlInspector({ page }: { page: DeskPage }) {
  const chosen = playSession((s) => s.chosen);
  const control = page.controls.find(({ id }) => id === chosen) ?? null;
  const candidates = useCandidates(page.scene);
  const [search, setSearch] = useState('');
  if (!control) {
    const found = candidates.filter(([, label]) => label.toLowerCase().includes(search.trim().toLowerCase()));
    return (
      <aside className="flex min-h-0 grow flex-col gap-1 overflow-y-auto" aria-label="Put on this page">
        <TextField label="Search controls" value={search} live onChange={setSearch} />
        <p className="quiet text-2xs">Click a control of the patches to put it on this page.</p>
        {found.slice(0, 200).map(([key, label]) => (
          <button
            key={key}
            type="button"
            className="flex h-7 shrink-0 items-center gap-1 truncate rounded px-1 text-left text-2xs hover:bg-base-300"
            onClick={() => {
              const [scene, node, part] = JSON.parse(key) as [string, string, string];
              const id = editShow((show) => putOnDesk(show, catalogue, { scene, node, part }, page.id));
              if (id) playSession.setState({ chosen: id });
            }}
          >
            <Plus size={11} className="shrink-0" /> <span className="truncate">{label}</span>
          </button>
        ))}
        <div className="mt-auto flex gap-1 pt-2">
          <TextField
            label="Name of the page"
            value={page.name}
            onChange={(name) =>
              name.trim() &&
              editShow(
                (show) => void (show.desk.find(({ id }) => id === page.id)!.name = name.trim().slice(0, 120)),
              )
            }
          />
          <button
            type="button"
            className="tool"
            aria-label="Delete this page"
            title="Deletes this page with its controls"
            onClick={() => editShow((show) => removePage(show, page.id))}
          >
            <Trash2 size={13} />
          </button>
        </div>
      </aside>
    );
  }
  const edit: Edit = (change, gesture) =>
    void editShow(
      (show) => change(controlOf(show, control.id)),
      gesture ? `desk ${control.id} ${gesture}` : null,
    );
  const count = numbersOfType[control.type];
  const likes = (Object.keys(typeNames) as DeskControl['type'][]).filter(
    (type) => numbersOfType[type] === count,
  );
  const options: [DeskControl['type'], string][] =
    count === 0 ? [[control.type, typeNames[control.type]]] : likes.map((type) => [type, typeNames[type]]);
  const [low, high] = control.range;
  const step = Math.max(0.001, Math.abs(high - low) / 200);
  return (
    <aside
      className="flex min-h-0 grow flex-col gap-1 overflow-y-auto"
      aria-label={`Settings of ${control.name}`}
    >
      <div className="flex items-center gap-1">
        <TextField
          label="Name of the control"
          value={control.name}
          onChange={(name) => name.trim() && edit((one) => void (one.name = name.trim().slice(0, 120)))}
        />
        <button
          type="button"
          className="tool"
          aria-label={`Take ${control.name} off the desk`}
          title="Takes it off the desk"
          onClick={() => {
            editShow((show) => removeDeskControl(show, control.id));
            playSession.setState({ chosen: null });
          }}
        >
          <Trash2 size={13} />
        </button>
      </div>
      <Line label="Type">
        <SelectField
          label="Type of the control"
          value={control.type}
          options={options}
          className="min-w-0 grow"
          onChange={(type) => edit((one) => void (one.type = type as DeskControl['type']))}
        />
      </Line>
      {count > 0 && (
        <>
          <Line label="Range">
            {([0, 1] as const).map((end) => (
              <Figure
                key={end}
                label={`${end ? 'High' : 'Low'} end of the range`}
                value={control.range[end]}
                step={step}
                set={(v) =>
                  edit((one) => {
                    // What stood for the ends of the patch moves with them: the desk shows its own numbers.
                    const same = one.targets.every(
                      ({ to, bend }) => bend === 1 && to[0] === one.range[0] && to[1] === one.range[1],
                    );
                    one.range[end] = v;
                    if (same) for (const target of one.targets) target.to[end] = v;
                  }, `range ${end}`)
                }
              />
            ))}
          </Line>
          <Line label="Step, unit">
            <Figure
              label="Step"
              value={control.step}
              step={step}
              min={0}
              set={(v) => edit((one) => void (one.step = v), 'step')}
            />
            <TextField
              label="Unit"
              value={control.unit}
              className="h-6! min-w-0 flex-1 px-1!"
              onChange={(unit) => edit((one) => void (one.unit = unit))}
            />
          </Line>
        </>
      )}
      <Line label="Home">
        <button
          type="button"
          className="btn h-7 grow border edge bg-base-100 text-2xs font-normal"
          title="Where it stands now becomes its home"
          onClick={() => {
            const now = liveStore.getState().desk.values[control.id];
            if (now !== undefined) edit((one) => void (one.home = typeof now === 'string' ? now : [...now]));
          }}
        >
          Stands here
        </button>
        <button
          type="button"
          className="tool text-2xs"
          onClick={() => engine().perform({ type: 'desk-home', control: control.id })}
        >
          Go
        </button>
      </Line>
      <Line label="Snapshots">
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            className="toggle toggle-xs toggle-primary"
            checked={control.stored}
            onChange={(event) => edit((one) => void (one.stored = event.target.checked))}
          />
          store it
        </label>
      </Line>
      <h3 className="heading mt-1">Moves</h3>
      <Targets control={control} edit={edit} />
      <SelectField
        label="Let it move another control"
        value=""
        options={[['', 'Move another as well …'], ...candidates]}
        className="w-full"
        onChange={(key) => {
          if (!key) return;
          const [scene, node, part] = JSON.parse(key) as [string, string, string];
          const spec = kindOf(
            catalogue,
            showStore.getState().show.scenes.find(({ id }) => id === scene)!.nodes[node],
          )!.controls[part.split('.')[0]];
          // Of a colour or point its first number.
          const first = part.includes('.') ? part : partName(part, partsOf(spec)[0] ?? '');
          editShow((show) => addTarget(show, catalogue, control.id, { scene, node, part: first }));
        }}
      />
      {count > 0 && (
        <>
          <h3 className="heading mt-1">By itself</h3>
          <Motions control={control} edit={edit} />
        </>
      )}
      <h3 className="heading mt-1">Bound to</h3>
      <Bindings control={control} />
    </aside>
  );
}
