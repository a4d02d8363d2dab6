// Written by scripts/generate.ts from src/core/document/schema.ts. Do not edit.

/**
 * Red, green, blue and alpha, each 0..1, straight (not premultiplied), as shown on a display.
 */
export type Rgba = [number, number, number, number];
/**
 * What a control can hold when nothing drives it.
 */
export type ControlValue = number | boolean | string | number[] | Stop[] | CurveLane[];
/**
 * What happens to a fitted value outside its range.
 */
export type Edges = 'hold' | 'pass' | 'wrap' | 'mirror';
/**
 * How m samples serve n places where the counts differ.
 */
export type Spread = 'stretch' | 'repeat' | 'mirror' | 'hold';
export type Motion = Swing | Wander | Ramp | Stroll | Hit | Follow | ColourWay;
export type Precision = 'auto' | '8' | '16' | '32';
/**
 * What a desk control stands at: one number of a fader, dial, pad or switch, two of a pad x/y, four of a chip (red, green, blue, alpha); the chosen option, or the words of a title.
 */
export type DeskValue = number[] | string;
export type CueGo = GoByHand | GoAfter | GoAtSound | GoByNote | GoAtCode;
/**
 * What starts it.
 */
export type CueGo1 = GoByHand | GoAfter | GoAtSound | GoByNote | GoAtCode;
export type BindSource =
  ControlSource | NoteSource | BendSource | OscSource | ButtonSource | StickSource | KeySource;
export type BindTarget = ToDesk | ToCommand | ToScene | ToSnapshot | ToHit | ToMaster;
export type Move =
  | MoveDesk
  | MoveCue
  | MoveRecall
  | MoveTake
  | MoveFade
  | MoveTempo
  | MoveMaster
  | MoveLayer
  | MoveHit
  | MoveSwitch;
export type Output = ScreenOutput | LedWall | PixelString;

export interface Show {
  format: 'pyrvel.show';
  version: 9;
  name: string;
  tempo: {
    bpm: number;
    beatsPerBar: number;
  };
  canvas: {
    width: number;
    height: number;
    fps: number;
  };
  transition: Transition;
  desk: DeskPage[];
  snapshots: Snapshot[];
  cues: Cue[];
  bindings: Binding[];
  /**
   * In the order of time.
   */
  moves: Move[];
  home: Home;
  inputs: ShowInputs;
  wall: Wall;
  /**
   * Files by id.
   */
  files: Record<string, ShowFile>;
  /**
   * Modules by id: a node of the kind `module-` and that id is one of it.
   */
  modules: Record<string, Module>;
  scenes: Scene[];
}
/**
 * How a take looks, and how long it lasts.
 */
export interface Transition {
  /**
   * mix: one into the other; dip: through a colour; add: both at full in the middle; wipe: an edge that travels; iris: an edge that opens from the middle; mask: dark places of another scene or picture first, bright ones last; blur: through a blur; displace: each is bent by the other.
   */
  look: 'mix' | 'dip' | 'add' | 'wipe' | 'iris' | 'mask' | 'blur' | 'displace';
  length: number;
  unit: 'seconds' | 'beats';
  /**
   * When a take begins: at once, or with the next beat or bar.
   */
  start: 'now' | 'beat' | 'bar';
  /**
   * Of a wipe: the way its edge travels, degrees from the right, counter-clockwise.
   */
  angle: number;
  /**
   * Of a wipe, iris or mask: width of the edge, as a share of its way.
   */
  soft: number;
  /**
   * Of a dip: red, green and blue.
   */
  colour: [number, number, number];
  /**
   * Of a mask: a scene of the show, or a picture file; null: none yet.
   */
  mask: null | TransitionMask;
  /**
   * Of a blur or displacement: how strong it is in the middle, in heights of the picture.
   */
  amount: number;
}
export interface TransitionMask {
  from: 'scene' | 'file';
  id: string;
}
/**
 * What is on stage after a panic.
 */
export interface Home {
  /**
   * null: the first.
   */
  scene: null | string;
  snapshot: null | string;
}
/**
 * What drives a show from outside. Devices are those of the machine that the show was made on.
 */
