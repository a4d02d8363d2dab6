import type { PerformanceState } from '../../core/desk/performance-state';
import type { DarkReason } from '../../core/run/why-dark';
import type { MidiFile } from '../../core/midi/file';
import type { ControllerState } from '../../core/inputs/inputs';
import type { ShowChange } from '../../core/show/changes';
import type { StreamCount } from '../../core/wall/pixels/receive';
import type { RoomView } from '../../core/wall/room';
import type { PerformanceCommand } from '../../core/desk/command';
import type { DeskValues } from '../../core/desk/desk-run';
import type { DataRequest } from '../../core/export/data/data-request';
import type { ExportPlan } from '../../core/export/schedule';
import type { ExportSource, ExportSpec } from '../../core/export/spec';
import type { CostMeasure } from '../../core/preflight/cost-check';
import type { FontName } from '../../core/text/layout';
import type { RoundMeasure } from '../../core/preflight/round-check';
import type { Encoders, ExportEvent, ExportOrder, LiveOrder } from './export';
import type { Move, Scene, Show } from '../../core/document/types';

/**
 * Everything the interface and the engine say to each other. All unions are closed: a new message is added here, and the
 * compiler names every place that has to handle it.
 */

// To the engine

/** What an output shows. */
export type OutputSource =
  /** The picture of a scene; `without`: as it would be without that node. */
  | { type: 'scene'; scene: string; without: string | null }
  /** The same, small, and moving only as far as the machine has time. */
  | { type: 'tile'; scene: string }
  /** The output of an image or field node. */
  | { type: 'node'; scene: string; node: string }
  /** What is on air, transitions included. */
  | { type: 'program' }
  /** The scene that is ready to go on air. */
  | { type: 'next' }
  /** What a screen of the wall shows: its part of what is on air, or its test picture. */
  | { type: 'screen'; id: string }
  /** The room with all outputs on their surfaces, seen from somewhere. */
  | { type: 'room'; view: RoomView }
  /** A small scene that is no part of the show; `inTurn`: one of several, which move only as far as the machine has time. */
  | { type: 'example'; scene: Scene; inTurn?: true };

/** Pictures by which a screen is set up. */
export const testPictures = ['grid', 'bars', 'ramp', 'focus', 'blend'] as const;
export type TestPicture = (typeof testPictures)[number];

/** How a picture lies in an output. */
export interface OutputMapping {
  /** x, y, width and height of the part that is shown, as shares of the picture from its lower left. */
  part: readonly [number, number, number, number];
  /** whole: all of it, between bars where the shapes differ; fill: no bars, cut at two sides; stretch: bent to the shape. */
  fit: 'whole' | 'fill' | 'stretch';
}

/** A place where pictures leave the engine. */
export interface OutputSpec {
  source: OutputSource;
  /** Pixels. */
  width: number;
  height: number;
  mapping: OutputMapping;
  /** The audience sees a stage output: it obeys blackout and freeze and is painted last. The desk is for the performer. */
  use: 'stage' | 'desk';
}

/** A picture that stands in for what an output shows, and is stretched to it: 8 bits a channel, the upper row first. */
export interface StandIn {
  width: number;
  height: number;
  rgba: Uint8Array;
}

/** What an output shows: `share` of the width and height of a bitmap, from its lower left. */
export interface OutputPicture {
  id: string;
  bitmap: ImageBitmap;
  share: readonly [number, number];
}

/** What the editor looks at, beside its outputs. */
export interface Watch {
  /** Scene open in Build, or null. */
  scene: string | null;
  /** Nodes whose cards are in sight: they get previews. */
  cards: readonly string[];
  /** Node whose numbers the bench shows. */
  bench: string | null;
  /** Node whose control values are wanted. */
  inspected: string | null;
}

/** Share of the full size that is drawn while no stage output is open; `auto` follows the frame rate. */
export type WorkScale = 'auto' | 1 | 0.5 | 0.25;

/** Red, green, blue, 0..1. */
type LayerColour = readonly [number, number, number];

