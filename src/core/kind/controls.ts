import type { CurveLane, Rgba, Stop } from '../document/types';

interface ControlBase {
  label: string;
  /** One sentence: what turning it does. */
  help: string;
  /** Heading that it stands under in the inspector; absent: none. */
  group?: string;
  /** Shown only while this gives true; absent: always. Gets the plain values of the node's other controls. */
  shownIf?(controls: Readonly<Record<string, unknown>>): boolean;
}

interface NumberBase extends ControlBase {
  default: number;
  /** The useful range: ends of the slider and of the first fit. */
  range: readonly [number, number];
  /** Hard limits; values beyond them never reach the node. */
  min?: number;
  max?: number;
  unit?: string;
  /** Takes n samples, one for each copy or sample; resolved as a Float32Array. */
  many?: true;
  /**
   * 0, or the number that is given, switches something off: whether it is that then stands in a shader's code, as `$name?`,
   * and what is off costs nothing.
   */
  onOff?: true | number;
  /**
   * How often something turns: the choice control that says in which unit (hertz, beats or loop), or `period` where it is
   * the seconds of one turn itself, 0 none. For loops that have to fit.
   */
  pace?: { unit: string } | 'period';
  /**
   * How dragging over the monitor turns it: by moving across or up (from one side to the other is half of a turn), or by
   * the wheel, which makes it larger and smaller.
   */
  drag?: 'across' | 'up' | 'wheel';
}

export interface NumberSpec extends NumberBase {
  type: 'number';
}
/** Only whole numbers; resolved by rounding to the nearest. */
export interface WholeSpec extends NumberBase {
  type: 'whole';
}
/** Degrees in the interface and in show files, radians once resolved. */
export interface AngleSpec extends NumberBase {
  type: 'angle';
  /** An arrow on the monitor: this way from the middle `of`, half the control `length` long, in heights. */
  handle?: { of: string; length: string };
}
export interface ChoiceSpec extends ControlBase {
  type: 'choice';
  options: Readonly<Record<string, string>>;
  default: string;
}
export interface ToggleSpec extends ControlBase {
  type: 'toggle';
  default: boolean;
}
export interface ColourSpec extends ControlBase {
  type: 'colour';
  default: Readonly<Rgba>;
  many?: true;
}
export interface GradientSpec extends ControlBase {
  type: 'gradient';
  default: readonly Stop[];
}
/**
 * How a control shows on the monitor, where it can be dragged. place: a point in heights from the middle. from: the same,
 * measured from another control of the node. box: width and height around another control, dragged at its upper right.
 * corner: how far the picture's own corner is pulled; -1, -1 is the lower left.
 */
export type Handle =
  { as: 'place' } | { as: 'from' | 'box'; of: string } | { as: 'corner'; at: readonly [-1 | 1, -1 | 1] };

interface PartsBase extends ControlBase {
  default: readonly number[];
  range: readonly [number, number];
  min?: number;
  max?: number;
  unit?: string;
  many?: true;
  /** What its parts are called, where they are not places or ways along x, y and z. */
  parts?: readonly string[];
  /** The parts are angles: degrees in the interface, radians once resolved. */
  angle?: true;
}
/** x and y. */
export interface PointSpec extends PartsBase {
  type: 'point';
  handle?: Handle;
}
/** x, y and z. */
export interface VectorSpec extends PartsBase {
  type: 'vector';
  /** 0, 0, 0 switches something off, as with a number. */
  onOff?: true;
}
export interface TextSpec extends ControlBase {
  type: 'text';
  default: string;
  lines?: number;
  /** Endings of text files whose content can be taken over. */
  opens?: string;
}
/** A formula of `variables`, checked as it is typed. On image nodes it becomes part of the shader. */
export interface FormulaSpec extends ControlBase {
  type: 'formula';
  default: string;
  variables: readonly string[];
  /** Several `name = formula` lines, each a lane. */
  lanes?: true;
}
/** A list of numbers, typed. */
export interface NumbersSpec extends ControlBase {
  type: 'numbers';
  /** Its numbers are x and y in turn, each pair a place on the monitor, measured from `of` if that is given. */
  handle?: { as: 'places'; of?: string };
  default: readonly number[];
}
/** One or more drawn curves, edited on the bench. */
export interface CurvesSpec extends ControlBase {
  type: 'curves';
  default: readonly CurveLane[];
  /** Time that the editor shows: a plain span, or the control that holds the length. */
  span: number | { control: string };
  /** Whether more curves can be added, each a lane. */
  many: boolean;
  /** Where along the curves the node is at a moment, if it goes along them by time. Gets the plain values of its controls. */
  playhead?(
    controls: Readonly<Record<string, unknown>>,
    now: { time: number; beat: number; frame: number; loop: number },
  ): number;
}
/** A button: each press makes its number greater by one. It can be driven, and then counts as pressed at each rise. */
export interface ButtonSpec extends ControlBase {
  type: 'button';
  default: number;
}
/** A file of the show or one that ships with the app, by its id; empty: none. */
export interface FileSpec extends ControlBase {
  type: 'file';
  default: string;
  /** What it may be. */
  accepts: 'picture' | 'clip' | 'look' | 'model';
}
/** A program text, written in an editor of its own. */
export interface CodeSpec extends ControlBase {
  type: 'code';
  default: string;
}
/** A camera of this machine, by its device id, or the stand-in (empty). */
export interface DeviceSpec extends ControlBase {
  type: 'device';
  default: string;
}
/** A key of the keyboard, as `KeyboardEvent.code` (UI Events standard). */
export interface KeySpec extends ControlBase {
  type: 'key';
  default: string;
}

