import { RotateCcw, TriangleAlert } from 'lucide-react';
import { kindOf } from '../../core/kind/kind';
import { reaches } from '../../core/patch/wiring';
import type { Precision, ReturnSettings, Scene, Wire } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { editScene, endGesture } from '../data/show-store';
import { engine } from '../engine/client';
import { liveStore } from '../engine/live';
import { ScrubNumber } from '../parts/scrub-number';
import { SelectField } from '../parts/field';

function Row({ label, help, children }: { label: string; help: string; children: React.ReactNode }) {
  return (
    <div className="flex h-7 items-center gap-2">
      <span className="w-24 shrink-0" title={help}>
        {label}
      </span>
      {children}
    </div>
  );
}

/** What only pictures have: how they are read, kept and brought home. */
function PictureLoop({
  scene,
  wire,
  back,
  edit,
}: {
  scene: Scene;
  wire: Wire;
  back: ReturnSettings;
  edit(change: Partial<ReturnSettings>, key?: string): void;
}) {
  const masks = Object.values(scene.nodes).filter(
    (n) => kindOf(catalogue, n)?.output === 'image' && !reaches(scene, wire.to.node, n.id),
  );
  return (
    <>
      <Row
        label="Keep where bright"
        help="Where this picture is dark, the feedback returns to its start: out = mix(start, previous, mask)."
      >
        <SelectField
          label="Keep where bright"
          value={back.clearWhere ?? ''}
          options={[['', 'Nowhere'], ...masks.map((n) => [n.id, n.name] as const)]}
          className="grow"
          onChange={(v) => edit({ clearWhere: v || null })}
        />
      </Row>
      <Row label="Reading" help="Smooth mixes pixels; crisp takes the nearest, so that fine steps stay hard.">
        <SelectField
          label="Reading"
          value={back.reading}
          options={[
            ['smooth', 'Smooth'],
            ['crisp', 'Crisp'],
          ]}
          onChange={(v) => edit({ reading: v as ReturnSettings['reading'] })}
        />
      </Row>
      <Row label="Size" help="Pixels the loop is kept at, whatever the size of what it comes from.">
        <SelectField
          label="Loop size"
          value={back.size ? 'own' : 'auto'}
          options={[
            ['auto', 'As it comes'],
            ['own', 'Its own'],
          ]}
          onChange={(v) => edit({ size: v === 'own' ? [320, 180] : null })}
        />
        {back.size?.map((px, k) => (
          <ScrubNumber
            key={k}
            label={k ? 'Loop height' : 'Loop width'}
            value={px}
            step={1}
            fine={0.25}
            digits={0}
            min={1}
            max={8192}
            className="w-14"
            onChange={(v) => {
              const size: [number, number] = [back.size![0], back.size![1]];
              size[k] = Math.max(1, Math.round(v));
              edit({ size }, `size ${k}`);
            }}
            onDone={endGesture}
          />
        ))}
      </Row>
      <Row label="Precision" help="Bits a channel that the loop is kept at.">
        <SelectField
          label="Loop precision"
          value={back.precision}
          options={[
            ['auto', 'As it comes'],
            ['8', '8 bits'],
            ['16', '16 bits'],
            ['32', '32 bits'],
          ]}
          onChange={(v) => edit({ precision: v as Precision })}
        />
      </Row>
      <Row
        label="Others see"
        help="What the rest of the patch gets: the picture after this step, or as it entered it. Before, a loop that was cleared stands exactly at home."
      >
        <SelectField
          label="Others see"
          value={back.tap}
          options={[
            ['after', 'After this step'],
            ['before', 'Before this step'],
          ]}
          onChange={(v) => edit({ tap: v as ReturnSettings['tap'] })}
        />
      </Row>
    </>
  );
}

/** The controls of a wire that closes a cycle. */
export default function ReturnPanel({
  scene,
  wire,
  back,
}: {
  scene: Scene;
  wire: Wire;
  back: ReturnSettings;
}) {
  const edit = (change: Partial<ReturnSettings>, key: string | null = null): void => {
    editScene(
      scene.id,
      (draft) => void Object.assign(draft.wires[wire.id].back!, change),
      key && `${wire.id} ${key}`,
    );
  };
  const carries = kindOf(catalogue, scene.nodes[wire.from.node])?.output;
  // What depends on the loop itself cannot be what it starts from.
  const starts = Object.values(scene.nodes).filter(
    (n) => kindOf(catalogue, n)?.output === carries && !reaches(scene, wire.to.node, n.id),
  );
  const signals = Object.values(scene.nodes).filter((n) => kindOf(catalogue, n)?.output === 'signal');
  const none = ['', 'Nothing'] as const;
  const note = liveStore((s) => s.feedback[scene.id]?.[wire.id]);
  const halfLife = back.keep > 0 && back.keep < 1 ? Math.log(0.5) / Math.log(back.keep) : null;
  return (
    <div className="flex flex-col gap-1" data-testid="return-panel">
      {note && (
        <p className="flex gap-1.5 text-error" role="alert" data-testid="blow-out">
          <TriangleAlert size={14} className="mt-0.5 shrink-0" /> {note}
        </p>
      )}
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
        <button type="button" className="tool" onClick={() => engine().clearReturn(scene.id, wire.id)}>
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
      {carries === 'image' && <PictureLoop scene={scene} wire={wire} back={back} edit={edit} />}
    </div>
  );
}
