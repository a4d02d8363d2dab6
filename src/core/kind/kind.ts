import type { InputEvent, InputState } from '../inputs/inputs';
import type { ImageRef } from './image-ref';
import type { FieldShotSettings, Prop, ShotSettings } from './prop';
import type { Model } from '../shape/model/model';
import type { Shape } from '../shape/shape';
import type { Signal, SignalBuffer } from '../signal/signal';
import type { FormulaValues } from '../formula/run';
import type { ControlValue, Motion } from '../document/types';
import type { Moment } from '../time/clock';
import type { LetterRequest, Outline } from '../text/outlines';
import type { TextLayout } from '../text/layout';
import type { ClipTiming } from '../time/clip-time';
import type { ControlSpecs, ResolvedControl, ResolvedControls } from './controls';

/** What a wire carries. */
export type Carries = 'image' | 'signal' | 'shape' | 'prop' | 'field';

/**
 * How an image input is read. same: at the place being drawn; moved: at one other place; many: at many places; data:
 * whole, its pixels used as numbers (which asks for 32 bits).
 */
export type Reads = 'same' | 'moved' | 'many' | 'data';

export interface InputSpec {
  label: string;
  help: string;
  carries: Carries;
  /** Another thing this input takes as well. */
  also?: Carries;
  /** Only for images; `same` if absent. */
  reads?: Reads;
  /** Takes any number of wires, in the order they were drawn. */
  many?: true;
  /** The node shows something without it, though it is its first. */
  optional?: true;
}

export type InputSpecs = Readonly<Record<string, InputSpec>>;

interface Carried {
  image: ImageRef;
  signal: Signal;
  shape: Shape;
  prop: Prop;
  field: FieldRef;
}

/** A distance field: the node that gives it. Its code is put together by whoever renders it. */
interface FieldRef {
  field: string;
}

type One<S extends InputSpec> =
  Carried[S['carries']] | (S extends { also: infer A extends Carries } ? Carried[A] : never);
type InputValue<S extends InputSpec> = S extends { many: true } ? readonly One<S>[] : One<S> | null;
export type InputValues<I extends InputSpecs> = { readonly [K in keyof I]: InputValue<I[K]> };

/** What enters a port that takes many things of one kind. */
export const listAt = <C extends Carries>(
  inputs: InputValues<InputSpecs>,
  port: string,
): readonly Carried[C][] => (inputs[port] ?? []) as readonly Carried[C][];

/** What the hooks of a kind are given. Nothing else may be read: no clock, no random numbers, no globals. */
export interface Work<C, I extends InputSpecs> {
  controls: ResolvedControls<C>;
  inputs: InputValues<I>;
  moment: Moment;
  /** Keys, pointer and other things that come from outside. */
  live: InputState;
  /** Width divided by height: of the picture for image kinds, else of the canvas. */
  aspect: number;
  /** Pixels that the scene is drawn at. */
  canvas: { width: number; height: number };
  /** Samples that the controls with many samples stand for: each is `count` or 1 long. */
  count: number;
  /**
   * What stands at an input at other moments, as many seconds from this one as `offsets` say: sample i (round the end, if
   * there are fewer) at moment i. Null if what stands above cannot be asked, since it has a memory or plays by hand.
   */
  overTime(input: string, offsets: Float64Array): Signal | null;
  /** Red, green, blue and alpha of the places that `pixels` asks for, as they were a frame ago; null before there are any. */
  pixels: Float32Array | null;
  /** The input that counts in this frame, of a kind that picks. */
  pick: string | null;
  /** Reads a formula control; throws FormulaError if it cannot be read. */
  formula(control: string): readonly LaneRunner[];
  /** Outlines of letters as closed runs of points; null while the font is on its way. Absent where there are no fonts. */
  letters?(layout: LetterRequest): readonly Outline[] | null;
  /** A model file that was read; null while it is on its way. Throws if it cannot be had. Absent where there are no files. */
  model?(file: string): Model | null;
  /** Says something about the node that is no fault; the last word counts, and only until the hook is called again. */
  remark?(sentence: string): void;
}

