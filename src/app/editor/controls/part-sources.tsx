import { kindOf } from '../../../core/kind/kind';
import { ArrowLeftRight, Copy, Home, Link, Radio } from 'lucide-react';
import { numbersOf } from '../../../core/run/node-run';
import { naturalRangeOf } from '../../../core/run/natural-range';
import { setFormula, connect, disconnect, sendHome } from '../../../core/show/edit';
import type { Edges, Fit, Scene, Spread, Wire } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { sessionStore, useSession } from '../../data/session';
import { editScene, endGesture } from '../../data/show-store';
import { learnControl } from '../../inputs/learn-store';
import { lastGlance, liveStore } from '../../engine/live';
import { ScrubNumber } from '../../parts/scrub-number';
import { SelectField, TextField } from '../../parts/field';
import MotionRows from './motion-rows';
import { canDraft, DraftValue } from './draft-value';
import { linkTo, wireOf, type PartPlace } from './part-place';

const edgeOptions: readonly (readonly [Edges, string])[] = [
  ['pass', 'go on'],
  ['hold', 'hold'],
  ['wrap', 'wrap'],
  ['mirror', 'mirror'],
];
const spreadOptions: readonly (readonly [Spread, string])[] = [
  ['stretch', 'Stretch'],
  ['repeat', 'Repeat'],
  ['mirror', 'Mirror'],
  ['hold', 'Hold'],
];

function Ends({
  label,
  ends,
  onChange,
}: {
  label: string;
  ends: readonly [number, number];
  onChange(ends: [number, number]): void;
}) {
  const step = Math.max(0.001, Math.abs(ends[1] - ends[0]) / 200 || 0.01);
  return (
    <>
      {([0, 1] as const).map((k) => (
        <ScrubNumber
          key={k}
          label={`${label} ${k === 0 ? 'low' : 'high'}`}
          value={ends[k]}
          step={step}
          fine={step / 10}
          className="w-16"
          onChange={(v) => onChange(k === 0 ? [v, ends[1]] : [ends[0], v])}
          onDone={endGesture}
        />
      ))}
    </>
  );
}

/** The fit of a wire into a control, its lane, and how its samples spread. */
export function WireSettings({ scene, wire }: { scene: Scene; wire: Wire }) {
  const source = scene.nodes[wire.from.node];
  const edit = (change: (wire: Wire) => void, key: string | null = null): void => {
    editScene(scene.id, (draft) => change(draft.wires[wire.id]), key && `${wire.id} ${key}`);
  };
  const fit: Fit = wire.fit ?? {
    from: naturalRangeOf(source, catalogue),
    to: [0, 1],
    bend: 1,
    edges: 'pass',
  };
  const put = (change: Partial<Fit>, key: string): void =>
    edit((w) => void (w.fit = { ...fit, ...change }), key);
  const lanes = lastGlance(wire.from.node)?.lanes ?? [];
  return (
    <div className="grid grid-cols-[4.5rem_1fr] items-center gap-x-2 gap-y-1">
      <span className="quiet">From</span>
      <div className="flex gap-1">
        <Ends label="From" ends={fit.from} onChange={(from) => put({ from }, 'from')} />
        <button
          type="button"
          className="tool"
          title="Turn the range over"
          aria-label="Invert"
          onClick={() => put({ to: [fit.to[1], fit.to[0]] }, 'invert')}
        >
          <ArrowLeftRight size={13} />
        </button>
      </div>
      <span className="quiet">To</span>
      <div className="flex gap-1">
        <Ends label="To" ends={fit.to} onChange={(to) => put({ to }, 'to')} />
      </div>
      <span className="quiet">Bend, edges</span>
      <div className="flex gap-1">
        <ScrubNumber
          label="Bend"
          value={fit.bend}
          step={0.02}
          fine={0.002}
          min={0.05}
          max={20}
          className="w-16"
          onChange={(bend) => put({ bend }, 'bend')}
          onDone={endGesture}
        />
        <SelectField
          label="Edges"
          value={fit.edges}
          options={edgeOptions}
          onChange={(edges) => put({ edges: edges as Edges }, 'edges')}
        />
      </div>
      <span className="quiet">Lane, spread</span>
      <div className="flex gap-1">
        <SelectField
          label="Lane"
          value={wire.lane ?? ''}
          options={[['', 'by name'], ...lanes.map((lane) => [lane, lane] as const)]}
          className="w-20"
          onChange={(lane) =>
            edit((w) => {
              if (lane) w.lane = lane;
              else delete w.lane;
            })
          }
        />
        <SelectField
          label="Spread"
          value={wire.spread ?? 'stretch'}
          options={spreadOptions}
          onChange={(spread) => edit((w) => void (w.spread = spread as Spread))}
        />
      </div>
    </div>
  );
}

