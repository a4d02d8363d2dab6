import { readMidiFile } from '../../core/midi/file';
import type { Show } from '../../core/document/types';
import type { EngineClient } from '../engine/client';
import { decodeSound } from './sound-file';

/** Hands the sound and MIDI files that play with the show to an engine that runs by itself, so that frames hear what the stage hears. */
export async function giveInputs(
  client: EngineClient,
  show: Show,
  files: ReadonlyMap<string, Blob>,
): Promise<void> {
  const { sound, midi } = show.inputs;
  const heardFile = sound.from === 'file' && files.get(sound.file);
  if (heardFile) {
    const heard = await decodeSound(heardFile, show.files[sound.file].name);
    client.send({ type: 'sound-file', file: sound.file, ...heard });
  }
  const played = files.get(midi.file);
  if (played) {
    const file = readMidiFile(new Uint8Array(await played.arrayBuffer()));
    client.set({ type: 'midi-file', file, roundSeconds: midi.rounds ? file.seconds : 0 });
  }
}