export interface ShowInputs {
  sound: {
    /**
     * The built-in sound loop, a file of the show, or a microphone or line.
     */
    from: 'loop' | 'file' | 'device';
    /**
     * File by its id; empty: none.
     */
    file: string;
    /**
     * Device id of this browser; empty: its usual one.
     */
    device: string;
    /**
     * Decibels added before it is heard by the nodes.
     */
    gain: number;
    /**
     * Whether the sound is heard from this machine.
     */
    heard: boolean;
  };
  /**
   * A MIDI file that plays with the show: once, or round and round.
   */
  midi: {
    file: string;
    rounds: boolean;
  };
  osc: {
    /**
     * UDP port that OSC is listened for on.
     */
    port: number;
    /**
     * Address and port that bound controls are sent back to, `192.0.2.7:9000`; empty: none.
     */
    to: string;
  };
  /**
   * What the tempo follows.
   */
  clock: 'own' | 'sound' | 'midi';
  /**
   * Where time code comes from: MIDI time code, or linear time code (SMPTE ST 12-1) in the sound that is heard.
   */
  code: 'none' | 'midi' | 'sound';
}
/**
 * All outputs of a show, and the room they hang in.
 */
export interface Wall {
  outputs: Output[];
  /**
   * Model of the venue: the id of a file, in metres; null: none.
   */
  venue: null | string;
  /**
   * Flashes of what is on air are held within the limit.
   */
  limiter: boolean;
  /**
   * Where the eyes of somebody in the audience are, metres in the room.
   */
  seat: [number, number, number];
}
/**
 * One colour of a gradient, `at` 0..1 along it.
 */
export interface Stop {
  at: number;
  colour: Rgba;
}
/**
 * One key of a drawn curve.
 */
export interface CurveKey {
  at: number;
  value: number;
  /**
   * How the curve passes it. smooth: softly and never beyond its neighbours. straight: in lines. hold: its value stands until the next key. free: with slopes of its own.
   */
  form: 'smooth' | 'straight' | 'hold' | 'free';
  /**
   * Slope before and after a free key, value over time.
   */
  slopes?: [number, number];
}
/**
 * A drawn curve; its keys are sorted by time.
 */
export interface CurveLane {
  name: string;
  keys: CurveKey[];
}
/**
 * The range an arriving signal is mapped to on a control.
 */
export interface Fit {
  from: [number, number];
  to: [number, number];
  /**
   * Exponent of the curve between the ends; 1 is a straight line.
   */
  bend: number;
  edges: Edges;
}
/**
 * A wave laid on a control: value = base + amount x wave.
 */
export interface Swing {
  type: 'swing';
  on: boolean;
  /**
   * How far it moves the control, in the unit of the control.
   */
  amount: number;
  shape: 'sine' | 'triangle' | 'square' | 'ramp';
  rate: number;
  /**
   * hertz: cycles a second. beats: beats a cycle. loop: cycles in each round of the loop.
   */
  unit: 'hertz' | 'beats' | 'loop';
  /**
   * In turns.
   */
  phase: number;
}
/**
 * Smooth unrest: value = base + amount x noise, -1..1.
 */
export interface Wander {
  type: 'wander';
  on: boolean;
  /**
   * How far it moves the control, in the unit of the control.
   */
  amount: number;
  /**
   * Turns of direction a second, about.
   */
  speed: number;
  seed: number;
}
/**
 * A way from the base to base + amount.
 */
export interface Ramp {
  type: 'ramp';
  on: boolean;
  /**
   * How far it moves the control, in the unit of the control.
   */
  amount: number;
  /**
   * Once from the start of the show, round and round, or to and fro.
   */
  way: 'once' | 'round' | 'toAndFro';
  /**
   * How long one way takes; in rounds of the loop where that is the unit.
   */
  length: number;
  unit: 'seconds' | 'beats' | 'loop';
  eased: boolean;
}
/**
 * Steps of up to a quarter of `amount`, at random, never further than `amount` from the base.
 */
export interface Stroll {
  type: 'walk';
  on: boolean;
  /**
   * How far it moves the control, in the unit of the control.
   */
  amount: number;
  /**
   * Steps a second.
   */
  rate: number;
  smooth: boolean;
  seed: number;
}
/**
 * An envelope of the height `amount`, fired when a signal rises over a half.
 */
