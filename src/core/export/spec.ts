import type { Scene, Show } from '../document/types';
import { loopSecondsOf } from '../time/clock';
import { hasWindow, windowSizeOf } from '../wall/outputs';

/** What an export is made of. */
export type ExportSource =
  /** A scene by itself from its start; `node`: one of its image nodes instead of its picture. */
  | { type: 'scene'; scene: string; node: string | null }
  /** The running order; cues that would wait for a hand, a note or time code begin after so many seconds. */
  | { type: 'cues'; handSeconds: number }
  /** The moves that were recorded, from the start of the show. */
  | { type: 'moves' };

/** Frames that are exported, counted at the rate of the export. */
export type ExportRange =
  /** All of the running order or of the recorded moves; of a scene, its loop. */
  | { type: 'whole' }
  /** One loop of the scene. `closed`: with the frame after the last, which looks like the first. */
  | { type: 'loop'; closed: boolean }
  /** Both ends included. */
  | { type: 'frames'; first: number; last: number };

export const videoCodecs = ['vp9', 'av1', 'avc', 'hevc'] as const;
export type VideoCodecName = (typeof videoCodecs)[number];
export const videoContainers = ['webm', 'mp4'] as const;
export type VideoContainer = (typeof videoContainers)[number];
export const soundCodecs = ['none', 'opus', 'aac', 'pcm'] as const;
export type SoundCodecName = (typeof soundCodecs)[number];
export const videoQualities = ['low', 'medium', 'high', 'very-high'] as const;
export type VideoQuality = (typeof videoQualities)[number];

export interface VideoFormat {
  type: 'video';
  container: VideoContainer;
  codec: VideoCodecName;
  /** A quality, or bits a second. */
  quality: VideoQuality | number;
  /** realtime: several times quicker, and a little larger at the same quality. */
  effort: 'realtime' | 'careful';
  alpha: boolean;
  sound: SoundCodecName;
}

export const imageFormats = ['png', 'png16', 'exr16', 'exr32', 'jpeg', 'webp'] as const;
export type ImageFormatName = (typeof imageFormats)[number];

export interface ImagesFormat {
  type: 'images';
  image: ImageFormatName;
  alpha: boolean;
  /** EXR only: light as such, as compositing programs expect it; else the numbers that the engine has. */
  linear: boolean;
  /** EXR only: how far what is seen is from the camera, in a channel Z. The source has to be a Shot. */
  depth: boolean;
}

export interface AnimationFormat {
  type: 'animation';
  image: 'webp' | 'gif';
}

/** Pixels of strings. */
export interface PixelsFormat {
  type: 'pixels';
  as: 'csv' | 'pcap';
}

export type ExportFormat = VideoFormat | ImagesFormat | AnimationFormat | PixelsFormat;

export interface ExportSpec {
  /** Name of the file, or of the folder, without an ending. */
  name: string;
  source: ExportSource;
  range: ExportRange;
  /** Output of the wall that is exported; null: the canvas. */
  output: string | null;
  fps: number;
  width: number;
  height: number;
  /** Pixels drawn for each pixel that is exported, along a side. */
  supersample: 1 | 2 | 3 | 4;
  /** Moments that are averaged for the blur of movement; 1: none. */
  subframes: number;
  /** Share of a frame's time, in degrees of 360, over which they are spread. */
  shutter: number;
  format: ExportFormat;
}

/** What is written as a video. */
export type VideoSpec = ExportSpec & { format: VideoFormat };

/** What cannot be exported as it is asked for: where, and what to do. */
export class ExportError extends Error {
  override name = 'ExportError';
}

/** Longest side of a video, of images, and of one still that is drawn in parts. */
export const longestSide = { video: 8192, images: 8192, still: 16384 };
const mostFrames = 1_000_000;
/** Most frames of a moving preview, which is put together in memory. */
export const mostAnimated = 600;

