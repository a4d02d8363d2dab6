import clsx from 'clsx';
import { Power, RotateCcw, Trash2, TriangleAlert, Undo2 } from 'lucide-react';
import { portOf, reaches } from '../../core/patch/wiring';
import { plainValue } from '../../core/run/node-run';
import { partName, partsOf } from '../../core/kind/controls';
import type { Kind } from '../../core/kind/kind';
import { disconnect, removeNodes, renameNode, switchNode } from '../../core/show/edit';
import type { PatchNode, Precision, ReturnSettings, Scene, Wire } from '../../core/show/types';
import { catalogue } from '../../nodes/catalogue';
import { choose, sessionStore, useSession } from '../data/session';
import { editScene, editShow, endGesture, useShow } from '../data/show-store';
import { engine } from '../engine/client';
import { liveStore } from '../engine/live';
import { ScrubNumber } from '../parts/scrub-number';
import { ControlRow } from './controls/control-row';
import { SelectField, TextField } from './controls/field';
import { WireSettings } from './controls/part-sources';

function isDriven(scene: Scene, node: PatchNode, control: string, kind: Kind): boolean {
  const names = partsOf(kind.controls[control]).map((part) => partName(control, part));
  const wired = Object.values(scene.wires).some(
    (w) => w.to.node === node.id && (w.to.port === control || names.includes(w.to.port)),
  );
  return wired || names.some((name) => node.formulas[name] !== undefined || node.motions[name]?.length);
}

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

function ReturnPanel({ scene, wire, back }: { scene: Scene; wire: Wire; back: ReturnSettings }) {
  const edit = (change: Partial<ReturnSettings>, key: string | null = null): void => {
    editScene(
      scene.id,
      (draft) => void Object.assign(draft.wires[wire.id].back!, change),
      key && `${wire.id} ${key}`,
    );
  };
  const carries = catalogue.get(scene.nodes[wire.from.node].kind)?.output;
  // What depends on the loop itself cannot be what it starts from.
  const starts = Object.values(scene.nodes).filter(
    (n) => catalogue.get(n.kind)?.output === carries && !reaches(scene, wire.to.node, n.id),
  );
  const signals = Object.values(scene.nodes).filter((n) => catalogue.get(n.kind)?.output === 'signal');
  const none = ['', 'Nothing'] as const;
  const halfLife = back.keep > 0 && back.keep < 1 ? Math.log(0.5) / Math.log(back.keep) : null;
  return (
    <div className="flex flex-col gap-1" data-testid="return-panel">
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0" title="How much of the frame before survives 1/60 s.">
          Keep
        </span>
        <input
          type="range"
          aria-label="Keep"
          className="range range-xs grow"
          min={0.5}
          max={1}
          step={0.001}
          value={back.keep}
          onChange={(e) => edit({ keep: Number(e.target.value) }, 'keep')}
          onPointerUp={endGesture}
        />
        <ScrubNumber
          label="Keep value"
          value={back.keep}
          step={0.001}
          fine={0.0001}
          digits={4}
          min={0}
          max={1.2}
          className="w-16"
          onChange={(keep) => edit({ keep }, 'keep')}
          onDone={endGesture}
        />
      </div>
      <p className="quiet text-2xs">
        {halfLife === null
          ? 'Nothing fades: what is added stays.'
          : `Half is gone after ${halfLife.toFixed(1)} frames; a steady input settles at ${(1 / (1 - back.keep)).toFixed(1)} times itself.`}
      </p>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0">Starts from</span>
        <SelectField
          label="Starts from"
          value={back.startsFrom ?? ''}
          options={[none, ...starts.map((n) => [n.id, n.name] as const)]}
          className="grow"
          onChange={(v) => edit({ startsFrom: v || null })}
        />
      </div>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0" title="A signal that rises over a half starts the loop again.">
          Clear when
        </span>
        <SelectField
          label="Clear when"
          value={back.clearWhen ?? ''}
          options={[none, ...signals.map((n) => [n.id, n.name] as const)]}
          className="grow"
          onChange={(v) => edit({ clearWhen: v || null })}
        />
        <button
          type="button"
          className="tool"
          onClick={() => engine().command({ type: 'clear-return', scene: scene.id, wire: wire.id })}
        >
          <RotateCcw size={13} /> Clear
        </button>
      </div>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0" title="A soft limit keeps the loop from growing without end.">
          Guard
        </span>
        <SelectField
          label="Guard"
          value={back.guard}
          options={[
            ['soft', 'Soft limit'],
            ['off', 'Off'],
          ]}
          onChange={(v) => edit({ guard: v as ReturnSettings['guard'] })}
        />
        {back.guard === 'soft' && (
          <ScrubNumber
            label="Limit"
            value={back.limit}
            step={0.05}
            fine={0.005}
            min={0.01}
            className="w-16"
            onChange={(limit) => edit({ limit }, 'limit')}
            onDone={endGesture}
          />
        )}
      </div>
    </div>
  );
}

