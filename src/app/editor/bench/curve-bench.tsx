import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { kindOf, type Kind } from '../../../core/kind/kind';
import type { CurvesSpec } from '../../../core/kind/controls';
import { plainValue } from '../../../core/run/node-run';
import { setControl } from '../../../core/show/edit';
import { easeKeys, inOrder, moveKeys, slopeAt, stretchKeys, type Easing } from '../../../core/signal/curve';
import type { CurveKey, CurveLane, PatchNode, Scene } from '../../../core/document/types';
import { loopSecondsOf } from '../../../core/time/clock';
import { catalogue } from '../../../nodes/catalogue';
import { sessionStore, useSession } from '../../data/session';
import { editScene, endGesture, useShow } from '../../data/show-store';
import { liveStore } from '../../engine/live';
import { ScrubNumber } from '../../parts/scrub-number';
import { SelectField, TextField } from '../../parts/field';
import { CurvePlot, laneColour } from './curve-plot';

const easings: readonly (readonly [Easing, string])[] = [
  ['line', 'Line'],
  ['in', 'Slow start'],
  ['out', 'Slow end'],
  ['both', 'Both'],
  ['hold', 'Hold'],
];

const forms: readonly (readonly [CurveKey['form'], string])[] = [
  ['smooth', 'Smooth'],
  ['straight', 'Straight'],
  ['hold', 'Hold'],
  ['free', 'Free'],
];

/** Keys that were copied, with times from the first of them. */
let copied: CurveKey[] = [];

/** Where the node is along its curves, if it says so. */
function usePlayhead(
  scene: Scene,
  spec: CurvesSpec,
  plain: Readonly<Record<string, unknown>>,
): number | null {
  const tempo = useShow((show) => show.tempo);
  const fps = useShow((show) => show.canvas.fps);
  return liveStore(({ transport: { time, beat, frame } }) => {
    if (!spec.playhead) return null;
    const loop = time / loopSecondsOf(scene.loop, tempo.bpm, fps);
    return spec.playhead(plain, { time, beat, frame, loop });
  });
}

function Lanes({
  lanes,
  active,
  many,
  onActive,
  onChange,
}: {
  lanes: readonly CurveLane[];
  active: number;
  many: boolean;
  onActive(lane: number): void;
  onChange(lanes: CurveLane[]): void;
}) {
  const names = lanes.map((lane) => lane.name);
  const fresh = (): string => {
    for (let k = 1; ; k++) if (!names.includes(`lane${k}`)) return `lane${k}`;
  };
  return (
    <div className="flex w-36 shrink-0 flex-col gap-1 overflow-y-auto pr-2" role="listbox" aria-label="Lanes">
      {lanes.map((lane, k) => (
        <div key={k} role="option" aria-selected={k === active} className="flex items-center gap-1.5">
          <button
            type="button"
            className="h-4 w-4 shrink-0 rounded-full border-2"
            style={{ borderColor: laneColour(k), background: k === active ? laneColour(k) : 'transparent' }}
            aria-label={`Draw ${lane.name}`}
            onClick={() => onActive(k)}
          />
          <TextField
            label={`Name of lane ${k + 1}`}
            value={lane.name}
            className="h-6"
            onChange={(name) => {
              const wanted = name.trim().slice(0, 40);
              if (wanted && !names.includes(wanted))
                onChange(lanes.map((l, j) => (j === k ? { ...l, name: wanted } : l)));
            }}
          />
          {lanes.length > 1 && (
            <button
              type="button"
              className="tool"
              aria-label={`Remove ${lane.name}`}
              onClick={() => onChange(lanes.filter((_, j) => j !== k))}
            >
              <Trash2 size={12} />
            </button>
          )}
        </div>
      ))}
      {many && (
        <button
          type="button"
          className="tool self-start"
          onClick={() => onChange([...lanes, { name: fresh(), keys: [{ at: 0, value: 0, form: 'smooth' }] }])}
        >
          <Plus size={13} /> Lane
        </button>
      )}
    </div>
  );
}

