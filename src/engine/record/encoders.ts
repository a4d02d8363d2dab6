import { canEncodeAudio, canEncodeVideo } from 'mediabunny';
import { videoCodecs } from '../../core/export/spec';
import type { Encoders } from '../protocol/export';

/** What this browser can encode at a size. PCM needs no encoder. */
export async function encodersAt(width: number, height: number): Promise<Encoders> {
  const [video, opus, aac] = await Promise.all([
    Promise.all(videoCodecs.map((codec) => canEncodeVideo(codec, { width, height }))),
    canEncodeAudio('opus'),
    canEncodeAudio('aac'),
  ]);
  return {
    video: videoCodecs.filter((_, k) => video[k]),
    sound: ['none', ...(opus ? (['opus'] as const) : []), ...(aac ? (['aac'] as const) : []), 'pcm'],
  };
}