/** What comes from outside while numbers and shapes are worked out. */
export type Resources = Required<Pick<Work<ControlSpecs, InputSpecs>, 'letters' | 'model'>>;

/** One lane of a formula control, ready to run. */
export interface LaneRunner {
  name: string;
  /** Samples it has by itself: those of the longest lane it names. */
  longest: number;
  /** Fills `out`; `extra` gives the values of the control's own variables. */
  run(out: Float32Array, extra: FormulaValues): void;
}

/** A node that feeds an example. */
export interface ExampleFeed {
  kind: string;
  controls?: Readonly<Record<string, ControlValue>>;
}

interface KindBase<C extends ControlSpecs, I extends InputSpecs> {
  /** Stands in show files; never changes. */
  id: string;
  label: string;
  /** One sentence for search, help and docs. */
  summary: string;
  /** What a performer would type to find it, beside its label. */
  words: readonly string[];
  /**
   * How its example differs from the usual one: controls of it that show what it does, and what its first input is fed by.
   */
  example?: { controls?: Readonly<Record<string, ControlValue>>; feed?: ExampleFeed };
  inputs: I;
  controls: C;
  /**
   * How many samples the controls with many samples stand for; absent: as many as the longest brings. Controls with many
   * samples are not ready yet when it is called. `longest` is 1 if nothing brings more.
   */
  countOf?(controls: ResolvedControls<C>, inputs: InputValues<I>, longest: number): number;
  /**
   * The kind as this node has it, where inputs and controls follow from what is typed into it. The same values must give
   * the very same object. Absent: all nodes of the kind are alike.
   */
  vary?(controls: Readonly<Record<string, ControlValue>>): Kind;
  /** The input that its nodes hand on untouched: whoever reads such a node reads what is wired there, at no cost. */
  handsOn?: string;
  /** The input that is handed on instead while the node is off; absent: the first that carries what the node gives. */
  handsOnWhileOff?: string;
  /**
   * The only input that counts in this frame, of those `wired`, in the order of the kind; null: none does. What stands above the others
   * alone rests meanwhile: it is not worked out. Absent: all inputs count.
   */
  picks?(
    controls: Readonly<Record<string, ResolvedControl>>,
    moment: Moment,
    wired: readonly string[],
  ): string | null;
  /** What its nodes are to the module that they lie in: an input or output of it. */
  end?: 'in' | 'out';
  /** Controls that are set where something else is wired into a node whose wires are all gone. */
  adapts?(carries: Carries): Record<string, ControlValue>;
  /** What comes out beside `output`, by the name that wires give it. */
  sideOutputs?: Readonly<Record<string, { label: string; carries: Carries }>>;
  /**
   * By version of the show format: gives the controls of a node from a file of that version the form of the next one. Called
   * once for each node of such a file, before anything of it is checked.
   */
  migrate?: Readonly<Record<number, (controls: Record<string, unknown>) => Record<string, unknown>>>;
}

/** Places of a picture, evenly over a part of it. */
export interface PixelGrid {
  columns: number;
  rows: number;
  /** x, y, width and height of the part; 0..1 from the lower left. */
  region: readonly [number, number, number, number];
  /** The mean around each place instead of the pixel there. */
  average: boolean;
}

/** A node that follows something, before it is made. */
export interface Learned {
  controls: Record<string, ControlValue>;
  name: string;
  /** The lane that moved; absent: the first. */
  lane?: string;
}

export interface SignalKind<
  C extends ControlSpecs = ControlSpecs,
  I extends InputSpecs = InputSpecs,
  M = unknown,
