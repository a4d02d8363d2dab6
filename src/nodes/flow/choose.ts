import type { ControlValue } from '../../core/document/types';
import { choice, number, whole, type ControlSpecs } from '../../core/kind/controls';
import {
  imageKind,
  propKind,
  shapeKind,
  signalKind,
  type Carries,
  type InputSpec,
  type InputSpecs,
  type Kind,
} from '../../core/kind/kind';
import { randomAt } from '../../core/random';
import { emptyShape } from '../../core/shape/shape';

const ports = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth'] as const;
const carried = { image: 'Image', signal: 'Signal', shape: 'Shape', prop: 'Prop' } as const;
type Chosen = keyof typeof carried;

const controls = {
  carries: choice({
    label: 'Carries',
    help: 'What it chooses among; it follows the first wire.',
    options: carried,
    default: 'image',
  }),
  by: choice({
    label: 'By',
    help: 'What decides: a number, the beat in turn, or the beat at random.',
    options: { number: 'Number', beat: 'Beat, in turn', random: 'Beat, at random' },
    default: 'number',
  }),
  number: whole({
    label: 'Number',
    help: 'Which input, from 1; beyond the last it goes round.',
    default: 1,
    range: [1, 6],
    shownIf: ({ by }) => by === 'number',
  }),
  every: number({
    label: 'Every',
    help: 'Beats from one to the next.',
    default: 4,
    range: [0.25, 16],
    min: 0.01,
    unit: ' beats',
    shownIf: ({ by }) => by !== 'number',
  }),
  seed: whole({
    label: 'Seed',
    help: 'Another order at random.',
    default: 1,
    range: [1, 100],
    shownIf: ({ by }) => by === 'random',
  }),
} satisfies ControlSpecs;

/** The input that counts at a moment: of six if a number says so, of those that are wired by the beat. */
const picks: Kind['picks'] = (c, { beat }, wired) => {
  if (!wired.length) return null;
  if (c.by === 'number') {
    const at = Number(c.number) - 1;
    return ports[((at % ports.length) + ports.length) % ports.length];
  }
  const step = Math.floor(beat / Math.max(0.01, Number(c.every)) + 1e-6);
  if (c.by === 'beat') return wired[((step % wired.length) + wired.length) % wired.length];
  const at = (k: number): number => Math.floor(randomAt(k, Number(c.seed)) * wired.length);
  // The same again looks as if nothing had happened.
  return wired[at(step) === at(step - 1) ? (at(step) + 1) % wired.length : at(step)];
};

const inputsOf = (carries: Chosen): InputSpecs =>
  Object.fromEntries(
    ports.map((port, k): [string, InputSpec] => [
      port,
      {
        label: String(k + 1),
        help: 'Runs only while it is chosen.',
        carries,
        // Each is a picture of its own, or all of them would be in one shader, and run.
        ...(carries === 'image' ? { reads: 'many' as const } : {}),
        ...(k > 0 ? { optional: true as const } : {}),
      },
    ]),
  );

const body = [...ports.map((port, k) => `if ($at == ${k}.0) return @${port}(p);`), 'return vec4(0.0);'].join(
  '\n',
);

const made = new Map<Chosen, Kind>();

function of(carries: Chosen): Kind {
  const known = made.get(carries);
  if (known) return known;
  const base = {
    id: 'choose',
    label: 'Choose',
    summary: 'One of up to six inputs, by number, by the beat or at random; the others rest.',
    words: ['switch', 'select', 'pick', 'sequence', 'random', 'router', 'index', 'slideshow'],
    inputs: inputsOf(carries),
    controls,
    picks,
    adapts: (other: Carries): Record<string, ControlValue> =>
      Object.hasOwn(carried, other) ? { carries: other } : {},
    vary: (c: Readonly<Record<string, unknown>>): Kind =>
      of(Object.hasOwn(carried, String(c.carries)) ? (c.carries as Chosen) : 'image'),
  };
  const picked = (inputs: object, pick: string | null): never =>
    ((pick === null ? null : (inputs as Record<string, unknown>)[pick]) ?? null) as never;
  const kind = {
    image: () =>
      imageKind({
        ...base,
        sizeFrom: ({ inputs, pick }) => {
          const picture = picked(inputs, pick) as { width: number; height: number } | null;
          return picture && [picture.width, picture.height];
        },
        // The number of what is picked reaches the shader as a number, so that choosing another compiles nothing.
        paint: {
          type: 'shader',
          body,
          derived: { at: 'float' },
          derive: (_c, _moment, _height, pick) => ({ at: ports.indexOf(pick as 'first') }),
        },
      }),
    signal: () =>
      signalKind({
        ...base,
        naturalRange: () => [-1, 1],
        moves: () => false,
        compute({ inputs, pick, out }) {
          const signal = picked(inputs, pick) as {
            lanes: readonly { name: string; samples: Float32Array }[];
            length: number;
          } | null;
          if (!signal) return void out.layout(['value'], 1)[0].fill(0);
          out.layoutLike(signal.lanes, signal.length).forEach((into, k) => into.set(signal.lanes[k].samples));
        },
      }),
    shape: () => shapeKind({ ...base, make: ({ inputs, pick }) => picked(inputs, pick) ?? emptyShape }),
    prop: () =>
      propKind({
        ...base,
        describe: ({ inputs, pick }) => {
          const prop = picked(inputs, pick) as object | null;
          return prop && ({ ...prop } as never);
        },
      }),
  }[carries]() as Kind;
  made.set(carries, kind);
  return kind;
}

export default of('image');
