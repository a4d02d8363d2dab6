import { ArrowDown, ArrowUp, ChevronDown, ChevronRight, LogIn, LogOut, Undo2, X } from 'lucide-react';
import { useState } from 'react';
import { partsOf, type ControlSpec } from '../../core/kind/controls';
import { kindOf, type Kind } from '../../core/kind/kind';
import { endsOf } from '../../core/module/module-kind';
import { moduleAt } from '../../core/module/open-place';
import { addNode, renameNode } from '../../core/show/edit';
import { freePlace } from '../../core/show/free-place';
import type { Module, ModuleControl, PatchNode } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { editModule, renameModule, takeControlIn } from '../actions/module-actions';
import { choose } from '../data/session';
import { editScene, endGesture, useShow } from '../data/show-store';
import { SelectField, TextField } from '../parts/field';
import { Row, Section } from '../parts/rows';
import { ScrubNumber } from '../parts/scrub-number';
import { wireColour } from './flow-model';

/** Inputs or outputs of the module, in their order. */
function Ends({ place, nodes, end }: { place: string; nodes: readonly PatchNode[]; end: 'in' | 'out' }) {
  const add = (): void => {
    const id = editScene(place, (draft) => {
      const kind = [...catalogue.values()].find((one) => one.end === end)!;
      const xs = Object.values(draft.nodes).map((node) => node.place[0]);
      const x = end === 'in' ? Math.min(0, ...xs) - 20 : Math.max(0, ...xs) + 20;
      return addNode(draft, catalogue, kind.id, freePlace(draft, [x, 200]));
    });
    if (id) choose([id]);
  };
  return (
    <Section title={end === 'in' ? 'Inputs' : 'Outputs'}>
      {nodes.map((node) => (
        <div key={node.id} className="flex h-7 items-center gap-2">
          <button
            type="button"
            className="flex w-24 shrink-0 items-center gap-1.5 text-left hover:underline"
            title="Chooses its card"
            onClick={() => choose([node.id])}
          >
            <span
              className="h-2 w-2 rounded-full"
              style={{ background: wireColour(kindOf(catalogue, node)!.output) }}
            />
            {kindOf(catalogue, node)!.output}
          </button>
          <TextField
            label={`Name of the ${end === 'in' ? 'input' : 'output'} ${node.name}`}
            value={node.name}
            className="h-6"
            onChange={(name) => editScene(place, (draft) => renameNode(draft, node.id, name))}
          />
        </div>
      ))}
      <button type="button" className="tool -ml-2" onClick={add}>
        {end === 'in' ? <LogIn size={13} /> : <LogOut size={13} />} Add an {end === 'in' ? 'input' : 'output'}
      </button>
    </Section>
  );
}

/** One control of the module: what it is called, where it stands, and what it sets. */
function ControlEntry({
  place,
  module,
  control,
  kind,
}: {
  place: string;
  module: Module;
  control: ModuleControl;
  kind: Kind | undefined;
}) {
  const [isOpen, setOpen] = useState(false);
  const at = module.controls.indexOf(control);
  const spec = kind?.controls[control.id];
  const isNumber = spec !== undefined && partsOf(spec).length === 1 && spec.type !== 'toggle';
  const change = (edit: (control: ModuleControl) => void, key: string | null = null): void =>
    editModule(
      place,
      (draft) => {
        const found = draft.controls.find(({ id }) => id === control.id);
        if (found) edit(found);
      },
      key && `${module.id} ${control.id} ${key}`,
    );
  const move = (by: -1 | 1): void =>
    editModule(place, (draft) => {
      const [moved] = draft.controls.splice(at, 1);
      draft.controls.splice(at + by, 0, moved);
    });
  const ends = (
    label: string,
    value: readonly [number, number],
    set: (value: [number, number]) => void,
  ): React.ReactNode =>
    value.map((v, k) => (
      <ScrubNumber
        key={k}
        label={`${label} ${k ? 'high' : 'low'}`}
        value={v}
        step={0.01}
        fine={0.001}
        className="w-16"
        onChange={(to) => set(k ? [value[0], to] : [to, value[1]])}
        onDone={endGesture}
      />
    ));
  return (
    <li data-control={control.id}>
      <div className="flex h-7 items-center gap-1">
        <button
          type="button"
          className="tool -ml-2 px-1"
          aria-expanded={isOpen}
          aria-label={`More of ${control.name}`}
          onClick={() => setOpen(!isOpen)}
        >
          {isOpen ? <ChevronDown size={13} /> : <ChevronRight size={13} />}
        </button>
        <TextField
          label={`Name of the control ${control.name}`}
          value={control.name}
          className="h-6 font-semibold"
          onChange={(name) => name.trim() && change((c) => void (c.name = name.trim().slice(0, 60)))}
        />
        <button
          type="button"
          className="tool px-1"
          aria-label={`${control.name} further up`}
          disabled={at === 0}
          onClick={() => move(-1)}
        >
          <ArrowUp size={13} />
        </button>
        <button
          type="button"
          className="tool px-1"
          aria-label={`${control.name} further down`}
          disabled={at === module.controls.length - 1}
          onClick={() => move(1)}
        >
          <ArrowDown size={13} />
        </button>
        <button
          type="button"
          className="tool px-1"
          aria-label={`Take ${control.name} in`}
          title="Takes it in again: it is no control of the module any more"
          onClick={() => takeControlIn(place, control.id)}
        >
          <Undo2 size={13} />
        </button>
      </div>
      {isOpen && (
        <div className="mb-2 border-l-2 edge pl-3">
          <Row label="Heading">
            <TextField
              label={`Heading of ${control.name}`}
              value={control.group}
              className="h-6"
              onChange={(group) => change((c) => void (c.group = group.trim().slice(0, 40)))}
            />
          </Row>
          <Row label="Help">
            <TextField
              label={`Help of ${control.name}`}
              value={control.help}
              className="h-6"
              onChange={(help) => change((c) => void (c.help = help.trim()))}
            />
          </Row>
          {isNumber && (
            <Row label="Range">
              {ends('Range', control.range as [number, number], (range) =>
                change((c) => void (c.range = range), 'range'),
              )}
            </Row>
          )}
          {control.targets.map((target, k) => (
            <Row key={`${target.node} ${target.control}`} label={k === 0 ? 'Sets' : ''}>
              <button
                type="button"
                className="min-w-0 grow truncate text-left hover:underline"
                onClick={() => choose([target.node])}
              >
                {module.nodes[target.node]?.name},{' '}
                {kindOf(catalogue, module.nodes[target.node])?.controls[target.control]?.label}
              </button>
              {isNumber && (
                <button
                  type="button"
                  className="tool shrink-0 px-1 text-2xs"
                  aria-pressed={target.to !== null}
                  title="Whether the range is led to another one there"
                  onClick={() =>
                    change((c) => {
                      const { to } = c.targets[k];
                      c.targets[k].to = to ? null : ([...c.range] as [number, number]);
                    })
                  }
                >
                  fit
                </button>
              )}
              {k > 0 && (
                <button
                  type="button"
                  className="tool shrink-0 px-1"
                  aria-label={`${control.name} does not set it any more`}
                  onClick={() => change((c) => void c.targets.splice(k, 1))}
                >
                  <X size={12} />
                </button>
              )}
              {isNumber &&
                target.to &&
                ends(`To of ${module.nodes[target.node]?.name}`, target.to as [number, number], (to) =>
                  change((c) => void (c.targets[k].to = to), `to ${k}`),
                )}
            </Row>
          ))}
          {spec && <SetAlso {...{ place, module, control, type: spec.type }} />}
        </div>
      )}
    </li>
  );
}