export interface Hit {
  type: 'hit';
  on: boolean;
  /**
   * How far it moves the control, in the unit of the control.
   */
  amount: number;
  /**
   * Signal node; null never fires.
   */
  trigger: null | string;
  /**
   * Seconds to the top.
   */
  attack: number;
  /**
   * Seconds from the top back to the base.
   */
  decay: number;
}
/**
 * Lets all before it in the row follow softly. It has no amount of its own: 0..1 says how much of it counts.
 */
export interface Follow {
  type: 'follow';
  on: boolean;
  /**
   * How far it moves the control, in the unit of the control.
   */
  amount: number;
  /**
   * Seconds for 95 % of the way up.
   */
  rise: number;
  /**
   * The same down.
   */
  fall: number;
}
/**
 * A way through the colours of a gradient, for a colour as a whole. `amount`, 0..1, is how much of it covers the base.
 */
export interface ColourWay {
  type: 'colours';
  on: boolean;
  /**
   * How far it moves the control, in the unit of the control.
   */
  amount: number;
  stops: Stop[];
  /**
   * Once from the start of the show, round and round, or to and fro.
   */
  way: 'once' | 'round' | 'toAndFro';
  /**
   * How long one way takes.
   */
  length: number;
  /**
   * When the first way begins.
   */
  start: number;
  unit: 'seconds' | 'beats' | 'loop';
}
/**
 * The controls of a wire that carries the previous frame.
 */
export interface ReturnSettings {
  /**
   * How much survives, 0..1 (and a little above), stated per 1/60 s.
   */
  keep: number;
  /**
   * Node whose output stands in before the first frame; null starts empty.
   */
  startsFrom: null | string;
  /**
   * Signal node whose rise over 0.5 starts the feedback again.
   */
  clearWhen: null | string;
  guard: 'soft' | 'off';
  /**
   * Where the soft guard holds the values.
   */
  limit: number;
  /**
   * Of an image: how its pixels are read.
   */
  reading: 'smooth' | 'crisp';
  /**
   * Of an image: pixels that the feedback is kept at; null: as its source.
   */
  size: null | [number, number];
  /**
   * Of an image: bits a channel that the feedback is kept at; auto: as its source.
   */
  precision: 'auto' | '8' | '16' | '32';
  /**
   * Of an image: a picture that says where what the feedback starts from comes back: out = mix(start, previous, mask).
   */
  clearWhere: null | string;
  /**
   * What other readers of the source get: the picture after this frame’s steps, or the one that entered them. With `before`, feedback that was sent home is seen exactly at home.
   */
  tap: 'after' | 'before';
}
export interface WireEnd {
  node: string;
  /**
   * An input of the kind, a control (`size`), or one part of a control (`place.x`).
   */
  port: string;
}
export interface Wire {
  id: string;
  from: {
    node: string;
    /**
     * Of a module with several outputs: which; absent: its first.
     */
    output?: string;
  };
  to: WireEnd;
  /**
   * Lane to take where the target takes one; absent: by name, else the first.
   */
  lane?: string;
  fit?: Fit;
  spread?: Spread;
  back?: ReturnSettings;
}
export interface PatchNode {
  id: string;
  kind: string;
  name: string;
  /**
   * Place of the card on the patch, in patch pixels.
   */
  place: [number, number];
  on: boolean;
  controls: Record<string, ControlValue>;
  /**
   * Formula by control part, for example `size` or `place.x`.
   */
  formulas: Record<string, string>;
  /**
   * Motions by control part.
   */
  motions: Record<string, Motion[]>;
  /**
   * Pixels of an image node; absent: as its first picture, else as the canvas.
   */
  size?: [number, number];
  precision: Precision;
  /**
   * Id of the costly node that this one stands for; absent: it stands for itself.
   */
  frozen?: string;
  /**
   * Values for work, by control: used in place of `controls` while only the desk looks on; stage, outputs and exports never use them.
   */
  draft?: Record<string, ControlValue>;
  /**
   * Of a module: seconds by which the time inside of it is behind; below 0, ahead.
   */
  delay?: number;
}
/**
 * After which time a scene is to be where it was.
 */