function WireInspector({ scene, wire }: { scene: Scene; wire: Wire }) {
  const from = scene.nodes[wire.from.node];
  const to = scene.nodes[wire.to.node];
  const kind = catalogue.get(to?.kind);
  const port = kind ? portOf(kind, wire.to.port) : null;
  return (
    <div className="flex flex-col gap-2 p-3">
      <div className="flex items-center gap-2">
        <Undo2 size={14} className={wire.back ? 'text-primary' : 'hidden'} />
        <h2 className="grow truncate font-semibold">
          {from?.name} → {to?.name}
        </h2>
        <button
          type="button"
          className="tool"
          aria-label="Remove the wire"
          onClick={() => {
            editScene(scene.id, (draft) => disconnect(draft, wire.id));
            choose([]);
          }}
        >
          <Trash2 size={14} />
        </button>
      </div>
      <p className="quiet">
        {wire.back
          ? 'A return wire: it closes a circle and carries the frame before.'
          : `Into ${wire.to.port}.`}
      </p>
      {wire.back && <ReturnPanel scene={scene} wire={wire} back={wire.back} />}
      {port?.type === 'control' && <WireSettings scene={scene} wire={wire} />}
    </div>
  );
}

function ShowInspector({ scene }: { scene: Scene }) {
  const canvas = useShow((show) => show.canvas);
  const fade = useShow((show) => show.fadeSeconds);
  const workScale = useSession((s) => s.workScale);
  return (
    <div className="flex flex-col gap-1 p-3">
      <h2 className="font-semibold">{scene.name}</h2>
      <p className="quiet mb-2">Choose a node or a wire to see its controls.</p>
      <h3 className="heading mt-1">Canvas of the show</h3>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0">Pixels</span>
        {(['width', 'height'] as const).map((k) => (
          <ScrubNumber
            key={k}
            label={`Canvas ${k}`}
            value={canvas[k]}
            step={1}
            fine={0.25}
            digits={0}
            min={16}
            max={8192}
            className="w-16"
            onChange={(v) => editShow((show) => void (show.canvas[k] = Math.round(v)), `canvas ${k}`)}
            onDone={endGesture}
          />
        ))}
      </div>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0">Frames a second</span>
        <SelectField
          label="Frames a second"
          value={String(canvas.fps)}
          options={['24', '25', '30', '50', '60'].map((f) => [f, f])}
          onChange={(f) => editShow((show) => void (show.canvas.fps = Number(f)))}
        />
      </div>
      <div className="flex h-7 items-center gap-2">
        <span
          className="w-24 shrink-0"
          title="What is drawn while no stage window is open. The stage is always full."
        >
          Work size
        </span>
        <SelectField
          label="Work size"
          value={String(workScale)}
          options={[
            ['auto', 'Holds the frame rate'],
            ['1', 'Full'],
            ['0.5', 'Half'],
            ['0.25', 'Quarter'],
          ]}
          onChange={(v) => {
            const scale = v === 'auto' ? 'auto' : (Number(v) as 1 | 0.5 | 0.25);
            sessionStore.setState({ workScale: scale });
            engine().state({ type: 'work-scale', scale });
          }}
        />
      </div>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0">Fade</span>
        <ScrubNumber
          label="Fade seconds"
          value={fade}
          step={0.05}
          fine={0.01}
          min={0}
          max={60}
          unit="s"
          className="w-16"
          onChange={(v) => editShow((show) => void (show.fadeSeconds = v), 'fade')}
          onDone={endGesture}
        />
      </div>
      <Rehearsal />
    </div>
  );
}

