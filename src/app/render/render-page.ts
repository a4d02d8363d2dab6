import { readShow } from '../../core/show/validate';
import { catalogue } from '../../nodes/catalogue';
import { readMidiFile } from '../../core/midi/file';
import type { Show } from '../../core/document/types';
import { decodeSound } from '../inputs/sound-file';
import { engine } from '../engine/client';
import type { FrameRequest } from '../../engine/protocol/protocol';

/** What the command line calls in this page: the real engine, asked for exact frames. */
export interface RenderPage {
  pyrvelRender: {
    /** `files`: bytes of the show's files in base64, by id. */
    open(text: string, files?: Record<string, string>): Promise<void>;
    /** A frame as a PNG in base64. */
    frame(request: FrameRequest): Promise<string>;
    /** A field of a frame at places (x, y, z in turn): distance, red, green and blue of each. */
    field(request: FrameRequest, places: readonly number[]): Promise<number[]>;
  };
}

const client = engine();

const bytesOf = (packed: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(packed), (c) => c.charCodeAt(0));

/** Hands the sound and MIDI files that play with the show to the engine, so that frames hear what the stage hears. */
async function giveInputs(show: Show, files: Record<string, string>): Promise<void> {
  const { sound, midi } = show.inputs;
  if (sound.from === 'file' && files[sound.file] !== undefined) {
    const { name, type } = show.files[sound.file];
    const heard = await decodeSound(new Blob([bytesOf(files[sound.file])], { type }), name);
    client.send({ type: 'sound-file', file: sound.file, ...heard });
  }
  if (files[midi.file] !== undefined) {
    const file = readMidiFile(bytesOf(files[midi.file]));
    client.set({ type: 'midi-file', file, roundSeconds: midi.rounds ? file.seconds : 0 });
  }
}

(window as unknown as RenderPage).pyrvelRender = {
  async open(text, files = {}) {
    const { show } = readShow(text, catalogue);
    for (const [id, { name, type }] of Object.entries(show.files)) {
      const packed = files[id];
      const bytes = packed === undefined ? null : bytesOf(packed);
      client.giveFile(id, name, bytes && new Blob([bytes], { type }));
    }
    const opened = new Promise<void>((resolve) => {
      const off = client.on('opened', () => {
        off();
        resolve();
      });
    });
    client.open(show, show.scenes[0].id);
    await opened;
    await giveInputs(show, files);
  },
  async field(request, places) {
    const { values } = await client.request({ type: 'field', request, places }, 600000);
    return [...values];
  },
  async frame(request) {
    const { png } = await client.request({ type: 'frame', request }, 600000);
    const bytes = new Uint8Array(png);
    let text = '';
    for (let k = 0; k < bytes.length; k += 32768)
      text += String.fromCharCode(...bytes.subarray(k, k + 32768));
    return btoa(text);
  },
};