export interface SceneLoop {
  length: number;
  unit: 'beats' | 'seconds' | 'frames';
  /**
   * Rates are rounded to whole cycles of the loop.
   */
  lock: boolean;
}
export interface Scene {
  id: string;
  name: string;
  loop: SceneLoop;
  nodes: Record<string, PatchNode>;
  wires: Record<string, Wire>;
  button?: SceneButton;
  /**
   * Frames and notes on the patch, by id.
   */
  frames?: Record<string, PatchFrame>;
}
/**
 * How a scene stands among the buttons of Play.
 */
export interface SceneButton {
  /**
   * Colour of its mark; null: none.
   */
  tint: null | [number, number, number];
  page: number;
}
/**
 * A file that belongs to a show; its bytes are kept beside the document.
 */
export interface ShowFile {
  name: string;
  /**
   * Media type (RFC 6838), as far as known.
   */
  type: string;
  bytes: number;
}
/**
 * A frame around cards, or a note beside them.
 */
export interface PatchFrame {
  id: string;
  /**
   * A frame holds the cards that lie in it, and moves them; a note is words.
   */
  type: 'frame' | 'note';
  /**
   * Title of a frame; Markdown (CommonMark) of a note.
   */
  text: string;
  /**
   * Its upper left, in patch pixels.
   */
  place: [number, number];
  /**
   * Width and height, in patch pixels.
   */
  size: [number, number];
  /**
   * null: none.
   */
  tint: null | [number, number, number];
}
/**
 * A control inside of a module that one of its own controls sets.
 */
export interface ModuleTarget {
  node: string;
  control: string;
  /**
   * Its values at both ends of the range; null: it takes the very value. Only where the control is one number.
   */
  to: null | [number, number];
}
/**
 * A control of a module, chosen from those inside.
 */
export interface ModuleControl {
  id: string;
  name: string;
  help: string;
  /**
   * Heading that it stands under; empty: none.
   */
  group: string;
  /**
   * Useful range: ends of its slider and of the first fit.
   */
  range: [number, number];
  home: ControlValue;
  /**
   * The first says what type of control it is.
   */
  targets: ModuleTarget[];
}
/**
 * A part of a patch that is used as one node. Its inputs are its nodes of the kind `way-in`, its outputs those of the kind `way-out`, both in the order of their places from top to bottom.
 */
export interface Module {
  id: string;
  name: string;
  /**
   * One sentence: what it does.
   */
  help: string;
  /**
   * What a performer would type to find it.
   */
  words: string[];
  /**
   * Rises each time it is kept in the library after a change.
   */
  version: number;
  nodes: Record<string, PatchNode>;
  wires: Record<string, Wire>;
  controls: ModuleControl[];
  /**
   * Frames and notes on the patch, by id.
   */
  frames?: Record<string, PatchFrame>;
}
/**
 * A control of a node that a desk control moves.
 */
export interface DeskTarget {
  scene: string;
  node: string;
  /**
   * A control (`size`) or one part of it (`place.x`).
   */
  part: string;
  /**
   * Which number of the desk control moves it.
   */
  from: number;
  /**
   * Its values at the low and at the high end.
   */
  to: [number, number];
  /**
   * Exponent of the curve between the ends; 1 is a straight line.
   */
  bend: number;
}
/**
 * A control under the fingers of the performer.
 */
export interface DeskControl {
  id: string;
  name: string;
  type: 'fader' | 'dial' | 'pad' | 'switch' | 'chip' | 'xy' | 'choice' | 'title';
  /**
   * Column and row of its upper left cell on the page.
   */
  place: [number, number];
  /**
   * Columns and rows that it covers.
   */
  size: [number, number];
  /**
   * What it can be moved between: narrower than what its node takes, where that is safer.
   */
  range: [number, number];
  /**
   * It stands on multiples of this from its low end; 0: anywhere.
   */
  step: number;
  home: DeskValue;
  unit: string;
  /**
   * Snapshots store it.
   */
  stored: boolean;
  targets: DeskTarget[];
  /**
   * Motions that move it by themselves, in its own unit.
   */
  motions: Motion[];
}
/**
 * One page of the desk.
 */
export interface DeskPage {
  id: string;
  name: string;
  /**
   * The scene whose page it is; null: of the whole show.
   */
  scene: null | string;
  controls: DeskControl[];
  /**
   * Snapshots at the ends of its morph: left, right, upper left, upper right.
   */
  corners: [null | string, null | string, null | string, null | string];
}
/**
 * Stored values of desk controls.
 */
