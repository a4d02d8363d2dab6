import { freeName } from '../../core/show/create';
import { plainColour } from '../../core/wall/screens';
import type { Output } from '../../core/document/types';
import { hasWindow, type WindowOutput } from '../../core/wall/outputs';
import { editOutput } from '../actions/wall-actions';
import { askDisplays, canAskDisplays, choiceOf, chooseDisplay, displayStore } from '../data/displays';
import { showStore, useShow } from '../data/show-store';
import { SelectField, TextField } from '../parts/field';
import { say } from '../parts/notices';
import { Numbers, percent } from './inspector-parts';
import { Row, Section } from '../parts/rows';

/** Whether two plain values say the same. */
export const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const channels = ['red', 'green', 'blue'] as const;

/** The name of an output. */
export function NameRow({ output }: { output: Output }) {
  const names = useShow((show) => show.wall.outputs);
  return (
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
  );
}

/** Asks the browser for the displays; what is in the way is said. */
export const askForDisplays = (): void =>
  void askDisplays().catch(() =>
    say({
      tone: 'warning',
      text: 'Displays are chosen once this page may manage windows: allow it beside the address.',
    }),
  );

/** On which display of this machine an output is opened. */
export function DisplayRow({ output }: { output: Output }) {
  const state = displayStore();
  const { displays } = state;
  const show = showStore((s) => s.id);
  if (!canAskDisplays())
    return (
      <p className="quiet text-2xs">
        This browser can’t place windows: move the window of the screen to its display, and press F there.
      </p>
    );
  if (!displays)
    return (
      <button type="button" className="tool self-start" onClick={askForDisplays}>
        Choose a display …
      </button>
    );
  const chosen = choiceOf(state, show, output.id) ?? '';
  const known = displays.map(({ key, label, width, height }): [string, string] => [
    key,
    `${label} · ${width} x ${height}`,
  ]);
  const gone: [string, string][] =
    chosen && !known.some(([key]) => key === chosen)
      ? [[chosen, `${chosen.replace(/ [^ ]*$/, '')} · not here`]]
      : [];
  return (
    <Row label="Display">
      <SelectField
        label="Display"
        className="min-w-0 flex-1"
        value={chosen}
        options={[['', 'A plain window'], ...known, ...gone]}
        onChange={(key) => chooseDisplay(show, output.id, key)}
      />
    </Row>
  );
}

/** How an output shows colours. */
export function ColourSection({ output }: { output: WindowOutput }) {
  const { colour } = output;
  const edit = (change: (one: WindowOutput) => void, gesture: string | null = null): void =>
    editOutput(output.id, (one) => hasWindow(one) && change(one), gesture);
  return (
    <Section
      title="Colour"
      reset={same(colour, plainColour()) ? undefined : () => edit((one) => (one.colour = plainColour()))}
    >
      <Numbers<WindowOutput>
        edit={edit}
        label="Gain"
        names={channels}
        form={{ step: 0.01, min: 0, max: 2, digits: 2 }}
        values={colour.gain}
        set={(one, k, v) => (one.colour.gain[k] = v)}
      />
      <Numbers<WindowOutput>
        edit={edit}
        label="Gamma"
        names={channels}
        form={{ step: 0.01, min: 0.2, max: 5, digits: 2 }}
        values={colour.gamma}
        set={(one, k, v) => (one.colour.gamma[k] = v)}
      />
      <Numbers<WindowOutput>
        edit={edit}
        label="Black"
        names={channels}
        form={{ step: 0.001, min: 0, max: 0.5, digits: 3 }}
        values={colour.black}
        set={(one, k, v) => (one.colour.black[k] = v)}
      />
      <Numbers<WindowOutput>
        edit={edit}
        label="White"
        names={null}
        form={{ step: 50, min: 2000, max: 15000, digits: 0, unit: ' K' }}
        values={[colour.kelvin]}
        set={(one, _, v) => (one.colour.kelvin = v)}
      />
      <Numbers<WindowOutput>
        edit={edit}
        label="Brightness"
        names={null}
        form={percent}
        values={[colour.brightness]}
        set={(one, _, v) => (one.colour.brightness = v)}
      />
    </Section>
  );
}