/** Faults that can happen on the night, on purpose and before doors. */
function Rehearsal() {
  return (
    <>
      <h3 className="heading mt-3">Rehearse a fault</h3>
      <div className="flex gap-1">
        <button
          type="button"
          className="btn btn-xs border edge bg-base-100"
          title="Takes the graphics card away for a moment: pictures must stay and come back"
          onClick={() => engine().command({ type: 'rehearse', fault: 'context-loss' })}
        >
          Lose the graphics
        </button>
        <button
          type="button"
          className="btn btn-xs border edge bg-base-100"
          title="Stops the engine: a new one must take over where it was"
          onClick={() => engine().command({ type: 'rehearse', fault: 'crash' })}
        >
          Stop the engine
        </button>
      </div>
    </>
  );
}

function NodeInspector({ scene, node }: { scene: Scene; node: PatchNode }) {
  const kind = catalogue.get(node.kind);
  const fault = liveStore((s) => s.faults[scene.id]?.[node.id]);
  const note = liveStore((s) => s.notes[scene.id]?.[node.id]);
  const onlyDriven = useSession((s) => s.onlyDriven);
  const plain = kind
    ? Object.fromEntries(
        Object.entries(kind.controls).map(([name, spec]) => [name, plainValue(spec, node.controls[name])]),
      )
    : {};
  const shown = kind
    ? Object.entries(kind.controls).filter(
        ([name, spec]) =>
          (spec.shownIf?.(plain) ?? true) && (!onlyDriven || isDriven(scene, node, name, kind)),
      )
    : [];
  const isOut = kind?.output === 'image' && kind.isSceneOut;
  return (
    <>
      <div className="border-b edge p-3 pb-2">
        <div className="flex items-center gap-1">
          <TextField
            label="Name of the node"
            value={node.name}
            className="h-7 font-semibold"
            onChange={(name) => editScene(scene.id, (draft) => renameNode(draft, node.id, name))}
          />
          <button
            type="button"
            className={clsx('tool', !node.on && 'text-error')}
            aria-pressed={!node.on}
            aria-label="Switch the node off"
            title="Off: what enters goes straight through (Ctrl+0)"
            onClick={() => editScene(scene.id, (draft) => switchNode(draft, node.id, !node.on))}
          >
            <Power size={14} />
          </button>
          {!isOut && (
            <button
              type="button"
              className="tool"
              aria-label="Delete the node"
              title="Delete"
              onClick={() => (
                editScene(scene.id, (draft) => removeNodes(draft, catalogue, [node.id])),
                choose([])
              )}
            >
              <Trash2 size={14} />
            </button>
          )}
        </div>
        <p className="quiet mt-1 text-2xs">
          <strong>{kind?.label ?? node.kind}.</strong>{' '}
          {kind?.summary ?? 'This kind is not known here; its data is kept.'}
        </p>
        {fault && (
          <p className="mt-1.5 flex gap-1.5 text-error" role="alert" data-testid="fault">
            <TriangleAlert size={14} className="mt-0.5 shrink-0" /> {fault}
          </p>
        )}
        {note && <p className="mt-1 text-2xs text-primary">{note}</p>}
      </div>
      <div className="min-h-0 grow overflow-y-auto">
        {kind && (
          <section className="px-3 py-2">
            <div className="mb-1 flex items-center">
              <h3 className="heading grow">Controls</h3>
              <label className="quiet flex items-center gap-1.5 text-2xs">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={onlyDriven}
                  onChange={(e) => sessionStore.setState({ onlyDriven: e.target.checked })}
                />{' '}
                only what moves
              </label>
            </div>
            {shown.map(([name, spec]) => (
              <ControlRow key={name} scene={scene} node={node.id} control={name} spec={spec} />
            ))}
            {shown.length === 0 && (
              <p className="quiet">{onlyDriven ? 'Nothing here is driven.' : 'It has no controls.'}</p>
            )}
          </section>
        )}
        {kind?.output === 'image' && <PictureSettings scene={scene} node={node} />}
      </div>
    </>
  );
}

/** The controls of what is chosen: a node, a wire, or the show itself. */
export function Inspector({ scene }: { scene: Scene }) {
  const { selection, wire } = useSession();
  const node = scene.nodes[selection[0]];
  const chosenWire = wire ? scene.wires[wire] : undefined;
  return (
    <section
      className="flex min-h-0 grow flex-col border-t edge"
      aria-label="Inspector"
      data-testid="inspector"
    >
      {node ? (
        <NodeInspector key={node.id} scene={scene} node={node} />
      ) : chosenWire ? (
        <WireInspector scene={scene} wire={chosenWire} />
      ) : (
        <ShowInspector scene={scene} />
      )}
    </section>
  );
}