/** Where the value of one control part comes from: by hand, a formula, a wire; and what moves on it. */
export default function PartSources({ place }: { place: PartPlace }) {
  const { scene, node, control, part, spec } = place;
  const wire = wireOf(place);
  const formula = wire ? undefined : scene.nodes[node].formulas[part];
  const fault = liveStore((s) => s.faults[scene.id]?.[node]);
  const formulaFault =
    formula !== undefined && fault?.startsWith(`${part}: `) ? fault.slice(part.length + 2) : null;
  const link = useSession((s) => s.link);
  const canPaste = link?.scene === scene.id && (link.node !== node || link.part !== part);
  const signals = Object.values(scene.nodes).filter(
    (n) => kindOf(catalogue, n)?.output === 'signal' && n.id !== node,
  );
  const source = wire ? `wire:${wire.from.node}` : formula !== undefined ? 'formula' : 'value';
  const setSource = (wanted: string): void => {
    editScene(scene.id, (draft) => {
      if (wire && !wanted.startsWith('wire:')) disconnect(draft, wire.id);
      if (wanted === 'value') setFormula(draft, node, part, null);
      else if (wanted === 'formula') setFormula(draft, node, part, 'value');
      else {
        setFormula(draft, node, part, null);
        connect(draft, catalogue, wanted.slice(5), node, wire?.to.port ?? part);
      }
    });
  };
  return (
    <div
      className="mt-1 mb-2 flex flex-col gap-2 rounded border-l-2 border-primary bg-base-100/60 p-2"
      data-sources={part}
    >
      <div className="flex items-center gap-1.5">
        <SelectField
          label="Source"
          value={source}
          className="grow"
          options={[
            ['value', 'By hand'],
            ['formula', 'Formula'],
            ...signals.map((s) => [`wire:${s.id}`, `Wire from ${s.name}`] as const),
          ]}
          onChange={setSource}
        />
        <button
          type="button"
          className="tool"
          title="Learn: follows the next dial, key, pad, stick or message that moves"
          aria-label="Learn"
          onClick={() => learnControl(scene.id, node, part, `${scene.nodes[node].name} · ${spec.label}`)}
        >
          <Radio size={13} />
        </button>
        <button
          type="button"
          className="tool"
          title="Copy as a link: paste it on another control, which then follows this one"
          aria-label="Copy as a link"
          onClick={() => sessionStore.setState({ link: linkTo(place) })}
        >
          <Copy size={13} />
        </button>
        {canPaste && (
          <button
            type="button"
            className="tool text-primary"
            title={`Follow ${link.text}`}
            aria-label="Paste the link"
            onClick={() =>
              editScene(scene.id, (draft) => {
                if (wire) disconnect(draft, wire.id);
                setFormula(draft, node, part, link.text);
              })
            }
          >
            <Link size={13} />
          </button>
        )}
        <button
          type="button"
          className="tool"
          title="Reset: back to its home value, and nothing drives it"
          aria-label="Reset"
          onClick={() => editScene(scene.id, (d) => sendHome(d, catalogue, node, control))}
        >
          <Home size={13} />
        </button>
      </div>
      {canDraft(spec) && (
        <DraftValue
          scene={scene}
          node={node}
          control={control}
          spec={spec}
          value={numbersOf(spec, scene.nodes[node].controls[control])[0]}
        />
      )}
      {formula !== undefined && (
        <div>
          <TextField
            label="Formula"
            value={formula}
            mono
            live
            invalid={formulaFault !== null}
            onChange={(text) =>
              editScene(scene.id, (d) => setFormula(d, node, part, text), `${node} ${part} formula`)
            }
            onDone={endGesture}
          />
          {formulaFault ? (
            <p className="mt-1 text-error" role="alert">
              {formulaFault}
            </p>
          ) : (
            <p className="quiet mt-1 text-2xs">
              time, beat, frame, i, n, u, value, and other nodes by name: sin(time) * 0.5
            </p>
          )}
        </div>
      )}
      {wire && <WireSettings scene={scene} wire={wire} />}
      <MotionRows place={place} />
    </div>
  );
}
