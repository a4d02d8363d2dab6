/** Red, green, blue and alpha, each 0..1, straight (not premultiplied), as shown on a display. */
export type Rgba = [number, number, number, number];

/** One colour of a gradient, `at` 0..1 along it. */
export interface Stop {
  at: number;
  colour: Rgba;
}

/** One key of a drawn curve. */
export interface CurveKey {
  at: number;
  value: number;
  /**
   * How the curve passes it. smooth: softly and never beyond its neighbours. straight: in lines. hold: its value stands
   * until the next key. free: with slopes of its own.
   */
  form: 'smooth' | 'straight' | 'hold' | 'free';
  /** Slope before and after a free key, value over time. */
  slopes?: [number, number];
}

/** A drawn curve; its keys stand in the order of time. */
export interface CurveLane {
  name: string;
  keys: CurveKey[];
}

/** What a control can hold when nothing drives it. */
export type ControlValue = number | boolean | string | number[] | Stop[] | CurveLane[];

/** What happens to a fitted value outside its range. */
export type Edges = 'hold' | 'pass' | 'wrap' | 'mirror';

/** The range an arriving signal is mapped to on a control. */
export interface Fit {
  from: [number, number];
  to: [number, number];
  /** Exponent of the curve between the ends; 1 is a straight line. */
  bend: number;
  edges: Edges;
}

/** How m samples serve n places where the counts differ. */
export type Spread = 'stretch' | 'repeat' | 'mirror' | 'hold';

interface MotionBase {
  on: boolean;
  /** How far it moves the control, in the unit of the control. */
  amount: number;
}

/** A wave laid on a control: value = base + amount x wave. */
export interface Swing extends MotionBase {
  type: 'swing';
  shape: 'sine' | 'triangle' | 'square' | 'ramp';
  rate: number;
  /** hertz: cycles a second. beats: beats a cycle. loop: cycles in each round of the loop. */
  unit: 'hertz' | 'beats' | 'loop';
  /** In turns. */
  phase: number;
}

/** Smooth unrest: value = base + amount x noise, -1..1. */
export interface Wander extends MotionBase {
  type: 'wander';
  /** Turns of direction a second, about. */
  speed: number;
  seed: number;
}

/** A way from the base to base + amount. */
export interface Ramp extends MotionBase {
  type: 'ramp';
  /** Once from the start of the show, round and round, or to and fro. */
  way: 'once' | 'round' | 'toAndFro';
  /** How long one way takes; in rounds of the loop where that is the unit. */
  length: number;
  unit: 'seconds' | 'beats' | 'loop';
  eased: boolean;
}

/** Steps of up to a quarter of `amount`, at random, never further than `amount` from the base. */
export interface Stroll extends MotionBase {
  type: 'walk';
  /** Steps a second. */
  rate: number;
  smooth: boolean;
  seed: number;
}

/** An envelope of the height `amount`, fired when a signal rises over a half. */
export interface Hit extends MotionBase {
  type: 'hit';
  /** Signal node; null never fires. */
  trigger: string | null;
  /** Seconds to the top, and from there back to the base. */
  attack: number;
  decay: number;
}

/** Lets all before it in the row follow softly. It has no amount of its own: 0..1 says how much of it counts. */
export interface Follow extends MotionBase {
  type: 'follow';
  /** Seconds for 95 % of the way. */
  rise: number;
  fall: number;
}

/** A way through the colours of a gradient, for a colour as a whole. `amount`, 0..1, is how much of it covers the base. */
export interface ColourWay extends MotionBase {
  type: 'colours';
  stops: Stop[];
  way: Ramp['way'];
  /** How long one way takes, and when the first begins. */
  length: number;
  start: number;
  unit: Ramp['unit'];
}

export type Motion = Swing | Wander | Ramp | Stroll | Hit | Follow | ColourWay;

/** The controls of a wire that carries the previous frame. */
export interface ReturnSettings {
  /** How much survives, 0..1 (and a little above), stated per 1/60 s. */
  keep: number;
  /** Node whose output stands in before the first frame; null starts empty. */
  startsFrom: string | null;
  /** Signal node whose rise over 0.5 starts the loop again. */
  clearWhen: string | null;
  guard: 'soft' | 'off';
  /** Where the soft guard holds the values. */
  limit: number;
  /** Of an image: how its pixels are read. */
  reading: 'smooth' | 'crisp';
  /** Of an image: pixels that the loop is kept at; null: as its source. */
  size: [number, number] | null;
  /** Of an image: bits a channel that the loop is kept at; auto: as its source. */
  precision: Precision;
  /** Of an image: a picture that says where what the loop starts from comes back: out = mix(start, previous, mask). */
  clearWhere: string | null;
  /**
   * What other readers of the source get: after this frame's steps, or the picture that entered them. With `before` a
   * loop that was sent home is seen exactly at home.
   */
  tap: 'after' | 'before';
}

export interface WireEnd {
  node: string;
  /** An input of the kind, a control (`size`), or one part of a control (`place.x`). */
  port: string;
}

export interface Wire {
  id: string;
  from: { node: string };
  to: WireEnd;
  /** Lane to take where the target takes one; absent: by name, else the first. */
  lane?: string;
  fit?: Fit;
  spread?: Spread;
  back?: ReturnSettings;
}

export type Precision = 'auto' | '8' | '16' | '32';

export interface PatchNode {
  id: string;
  kind: string;
  name: string;
  /** Place of the card on the patch, in patch pixels. */
  place: [number, number];
  on: boolean;
  controls: Record<string, ControlValue>;
  /** Formula by control part, for example `size` or `place.x`. */
  formulas: Record<string, string>;
  /** Motions by control part. */
  motions: Record<string, Motion[]>;
  /** Pixels of an image node; absent: as its first picture, else as the canvas. */
  size?: [number, number];
  precision: Precision;
}

/** After which time a scene is to be where it was. */
export interface SceneLoop {
  length: number;
  unit: 'beats' | 'seconds' | 'frames';
  /** Rates are rounded to whole cycles of the loop. */
  lock: boolean;
}

export interface Scene {
  id: string;
  name: string;
  loop: SceneLoop;
  nodes: Record<string, PatchNode>;
  wires: Record<string, Wire>;
}

/** A file that belongs to a show; its bytes are kept beside the document. */
export interface ShowFile {
  name: string;
  /** Media type (RFC 6838), as far as known. */
  type: string;
  bytes: number;
}

/** What drives a show from outside. Devices are those of the machine that the show was made on. */
export interface ShowInputs {
  sound: {
    /** The loop that ships, a file of the show, or a microphone or line. */
    from: 'loop' | 'file' | 'device';
    /** File by its id; empty: none. */
    file: string;
    /** Device id of this browser; empty: its usual one. */
    device: string;
    /** Decibels added before it is heard by the nodes. */
    gain: number;
    /** Whether loop or file sound from this machine. */
    heard: boolean;
  };
  /** A MIDI file that plays with the show: once, or round and round. */
  midi: { file: string; rounds: boolean };
  /** UDP port that OSC is listened for on. */
  osc: { port: number };
  /** What the tempo follows. */
  clock: 'own' | 'sound' | 'midi';
}

export interface Show {
  format: 'pyrvel.show';
  version: 1;
  name: string;
  tempo: { bpm: number; beatsPerBar: number };
  canvas: { width: number; height: number; fps: number };
  fadeSeconds: number;
  inputs: ShowInputs;
  /** Files by id. */
  files: Record<string, ShowFile>;
  scenes: Scene[];
}

export const showFormat = 'pyrvel.show' as const;
export const showVersion = 1 as const;
