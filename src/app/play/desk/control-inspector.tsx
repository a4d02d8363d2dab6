import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { numbersOfType } from '../../../core/desk/value';
import { kindOf } from '../../../core/kind/kind';
import { partName, partsOf } from '../../../core/kind/controls';
import { addTarget, controlOf, putOnDesk, removeDeskControl, removePage } from '../../../core/show/edit-desk';
import type { DeskControl, DeskPage } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { playSession } from '../../data/play-session';
import { editShow, showStore } from '../../data/show-store';
import { perform } from '../../engine/perform';
import { liveStore } from '../../engine/live';
import { SelectField, TextField } from '../../parts/field';
import { BindingRows } from './binding-rows';
import { useCandidates } from './candidates';
import { Figure, Line, type EditControl } from './inspector-rows';
import { MotionList } from './motion-list';
import { TargetRows } from './target-rows';
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
  const edit: EditControl = (change, gesture) =>
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
          onClick={() => perform({ type: 'desk-home', control: control.id })}
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
      <TargetRows control={control} edit={edit} />
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
          <MotionList control={control} edit={edit} />
        </>
      )}
      <h3 className="heading mt-1">Bound to</h3>
      <BindingRows control={control} />
    </aside>
  );
}