/** Draws the curves of a node: keys with their form, slopes and easing; snapped, copied, stretched and slid. */
export default function CurveBench({ scene, node, kind }: { scene: Scene; node: PatchNode; kind: Kind }) {
  const wanted = useSession((s) => s.benchControl);
  const options = Object.entries(kind.controls).filter(([, spec]) => spec.type === 'curves');
  const [control, found] = options.find(([name]) => name === wanted) ?? options[0];
  const spec = found as CurvesSpec;
  const controls = kindOf(catalogue, node)!.controls;
  const plain = Object.fromEntries(
    Object.entries(controls).map(([name, s]) => [name, plainValue(s, node.controls[name])]),
  );
  const lanes = plain[control] as unknown as CurveLane[];
  const span =
    typeof spec.span === 'number'
      ? spec.span
      : Number((plain[spec.span.control] as unknown as number[])[0] ?? plain[spec.span.control]);
  const [laneWanted, setLane] = useState(0);
  const active = Math.min(laneWanted, lanes.length - 1);
  const { keys } = lanes[active];
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [snap, setSnap] = useState(0);
  const playhead = usePlayhead(scene, spec, plain);

  const put = (next: CurveLane[], gesture: string | null = null): void => {
    editScene(
      scene.id,
      (draft) => setControl(draft, node.id, control, next),
      gesture && `${node.id} ${control} ${gesture}`,
    );
  };
  /** Takes over keys of the drawn lane, which may stand in any order, with those of them that stay chosen. */
  const putKeys = (
    next: readonly CurveKey[],
    stay: ReadonlySet<number>,
    gesture: string | null = null,
  ): void => {
    const order = next.map((_, k) => k).sort((a, b) => next[a].at - next[b].at || a - b);
    setChosen(new Set(order.flatMap((k, place) => (stay.has(k) ? [place] : []))));
    put(
      lanes.map((lane, k) => (k === active ? { ...lane, keys: inOrder(next) } : lane)),
      gesture,
    );
  };
  const snapped = (at: number): number => (snap > 0 ? Number((Math.round(at / snap) * snap).toFixed(6)) : at);
  const picked = [...chosen].filter((k) => k < keys.length).sort((a, b) => a - b);
  const first = keys[picked[0]] as CurveKey | undefined;
  const change = (by: (key: CurveKey, k: number) => CurveKey, gesture: string | null = null): void =>
    putKeys(
      keys.map((key, k) => (chosen.has(k) ? by(key, k) : key)),
      chosen,
      gesture,
    );
  const remove = (): void => {
    const left = keys.filter((_, k) => !chosen.has(k));
    if (left.length) putKeys(left, new Set());
  };
  const copy = (): void => {
    if (first) copied = picked.map((k) => ({ ...keys[k], at: keys[k].at - first.at }));
  };
  const paste = (): void => {
    if (!copied.length) return;
    const last = copied[copied.length - 1].at;
    const start = snapped(playhead !== null && playhead + last <= span ? playhead : Math.max(0, span - last));
    const next = [...keys, ...copied.map((key) => ({ ...key, at: key.at + start }))];
    putKeys(next, new Set(copied.map((_, k) => keys.length + k)));
  };
  const onKeyDown = (event: React.KeyboardEvent): void => {
    const step = snap > 0 ? snap : span / 100;
    const moves: Record<string, { at: number; value: number }> = {
      ArrowLeft: { at: -step, value: 0 },
      ArrowRight: { at: step, value: 0 },
      ArrowUp: { at: 0, value: event.shiftKey ? 0.01 : 0.1 },
      ArrowDown: { at: 0, value: event.shiftKey ? -0.01 : -0.1 },
    };
    const isChord = event.ctrlKey || event.metaKey;
    if (moves[event.key] && picked.length)
      putKeys(moveKeys(keys, chosen, moves[event.key]), chosen, 'arrows');
    else if (event.key === 'Delete' || event.key === 'Backspace') remove();
    else if (isChord && event.key === 'c') copy();
    else if (isChord && event.key === 'v') paste();
    else if (isChord && event.key === 'a') setChosen(new Set(keys.keys()));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  return (
    <div className="flex min-w-0 grow flex-col gap-1 px-3 pb-2" data-testid="curves">
      <div className="flex h-7 shrink-0 items-center gap-1.5">
        {options.length > 1 && (
          <SelectField
            label="Control"
            value={control}
            options={options.map(([name, { label }]) => [name, label])}
            onChange={(name) => sessionStore.setState({ benchControl: name })}
          />
        )}
        <span className="quiet">Snap</span>
        <SelectField
          label="Snap"
          value={String(snap)}
          options={[
            ['0', 'off'],
            ...[16, 8, 4].map((parts): [string, string] => [
              String(span / parts),
              `${Number((span / parts).toFixed(3))}`,
            ]),
            ...(span >= 2 ? ([['1', '1']] as [string, string][]) : []),
          ]}
          onChange={(v) => setSnap(Number(v))}
        />
        <span className="mx-1 h-4 border-l edge" />
        {first ? (
          <>
            <ScrubNumber
              label="Key at"
              value={first.at}
              step={span / 400}
              fine={span / 4000}
              className="w-16"
              onChange={(at) =>
                putKeys(moveKeys(keys, chosen, { at: at - first.at, value: 0 }), chosen, 'at')
              }
              onDone={endGesture}
            />
            <ScrubNumber
              label="Key value"
              value={first.value}
              step={0.01}
              fine={0.001}
              className="w-16"
              onChange={(value) => change((key) => ({ ...key, value }), 'value')}
              onDone={endGesture}
            />
            <SelectField
              label="Form"
              value={first.form}
              options={forms}
              onChange={(form) =>
                change((key, k) => {
                  const { slopes, ...rest } = key;
                  void slopes;
                  // A key that is set free goes on as it was.
                  return form === 'free'
                    ? { ...rest, form, slopes: [slopeAt(keys, k, 0), slopeAt(keys, k, 1)] }
                    : { ...rest, form: form as CurveKey['form'] };
                })
              }
            />
            <div className="flex" role="group" aria-label="The way to the next key">
              {easings.map(([easing, words]) => (
                <button
                  key={easing}
                  type="button"
                  className="tool px-1!"
                  title="The way from the chosen key to the next"
                  disabled={picked[0] >= keys.length - 1}
                  onClick={() => putKeys(easeKeys(keys, picked[0], easing), chosen)}
                >
                  {words}
                </button>
              ))}
            </div>
            <span className="mx-1 h-4 border-l edge" />
            {([2, 0.5] as const).map((factor) => (
              <button
                key={factor}
                type="button"
                className="tool px-1!"
                title="Stretches the chosen keys in time, from the first of them"
                disabled={picked.length < 2}
                onClick={() => putKeys(stretchKeys(keys, new Set(picked), factor), chosen)}
              >
                × {factor}
              </button>
            ))}
            <button type="button" className="tool" aria-label="Delete the keys" onClick={remove}>
              <Trash2 size={13} />
            </button>
          </>
        ) : (
          <span className="quiet truncate">
            Double-click adds a key; drag to move, or around several to choose them. Ctrl+C, Ctrl+V, arrows,
            Delete.
          </span>
        )}
      </div>
      <div className="flex min-h-0 grow">
        <Lanes
          lanes={lanes}
          active={active}
          many={spec.many}
          onActive={(lane) => {
            setLane(lane);
            setChosen(new Set());
          }}
          onChange={(next) => put(next)}
        />
        <CurvePlot
          lanes={lanes}
          active={active}
          chosen={chosen}
          span={span}
          snap={snap}
          playhead={playhead}
          onChoose={setChosen}
          onMove={(from, by, still) =>
            putKeys(
              moveKeys(from, still, {
                at:
                  snap > 0
                    ? snapped(from[Math.min(...still)].at + by.at) - from[Math.min(...still)].at
                    : by.at,
                value: by.value,
              }),
              still,
              'drag',
            )
          }
          onSlopes={(k, slopes) =>
            putKeys(
              keys.map((key, j) => (j === k ? { ...key, form: 'free' as const, slopes } : key)),
              chosen,
              'slope',
            )
          }
          onAdd={(at, value) =>
            putKeys([...keys, { at: snapped(at), value, form: 'smooth' }], new Set([keys.length]))
          }
          onDone={endGesture}
          onKeyDown={onKeyDown}
        />
      </div>
    </div>
  );
}
