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
export type Output = ScreenOutput | LedWall | PixelString;

export interface Show {
  format: 'pyrvel.show';
  version: 5;
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
  inputs: ShowInputs;
  wall: Wall;
  /**
   * Files by id.
   */
  files: Record<string, ShowFile>;
  scenes: Scene[];
}
/**
 * How a take looks, and how long it lasts.
 */
export interface Transition {
  /**
   * mix: one into the other; dip: through a colour; add: both at full in the middle; wipe: an edge that travels; iris: an edge that opens from the middle.
   */
  look: 'mix' | 'dip' | 'add' | 'wipe' | 'iris';
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
   * Of a wipe or iris: width of the edge, as a share of its way.
   */
  soft: number;
  /**
   * Of a dip: red, green and blue.
   */
  colour: [number, number, number];
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
  };
  /**
   * What the tempo follows.
   */
  clock: 'own' | 'sound' | 'midi';
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
