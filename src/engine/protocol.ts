import type { DarkReason } from '../core/run/why-dark';
import type { MidiFile } from '../core/midi/file';
import type { ControllerState } from '../core/run/inputs';
import type { ShowChange } from '../core/show/changes';
import type { Scene, Show } from '../core/show/types';

/**
 * Everything the interface and the engine say to each other. Both unions are closed: a new message is added here first,
 * and the compiler names every place that has to know it.
 */

/** What a canvas that the engine paints is for. */
export type SurfaceRole = 'monitor' | 'bench' | 'program' | 'next' | 'example' | 'stage';

/** What the engine is asked to show, beside the stage. */
export interface Watch {
  /** Scene open in Build, or null. */
  scene: string | null;
  /** Nodes whose cards are in sight: they get previews. */
  cards: readonly string[];
  /** Node whose output the bench shows. */
  bench: string | null;
  /** Node whose control values are wanted. */
  inspected: string | null;
  /** The monitor shows the scene as it would be without this node. */
  without: string | null;
}

export interface FrameRequest {
  scene: string;
  /** Node whose picture is wanted; null: the picture of the scene. */
  node: string | null;
  frame: number;
  width: number;
  height: number;
}

/** Questions that get one answer. */
export type Ask =
  | { what: 'pixel'; scene: string; node: string; x: number; y: number }
  /** A frame of a scene, run from frame 0 or on from the last one asked for. */
  | { what: 'frame'; request: FrameRequest }
  /** A field of such a frame at places (x, y, z in turn); the size says nothing. */
  | { what: 'field'; request: FrameRequest; places: readonly number[] }
  /** A small picture of a scene for lists, PNG. */
  | { what: 'picture'; scene: string; width: number; height: number }
  | { what: 'shader'; scene: string; node: string }
  /** Why the picture of a scene may be dark. */
  | { what: 'why'; scene: string };

export type Answer =
  | { what: 'pixel'; rgba: [number, number, number, number]; width: number; height: number }
  | { what: 'frame'; png: ArrayBuffer }
  /** Distance, red, green and blue of each place. */
  | { what: 'field'; values: Float32Array }
  | { what: 'picture'; png: ArrayBuffer }
  | { what: 'shader'; text: string }
  | { what: 'why'; reasons: readonly DarkReason[] };

export type ToEngine =
  | { type: 'open'; show: Show; program: string; time: number; playing: boolean }
  | { type: 'change'; changes: ShowChange[] }
  | { type: 'watch'; watch: Watch }
  /** A small scene beside the show that is played on surfaces for examples; null: none. */
  | { type: 'example'; scene: Scene | null }
  | { type: 'surface'; id: string; role: SurfaceRole; canvas: OffscreenCanvas; width: number; height: number }
  | { type: 'surface-size'; id: string; width: number; height: number }
  | { type: 'surface-gone'; id: string }
  | { type: 'transport'; playing: boolean }
  /** Goes to a time. Exactly: what has a memory is run up to it; else, while it is sought, memories stay as they are. */
  | { type: 'seek'; time: number; exactly: boolean }
  /** Seconds from the start between which time goes round; null: it goes on for ever. */
  | { type: 'range'; range: readonly [number, number] | null }
  | { type: 'step' }
  | { type: 'hand'; hand: ControllerState }
  /** Sound of a file of the show, one channel; none where it could not be read. */
  | { type: 'sound-file'; file: string; rate: number; samples: Float32Array }
  /** Blocks of samples of a device come through the port; null: there is none any more. */
  | { type: 'sound-stream'; rate: number; port: MessagePort | null }
  /** A MIDI file that plays with the show; null: none. */
  | { type: 'midi-file'; file: MidiFile | null; roundSeconds: number }
  /** Whether the sound is to be told, though no node hears it. */
  | { type: 'hear'; on: boolean }
  | { type: 'take'; scene: string; seconds: number }
  | { type: 'next'; scene: string | null }
  | { type: 'stage'; blackout: boolean; freeze: boolean }
  | { type: 'work-scale'; scale: WorkScale }
  | { type: 'clear-return'; scene: string; wire: string }
  | { type: 'ask'; id: number; ask: Ask }
  /** The bytes of a file of the show; null: they are not to be had. */
  | { type: 'file'; id: string; name: string; blob: Blob | null }
  /** A vector drawing as pixels, or why it could not be drawn. */
  | { type: 'vector'; id: number; bitmap: ImageBitmap | null; message: string }
  | { type: 'camera-frame'; device: string; bitmap: ImageBitmap }
  | { type: 'camera-fault'; device: string; message: string }
  /** Rehearses a fault on purpose: the graphics context lost, or the engine gone. */
  | { type: 'rehearse'; fault: 'context-loss' | 'crash' };