> extends KindBase<C, I> {
  output: 'signal';
  /** Lowest and highest value it gives by nature, for the first fit of a wire. */
  naturalRange(controls: ResolvedControls<C>): readonly [number, number];
  /** Whether its values change with time or live inputs though nothing it reads does. */
  moves(controls: ResolvedControls<C>): boolean;
  /**
   * Whether sample i of what it gives depends on nothing but its moment and sample i of what it reads, so that many
   * moments can be asked for at once (`Moment.spread`). What it keeps as memory is then only a buffer to work in. A list
   * names the inputs that are read so, where all else must stand still. False: it has a memory that counts, or plays by
   * hand. Absent: the same if it has a memory, else an empty list.
   */
  each?(controls: ResolvedControls<C>): boolean | readonly string[];
  /** Whether what it gives can go on rising for as long as the show lasts. Absent: it never does. */
  endless?(controls: ResolvedControls<C>): boolean;
  /** Makes the memory of one node; called when it starts and when time starts again. Absent: pure. */
  memory?(): M;
  /**
   * False: no frame depends on the ones before by its memory, which holds only what hands did, or work that need not be done again.
   * Absent: one may.
   */
  recalls?: false;
  /**
   * Controls with which a node of this kind does what a motion does around `base`; null if it cannot. Absent: it stands
   * for no motion. A motion that waits for a trigger has it wired into the first input. `to`: what its natural range
   * becomes on the control; absent: its values are meant as they are.
   */
  fromMotion?(
    motion: Motion,
    base: number,
  ): { controls: Record<string, ControlValue>; to?: [number, number] } | null;
  /** The places of its input `picture` that it reads, row by row from the lower left; absent: it reads no pixels. */
  pixels?(controls: ResolvedControls<C>): PixelGrid;
  /** What a node of this kind is like that follows what a hand or device just did; null if it does not listen to that. Absent: it never does. */
  learn?(event: InputEvent): Learned | null;
  /** Whether it hears the sound: without such a node nobody listens. */
  hears?: true;
  /** Writes the signal; called when something it reads changed. `out` keeps what it held. */
  compute(work: Work<C, I> & { memory: M; out: SignalBuffer }): void;
}

export interface ShapeKind<
  C extends ControlSpecs = ControlSpecs,
  I extends InputSpecs = InputSpecs,
> extends KindBase<C, I> {
  output: 'shape';
  /** Whether it changes with time though nothing it reads does; absent: never. */
  moves?(controls: ResolvedControls<C>): boolean;
  /** Whether it is made of letters or files, which may arrive later. */
  awaits?: true;
  /**
   * Makes a new shape; called only when a control or input changed, or when it moves. Null while what it is made of is on
   * its way: the shape before stays, as nothing may go dark on stage.
   */
  make(work: Work<C, I>): Shape | null;
}

export interface PropKind<
  C extends ControlSpecs = ControlSpecs,
  I extends InputSpecs = InputSpecs,
> extends KindBase<C, I> {
  output: 'prop';
  /** Whether it changes with time though nothing it reads does; absent: never. */
  moves?(controls: ResolvedControls<C>): boolean;
  /** Says what stands before the camera; null if it has nothing to show. */
  describe(work: Work<C, I>): Prop | null;
}

/** `vec4list`: up to `mostListed` groups of four. */
export type GlslType = 'float' | 'vec2' | 'vec3' | 'vec4' | 'mat3' | 'vec4list';

export const mostListed = 64;

/** Pixels computed on the CPU: `rgba` holds width x height x 4 numbers, first row lowest. */
export interface DataPicture {
  width: number;
  height: number;
  rgba: Float32Array;
  /** Mixed between pixels, or each pixel sharp. */
  smooth: boolean;
}

/**
 * A texture that belongs to a node and comes from elsewhere than an image input. Read in the body as `@name(place)`, its
 * pixels as `@name.size`; one number group of it as `@name.at(x, y)`.
 *
 * numbers: worked out by `fill` when one of the controls `of` (or an input) changed. file: a picture from a file, in its
 * own pixels; `@name.size` is 1, 1 until it is there. clip: the frame of a video at a time. camera: what a camera sees.
 * text: letters at a second of the show, red where they are filled and green where their outline is. past: the last frames of the first input,
 * read as `@name(place, steps)` with steps of 1/60 s back from 0.
 */
