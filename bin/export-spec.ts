import path from 'node:path';
import { dataFormats, type DataFormat, type DataRequest } from '../src/core/export/data/data-request';
import {
  codecsIn,
  homeSpec,
  loopFrames,
  sizeOfOutput,
  soundCodecs,
  videoCodecs,
  videoQualities,
  type ExportFormat,
  type ExportSource,
  type ExportSpec,
  type SoundCodecName,
  type VideoQuality,
} from '../src/core/export/spec';
import type { Show } from '../src/core/document/types';
import { readFps, readSize, UsageError, type Options } from './arguments';
import { findAll } from './find';

export const exportOptions = [
  'scene',
  'node',
  'to',
  'size',
  'fps',
  'frames',
  'output',
  'hand-seconds',
  'supersample',
  'subframes',
  'shutter',
  'codec',
  'quality',
  'bitrate',
  'effort',
  'sound',
  'bits',
  'jobs',
  'renderer',
  'redis',
] as const;
export const exportFlags = [
  'cues',
  'moves',
  'loop',
  'closed',
  'alpha',
  'linear',
  'depth',
  'again',
  'farm',
] as const;

/** Where an export goes: one file, or a folder with a name for each frame, in which `#` stand for its number. */
export interface Goal {
  file: string;
  /** Digits of the number of a frame; 0: it is one file. */
  digits: number;
}