/** An export of a scene as one would begin with: its loop, as a video. */
export function homeSpec(show: Show, scene: Scene): ExportSpec {
  return {
    name: scene.name,
    source: { type: 'scene', scene: scene.id, node: null },
    range: { type: 'loop', closed: false },
    output: null,
    fps: show.canvas.fps,
    width: show.canvas.width,
    height: show.canvas.height,
    supersample: 1,
    subframes: 1,
    shutter: 180,
    format: {
      type: 'video',
      container: 'webm',
      codec: 'vp9',
      quality: 'high',
      effort: 'realtime',
      alpha: false,
      sound: 'none',
    },
  };
}

/** Which containers can hold which codecs. */
export const codecsIn: Record<
  VideoContainer,
  { video: readonly VideoCodecName[]; sound: readonly SoundCodecName[] }
> = {
  webm: { video: ['vp9', 'av1'], sound: ['none', 'opus'] },
  mp4: { video: ['avc', 'hevc', 'av1', 'vp9'], sound: ['none', 'aac', 'opus', 'pcm'] },
};

/** Whether what is exported is see-through. */
export const hasAlpha = (format: ExportFormat): boolean => 'alpha' in format && format.alpha;

/** Ending of the file of a format. */
export function endingOf(format: ExportFormat): string {
  switch (format.type) {
    case 'video':
      return format.container;
    case 'images':
      return { png: 'png', png16: 'png', exr16: 'exr', exr32: 'exr', jpeg: 'jpg', webp: 'webp' }[
        format.image
      ];
    case 'animation':
      return format.image;
    case 'pixels':
      return format.as;
  }
}

const isWholeNumber = (value: number, least: number, most: number): boolean =>
  Number.isInteger(value) && value >= least && value <= most;

function checkSource(show: Show, { source, output, format }: ExportSpec): void {
  if (source.type === 'scene') {
    const scene = show.scenes.find(({ id }) => id === source.scene);
    if (!scene)
      throw new ExportError('The scene of this export is not in the show any more. Choose another.');
    if (source.node && !scene.nodes[source.node])
      throw new ExportError(`The node of this export is not in ${scene.name} any more. Choose another.`);
  } else if (source.type === 'cues') {
    if (show.cues.length === 0)
      throw new ExportError('The running order is empty. Add cues in Play, or export a scene.');
    if (!(source.handSeconds > 0)) throw new ExportError('Cues by hand need a time above 0 seconds.');
  } else if (show.moves.length === 0)
    throw new ExportError('No moves are recorded. Record some in Play, or export a scene.');
  const seen = output === null ? null : show.wall.outputs.find(({ id }) => id === output);
  if (seen === undefined) throw new ExportError('The output of this export is not on the wall any more.');
  if (format.type === 'pixels' && seen?.type !== 'string')
    throw new ExportError('Pixels are exported of a string. Choose one as the output.');
  if (format.type !== 'pixels' && seen?.type === 'string')
    throw new ExportError('A string has single pixels. Export them as CSV or recorded packets.');
  if (
    format.type === 'pixels' &&
    format.as === 'pcap' &&
    seen?.type === 'string' &&
    seen.send.protocol === 'none'
  )
    throw new ExportError(`${seen.name} is sent by no protocol. Choose one in Wall, or export CSV.`);
}

