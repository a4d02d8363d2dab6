import { execFileSync } from 'node:child_process';

/** What an independent reader (ffprobe) says of a file. */
export interface Probed {
  streams: {
    codec_name: string;
    codec_type: string;
    width?: number;
    height?: number;
    r_frame_rate: string;
    nb_read_frames: string;
    pix_fmt?: string;
    color_space?: string;
    tags?: Record<string, string>;
  }[];
  format: { duration?: string };
}

export const probe = (file: string): Probed =>
  JSON.parse(
    execFileSync(
      'ffprobe',
      ['-v', 'error', '-count_frames', '-show_streams', '-show_format', '-of', 'json', file],
      {
        encoding: 'utf8',
      },
    ),
  ) as Probed;

const most = 1 << 28;

/** A frame of a file as ffmpeg decodes it: red, green, blue (and alpha) of each pixel, rows from above. */
export const frameOf = (
  file: string,
  frame = 0,
  form: 'rgb24' | 'rgba' | 'rgb48le' | 'gbrpf32le' = 'rgb24',
): Buffer =>
  execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      // Its own decoder for VP9 knows no alpha.
      ...(form === 'rgba' && file.endsWith('.webm') ? ['-c:v', 'libvpx-vp9'] : []),
      '-i',
      file,
      '-vf',
      `select=eq(n\\,${frame})`,
      '-frames:v',
      '1',
      '-f',
      'rawvideo',
      '-pix_fmt',
      form,
      '-',
    ],
    { maxBuffer: most },
  );

/** The sound of a file in one channel, as it is decoded: numbers of 32 bits. */
export function soundOf(file: string): Float32Array {
  const bytes = execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-ac', '1', '-f', 'f32le', '-'], {
    maxBuffer: most,
  });
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length));
}

/** Mean difference of two pictures, of 255. */
export function apartOf(a: Uint8Array, b: Uint8Array): number {
  let sum = 0;
  a.forEach((value, k) => (sum += Math.abs(value - b[k])));
  return sum / a.length;
}