export interface Snapshot {
  id: string;
  name: string;
  /**
   * The scene it is for; null: any.
   */
  scene: null | string;
  /**
   * What desk controls stood at, by id.
   */
  values: Record<string, DeskValue>;
}
/**
 * By a key, pedal, button or command.
 */
export interface GoByHand {
  type: 'hand';
}
/**
 * By itself, so long after the cue before it began.
 */
export interface GoAfter {
  type: 'after';
  length: number;
  unit: 'seconds' | 'beats';
}
/**
 * When the sound of the show comes to that second; a sound that goes round comes there each time.
 */
export interface GoAtSound {
  type: 'sound';
  at: number;
}
/**
 * By a MIDI note.
 */
export interface GoByNote {
  type: 'note';
  /**
   * 0: any channel.
   */
  channel: number;
  note: number;
}
/**
 * When time code comes to that second.
 */
export interface GoAtCode {
  type: 'code';
  at: number;
}
/**
 * A desk control that a cue moves, over so many seconds.
 */
export interface CueMove {
  control: string;
  value: DeskValue;
  seconds: number;
}
/**
 * A step of the running order.
 */
export interface Cue {
  id: string;
  name: string;
  /**
   * What the performer should know.
   */
  note: string;
  /**
   * Scene that is taken; null: what is on air stays.
   */
  scene: null | string;
  /**
   * Snapshot that is recalled; null: the desk stays.
   */
  snapshot: null | string;
  /**
   * How long the recall takes.
   */
  seconds: number;
  moves: CueMove[];
  /**
   * How its scene comes; null: as the show says.
   */
  transition: null | Transition;
  /**
   * Tempo from here on; null: as it is.
   */
  bpm: null | number;
  go: CueGo1;
  /**
   * After it, the running order goes back to a cue, so many times; 0 times: until a hand goes on.
   */
  back: null | {
    cue: string;
    times: number;
  };
}
/**
 * A scene that lies over the program.
 */
export interface Layer {
  scene: string;
  blend: 'over' | 'add' | 'screen' | 'multiply';
  opacity: number;
}
/**
 * A MIDI control change.
 */
export interface ControlSource {
  type: 'control';
  channel: number;
  control: number;
  /**
   * 14 bits: the control 32 numbers further holds the lower seven.
   */
  fine: boolean;
}
/**
 * A MIDI note: its velocity while it is held.
 */
export interface NoteSource {
  type: 'note';
  channel: number;
  note: number;
}
/**
 * A MIDI pitch bend.
 */
export interface BendSource {
  type: 'bend';
  channel: number;
}
/**
 * A number of an OSC message, 0..1.
 */
export interface OscSource {
  type: 'osc';
  address: string;
  arg: number;
}
/**
 * A button of a gamepad.
 */
export interface ButtonSource {
  type: 'button';
  pad: number;
  button: number;
}
/**
 * A stick of a gamepad: left x and y, right x and y.
 */
export interface StickSource {
  type: 'stick';
  pad: number;
  stick: number;
}
/**
 * A key, as `KeyboardEvent.code` (UI Events standard).
 */
export interface KeySource {
  type: 'key';
  code: string;
}
/**
 * A desk control.
 */
export interface ToDesk {
  type: 'desk';
  control: string;
  /**
   * Which of its numbers.
   */
  from: number;
}
/**
 * A command of the application, by its id.
 */
export interface ToCommand {
  type: 'command';
  command: string;
}
/**
 * Takes a scene.
 */
export interface ToScene {
  type: 'scene';
  scene: string;
}
/**
 * Recalls a snapshot.
 */
export interface ToSnapshot {
  type: 'snapshot';
  snapshot: string;
}
/**
 * A hit on the picture, while it is held.
 */
export interface ToHit {
  type: 'hit';
  hit: 'strobe' | 'invert' | 'flash';
}
/**
 * A master of the performance.
 */
export interface ToMaster {
  type: 'master';
  master: 'speed' | 'motion' | 'crossfader' | 'layer';
}
/**
 * What a hand or device moves.
 */
export interface Binding {
  id: string;
  source: BindSource;
  target: BindTarget;
  /**
   * absolute: where it stands is where the control stands; relative: an endless dial that tells by how much it was turned (two’s complement).
   */
  way: 'absolute' | 'relative';
  /**
   * It moves nothing until it has come to where the control stands.
   */
  pickup: boolean;
  /**
   * Where the control stands is sent back, to lights and motors.
   */
  feedback: boolean;
}
/**
 * A desk control was moved.
 */