/** The face of a card, in places of the patch: its upper left and size. */
export interface LayerFace {
  node: string;
  /** The picture of an image or field, or the numbers of anything else. */
  shows: 'picture' | 'numbers';
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A wire that shows what it carries: an image its mean colour, a signal (with a range) a bead at its value. */
export interface LayerWire {
  /** Node that it comes from. */
  node: string;
  /** Cubics, each as x and y of start, both handles and end, in places of the patch. */
  curve: readonly number[];
  dashed: boolean;
  /** Lane whose value the bead has; null: the first. */
  lane: string | null;
  /** Values at both ends of the way of the bead; null: an image. */
  range: readonly [number, number] | null;
}

/** What of the patch is in sight, and where: the engine paints all that moves there. */
export interface LayerLayout {
  scene: string;
  /** Pixels of the picture, and pixels for each of the page's. */
  width: number;
  height: number;
  ratio: number;
  /** Place of the patch's 0, 0 in pixels of the page from the upper left, and its scale. */
  view: { x: number; y: number; zoom: number };
  /** Cards in the order in which they lie on each other. */
  faces: readonly LayerFace[];
  wires: readonly LayerWire[];
  colours: Readonly<Record<'signal' | 'shape' | 'prop' | 'image' | 'ground' | 'ink', LayerColour>>;
}

/** Small pictures of what is on air. */
export interface LookOrder {
  /** Pixels. */
  width: number;
  height: number;
  /** Most in a second. */
  perSecond: number;
}

/** Messages that hold until the next of their type. The client sends the latest of each to a restarted engine. */
export type SettingMessage =
  /** Share of the time that exports may take; the rest is left to everybody else. */
  | { type: 'export-share'; share: number }
  | { type: 'watch'; watch: Watch }
  | { type: 'controllers'; controllers: ControllerState }
  /** A MIDI file that plays with the show; null: none. */
  | { type: 'midi-file'; file: MidiFile | null; roundSeconds: number }
  /** Whether what a device is heard of is told for other machines. */
  | { type: 'share-sound'; on: boolean }
  /** Whether sound levels are reported even if no node listens. */
  | { type: 'hear'; on: boolean }
  | { type: 'work-scale'; scale: WorkScale }
  /** Whether values for work are used while only the desk looks on. */
  | { type: 'drafts'; on: boolean }
  /** Whether the editor's window is out of sight: then no scene is drawn, unless a stage window is open. Time goes on. */
  | { type: 'desk-hidden'; hidden: boolean }
  /** Screens of the wall that show a test picture, by id. */
  | { type: 'test-pictures'; shown: Readonly<Record<string, TestPicture>> }
  /** null: no patch is in sight. */
  | { type: 'layer'; layout: LayerLayout | null }
  /** Small pictures of what is on air; null: nobody looks on from elsewhere. */
  | { type: 'look'; look: LookOrder | null };

export type InjectedFault = 'context-loss' | 'crash' | 'hang' | 'server-away';

/** Messages about something that happens once. All of it is plain data. */
export type EventMessage =
  /** Milliseconds that the clock of the page is ahead of the machine's: the engine goes by that of its page. */
  | { type: 'clock'; ahead: number }
  /** What the machine that is followed has heard of its device. */
  | { type: 'sound-heard'; packed: Uint8Array }
  /** `resume`: the last report of an engine that is gone; null: the performance starts afresh at the scene `program`. */
  | { type: 'open'; show: Show; program: string; resume: PerformanceState | null }
  | { type: 'change'; changes: ShowChange[] }
  | { type: 'perform'; command: PerformanceCommand }
  /** Stands as a performance on another machine, which by the clock of this one stood so at `state.at`. */
  | { type: 'follow'; state: PerformanceState }
  /** Goes on by itself from where the performance that it followed stood. */
  | { type: 'lead' }
  | { type: 'output-change'; id: string; change: Partial<OutputSpec> }
  | { type: 'output-remove'; id: string }
  | { type: 'clear-return'; scene: string; wire: string }
  /** The page has taken the last picture of the live layer, or the last ones of outputs; the engine makes no others before. */
  | { type: 'taken'; what: 'layer' | 'outputs' }
  | { type: 'request'; id: number; request: EngineRequest }
  | { type: 'camera-fault'; device: string; message: string }
  /** Causes a fault on purpose: the graphics context lost, the engine gone or hanging, or the server away for a moment. */
  | { type: 'inject-fault'; fault: InjectedFault };

/** Messages that carry what only this machine can hand over: canvases, ports, pictures, sound, files, folders. */
export type HandoverMessage =
  | { type: 'export'; order: ExportOrder }
  /** Begins a recording of what is on air; null: ends it. */
  | { type: 'live-recording'; order: LiveOrder | null }
  /** `canvas` null: the page paints it by pictures that it is given. */
  | { type: 'output-add'; id: string; spec: OutputSpec; canvas: OffscreenCanvas | null }
  /** Sound of a file of the show, one channel; no samples if it could not be read. */
  | { type: 'sound-file'; file: string; rate: number; samples: Float32Array }
  /** Blocks of samples of a device arrive through the port; null: there is none any more. */
  | { type: 'sound-stream'; rate: number; port: MessagePort | null }
  /** The bytes of a file of the show; null if unavailable. */
  | { type: 'file'; id: string; name: string; blob: Blob | null }
  /** A vector drawing as pixels, or why it could not be drawn. */
  | { type: 'vector'; id: number; bitmap: ImageBitmap | null; message: string }
  | { type: 'camera-frame'; device: string; bitmap: ImageBitmap };

export type ToEngine = SettingMessage | EventMessage | HandoverMessage;

// Requests and answers

export interface FrameRequest {
  scene: string;
  /** Node whose picture is wanted; null: the picture of the scene. */
  node: string | null;
  frame: number;
  width: number;
  height: number;
}

/** What is measured, at the rate of the show. `output`: an output of the wall; null: the canvas. */
export interface MeasureSubject {
  source: ExportSource;
  output: string | null;
}

/** Requests that get one answer. */
export type EngineRequest =
  | { type: 'pixel'; scene: string; node: string; x: number; y: number }
  /** A frame of a scene, run from frame 0 or on from the last one asked for. */
  | { type: 'frame'; request: FrameRequest }
  /** A field of such a frame at places (x, y, z in turn); the size has no effect. */
  | { type: 'field'; request: FrameRequest; places: readonly number[] }
  /** A small picture of a scene for lists, PNG. */
  /** `desk`: what desk controls stand at in it; absent: nothing is moved. */
  | { type: 'picture'; scene: string; width: number; height: number; desk?: DeskValues }
  | { type: 'shader'; scene: string; node: string }
  /** Why the picture of a scene may be dark. */
  | { type: 'why'; scene: string }
  /** What an export consists of. */
  | { type: 'export-plan'; spec: ExportSpec }
  /** What a node gives, as a file. */
  | { type: 'data'; request: DataRequest }
  /**
   * What a stretch of time shows: one round of a scene, the running order or recorded moves, of `longest` seconds at most.
   * Answers after a while with how far it is; asked again with `isNew` false it goes on.
   */
  | { type: 'measure'; subject: MeasureSubject; longest: number; isNew: boolean }
  /** What drawing costs at full size. `frames`: how many are timed at each size that is tried. */
  | { type: 'cost'; subject: MeasureSubject; frames: number }
  /** What can be encoded here at that size. */
  | { type: 'encoders'; width: number; height: number }
  /** Which of the fonts that ship can't be loaded. */
  | { type: 'fonts' };

export type EngineAnswer =
  | { type: 'pixel'; rgba: [number, number, number, number]; width: number; height: number }
  | { type: 'frame'; png: ArrayBuffer }
  /** Distance, red, green and blue of each place. */
  | { type: 'field'; values: Float32Array }
  | { type: 'picture'; png: ArrayBuffer }
  | { type: 'shader'; text: string }
  | { type: 'why'; reasons: readonly DarkReason[] }
  | { type: 'export-plan'; plan: ExportPlan }
  | { type: 'data'; bytes: Uint8Array<ArrayBuffer> }
  /** `done`: share of it, 0..1; `measure`: all of it, when it is done. */
  | { type: 'measure'; done: number; measure: RoundMeasure | null }
  | { type: 'cost'; cost: CostMeasure }
  | { type: 'encoders'; encoders: Encoders }
  | { type: 'fonts'; missing: readonly FontName[] };

// From the engine

/** A signal, shape or prop as cards show it. */
export interface NodeGlance {
  node: string;
  kind: 'signal' | 'shape' | 'prop';
  lanes: string[];
  /** First sample of each lane. */
  values: number[];
  /** Samples a lane, points of a shape, or copies. */
  count: number;
  /** Up to 64 samples of the first lane, or up to 160 points (x, y, z). */
  samples: Float32Array;
  /** Its numbers in a few words. */
  caption: string;
}

/** One driven part of the inspected node's controls. */
export interface PartGlance {
  part: string;
  /** First sample as it is used, inside of the limits of its control. */
  value: number;
  /** The same before it was limited. */
  asked: number;
  low: number;
  high: number;
  samples: number;
}

export interface BenchData {
  node: string;
  /** Pixels of an image; its picture is an output. */
  size: [number, number] | null;
  lanes: { name: string; samples: Float32Array }[];
  positions: Float32Array | null;
  lines: Uint32Array | null;
  count: number;
  /** A sentence where there are no numbers to show. */
  about: string;
}

/** What happens to the pixels of strings. */
export interface PixelReport {
  /** Whether the server is there to send them, as far as is known. */
  isConnected: boolean;
  /** UDP packets since the engine started. */
  packets: number;
  /** Addresses that nobody has allowed on this machine. */
  refused: readonly string[];
  /** Estimated current of each string, by its id. */
  amperes: Readonly<Record<string, number>>;
  /** What arrives of each string at the receiver that is built in, while somebody looks at the room. */
  received: Readonly<Record<string, StreamCount>>;
  /** Packets that came to it quicker than they could be handed on. */
  dropped: number;
}

/** What the flash meter counts of what is on air. */
export interface FlashReport {
  /** Changes of light, and of saturated red, in the last second, where most are; two are a flash. */
  general: number;
  red: number;
  /** More than three flashes. */
  fails: boolean;
  /** How much the limiter holds back where it does most, 0..1. */
  held: number;
}

export interface Stats {
  /** Frames finished in the last second. */
  framesPerSecond: number;
  /** Frames painted on stage outputs since the engine started. */
  stageFrames: number;
  /** Frames drawn since the engine started. */
  frames: number;
  /** Milliseconds from the start of a frame until the GPU was done with it. */
  frameMs: number;
  /** Milliseconds of it that the worker itself was busy. */
  cpuMs: number;
  passes: number;
  targets: number;
  textures: number;
  shaders: number;
  /** Pixels that the watched scene is drawn at. */
  width: number;
  height: number;
  /** GPU milliseconds by node, where the GPU can tell. */
  nodeMs: Record<string, number>;
}

/** How the performance stands. */
export interface PerformanceReport {
  state: PerformanceState;
  /** Commands that this engine has performed since it started: what they did is part of the state. */
  performed: number;
}

export type FromEngine =
  | { type: 'ready' }
  | { type: 'opened' }
  | { type: 'export'; job: string; event: ExportEvent }
  | ({ type: 'performance' } & PerformanceReport)
  | { type: 'stats'; stats: Stats }
  /** Whether shaders are drawn with for the first time, which may keep it silent for seconds. */
  | { type: 'making'; on: boolean }
  /** Moves that were recorded up to a second of the show, to be laid over those of the show. */
  | { type: 'recorded'; moves: Move[]; end: number }
  /** A small picture of what is on air. */
  | { type: 'look'; jpeg: ArrayBuffer }
  /** null: nothing is counted. */
  | { type: 'flashes'; flashes: FlashReport | null }
  /** null: no string is fed. */
  | { type: 'pixels'; pixels: PixelReport | null }
  /** The live layer for the view it was painted for; it fills that share of the bitmap from the lower left. */
  | {
      type: 'layer-painted';
      bitmap: ImageBitmap;
      share: readonly [number, number];
      layout: Pick<LayerLayout, 'scene' | 'width' | 'height' | 'ratio' | 'view'>;
    }
  /** New pictures of outputs that the page paints. They come together, and with the live layer: whatever comes apart, the page paints apart. */
  | { type: 'pictures'; pictures: OutputPicture[] }
  /** `nodes`: those of the cards in sight; null: nothing is said of them this time. */
  | { type: 'glance'; nodes: NodeGlance[] | null; parts: PartGlance[]; bench: BenchData | null }
  /** Faults and notes of nodes, and notes of return wires. */
  | {
      type: 'faults';
      scene: string;
      faults: Record<string, string>;
      notes: Record<string, string>;
      feedback: Record<string, string>;
    }
  /** Whether the picture of the watched scene has been dark for a while. */
  | { type: 'dark'; scene: string; dark: boolean }
  /** What a device was heard of at a frame, packed for other machines. */
  | { type: 'sound-shared'; packed: Uint8Array }
  /** What is heard: levels of bands, 0..1, and the tempo. */
  | {
      type: 'heard';
      level: number;
      bands: Float32Array;
      onsets: number;
      bpm: number | null;
      confidence: number;
    }
  /**
   * An output has its first picture, or lies otherwise in its bitmap: it fills that share of it from the lower left. All
   * outputs share one canvas, which keeps its size, so that no frame waits for another one.
   */
  | { type: 'output-painted'; id: string; share: readonly [number, number] }
  | { type: 'graphics'; state: 'lost' | 'back' | 'none'; message: string }
  /** What stands in for an output from now on, should the graphics card be lost. */
  | { type: 'stand-in'; id: string; picture: StandIn }
  /** What an output showed went with the graphics card: it needs another canvas. `dark`: it has nothing to show until then. */
  | { type: 'output-lost'; id: string; dark: boolean }
  /** Asks for a vector drawing as pixels, `height` high: only a page can draw one. */
  | { type: 'draw-vector'; id: number; file: Blob; height: number }
  /** Asks for the pictures of a camera from now on. */
  | { type: 'want-camera'; device: string }
  | { type: 'answer'; id: number; answer: EngineAnswer }
  | { type: 'refusal'; id: number; message: string };