function checkFormat(spec: ExportSpec): void {
  const { format, width, height, source, output } = spec;
  const isAlone = source.type === 'scene' && output === null;
  if (format.type === 'video') {
    const { container, codec, sound, alpha, quality } = format;
    if (!codecsIn[container].video.includes(codec))
      throw new ExportError(`${container} holds no ${codec}. Use ${codecsIn[container].video.join(', ')}.`);
    if (!codecsIn[container].sound.includes(sound))
      throw new ExportError(
        `${container} holds no ${sound} sound. Use ${codecsIn[container].sound.join(', ')}.`,
      );
    if (alpha && (codec !== 'vp9' || container !== 'webm'))
      throw new ExportError('See-through video is written as VP9 in WebM only.');
    if (typeof quality === 'number' && !(quality >= 1e4 && quality <= 1e9))
      throw new ExportError('The bit rate lies between 10 kbit/s and 1 Gbit/s.');
    if (width % 2 || height % 2)
      throw new ExportError(
        `Video needs even numbers of pixels: ${width + (width % 2)} x ${height + (height % 2)}.`,
      );
  }
  if ((format.type === 'video' || format.type === 'images') && format.alpha && !isAlone)
    throw new ExportError('Only a scene or a node by itself can be see-through.');
  if (format.type === 'images') {
    if (format.alpha && format.image === 'jpeg')
      throw new ExportError('JPEG cannot be see-through. Use PNG, WebP or EXR.');
    if (format.depth && !format.image.startsWith('exr'))
      throw new ExportError('Only EXR has a channel for depth.');
    if (format.depth && (source.type !== 'scene' || source.node === null))
      throw new ExportError('Depth comes from a Shot. Choose one as the node of the export.');
    if (format.depth && (spec.supersample > 1 || spec.subframes > 1))
      throw new ExportError(
        'Depth is exact in one moment and place only: without supersampling and subframes.',
      );
  }
}

/** Throws ExportError if an export is not possible as it is asked for. */
export function checkSpec(show: Show, spec: ExportSpec): void {
  const { format, width, height, range, fps, subframes, shutter, supersample } = spec;
  if (!spec.name.trim()) throw new ExportError('The export has no name.');
  if (!(fps >= 1 && fps <= 240)) throw new ExportError('Frames a second lie between 1 and 240.');
  if (range.type === 'frames') {
    if (!isWholeNumber(range.first, 0, mostFrames) || !isWholeNumber(range.last, range.first, mostFrames))
      throw new ExportError(`Frames are whole numbers up to ${mostFrames}, the first not after the last.`);
  } else if (range.type === 'loop' && spec.source.type !== 'scene')
    throw new ExportError('Only a scene has a loop. Export all of it, or a range of frames.');
  checkSource(show, spec);
  checkFormat(spec);
  if (!isWholeNumber(supersample, 1, 4))
    throw new ExportError('Supersampling is a whole number from 1 to 4.');
  if (!isWholeNumber(subframes, 1, 64)) throw new ExportError('Subframes are a whole number from 1 to 64.');
  if (!(shutter > 0 && shutter <= 360)) throw new ExportError('The shutter is open for 1 to 360 degrees.');
  const isStill = format.type === 'images' && range.type === 'frames' && range.first === range.last;
  const most = isStill ? longestSide.still : longestSide[format.type === 'video' ? 'video' : 'images'];
  if (!isWholeNumber(width, 1, most) || !isWholeNumber(height, 1, most))
    throw new ExportError(`The size is 1 to ${most} pixels along a side.`);
  const isLarge = Math.max(width, height) > longestSide.images;
  if (isLarge && format.type === 'images' && format.image !== 'png' && format.image !== 'png16')
    throw new ExportError(`Above ${longestSide.images} pixels a still is written as PNG.`);
  if (isLarge && (supersample > 1 || subframes > 1))
    throw new ExportError(
      `Above ${longestSide.images} pixels a still is drawn without supersampling and subframes.`,
    );
  if (!isLarge && Math.max(width, height) * supersample > longestSide.still)
    throw new ExportError(
      `Supersampling by ${supersample} needs a size up to ${longestSide.still / supersample} pixels.`,
    );
}

/** Pixels that an output of the wall is exported at; of the canvas, those of the show. */
export function sizeOfOutput(show: Show, output: string | null): [number, number] {
  const seen = show.wall.outputs.find(({ id }) => id === output);
  return seen && hasWindow(seen) ? windowSizeOf(seen) : [show.canvas.width, show.canvas.height];
}

/** Frames that one loop of a scene takes, with fractions. */
export const loopFrames = (show: Show, scene: Scene, fps: number): number =>
  loopSecondsOf(scene.loop, show.tempo.bpm, show.canvas.fps) * fps;