export type Sheet<C, I extends InputSpecs> =
  | { from: 'numbers'; of: readonly (keyof C & string)[]; fill(work: Work<C, I>): DataPicture }
  | { from: 'look'; control: keyof C & string }
  | { from: 'file'; control: keyof C & string }
  | { from: 'clip'; control: keyof C & string; timing(work: Work<C, I>): ClipTiming }
  | { from: 'camera'; device(controls: ResolvedControls<C>): string }
  | { from: 'text'; lay(controls: ResolvedControls<C>, seconds: number): TextLayout }
  | {
      from: 'past';
      /** How many past frames are kept, and the share of the picture's size they are kept at. */
      keep(controls: ResolvedControls<C>): { frames: number; scale: number };
    };

/**
 * How an image comes about.
 *
 * shader: `body` is GLSL that ends in `return` of a premultiplied colour. It may use `p` (place 0..1, lower left 0,0),
 * `$name` for a control or derived number, `@input(place)` to read an image input, `@input.size` for its pixels,
 * `@input.wired` for whether there is one,
 * `aspect` and `pixel` (1 / size). If there is an input read at the same place first, `source` holds its colour.
 * A gradient control is called as `$ramp(t)`, a formula control as `$curve(v)`.
 *
 * `code` holds functions of the node's own in the same language, put before the body; `name~(` makes a name its own.
 *
 * passes: several such bodies, drawn one after the other; `@previous(place)` reads the result of the one before, and
 * `@name(place)` that of an earlier pass with that name.
 */
type Paint<C, I extends InputSpecs> =
  | ({
      type: 'shader';
      body: string;
      code?: string;
      /** Never joined with other shaders, as its code may use any name. */
      alone?: true;
      /** Mixes with `source` by the control Amount, for kinds that change an image. */
      wet?: true;
    } & PaintNumbers<C, I>)
  | ({ type: 'passes'; passes: readonly Pass<C>[] } & PaintNumbers<C, I>)
  | { type: 'data'; fill(work: Work<C, I>): DataPicture }
  | { type: 'shot'; settings(work: Work<C, I>): ShotSettings }
  | { type: 'field'; settings(work: Work<C, I>): FieldShotSettings };

interface Pass<C> {
  body: string;
  /** Under which later passes read it; the pass before it if it was skipped. */
  name?: string;
  /** Share of the node's size this pass is drawn at; 1 if absent. Gets the height of the node in pixels. */
  scale?(controls: ResolvedControls<C>, height: number): number;
  /**
   * Whether this pass would change nothing and is left out; absent: never. At least one pass has to remain. `has` says
   * whether something is wired into an input.
   */
  skip?(controls: ResolvedControls<C>, height: number, has: (input: string) => boolean): boolean;
}

interface PaintNumbers<C, I extends InputSpecs> {
  /** Functions the body calls; each text is put into a shader once. */
  helpers?: readonly string[];
  sheets?: Readonly<Record<string, Sheet<C, I>>>;
  derived?: Readonly<Record<string, GlslType>>;
  /**
   * Numbers worked out once a frame from controls and time. `height` is that of the node in pixels, `pick` the input that counts, of a
   * kind that picks.
   */
  derive?(
    controls: ResolvedControls<C>,
    moment: Moment,
    height: number,
    pick: string | null,
  ): Record<string, number | readonly number[]>;
}

export interface ImageKind<
  C extends ControlSpecs = ControlSpecs,
  I extends InputSpecs = InputSpecs,
> extends KindBase<C, I> {
  output: 'image';
  paint: Paint<C, I>;
  /** Whether the picture changes with time though nothing it reads does; absent: never. */
  moves?(controls: ResolvedControls<C>): boolean;
  /** Own size in pixels, where it follows from controls or inputs. */
  sizeFrom?(work: Work<C, I>): readonly [number, number] | null;
  /** What is wrong with this variant of the kind; it plays all the same. */
  problem?: string;
  /** The scene's picture is what enters the node that has this. */
  isSceneOut?: true;
  /**
   * What whoever shows the picture that enters this node does to it, in place of `paint`, which says the same: so that a scene
   * need not be drawn once more for it. Only for Scene Out.
   */
  shows?(controls: ResolvedControls<C>): { background: readonly number[]; brightness: number };
}

