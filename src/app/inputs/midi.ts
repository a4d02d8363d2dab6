import { readMidiFile, MidiFileError } from '../../core/midi/file';
import { readMessage, writeMessage, type MidiEvent } from '../../core/midi/message';
import { afterEvent, ClockTempo } from '../../core/midi/state';
import { MtcReader } from '../../core/time-code/mtc';
import { database } from '../data/db';
import { engine } from '../engine/client';
import { say } from '../parts/notices';
import { controllers, controllersChanged, heard } from './controllers';
import { inputStore } from './input-store';
import { followTempo } from './tempo';

const clock = new ClockTempo();
const code = new MtcReader();
let access: MIDIAccess | null = null;

/** Takes the bytes of one message, from a device or from the surface on the screen. */
function takeMidi(bytes: ArrayLike<number>): void {
  const seconds = code.take(bytes);
  if (seconds !== null) {
    controllers.code = seconds;
    controllersChanged();
    return;
  }
  const event = readMessage(bytes);
  if (!event) return;
  if (event.type === 'clock') {
    const bpm = clock.tick(performance.now() / 1000);
    if (bpm === null) return;
    inputStore.setState({ midiTempo: bpm });
    followTempo('midi', bpm);
    return;
  }
  controllers.midi = afterEvent(controllers.midi, event);
  heard({ type: 'midi', event });
  controllersChanged();
}

/** Sends what the surface on the screen does, over the same way that a device's messages come. */
export function playSurface(event: MidiEvent): void {
  stand(event);
  takeMidi(writeMessage(event));
}

/** Sends the bytes of time code as a device would. */
export const playCode = (messages: readonly number[][]): void => messages.forEach(takeMidi);

/** Where the motors and lights of the surface on the screen stand. */
function stand(event: MidiEvent): void {
  if (event.type !== 'control' && event.type !== 'note') return;
  const key =
    event.type === 'control' ? `${event.channel}/${event.control}` : `note ${event.channel}/${event.note}`;
  const value = event.type === 'control' ? event.value : event.velocity;
  inputStore.setState((s) => ({ surface: { ...s.surface, [key]: value / 127 } }));
}

/** Tells devices, and the surface on the screen, where what they are bound to stands. */
export function sendMidi(event: MidiEvent): void {
  stand(event);
  for (const output of access?.outputs.values() ?? [])
    if (output.state === 'connected') output.send(writeMessage(event));
}

function takeDevices(): void {
  const inputs = [...(access?.inputs.values() ?? [])].filter(({ state }) => state === 'connected');
  for (const input of inputs)
    input.onmidimessage = ({ data }) => {
      if (data) takeMidi(data);
    };
  const before = inputStore.getState().midi.devices;
  const devices = inputs.map(({ name }) => name ?? 'MIDI device');
  for (const gone of before.filter((name) => !devices.includes(name)))
    say({ tone: 'warning', text: `${gone} is gone. Its last values stay; it is picked up again by itself.` });
  inputStore.setState({ midi: { standing: 'here', message: '', devices } });
}

/** Asks for leave to use MIDI devices, and takes all of them from then on, also those that come later. */
export async function openMidi(): Promise<void> {
  if (access) return;
  const put = (standing: 'asking' | 'away', message: string): void =>
    inputStore.setState({ midi: { standing, message, devices: [] } });
  if (!navigator.requestMIDIAccess) {
    put('away', 'This browser has no Web MIDI. The surface on the screen works all the same.');
    return;
  }
  put('asking', '');
  try {
    access = await navigator.requestMIDIAccess();
    access.onstatechange = takeDevices;
    takeDevices();
  } catch (error) {
    const isRefused = error instanceof Error && ['NotAllowedError', 'SecurityError'].includes(error.name);
    put(
      'away',
      isRefused
        ? 'The browser may not use MIDI devices. Allow it in the address bar, then try again.'
        : `MIDI devices cannot be used here (${String(error)}).`,
    );
  }
}

/** Goes on with MIDI devices without asking, where leave was given before. */
export async function openMidiIfAllowed(): Promise<void> {
  try {
    const { state } = await navigator.permissions.query({ name: 'midi' as PermissionName });
    if (state === 'granted') await openMidi();
  } catch {
    // This browser cannot say; the button asks.
  }
}

/** Hands a MIDI file of the show to the engine; empty: none. */
export async function playMidiFile(id: string, name: string, rounds: boolean): Promise<void> {
  const stored = id ? await database.files.get(id) : undefined;
  if (!stored) {
    if (id)
      say({ tone: 'warning', text: `${name} is not in this browser. Choose the file again in Inputs.` });
    engine().set({ type: 'midi-file', file: null, roundSeconds: 0 });
    return;
  }
  try {
    const file = readMidiFile(new Uint8Array(await stored.blob.arrayBuffer()));
    engine().set({ type: 'midi-file', file, roundSeconds: rounds ? file.seconds : 0 });
  } catch (error) {
    if (!(error instanceof MidiFileError)) throw error;
    say({ tone: 'error', text: `${name} cannot be read. ${error.message}` });
    engine().set({ type: 'midi-file', file: null, roundSeconds: 0 });
  }
}