export type ControlSpec =
  | NumberSpec
  | WholeSpec
  | AngleSpec
  | ChoiceSpec
  | ToggleSpec
  | ColourSpec
  | GradientSpec
  | PointSpec
  | VectorSpec
  | TextSpec
  | FormulaSpec
  | NumbersSpec
  | ButtonSpec
  | CurvesSpec
  | KeySpec
  | FileSpec
  | CodeSpec
  | DeviceSpec;

export type ControlSpecs = Readonly<Record<string, ControlSpec>>;

/** What a node's code gets for a control. */
type Resolved<S> = S extends { type: 'number' | 'whole' | 'angle'; many: true }
  ? Float32Array
  : S extends { type: 'number' | 'whole' | 'angle' | 'button' }
    ? number
    : S extends { type: 'choice'; options: infer O }
      ? keyof O & string
      : S extends { type: 'toggle' }
        ? boolean
        : S extends { type: 'colour' | 'point' | 'vector'; many: true }
          ? Float32Array[]
          : S extends { type: 'colour' }
            ? Rgba
            : S extends { type: 'point' }
              ? [number, number]
              : S extends { type: 'vector' }
                ? [number, number, number]
                : S extends { type: 'gradient' }
                  ? readonly Stop[]
                  : S extends { type: 'curves' }
                    ? readonly CurveLane[]
                    : S extends { type: 'numbers' }
                      ? readonly number[]
                      : string;

export type ResolvedControls<C> = { readonly [K in keyof C]: Resolved<C[K]> };

/** What a hook gets for a control of any type; of those that take many samples, lists instead. */
export type ResolvedControl = Resolved<ControlSpec>;

/** Names of the parts of a control that can be driven by numbers; none for text, choices and the like. */
export function partsOf(spec: ControlSpec): readonly string[] {
  switch (spec.type) {
    case 'number':
    case 'whole':
    case 'angle':
    case 'toggle':
    case 'button':
      return [''];
    case 'colour':
      return ['r', 'g', 'b', 'a'];
    case 'point':
      return ['x', 'y'];
    case 'vector':
      return ['x', 'y', 'z'];
    case 'choice':
    case 'gradient':
    case 'text':
    case 'formula':
    case 'numbers':
    case 'curves':
    case 'file':
    case 'code':
    case 'device':
    case 'key':
      return [];
  }
}

/** Name of one part of a control, as used by wires, formulas and motions: `size`, `place.x`. */
export const partName = (control: string, part: string): string => (part ? `${control}.${part}` : control);

const colourParts = ['red', 'green', 'blue', 'alpha'];

/** What a part of a control is called in the interface: `Place x`, `From`, `Colour red`. */
export function partLabel(spec: ControlSpec, part: number): string {
  const names = partsOf(spec);
  if (names.length < 2) return spec.label;
  if ('parts' in spec && spec.parts) return spec.parts[part];
  return `${spec.label} ${spec.type === 'colour' ? colourParts[part] : names[part]}`;
}