/**
 * How a distance field comes about: GLSL bodies in which `$name` stands for a control or derived number, and
 * `@image(place)` reads an image input. Distances are in scene units, below 0 inside.
 *
 * solid: from a place `p` to the distance. If the kind has a control `colour`, that is its colour.
 * warp: from a place `p` to the place at which the first input is asked; then from its distance `d` to the new one.
 * join: from the distances `a` and `b` of two to the new one and the share of b in how it looks, folded over all inputs.
 * copies: the first input at `$list` places (x, y, z and size), joined as above; `i` is the number of a copy.
 */
type FieldCode =
  | { type: 'solid'; distance: string }
  | { type: 'warp'; place: string; distance?: string }
  | { type: 'join'; join: string }
  | { type: 'copies'; place: string; distance: string; join: string };

export interface FieldKind<
  C extends ControlSpecs = ControlSpecs,
  I extends InputSpecs = InputSpecs,
> extends KindBase<C, I> {
  output: 'field';
  field: FieldCode;
  helpers?: readonly string[];
  derived?: Readonly<Record<string, GlslType>>;
  /** Numbers worked out once a frame from controls and time. */
  derive?(
    controls: ResolvedControls<C>,
    moment: Moment,
  ): Record<string, number | readonly number[] | Float32Array>;
  /** Whether it changes with time though nothing it reads does; absent: never. */
  moves?(controls: ResolvedControls<C>): boolean;
}

export type Kind = SignalKind | ShapeKind | PropKind | ImageKind | FieldKind;

/** All kinds by id. */
export type Catalogue = ReadonlyMap<string, Kind>;

/** The kind of a node as this node has it; undefined if there is no node or its kind is not known. */
export function kindOf(
  catalogue: Catalogue,
  node: { kind: string; controls: Readonly<Record<string, ControlValue>> } | undefined | null,
): Kind | undefined {
  const kind = node ? catalogue.get(node.kind) : undefined;
  return node && kind?.vary ? kind.vary(node.controls) : kind;
}

export const signalKind = <const C extends ControlSpecs, const I extends InputSpecs, M = undefined>(
  kind: Omit<SignalKind<C, I, M>, 'output'>,
): SignalKind<C, I, M> => ({ ...kind, output: 'signal' });
export const shapeKind = <const C extends ControlSpecs, const I extends InputSpecs>(
  kind: Omit<ShapeKind<C, I>, 'output'>,
): ShapeKind<C, I> => ({ ...kind, output: 'shape' });
export const propKind = <const C extends ControlSpecs, const I extends InputSpecs>(
  kind: Omit<PropKind<C, I>, 'output'>,
): PropKind<C, I> => ({ ...kind, output: 'prop' });
export const imageKind = <const C extends ControlSpecs, const I extends InputSpecs>(
  kind: Omit<ImageKind<C, I>, 'output'>,
): ImageKind<C, I> => ({ ...kind, output: 'image' });

export const fieldKind = <const C extends ControlSpecs, const I extends InputSpecs>(
  kind: Omit<FieldKind<C, I>, 'output'>,
): FieldKind<C, I> => ({ ...kind, output: 'field' });

/** The input a node passes on while it is switched off: the first that carries what the node gives. */
export function passThroughOf(kind: Kind): string | null {
  if (kind.handsOnWhileOff) return kind.handsOnWhileOff;
  for (const [port, spec] of Object.entries(kind.inputs))
    if (spec.carries === kind.output && spec.reads !== 'data') return port;
  return null;
}

/** What a wire carries that leaves a node of this kind by that output; null if there is no such output. */
export const carriedBy = (kind: Kind, output: string | undefined): Carries | null =>
  output === undefined ? kind.output : (kind.sideOutputs?.[output]?.carries ?? null);

/** Whether an input can take what a wire carries. */
export const takes = (input: InputSpec, carries: Carries): boolean =>
  input.carries === carries || input.also === carries;