/** Lets a control set further ones inside, of the same type. */
function SetAlso({
  place,
  module,
  control,
  type,
}: {
  place: string;
  module: Module;
  control: ModuleControl;
  type: ControlSpec['type'];
}) {
  const taken = new Set(
    module.controls.flatMap(({ targets }) => targets.map((t) => `${t.node} ${t.control}`)),
  );
  const options = Object.values(module.nodes).flatMap((node) =>
    Object.entries(kindOf(catalogue, node)?.controls ?? {})
      .filter(([name, spec]) => spec.type === type && !taken.has(`${node.id} ${name}`))
      .map(([name, spec]) => [`${node.id} ${name}`, `${node.name}, ${spec.label}`] as const),
  );
  if (!options.length) return null;
  return (
    <Row label="">
      <SelectField
        label={`What ${control.name} sets too`}
        className="min-w-0 flex-1"
        value=""
        options={[['', 'sets too …'], ...options]}
        onChange={(wanted) => {
          const [node, name] = wanted.split(' ');
          editModule(place, (draft) => {
            draft.controls
              .find(({ id }) => id === control.id)
              ?.targets.push({ node, control: name, to: null });
          });
        }}
      />
    </Row>
  );
}

/** The module that is open, while nothing in it is chosen. */
export default function ModuleInspector({ place }: { place: string }) {
  const module = useShow((show) => moduleAt(show, place));
  if (!module) return null;
  const ends = endsOf(module, catalogue);
  const kind = catalogue.get(`module-${module.id}`);
  return (
    <div className="min-h-0 grow overflow-y-auto p-3" data-testid="module-inspector">
      <TextField
        label="Name of the module"
        value={module.name}
        className="h-7 font-semibold"
        onChange={(name) => renameModule(module.id, name)}
      />
      <Row label="It does">
        <TextField
          label="What the module does"
          title="One sentence for Add and for its help"
          value={module.help}
          lines={2}
          onChange={(help) => editModule(place, (draft) => void (draft.help = help.trim()))}
        />
      </Row>
      <Row label="Found by">
        <TextField
          label="Words it is found by"
          title="What a performer would type in Add, parted by commas"
          value={module.words.join(', ')}
          className="h-6"
          onChange={(words) =>
            editModule(
              place,
              (draft) =>
                void (draft.words = words
                  .split(',')
                  .map((word) => word.trim())
                  .filter(Boolean)
                  .slice(0, 40)),
            )
          }
        />
      </Row>
      <Section title="Controls">
        {module.controls.length === 0 && (
          <p className="quiet text-2xs">
            It has none yet. Choose a node and press the arrow beside the name of a control: it becomes one of
            the module.
          </p>
        )}
        <ul>
          {module.controls.map((control) => (
            <ControlEntry key={control.id} {...{ place, module, control, kind }} />
          ))}
        </ul>
      </Section>
      <Ends place={place} nodes={ends.in} end="in" />
      <Ends place={place} nodes={ends.out} end="out" />
    </div>
  );
}