export interface MoveDesk {
  type: 'desk';
  at: number;
  control: string;
  value: DeskValue;
}
/**
 * A cue began.
 */
export interface MoveCue {
  type: 'cue';
  at: number;
  cue: string;
}
/**
 * A snapshot was recalled, over so many seconds.
 */
export interface MoveRecall {
  type: 'recall';
  at: number;
  snapshot: string;
  seconds: number;
}
/**
 * A scene was taken.
 */
export interface MoveTake {
  type: 'take';
  at: number;
  scene: string;
  seconds: number;
}
/**
 * The crossfader brought a scene so far.
 */
export interface MoveFade {
  type: 'crossfade';
  at: number;
  scene: string;
  to: number;
}
/**
 * The tempo was changed.
 */
export interface MoveTempo {
  type: 'tempo';
  at: number;
  bpm: number;
}
/**
 * A master was moved.
 */
export interface MoveMaster {
  type: 'master';
  at: number;
  master: 'speed' | 'motion';
  value: number;
}
/**
 * A layer came, changed or went.
 */
export interface MoveLayer {
  type: 'layer';
  at: number;
  layer: null | Layer;
}
/**
 * A hit on the picture began or ended.
 */
export interface MoveHit {
  type: 'hit';
  at: number;
  hit: 'strobe' | 'invert' | 'flash';
  on: boolean;
}
/**
 * Blackout or freeze was switched.
 */
export interface MoveSwitch {
  type: 'switch';
  at: number;
  what: 'blackout' | 'freeze';
  on: boolean;
}
/**
 * Where the surface of an output is in the simulated room.
 */
export interface RoomPlace {
  /**
   * Middle of its surface, metres from the middle of the back wall on the floor: x to the right, y up, z towards the audience.
   */
  at: [number, number, number];
  /**
   * Degrees about x, then y, then z; none faces the audience.
   */
  turn: [number, number, number];
  /**
   * Metres. An LED wall has the width of its pixels instead.
   */
  width: number;
}
/**
 * What an output takes of the canvas, in pixels from its top left.
 */
export interface OutputPart {
  x: number;
  y: number;
  width: number;
  height: number;
  /**
   * Degrees clockwise, around its middle.
   */
  turn: number;
}
/**
 * How the picture is bent onto a surface. 2 x 2 points are corners: the bend is a perspective.
 */
export interface Warp {
  columns: number;
  rows: number;
  /**
   * Curves between the points, else lines.
   */
  smooth: boolean;
  /**
   * Where the points of a regular grid over the picture lie on the output, row by row, as shares from its top left.
   */
  points: [number, number][];
}
/**
 * What is cut away from an output.
 */
export interface OutputMask {
  /**
   * Corners of a polygon, as shares of the output from its top left.
   */
  points: [number, number][];
  /**
   * Width of its soft edge, as a share of the height of the output.
   */
  soft: number;
  /**
   * What is black: what lies inside of it, or outside.
   */
  hides: 'inside' | 'outside';
}
/**
 * How two projectors overlap: the width of each side, as a share of the picture.
 */
export interface EdgeBlend {
  left: number;
  right: number;
  top: number;
  bottom: number;
  /**
   * Form of the curve; 1 is a straight line in linear light.
   */
  power: number;
  /**
   * Of the projector.
   */
  gamma: number;
  /**
   * Light added to black where nothing overlaps, in linear light.
   */
  lift: number;
}
/**
 * How an output shows colours: red, green and blue.
 */
export interface OutputColour {
  gain: [number, number, number];
  /**
   * Of each channel: above 1 its middle is brighter.
   */
  gamma: [number, number, number];
  /**
   * Of each channel: what black is raised to.
   */
  black: [number, number, number];
  /**
   * Colour temperature of white; 6500 changes nothing.
   */
  kelvin: number;
  /**
   * Most light it gives, as a share of what it can.
   */
  brightness: number;
}
/**
 * One window on one display.
 */
