import type { ExportPlan } from '../../core/export/schedule';
import type { ExportSpec, SoundCodecName, VideoCodecName } from '../../core/export/spec';

/** Where finished pieces go: a folder of this browser or of the disk, or an address that takes them by PUT. */
export type ExportSink =
  { type: 'folder'; folder: FileSystemDirectoryHandle } | { type: 'address'; address: string };

/** Who asks for what of an export. One order of a job is carried out at a time. */
export type ExportOrder =
  /** Draws pieces, one after the other, and hands each over when it is done. */
  | {
      do: 'pieces';
      job: string;
      spec: ExportSpec;
      plan: ExportPlan;
      pieces: readonly number[];
      sink: ExportSink;
      /** Where checkpoints of this very export lie, and the last one of this run is put; null: none are kept. */
      checkpoints: ExportSink | null;
    }
  /**
   * Runs to each of these frames, in their order, and puts a checkpoint of what was before it under its name: pieces that begin there
   * need not draw all of that again.
   */
  | {
      do: 'checkpoints';
      job: string;
      spec: ExportSpec;
      plan: ExportPlan;
      frames: readonly number[];
      sink: ExportSink;
    }
  /** Encodes the sound of a video. */
  | { do: 'sound'; job: string; spec: ExportSpec; plan: ExportPlan; sink: ExportSink }
  /** Puts the pieces that lie in a folder together in one file. */
  | {
      do: 'join';
      job: string;
      spec: ExportSpec;
      plan: ExportPlan;
      folder: FileSystemDirectoryHandle;
      to: FileSystemFileHandle;
    }
  /** Finishes a live recording by what lies in its folder: `recorded` tells what that is. */
  | { do: 'recover'; job: string; spec: ExportSpec; folder: FileSystemDirectoryHandle }
  | { do: 'cancel'; job: string };

type WithoutJob<T> = T extends unknown ? Omit<T, 'job'> : never;
/** An order as one asks for it who has no other job. */
export type SoleOrder = WithoutJob<Extract<ExportOrder, { do: 'pieces' | 'checkpoints' | 'sound' }>>;

/** What becomes of an order. */
export type ExportEvent =
  /** Frames of this order that are done. */
  | { what: 'progress'; frames: number }
  /** The last frame, small: rows from above. */
  | { what: 'picture'; width: number; height: number; rgba: Uint8ClampedArray<ArrayBuffer> }
  /** How far the frame after a loop is from its first: mean and worst of all channels, in steps of 255. */
  | { what: 'loop'; mean: number; worst: number }
  /** Frames of a live recording that the stage needed more. */
  | { what: 'dropped'; frames: number }
  /** A live recording has ended: all its pieces are there. */
  | { what: 'recorded'; plan: ExportPlan; dropped: number }
  | { what: 'done' }
  /**
   * `frame`: which one could not be drawn or written; null: none was under way. `isLost`: the graphics card was lost meanwhile,
   * and another engine can go on.
   */
  | { what: 'failed'; message: string; frame: number | null; isLost?: true };

/** A recording of what is on air, into a folder. */
export interface LiveOrder {
  job: string;
  spec: ExportSpec;
  folder: FileSystemDirectoryHandle;
}

/** What this browser can encode. */
export interface Encoders {
  video: VideoCodecName[];
  sound: SoundCodecName[];
}
