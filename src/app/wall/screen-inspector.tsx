import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { freeName } from '../../core/show/create';
import { noBlend, plainColour } from '../../core/wall/screens';
import { flatWarp, mostWarpPoints, withPoints } from '../../core/wall/warp';
import type { ScreenOutput } from '../../core/document/types';
import { editOutput } from '../actions/wall-actions';
import { endGesture, showStore, useShow } from '../data/show-store';
import { SelectField, TextField } from '../parts/field';
import { say } from '../parts/notices';
import { ScrubNumber } from '../parts/scrub-number';
import { askDisplays, canAskDisplays, chooseDisplay, displayStore } from '../data/displays';
import { wallSession } from '../data/wall-session';

interface Form {
  step: number;
  min: number;
  max: number;
  unit?: string;
  digits?: number;
  /** What is shown for each of the value. */
  times?: number;
}

const pixels: Form = { step: 1, min: -100000, max: 100000, digits: 1, unit: ' px' };
const length: Form = { ...pixels, min: 1 };
const percent: Form = { step: 0.1, min: 0, max: 100, digits: 1, unit: ' %', times: 100 };

function Numbers({
  output,
  label,
  names,
  form: { times = 1, ...form },
  values,
  set,
}: {
  output: ScreenOutput;
  label: string;
  /** One for each value; null: the label says it all. */
  names: readonly string[] | null;
  form: Form;
  values: readonly number[];
  set(one: ScreenOutput, k: number, value: number): void;
}) {
  return (
    <div className="flex min-h-7 items-center gap-2">
      <span className="w-24 shrink-0">{label}</span>
      {values.map((value, k) => (
        <ScrubNumber
          key={k}
          label={names ? `${label} ${names[k]}` : label}
          value={value * times}
          {...form}
          fine={form.step / 10}
          className="min-w-0 flex-1"
          onChange={(v) => editOutput(output.id, (one) => set(one, k, v / times), `${label} ${k}`)}
          onDone={endGesture}
        />
      ))}
    </div>
  );
}