/** Share of the full size that is drawn while nothing but the desk looks on; `auto` follows the frame rate. */
export type WorkScale = 'auto' | 1 | 0.5 | 0.25;

export interface PreviewCell {
  node: string;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A signal or shape as cards show it. */
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
  /** A few words where there are no numbers to draw: where a camera stands, what a light does. */
  about: string;
}

/** One driven part of the inspected node's controls. */
export interface PartGlance {
  part: string;
  /** First sample as it is used, inside of the limits of its control. */
  value: number;
  /** The same as what drives it asks for. */
  asked: number;
  low: number;
  high: number;
  samples: number;
}

export interface BenchData {
  node: string;
  /** Pixels of an image; its picture is painted on the bench's own surface. */
  size: [number, number] | null;
  lanes: { name: string; samples: Float32Array }[];
  positions: Float32Array | null;
  lines: Uint32Array | null;
  count: number;
  /** A sentence where there are no numbers to show. */
  about: string;
}

export interface Stats {
  /** Frames finished in the last second. */
  framesPerSecond: number;
  /** Frames painted on stage windows since the engine started. */
  stageFrames: number;
  /** Frames drawn since the engine started. */
  frames: number;
  /** Milliseconds from the start of a frame until the card was done with it. */
  frameMs: number;
  /** Milliseconds of it that the worker itself was busy. */
  cpuMs: number;
  passes: number;
  targets: number;
  programs: number;
  /** Pixels that the watched scene is drawn at. */
  width: number;
  height: number;
  /** Milliseconds of the card by node, where it can tell. */
  nodeMs: Record<string, number>;
}

export interface TransportState {
  playing: boolean;
  time: number;
  frame: number;
  beat: number;
  /** Share of the way that memories were run up after a jump; 1: they are there. */
  done: number;
}

export interface ProgramState {
  /** Scene on stage, or the one being left while a fade runs. */
  program: string;
  /** Scene being faded to. */
  incoming: string | null;
  /** 0..1 of the fade. */
  fade: number;
  next: string | null;
}

export type FromEngine =
  | { type: 'ready' }
  | { type: 'opened' }
  | { type: 'beat'; transport: TransportState; program: ProgramState }
  | { type: 'stats'; stats: Stats }
  /** Small pictures side by side: `pixels` are red, green, blue and alpha, uppermost row first. */
  | { type: 'previews'; pixels: Uint8ClampedArray<ArrayBuffer>; width: number; cells: PreviewCell[] }
  | { type: 'glance'; nodes: NodeGlance[]; parts: PartGlance[]; bench: BenchData | null }
  /** What is wrong with nodes, what is worth saying of them, and of return wires. */
  | {
      type: 'faults';
      scene: string;
      faults: Record<string, string>;
      notes: Record<string, string>;
      loops: Record<string, string>;
    }
  /** What is heard: levels of bands, 0..1, and the tempo. */
  | {
      type: 'heard';
      level: number;
      bands: Float32Array;
      onsets: number;
      bpm: number | null;
      confidence: number;
    }
  | { type: 'surface-painted'; id: string }
  | { type: 'graphics'; state: 'lost' | 'back' | 'none'; message: string }
  /** Asks for a vector drawing as pixels, `height` high: only a page can draw one. */
  | { type: 'draw-vector'; id: number; file: Blob; height: number }
  /** Asks for the pictures of a camera from now on. */
  | { type: 'want-camera'; device: string }
  | { type: 'answer'; id: number; answer: Answer }
  | { type: 'refusal'; id: number; message: string };

/** Makes the compiler check that a switch over a closed union has every case. */
export function assertNever(value: never): never {
  throw new TypeError(`Unknown message ${JSON.stringify(value)}`);
}