export function readGoal(to: string | undefined): Goal {
  if (to === undefined) throw new UsageError('--to is missing: the file, for example --to loop.webm.');
  const marks = /#+/.exec(path.basename(to));
  if (/#/.test(path.dirname(to)))
    throw new UsageError('# stands in the name of the file only, not in a folder.');
  return { file: to, digits: marks?.[0].length ?? 0 };
}

/** The file of a frame. */
export const fileOfFrame = ({ file }: Goal, frame: number): string =>
  path.join(
    path.dirname(file),
    path.basename(file).replace(/#+/, (marks) => String(frame).padStart(marks.length, '0')),
  );

function number(options: Options, name: string, home: number): number {
  const text = options.get(name);
  if (text === undefined) return home;
  const value = Number(text);
  if (!text.trim() || !Number.isFinite(value)) throw new UsageError(`--${name} takes a number, not ${text}.`);
  return value;
}

function oneOf<T extends string>(options: Options, name: string, among: readonly T[], home: T): T {
  const text = options.get(name);
  if (text === undefined) return home;
  if (!among.includes(text as T)) throw new UsageError(`--${name} takes ${among.join(', ')}, not ${text}.`);
  return text as T;
}

function sourceOf(show: Show, options: Options): ExportSource {
  const [cues, moves] = [options.get('cues'), options.get('moves')];
  if (cues !== undefined && moves !== undefined) throw new UsageError('Either --cues or --moves, not both.');
  if (cues !== undefined) return { type: 'cues', handSeconds: number(options, 'hand-seconds', 10) };
  if (moves !== undefined) return { type: 'moves' };
  const [{ scene, nodes }] = findAll(show, options.all('scene').slice(-1), options.all('node').slice(-1));
  return { type: 'scene', scene: scene.id, node: nodes[0]?.id ?? null };
}

function formatOf(options: Options, { file }: Goal): ExportFormat {
  const ending = path.extname(file).slice(1).toLowerCase();
  const has = (name: string): boolean => options.get(name) !== undefined;
  switch (ending) {
    case 'webm':
    case 'mp4': {
      const codec = oneOf(options, 'codec', videoCodecs, codecsIn[ending].video[0]);
      const bitrate = number(options, 'bitrate', 0);
      return {
        type: 'video',
        container: ending,
        codec,
        quality: bitrate || oneOf<VideoQuality>(options, 'quality', videoQualities, 'high'),
        effort: oneOf(options, 'effort', ['realtime', 'careful'], 'careful'),
        alpha: has('alpha'),
        sound: oneOf<SoundCodecName>(options, 'sound', soundCodecs, 'none'),
      };
    }
    case 'png':
    case 'exr':
    case 'jpg':
    case 'webp': {
      const deep = number(options, 'bits', ending === 'exr' ? 16 : 8);
      if (ending === 'webp' && !has('frames')) return { type: 'animation', image: 'webp' };
      const images = { alpha: has('alpha'), linear: has('linear'), depth: has('depth') };
      const image =
        ending === 'png' && deep === 16
          ? 'png16'
          : ending === 'exr'
            ? deep === 32
              ? 'exr32'
              : 'exr16'
            : ending === 'jpg'
              ? 'jpeg'
              : ending;
      return { type: 'images', image, ...images };
    }
    case 'gif':
      return { type: 'animation', image: 'gif' };
    case 'csv':
    case 'pcap':
      return { type: 'pixels', as: ending };
    default:
      throw new UsageError(
        `--to takes webm, mp4, png, exr, jpg, webp, gif, csv, pcap, ${dataFormats.join(', ')}, not ${ending || 'a file without an ending'}.`,
      );
  }
}

function rangeOf(options: Options): ExportSpec['range'] {
  const frames = options.get('frames');
  if (options.get('loop') !== undefined || options.get('closed') !== undefined) {
    if (frames !== undefined) throw new UsageError('Either --loop or --frames, not both.');
    return { type: 'loop', closed: options.get('closed') !== undefined };
  }
  if (frames === undefined) return { type: 'whole' };
  const match = /^(\d+)(?:\.\.(\d+))?$/.exec(frames);
  if (!match) throw new UsageError(`--frames takes a frame or a range A..B, not ${frames}.`);
  return { type: 'frames', first: Number(match[1]), last: Number(match[2] ?? match[1]) };
}

/** The output of that name or id; null: the canvas. */
function outputOf(show: Show, wanted: string | undefined): string | null {
  if (wanted === undefined) return null;
  const { outputs } = show.wall;
  const found = outputs.find(({ name }) => name === wanted) ?? outputs.find(({ id }) => id === wanted);
  if (found) return found.id;
  const names = outputs.map(({ name }) => name).join(', ') || 'none';
  throw new UsageError(`There is no output ${wanted}. The wall has: ${names}.`);
}

/** What is to be exported, as the options say. Throws UsageError. */
export function readSpec(show: Show, options: Options, goal: Goal): ExportSpec {
  const source = sourceOf(show, options);
  const scene =
    show.scenes.find(({ id }) => source.type === 'scene' && id === source.scene) ?? show.scenes[0];
  const output = outputOf(show, options.get('output'));
  const size = options.get('size');
  const [width, height] = size ? Object.values(readSize(size, 16384)) : sizeOfOutput(show, output);
  const format = formatOf(options, goal);
  const range = rangeOf(options);
  const isOne = range.type === 'frames' && range.first === range.last;
  if (format.type === 'images' && goal.digits === 0 && !isOne)
    throw new UsageError(
      'Several images need a # for their number: --to frames/####.png. Or ask for one: --frames 120.',
    );
  if (format.type !== 'images' && goal.digits > 0)
    throw new UsageError('# stands for the number of an image: this is one file.');
  return {
    ...homeSpec(show, scene),
    name: goal.digits ? path.basename(path.dirname(path.resolve(goal.file))) : path.parse(goal.file).name,
    source,
    range,
    output,
    fps: readFps(options.get('fps') ?? String(show.canvas.fps)),
    width,
    height,
    supersample: number(options, 'supersample', 1) as ExportSpec['supersample'],
    subframes: number(options, 'subframes', 1),
    shutter: number(options, 'shutter', 180),
    format,
  };
}

const endingOfFile = ({ file }: Goal): string => path.extname(file).slice(1).toLowerCase();

/** Whether a file holds what a node gives, and no picture: CSV may be either. */
export function isData(goal: Goal, options: Options): boolean {
  const ending = endingOfFile(goal);
  return (
    dataFormats.includes(ending as DataFormat) && !(ending === 'csv' && options.get('output') !== undefined)
  );
}

/** What is to be saved of a node, or of a patch. Throws UsageError. */
export function readDataRequest(show: Show, options: Options, file: string): DataRequest {
  const as = endingOfFile({ file, digits: 0 }) as DataFormat;
  const [{ scene, nodes }] = findAll(show, options.all('scene').slice(-1), options.all('node').slice(-1));
  const node = nodes[0]?.id ?? null;
  if (node === null && as !== 'md' && as !== 'svg')
    throw new UsageError(`--node is missing: which node is saved as ${as}.`);
  const fps = readFps(options.get('fps') ?? String(show.canvas.fps));
  const range = rangeOf(options);
  if (range.type === 'frames')
    return { scene: scene.id, node, as, first: range.first, last: range.last, fps };
  // Numbers of a loop; a shape as it begins.
  const isStill = as === 'obj' || as === 'ply' || (as === 'glb' && range.type === 'whole');
  const last = isStill ? 0 : Math.max(1, Math.round(loopFrames(show, scene, fps))) - 1;
  return { scene: scene.id, node, as, first: 0, last, fps };
}