export interface ScreenOutput {
  id: string;
  name: string;
  type: 'screen';
  part: OutputPart;
  /**
   * Turns of 90 degrees clockwise.
   */
  quarterTurns: number;
  mirrored: boolean;
  warp: Warp;
  masks: OutputMask[];
  blend: EdgeBlend;
  colour: OutputColour;
  /**
   * Where it hangs in the room; null: as its part lies on the canvas.
   */
  room: null | RoomPlace;
}
/**
 * One cabinet of an LED wall.
 */
export interface LedTile {
  /**
   * LED pixels from the wall’s own origin.
   */
  x: number;
  y: number;
  /**
   * Turns of 90 degrees clockwise.
   */
  turn: number;
  /**
   * Corners of the lit part, as shares of the tile from its top left before it is turned; null: all of it.
   */
  outline: null | [number, number][];
}
/**
 * The picture that an LED processor expects: where the pixels of each tile lie in it.
 */
export interface LedRaster {
  width: number;
  height: number;
  /**
   * Whether tiles are wired row by row or column by column.
   */
  along: 'rows' | 'columns';
  /**
   * The corner of the wall where the chain begins.
   */
  from: 'topLeft' | 'topRight' | 'lowerLeft' | 'lowerRight';
  /**
   * Every other line runs back.
   */
  serpentine: boolean;
  /**
   * Upper left corner of each tile in the raster, if they are placed by hand; null: packed in the order of the chain.
   */
  places: null | [number, number][];
}
/**
 * A wall of LED tiles, fed through a processor.
 */
export interface LedWall {
  id: string;
  name: string;
  type: 'led';
  /**
   * Where the wall’s origin lies on the canvas, pixels from its top left.
   */
  place: {
    x: number;
    y: number;
  };
  /**
   * Pixels of the canvas for each of the wall.
   */
  pixelSize: number;
  /**
   * Pixels of a tile, before it is turned.
   */
  tile: [number, number];
  /**
   * Millimetres from one LED pixel to the next.
   */
  pitch: number;
  tiles: LedTile[];
  raster: LedRaster;
  colour: OutputColour;
  /**
   * Where it hangs in the room; null: as its part lies on the canvas.
   */
  room: null | RoomPlace;
}
/**
 * A run of single pixels that is fed over the network.
 */
export interface PixelString {
  id: string;
  name: string;
  type: 'string';
  /**
   * path: pixels evenly along the line through the points. points: a pixel at each point.
   */
  layout: 'path' | 'points';
  /**
   * Places on the canvas, pixels from its top left.
   */
  points: [number, number][];
  /**
   * Of a path: the last point is joined to the first.
   */
  closed: boolean;
  /**
   * The last pixel is fed first.
   */
  reversed: boolean;
  /**
   * How many lie along a path.
   */
  pixels: number;
  /**
   * Side of the square of the canvas that a pixel stands for, in pixels of the canvas.
   */
  area: number;
  /**
   * Order of the channels of a pixel.
   */
  order: 'RGB' | 'RBG' | 'GRB' | 'GBR' | 'BRG' | 'BGR' | 'RGBW' | 'GRBW' | 'WRGB';
  bits: 8 | 16;
  gamma: number;
  brightness: number;
  /**
   * What one channel of one pixel draws at full.
   */
  milliamperes: number;
  /**
   * The string is dimmed where it would draw more by estimate; 0: no limit.
   */
  mostAmperes: number;
  /**
   * Where it hangs in the room; null: as its part lies on the canvas.
   */
  room: null | RoomPlace;
  send: {
    /**
     * Sent to the receiver that is built in, and not to the network.
     */
    simulated: boolean;
    /**
     * What nodes are left with when nothing is sent any more.
     */
    onStop: 'black' | 'hold';
    /**
     * Art-Net 4, sACN (ANSI E1.31), DDP, or none: nothing is sent.
     */
    protocol: 'none' | 'artnet' | 'sacn' | 'ddp';
    /**
     * IPv4 address of the node; empty: multicast, with sACN only.
     */
    address: string;
    /**
     * The first; a Port-Address with Art-Net.
     */
    universe: number;
    /**
     * Where the first pixel begins in it.
     */
    channel: number;
    /**
     * With sACN.
     */
    priority: number;
    /**
     * Whether nodes wait for a synchronization packet before they show a frame.
     */
    sync: boolean;
    /**
     * Most frames a second.
     */
    rate: number;
  };
}
