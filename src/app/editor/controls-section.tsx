import { lazy, Suspense, useState } from 'react';
import { partName, partsOf } from '../../core/kind/controls';
import type { Kind } from '../../core/kind/kind';
import { isChanged } from '../../core/show/edit-controls';
import { plainValue } from '../../core/run/node-run';
import type { PatchNode, Scene } from '../../core/document/types';
import { sessionStore, useSession } from '../data/session';
import { SelectField } from '../parts/field';
import { ControlGroups } from './control-groups';
import { ControlRow } from './controls/control-row';

const PresetMenu = lazy(() => import('./preset-menu'));

/** Controls above which there is a field to find one. */
const manyControls = 8;

const nothing = {
  all: 'It has no controls.',
  changed: 'Nothing here is changed.',
  driven: 'Nothing here is driven.',
} as const;

function isDriven(scene: Scene, node: PatchNode, control: string, kind: Kind): boolean {
  const names = partsOf(kind.controls[control]).map((part) => partName(control, part));
  const wired = Object.values(scene.wires).some(
    (w) => w.to.node === node.id && (w.to.port === control || names.includes(w.to.port)),
  );
  return (
    wired ||
    Boolean(node.motions[control]?.length) ||
    names.some((name) => node.formulas[name] !== undefined || node.motions[name]?.length)
  );
}

/** The controls of a node: all of them, or those that are changed or driven, or in which a text is found. */
export default function ControlsSection({
  scene,
  node,
  kind,
}: {
  scene: Scene;
  node: PatchNode;
  kind: Kind;
}) {
  const which = useSession((s) => s.shownControls);
  const [search, setSearch] = useState('');
  const plain = Object.fromEntries(
    Object.entries(kind.controls).map(([name, spec]) => [name, plainValue(spec, node.controls[name])]),
  );
  const offered = Object.entries(kind.controls).filter(([, spec]) => spec.shownIf?.(plain) ?? true);
  const wanted = search.trim().toLowerCase();
  const shown = offered.filter(([name, spec]) => {
    if (wanted && !`${spec.label} ${spec.help}`.toLowerCase().includes(wanted)) return false;
    if (which === 'changed') return isChanged(spec, node.controls[name]) || isDriven(scene, node, name, kind);
    return which === 'all' || isDriven(scene, node, name, kind);
  });
  return (
    <section className="px-3 py-2">
      <div className="mb-1 flex items-center gap-1">
        <h3 className="heading">Controls</h3>
        {offered.length > manyControls && (
          <input
            type="search"
            aria-label="Find a control"
            placeholder="find"
            className="h-6 w-16 min-w-0 rounded border edge bg-base-100 px-1.5 outline-none focus:border-primary"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        )}
        <span className="grow" />
        <Suspense fallback={null}>
          <PresetMenu scene={scene} node={node} />
        </Suspense>
        <SelectField
          label="Which controls are shown"
          value={which}
          options={[
            ['all', 'All'],
            ['changed', 'Changed'],
            ['driven', 'Driven'],
          ]}
          onChange={(value) =>
            sessionStore.setState({ shownControls: value as 'all' | 'changed' | 'driven' })
          }
        />
      </div>
      <ControlGroups
        kind={kind.id}
        shown={shown}
        row={(name, spec) => (
          <ControlRow key={name} scene={scene} node={node.id} control={name} spec={spec} />
        )}
      />
      {shown.length === 0 && <p className="quiet">{wanted ? 'No control of that name.' : nothing[which]}</p>}
    </section>
  );
}
