import type { Carries } from '../../kind/kind';
import { ExportError } from '../spec';

export const dataFormats = ['glb', 'obj', 'ply', 'csv', 'json', 'wav', 'mid', 'cube', 'md', 'svg'] as const;
export type DataFormat = (typeof dataFormats)[number];

/** What a node gives, as a file for another program. */
export interface DataRequest {
  scene: string;
  /** Null: the whole patch. */
  node: string | null;
  as: DataFormat;
  /** Frames, both included, at that rate. A shape that moves is animated in GLB; OBJ and PLY hold the first. */
  first: number;
  last: number;
  fps: number;
}

/** Which files a node can be saved as. */
export function formatsOf(output: Carries): readonly DataFormat[] {
  switch (output) {
    case 'shape':
      return ['glb', 'obj', 'ply'];
    case 'signal':
      return ['csv', 'json', 'wav', 'mid'];
    case 'image':
      return ['cube'];
    case 'prop':
    case 'field':
      return [];
  }
}

export const dataNames: Record<DataFormat, string> = {
  glb: 'glTF (GLB)',
  obj: 'OBJ',
  ply: 'PLY',
  csv: 'CSV',
  json: 'JSON',
  wav: 'WAV',
  mid: 'MIDI file',
  cube: 'Colour table (.cube)',
  md: 'Notes (Markdown)',
  svg: 'Drawing (SVG)',
};

/** Samples a second of sound. */
export const wavRate = 48000;
/** Most frames of numbers, and most samples of sound. */
const most = { frames: 100_000, wav: 30 * wavRate, glb: 600 };

/** Throws ExportError for frames that are none, or too many. */
export function checkData({ as, first, last, fps }: DataRequest): void {
  if (!Number.isInteger(first) || !Number.isInteger(last) || first < 0 || last < first)
    throw new ExportError('Frames are whole numbers from 0, the first not after the last.');
  const count = last - first + 1;
  if (as === 'wav' && (count / fps) * wavRate > most.wav)
    throw new ExportError('Sound of a signal is at most 30 seconds long. Choose fewer frames.');
  if (as === 'glb' && count > most.glb)
    throw new ExportError(`An animated shape has ${most.glb} frames at most. Choose fewer.`);
  if (count > most.frames) throw new ExportError(`Numbers of ${most.frames} frames at most. Choose fewer.`);
}
