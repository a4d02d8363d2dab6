import { choice } from './controls';
import type { ControlSpecs } from './controls';
import {
  fieldKind,
  imageKind,
  propKind,
  shapeKind,
  signalKind,
  type Carries,
  type InputSpec,
  type Kind,
} from './kind';
import { emptyShape } from '../shape/shape';

/** What a kind that hands on its input says of itself. */
export interface RelaySpec extends Pick<Kind, 'handsOnWhileOff' | 'end' | 'adapts' | 'sideOutputs'> {
  id: string;
  label: string;
  summary: string;
  words: readonly string[];
  /** The input that is handed on, which is the first. */
  handsOn: string;
  inputs: Readonly<Record<string, InputSpec>>;
  controls: ControlSpecs;
  vary?(controls: Readonly<Record<string, unknown>>): Kind;
  /** Of signals; absent: -1 to 1. */
  naturalRange?: readonly [number, number];
}

/**
 * A kind whose nodes give what enters them. Plans go through such a node as if the wire had no joint; the node itself runs only where
 * somebody looks at it.
 */
export function relayKind(spec: RelaySpec, carries: Carries): Kind {
  const { naturalRange = [-1, 1], ...rest } = spec;
  const base = rest as Omit<RelaySpec, 'naturalRange' | 'vary'> & { vary?: Kind['vary'] };
  const entering = (inputs: object): never =>
    ((inputs as Record<string, unknown>)[spec.handsOn] ?? null) as never;
  switch (carries) {
    case 'image':
      return imageKind({
        ...base,
        sizeFrom: ({ inputs }) => {
          const picture = entering(inputs) as { width: number; height: number } | null;
          return picture && [picture.width, picture.height];
        },
        paint: { type: 'shader', body: 'return source;' },
      }) as Kind;
    case 'signal':
      return signalKind({
        ...base,
        naturalRange: () => naturalRange,
        moves: () => false,
        each: () => true,
        compute({ inputs, out }) {
          const signal = entering(inputs) as {
            lanes: readonly { samples: Float32Array }[];
            length: number;
          } | null;
          if (!signal) return void out.layout(['value'], 1)[0].fill(0);
          out
            .layoutLike(signal.lanes as never, signal.length)
            .forEach((into, k) => into.set(signal.lanes[k].samples));
        },
      }) as Kind;
    case 'shape':
      return shapeKind({ ...base, make: ({ inputs }) => entering(inputs) ?? emptyShape }) as Kind;
    case 'prop':
      return propKind({
        ...base,
        // Whoever is given it may note on it whom to blame.
        describe: ({ inputs }) => {
          const prop = entering(inputs) as object | null;
          return prop && ({ ...prop } as never);
        },
      }) as Kind;
    case 'field':
      return fieldKind({ ...base, field: { type: 'warp', place: 'return p;' } }) as Kind;
  }
}

const carriesOptions: Readonly<Record<Carries, string>> = {
  image: 'Image',
  signal: 'Signal',
  shape: 'Shape',
  prop: 'Prop',
  field: 'Field',
};

/** The control by which a kind of relays says what its nodes carry. */
const carriesControl = (help: string) =>
  choice({ label: 'Carries', help, options: carriesOptions, default: 'image' });

/** A kind whose nodes each carry what their control `carries` says. */
export function anyRelay(
  spec: Omit<RelaySpec, 'inputs' | 'handsOn' | 'vary' | 'adapts' | 'controls'> & {
    source: Pick<InputSpec, 'label' | 'help'> & { optional?: true };
    carriesHelp: string;
  },
): Kind {
  const { source, carriesHelp, ...rest } = spec;
  const made = new Map<string, Kind>();
  const of = (carries: Carries): Kind => {
    const known = made.get(carries);
    if (known) return known;
    const kind = relayKind(
      {
        ...rest,
        handsOn: 'source',
        inputs: { source: { ...source, carries } },
        controls: { carries: carriesControl(carriesHelp) },
        adapts: (other) => ({ carries: other }),
        vary: ({ carries: wanted }) =>
          of(Object.hasOwn(carriesOptions, String(wanted)) ? (wanted as Carries) : 'image'),
      },
      carries,
    );
    made.set(carries, kind);
    return kind;
  };
  return of('image');
}
