import { kindOf, type Kind } from '../../core/kind/kind';
import clsx from 'clsx';
import { CircleHelp, Power, Radio, Trash2, TriangleAlert } from 'lucide-react';
import { lazy, memo, Suspense, useEffect, useState } from 'react';
import { moduleIdOf } from '../../core/module/module-kind';
import { placeAround } from '../../core/module/place';
import { formulaName } from '../../core/formula/names';
import { alikeAmong } from '../../core/show/edit-controls';
import { removeNodes, renameNode, switchNode } from '../../core/show/edit';
import type { PatchNode, Precision, Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { useDarkReason } from './why-dark';
import { choose, useSession } from '../data/session';
import { editScene, endGesture, useKinds } from '../data/show-store';
import { canLearn } from '../inputs/learn';
import { learnNode } from '../inputs/learn-store';
import { liveStore } from '../engine/live';
import { ScrubNumber } from '../parts/scrub-number';
import { SelectField, TextField } from '../parts/field';
import { placeExample } from '../actions/clipboard';
import { ShowInspector } from './show-inspector';

const loadControls = () => import('./controls-section');
const ControlsSection = lazy(loadControls);
const SaveData = lazy(() => import('./save-data'));
const KindHelp = lazy(() => import('./kind-help'));
const WireInspector = lazy(() => import('./wire-inspector'));
const ModuleInspector = lazy(() => import('./module-inspector'));
const ModuleSection = lazy(() => import('./module-section'));

function PictureSettings({ scene, node }: { scene: Scene; node: PatchNode }) {
  const edit = (change: (node: PatchNode) => void, key: string | null = null): void => {
    editScene(scene.id, (draft) => change(draft.nodes[node.id]), key && `${node.id} ${key}`);
  };
  return (
    <section className="border-t edge px-3 py-2">
      <h3 className="heading mb-1">Picture</h3>
      <div className="flex h-7 items-center gap-2">
        <span
          className="w-24 shrink-0"
          title="Pixels of this step; automatic takes those of its first picture, else of the canvas."
        >
          Size
        </span>
        <SelectField
          label="Size"
          value={node.size ? 'own' : 'auto'}
          options={[
            ['auto', 'Automatic'],
            ['own', 'Its own'],
          ]}
          onChange={(v) =>
            edit((n) => {
              if (v === 'own') n.size = [512, 512];
              else delete n.size;
            })
          }
        />
        {node.size?.map((px, k) => (
          <ScrubNumber
            key={k}
            label={k ? 'Height in pixels' : 'Width in pixels'}
            value={px}
            step={1}
            fine={0.25}
            digits={0}
            min={1}
            max={8192}
            className="w-14"
            onChange={(v) => edit((n) => void (n.size![k] = Math.max(1, Math.round(v))), `size ${k}`)}
            onDone={endGesture}
          />
        ))}
      </div>
      <div className="flex h-7 items-center gap-2">
        <span
          className="w-24 shrink-0"
          title="Automatic: 16 bits for pictures, 32 where pixels are used as numbers."
        >
          Precision
        </span>
        <SelectField
          label="Precision"
          value={node.precision}
          options={[
            ['auto', 'Automatic'],
            ['8', '8 bits'],
            ['16', '16 bits'],
            ['32', '32 bits'],
          ]}
          onChange={(v) => edit((n) => void (n.precision = v as Precision))}
        />
      </div>
    </section>
  );
}

/** Name and switches of a node: nothing that its values change. */
const NodeHead = memo(function NodeHead({
  place,
  id,
  name,
  on,
  kind,
  help,
  setHelp,
}: {
  place: string;
  id: string;
  name: string;
  on: boolean;
  kind: Kind | undefined;
  help: boolean;
  setHelp(help: boolean): void;
}) {
  const isOut = kind?.output === 'image' && kind.isSceneOut;
  return (
    <div className="flex items-center gap-1">
      <TextField
        label="Name of the node"
        title={`Formulas call it ${formulaName(name)}`}
        value={name}
        className="h-7 font-semibold"
        onChange={(name) => editScene(place, (draft) => renameNode(draft, id, name))}
      />
      <button
        type="button"
        className={clsx('tool', !on && 'text-error')}
        aria-pressed={!on}
        aria-label="Switch the node off"
        title="Off: what enters goes straight through (Ctrl+0)"
        onClick={() => editScene(place, (draft) => switchNode(draft, id, !on))}
      >
        <Power size={14} />
      </button>
      {kind && canLearn(kind.id) && (
        <button
          type="button"
          className="tool"
          aria-label="Learn"
          title="Learn: takes over the next thing of its kind that moves"
          onClick={() => learnNode(place, id, kind.id, name)}
        >
          <Radio size={14} />
        </button>
      )}
      {kind && (
        <button
          type="button"
          className={clsx('tool', help && 'text-primary')}
          aria-pressed={help}
          aria-label="Help for this kind"
          title="What it does, with a small example that runs"
          onClick={() => setHelp(!help)}
        >
          <CircleHelp size={14} />
        </button>
      )}
      {!isOut && (
        <button
          type="button"
          className="tool"
          aria-label="Delete the node"
          title="Delete"
          onClick={() => (editScene(place, (draft) => removeNodes(draft, catalogue, [id])), choose([]))}
        >
          <Trash2 size={14} />
        </button>
      )}
    </div>
  );
});

function NodeInspector({ scene, node, others }: { scene: Scene; node: PatchNode; others: number }) {
  const kind = kindOf(catalogue, node);
  const fault = liveStore((s) => s.faults[scene.id]?.[node.id]);
  const said = liveStore((s) => s.notes[scene.id]?.[node.id]);
  const dark = useDarkReason(scene.id, node.id);
  const note = said ?? dark;
  const [help, setHelp] = useState(false);
  const alike = useSession((s) => alikeAmong(scene, node.id, s.selection).length);
  return (
    <>
      <div className="border-b edge p-3 pb-2">
        {others > 0 && (
          <p className="mb-1.5 rounded bg-base-300 px-2 py-1 text-2xs" data-testid="several">
            {others + 1} nodes are chosen.{' '}
            {alike > 1
              ? `What is set here is set in all ${alike} of this kind.`
              : `These are the controls of ${node.name} alone.`}
          </p>
        )}
        <NodeHead place={scene.id} {...{ id: node.id, name: node.name, on: node.on, kind, help, setHelp }} />
        <p className="quiet mt-1 text-2xs">
          <strong>{kind?.label ?? node.kind}.</strong>{' '}
          {kind?.summary ?? 'This kind is not known here; its data is kept.'}
        </p>
        {fault && (
          <p className="mt-1.5 flex gap-1.5 text-error" role="alert" data-testid="fault">
            <TriangleAlert size={14} className="mt-0.5 shrink-0" />
            <span className="whitespace-pre-line">{fault}</span>
          </p>
        )}
        {note && <p className="mt-1 text-2xs text-primary">{note}</p>}
      </div>
      {help && kind && (
        <Suspense fallback={null}>
          <KindHelp
            kind={kind}
            onExample={(example, packs) =>
              placeExample(scene, example, [node.place[0], node.place[1] + 220], packs)
            }
          />
        </Suspense>
      )}
      <div className={clsx('min-h-0 grow overflow-y-auto', help && 'hidden')}>
        {kind && (
          <Suspense fallback={null}>
            <ControlsSection scene={scene} node={node} kind={kind} />
          </Suspense>
        )}
        {moduleIdOf(node.kind) !== null && (
          <Suspense fallback={null}>
            <ModuleSection scene={scene} node={node} />
          </Suspense>
        )}
        {kind?.output === 'image' && kind.paint.type !== 'data' && (
          <PictureSettings scene={scene} node={node} />
        )}
        <Suspense fallback={null}>
          <SaveData key={node.id} scene={scene} node={node} />
        </Suspense>
      </div>
    </>
  );
}

/** The controls of what is chosen: a node, a wire, or the show itself. */
export function Inspector({ scene }: { scene: Scene }) {
  const { selection, wire } = useSession();
  // It comes beside the first picture, and is there when a node is chosen.
  useEffect(() => void loadControls(), []);
  useKinds();
  const node = scene.nodes[selection[0]];
  const others = selection.filter((id) => scene.nodes[id]).length - 1;
  const chosenWire = wire ? scene.wires[wire] : undefined;
  return (
    <section
      className="flex min-h-0 grow flex-col border-t edge"
      aria-label="Inspector"
      data-testid="inspector"
    >
      {node ? (
        <NodeInspector key={node.id} scene={scene} node={node} others={others} />
      ) : chosenWire ? (
        <Suspense fallback={null}>
          <WireInspector scene={scene} wire={chosenWire} />
        </Suspense>
      ) : placeAround(scene.id) ? (
        <Suspense fallback={null}>
          <ModuleInspector place={scene.id} />
        </Suspense>
      ) : (
        <ShowInspector scene={scene} />
      )}
    </section>
  );
}