/** The same as formulas of other nodes name it: `size`, `place_x`. */
export const linkName = (control: string, part: string): string => (part ? `${control}_${part}` : control);

/** The useful range of a control's numbers. */
export function rangeOf(spec: ControlSpec): readonly [number, number] {
  return 'range' in spec ? spec.range : [0, 1];
}

/** Holds a plain number inside the hard limits of its control, and rounds it where only whole ones make sense. */
export function limit(spec: ControlSpec, value: number): number {
  let held = Number.isFinite(value) ? value : 0;
  if ('min' in spec && spec.min !== undefined && held < spec.min) held = spec.min;
  if ('max' in spec && spec.max !== undefined && held > spec.max) held = spec.max;
  if (spec.type === 'whole') held = Math.round(held);
  if (spec.type === 'colour') held = Math.max(0, held);
  return held;
}

/** Whether a name is one of a formula control's own: as listed, or any lane where `name.*` is. */
export const isFormulaVariable = ({ variables }: FormulaSpec, name: string): boolean =>
  variables.includes(name) || variables.includes(`${name.split('.')[0]}.*`);

/** Whether the numbers of a control are degrees that become radians once resolved. */
export const isAngle = (spec: ControlSpec): boolean =>
  spec.type === 'angle' || ((spec.type === 'point' || spec.type === 'vector') && spec.angle === true);

type Bare<S extends { type: string }> = Omit<S, 'type'>;

export const number = <const S extends Bare<NumberSpec>>(spec: S) => ({ type: 'number', ...spec }) as const;
export const whole = <const S extends Bare<WholeSpec>>(spec: S) => ({ type: 'whole', ...spec }) as const;
export const angle = <const S extends Bare<AngleSpec>>(spec: S) =>
  ({ type: 'angle', unit: '°', ...spec }) as const;
export const choice = <const S extends Bare<ChoiceSpec>>(spec: S) => ({ type: 'choice', ...spec }) as const;
export const toggle = <const S extends Bare<ToggleSpec>>(spec: S) => ({ type: 'toggle', ...spec }) as const;
export const colour = <const S extends Bare<ColourSpec>>(spec: S) => ({ type: 'colour', ...spec }) as const;
export const gradient = <const S extends Bare<GradientSpec>>(spec: S) =>
  ({ type: 'gradient', ...spec }) as const;
export const point = <const S extends Bare<PointSpec>>(spec: S) => ({ type: 'point', ...spec }) as const;
export const vector = <const S extends Bare<VectorSpec>>(spec: S) => ({ type: 'vector', ...spec }) as const;
export const text = <const S extends Bare<TextSpec>>(spec: S) => ({ type: 'text', ...spec }) as const;
export const formula = <const S extends Bare<FormulaSpec>>(spec: S) =>
  ({ type: 'formula', ...spec }) as const;
export const numbers = <const S extends Bare<NumbersSpec>>(spec: S) =>
  ({ type: 'numbers', ...spec }) as const;
export const curves = <const S extends Bare<CurvesSpec>>(spec: S) => ({ type: 'curves', ...spec }) as const;
export const button = <const S extends Bare<ButtonSpec>>(spec: S) => ({ type: 'button', ...spec }) as const;
export const file = <const S extends Bare<FileSpec>>(spec: S) => ({ type: 'file', ...spec }) as const;
export const code = <const S extends Bare<CodeSpec>>(spec: S) => ({ type: 'code', ...spec }) as const;
export const device = <const S extends Bare<DeviceSpec>>(spec: S) => ({ type: 'device', ...spec }) as const;
export const key = <const S extends Bare<KeySpec>>(spec: S) => ({ type: 'key', ...spec }) as const;

/** Amount, from untouched (0) to the full effect (1): every node that changes an image has it. */
export const amount = number({
  label: 'Amount',
  help: 'How much of the effect is mixed in: 0 leaves the picture as it comes, 1 is the full effect.',
  default: 1,
  range: [0, 1],
  min: 0,
  max: 1,
});

/** How fewer samples serve more places: the control that goes with spreadInto. */
export const countsDiffer = (help: string) =>
  choice({
    label: 'Counts differ',
    help,
    options: { stretch: 'Stretch', repeat: 'Repeat', mirror: 'Mirror', hold: 'Hold' },
    default: 'stretch',
  });