function Section({
  title,
  reset,
  children,
}: {
  title: string;
  /** Brings it back to what changes nothing; absent: it is so already. */
  reset?: () => void;
  children: React.ReactNode;
}) {
  return (
    <section className="border-t edge py-2" aria-label={title}>
      <div className="mb-1 flex h-6 items-center">
        <h3 className="heading grow">{title}</h3>
        {reset && (
          <button type="button" className="tool text-2xs" onClick={reset}>
            Reset
          </button>
        )}
      </div>
      {children}
    </section>
  );
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const channels = ['red', 'green', 'blue'] as const;
const sides = ['left', 'right', 'top', 'bottom'] as const;

function DisplayRow({ output }: { output: ScreenOutput }) {
  const { displays, choices } = displayStore();
  const show = showStore((s) => s.id);
  if (!canAskDisplays())
    return (
      <p className="quiet text-2xs">
        This browser can’t place windows: move the window of the screen to its display, and press F there.
      </p>
    );
  if (!displays)
    return (
      <button
        type="button"
        className="tool self-start"
        onClick={() =>
          void askDisplays().catch(() =>
            say({
              tone: 'warning',
              text: 'Displays are chosen once this page may manage windows: allow it beside the address.',
            }),
          )
        }
      >
        Choose a display …
      </button>
    );
  const chosen = choices[`${show} ${output.id}`] ?? '';
  const known = displays.map(({ key, label, width, height }): [string, string] => [
    key,
    `${label} · ${width} x ${height}`,
  ]);
  const gone: [string, string][] =
    chosen && !known.some(([key]) => key === chosen)
      ? [[chosen, `${chosen.replace(/ [^ ]*$/, '')} · not here`]]
      : [];
  return (
    <div className="flex h-7 items-center gap-2">
      <span className="w-24 shrink-0">Display</span>
      <SelectField
        label="Display"
        className="min-w-0 flex-1"
        value={chosen}
        options={[['', 'A plain window'], ...known, ...gone]}
        onChange={(key) => chooseDisplay(show, output.id, key)}
      />
    </div>
  );
}

function Masks({ output }: { output: ScreenOutput }) {
  const add = (): void => {
    editOutput(output.id, (one) =>
      one.masks.push({
        points: [
          [0.25, 0.25],
          [0.75, 0.25],
          [0.75, 0.75],
          [0.25, 0.75],
        ],
        soft: 0,
        hides: 'outside',
      }),
    );
    wallSession.setState({ tab: 'output', handles: 'masks' });
  };
  return (
    <Section title="Masks">
      {output.masks.map(({ points, soft, hides }, m) => (
        <div key={m} className="mb-1.5 rounded border edge p-1.5" data-mask={m}>
          <div className="flex h-7 items-center gap-1">
            <SelectField
              label={`Mask ${m + 1} hides`}
              className="flex-1"
              value={hides}
              options={[
                ['outside', 'Hides the outside'],
                ['inside', 'Hides the inside'],
              ]}
              onChange={(v) => editOutput(output.id, (one) => (one.masks[m].hides = v as typeof hides))}
            />
            <button
              type="button"
              className="tool"
              aria-label={`Another point for mask ${m + 1}`}
              title="Adds a point after the last"
              disabled={points.length >= 32}
              onClick={() =>
                editOutput(output.id, (one) => {
                  const list = one.masks[m].points;
                  const [a, b] = [list[list.length - 1], list[0]];
                  list.push([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]);
                })
              }
            >
              <Plus size={13} />
            </button>
            <button
              type="button"
              className="tool"
              aria-label={`Remove mask ${m + 1}`}
              title="Removes this mask"
              onClick={() => editOutput(output.id, (one) => void one.masks.splice(m, 1))}
            >
              <Trash2 size={13} />
            </button>
          </div>
          <Numbers
            output={output}
            label="Soft edge"
            names={null}
            form={{ ...percent, max: 50 }}
            values={[soft]}
            set={(one, _, v) => (one.masks[m].soft = v)}
          />
        </div>
      ))}
      <button type="button" className="tool" onClick={add} disabled={output.masks.length >= 8}>
        <Plus size={13} /> Mask
      </button>
    </Section>
  );
}

function WarpSection({ output }: { output: ScreenOutput }) {
  const { warp } = output;
  const [point, setPoint] = useState(0);
  const at = Math.min(point, warp.points.length - 1);
  const counts = Array.from({ length: mostWarpPoints - 1 }, (_, k): [string, string] => [
    `${k + 2}`,
    `${k + 2}`,
  ]);
  return (
    <Section
      title="Warp"
      reset={
        same(warp, flatWarp()) ? undefined : () => editOutput(output.id, (one) => (one.warp = flatWarp()))
      }
    >
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0">Points</span>
        {(['columns', 'rows'] as const).map((axis) => (
          <SelectField
            key={axis}
            label={`Warp ${axis}`}
            value={String(warp[axis])}
            options={counts}
            onChange={(v) =>
              editOutput(output.id, (one) => {
                const now = { columns: one.warp.columns, rows: one.warp.rows, [axis]: Number(v) };
                one.warp = withPoints(one.warp, now.columns, now.rows);
              })
            }
          />
        ))}
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            className="toggle toggle-xs"
            checked={warp.smooth}
            disabled={warp.columns === 2 && warp.rows === 2}
            onChange={(e) => editOutput(output.id, (one) => (one.warp.smooth = e.target.checked))}
          />
          Curved
        </label>
      </div>
      <div className="flex min-h-7 items-center gap-2">
        <SelectField
          label="Point of the warp"
          className="w-24 shrink-0"
          value={String(at)}
          options={warp.points.map((_, k): [string, string] => [
            `${k}`,
            `Point ${(k % warp.columns) + 1}.${Math.floor(k / warp.columns) + 1}`,
          ])}
          onChange={(v) => setPoint(Number(v))}
        />
        {[0, 1].map((axis) => (
          <ScrubNumber
            key={axis}
            label={`Point ${axis ? 'y' : 'x'}`}
            value={warp.points[at][axis] * 100}
            step={0.1}
            fine={0.01}
            digits={2}
            min={-400}
            max={500}
            unit=" %"
            className="min-w-0 flex-1"
            onChange={(v) =>
              editOutput(output.id, (one) => (one.warp.points[at][axis] = v / 100), `point ${at} ${axis}`)
            }
            onDone={endGesture}
          />
        ))}
      </div>
    </Section>
  );
}

/** Everything about one screen, in numbers. */
export function ScreenInspector({ output }: { output: ScreenOutput }) {
  const names = useShow((show) => show.wall.outputs);
  const { part, blend, colour } = output;
  const turn: Form = { step: 0.5, min: -360, max: 360, unit: '°', digits: 2 };
  return (
    <div className="flex flex-col gap-0.5 px-3 pt-2 pb-4" data-testid="screen-inspector">
      <TextField
        label="Name of the output"
        value={output.name}
        className="mb-1 font-semibold"
        onChange={(name) => {
          if (!name.trim()) return;
          const others = names.filter(({ id }) => id !== output.id).map((one) => one.name);
          editOutput(output.id, (one) => (one.name = freeName(name.trim().slice(0, 120), others)));
        }}
      />
      <DisplayRow output={output} />
      <Section title="Part of the canvas">
        <Numbers
          output={output}
          label="Place"
          names={['x', 'y']}
          form={pixels}
          values={[part.x, part.y]}
          set={(one, k, v) => (one.part[k ? 'y' : 'x'] = v)}
        />
        <Numbers
          output={output}
          label="Size"
          names={['width', 'height']}
          form={length}
          values={[part.width, part.height]}
          set={(one, k, v) => (one.part[k ? 'height' : 'width'] = v)}
        />
        <Numbers
          output={output}
          label="Turn"
          names={null}
          form={turn}
          values={[part.turn]}
          set={(one, _, v) => (one.part.turn = v)}
        />
        <div className="flex h-7 items-center gap-2">
          <span className="w-24 shrink-0">Mounted</span>
          <SelectField
            label="Quarter turns"
            className="min-w-0 flex-1"
            value={String(output.quarterTurns)}
            options={[
              ['0', 'Upright'],
              ['1', 'Turned 90°'],
              ['2', 'Turned 180°'],
              ['3', 'Turned 270°'],
            ]}
            onChange={(v) => editOutput(output.id, (one) => (one.quarterTurns = Number(v)))}
          />
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="toggle toggle-xs"
              checked={output.mirrored}
              onChange={(e) => editOutput(output.id, (one) => (one.mirrored = e.target.checked))}
            />
            Mirrored
          </label>
        </div>
      </Section>
      <WarpSection output={output} />
      <Masks output={output} />
      <Section
        title="Edge blend"
        reset={
          same(blend, noBlend()) ? undefined : () => editOutput(output.id, (one) => (one.blend = noBlend()))
        }
      >
        <Numbers
          output={output}
          label="Left, right"
          names={['left', 'right']}
          form={percent}
          values={[blend.left, blend.right]}
          set={(one, k, v) => (one.blend[sides[k]] = v)}
        />
        <Numbers
          output={output}
          label="Top, bottom"
          names={['top', 'bottom']}
          form={percent}
          values={[blend.top, blend.bottom]}
          set={(one, k, v) => (one.blend[sides[k + 2]] = v)}
        />
        <Numbers
          output={output}
          label="Curve"
          names={null}
          form={{ step: 0.02, min: 1, max: 5, digits: 2 }}
          values={[blend.power]}
          set={(one, _, v) => (one.blend.power = v)}
        />
        <Numbers
          output={output}
          label="Gamma"
          names={null}
          form={{ step: 0.01, min: 1, max: 3, digits: 2 }}
          values={[blend.gamma]}
          set={(one, _, v) => (one.blend.gamma = v)}
        />
        <Numbers
          output={output}
          label="Black lift"
          names={null}
          form={{ ...percent, max: 50 }}
          values={[blend.lift]}
          set={(one, _, v) => (one.blend.lift = v)}
        />
      </Section>
      <Section
        title="Colour"
        reset={
          same(colour, plainColour())
            ? undefined
            : () => editOutput(output.id, (one) => (one.colour = plainColour()))
        }
      >
        <Numbers
          output={output}
          label="Gain"
          names={channels}
          form={{ step: 0.01, min: 0, max: 2, digits: 2 }}
          values={colour.gain}
          set={(one, k, v) => (one.colour.gain[k] = v)}
        />
        <Numbers
          output={output}
          label="Gamma"
          names={channels}
          form={{ step: 0.01, min: 0.2, max: 5, digits: 2 }}
          values={colour.gamma}
          set={(one, k, v) => (one.colour.gamma[k] = v)}
        />
        <Numbers
          output={output}
          label="Black"
          names={channels}
          form={{ step: 0.001, min: 0, max: 0.5, digits: 3 }}
          values={colour.black}
          set={(one, k, v) => (one.colour.black[k] = v)}
        />
        <Numbers
          output={output}
          label="White"
          names={null}
          form={{ step: 50, min: 2000, max: 15000, digits: 0, unit: ' K' }}
          values={[colour.kelvin]}
          set={(one, _, v) => (one.colour.kelvin = v)}
        />
        <Numbers
          output={output}
          label="Brightness"
          names={null}
          form={percent}
          values={[colour.brightness]}
          set={(one, _, v) => (one.colour.brightness = v)}
        />
      </Section>
    </div>
  );
}
