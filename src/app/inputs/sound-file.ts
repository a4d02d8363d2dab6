import { makeLoop } from '../../core/audio/loop';

/** Sound in one channel. */
export interface Samples {
  rate: number;
  samples: Float32Array<ArrayBuffer>;
}

const rate = 48000;
/** Seconds above which a file is refused: it is kept whole, as numbers. */
const longest = 3600;

export class SoundError extends Error {
  override name = 'SoundError';
}

/** Reads a sound file as far as the browser can; mixes it to one channel. Throws SoundError. */
export async function decodeSound(blob: Blob, name: string): Promise<Samples> {
  let buffer: AudioBuffer;
  try {
    buffer = await new OfflineAudioContext(1, 1, rate).decodeAudioData(await blob.arrayBuffer());
  } catch {
    throw new SoundError(`${name} cannot be read. Use WAV, MP3, OGG or FLAC.`);
  }
  if (buffer.duration > longest) throw new SoundError(`${name} is longer than an hour. Cut it.`);
  const samples = new Float32Array(buffer.length);
  for (let channel = 0; channel < buffer.numberOfChannels; channel++) {
    const data = buffer.getChannelData(channel);
    for (let k = 0; k < samples.length; k++) samples[k] += data[k] / buffer.numberOfChannels;
  }
  return { rate, samples };
}

/** The loop that ships, as it is played and as the engine hears it. */
export const shippedLoop = (): Samples => ({ rate, samples: makeLoop(rate) as Float32Array<ArrayBuffer> });
