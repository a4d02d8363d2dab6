import type { ShowInputs } from '../../core/document/types';
import { database } from '../data/db';
import { showStore } from '../data/show-store';
import { engine } from '../engine/client';
import { liveStore } from '../engine/live';
import { say } from '../parts/notices';
import { inputStore, type SourceStatus } from './input-store';
import { decodeSound, shippedLoop, SoundError, type Samples } from './sound-file';
import tapUrl from './tap-worklet?worker&url';
import { followTempo } from './tempo';

type Settings = ShowInputs['sound'];

/** Milliseconds until a device that went is looked for again. */
const retryMs = 3000;
/** Seconds that sound may be away from the picture, and at least between two corrections. */
const mostApart = 0.06;
const correctEvery = 0.5;
/** How sure the tempo has to be for the clock to follow it. */
const sureEnough = 0.35;

const reasons: Record<string, string> = {
  NotAllowedError:
    'The browser may not listen. Allow the microphone in the address bar, then choose it again.',
  NotFoundError: 'This device is not there. It is picked up when it is plugged in; the last values stay.',
  OverconstrainedError:
    'This device is not there. It is picked up when it is plugged in; the last values stay.',
  NotReadableError: 'Another program holds this device. Close that one.',
};

const put = (standing: SourceStatus['standing'], message = ''): void =>
  inputStore.setState({ sound: { standing, message } });

let context: AudioContext | null = null;
const audio = (): AudioContext => (context ??= new AudioContext({ latencyHint: 'interactive' }));

/** What sounds from this machine, in step with the picture. */
class Player {
  private node: AudioBufferSourceNode | null = null;
  private buffer: AudioBuffer | null = null;
  private startedAt = 0;
  private offset = 0;
  private corrected = -Infinity;

  load(sound: Samples | null): void {
    this.stop();
    this.buffer = null;
    if (!sound?.samples.length) return;
    this.buffer = audio().createBuffer(1, sound.samples.length, sound.rate);
    this.buffer.copyToChannel(sound.samples, 0);
  }

  stop(): void {
    this.node?.stop();
    this.node?.disconnect();
    this.node = null;
  }

  /** Brings the sound to where the picture is. */
  follow(time: number, isPlaying: boolean): void {
    if (!this.buffer || !isPlaying) {
      this.stop();
      return;
    }
    const now = audio().currentTime;
    const length = this.buffer.duration;
    const wanted = time % length;
    if (this.node) {
      const at = (this.offset + now - this.startedAt - audio().outputLatency + length) % length;
      const apart = Math.abs(((at - wanted + length * 1.5) % length) - length / 2);
      if (apart < mostApart || now - this.corrected < correctEvery) return;
    }
    this.stop();
    this.corrected = now;
    this.node = new AudioBufferSourceNode(audio(), { buffer: this.buffer, loop: true });
    this.node.connect(audio().destination);
    this.offset = (wanted + audio().outputLatency) % length;
    this.startedAt = now;
    this.node.start(0, this.offset);
  }
}

/** The device that is listened to; its blocks go to the engine past this page. */
class Device {
  private stream: MediaStream | null = null;
  private source: MediaStreamAudioSourceNode | null = null;
  private tap: AudioWorkletNode | null = null;
  private wanted: string | null = null;
  private timer: number | undefined;

  async open(id: string): Promise<void> {
    this.close();
    this.wanted = id;
    put('asking');
    try {
      // Rooms are meant to be heard as they are.
      const plain = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };
      const stream = await navigator.mediaDevices.getUserMedia({
        audio: { ...plain, ...(id ? { deviceId: { exact: id } } : {}) },
      });
      await audio().audioWorklet.addModule(tapUrl);
      await audio().resume();
      if (this.wanted !== id) {
        for (const track of stream.getTracks()) track.stop();
        return;
      }
      this.stream = stream;
      this.source = audio().createMediaStreamSource(stream);
      this.tap = new AudioWorkletNode(audio(), 'pyrvel-tap', { numberOfOutputs: 0 });
      this.source.connect(this.tap);
      this.handOver();
      const [track] = stream.getAudioTracks();
      track.addEventListener('ended', () => {
        say({
          tone: 'warning',
          text: `${track.label} is gone. The last values stay; it is picked up again by itself.`,
        });
        this.lost(reasons.NotFoundError);
      });
      put('here', track.label);
    } catch (error) {
      const name = error instanceof Error ? error.name : '';
      if (this.wanted !== id) return;
      const message = reasons[name] ?? `The device could not be opened (${String(error)}).`;
      if (this.timer === undefined) say({ tone: 'warning', text: message });
      this.lost(message);
    }
  }

  private lost(message: string): void {
    put('away', message);
    const id = this.wanted;
    clearTimeout(this.timer);
    this.timer = window.setTimeout(() => {
      if (id !== null && this.wanted === id) void this.open(id);
    }, retryMs);
  }

  /** Gives the engine, which may be a new one, its end of the port. */
  handOver(): void {
    if (!this.tap) return;
    const { port1, port2 } = new MessageChannel();
    this.tap.port.postMessage(port1, [port1]);
    engine().send({ type: 'sound-stream', rate: audio().sampleRate, port: port2 }, [port2]);
  }

  close(): void {
    if (this.wanted === null) return;
    this.wanted = null;
    this.source?.disconnect();
    this.tap?.disconnect();
    for (const track of this.stream?.getTracks() ?? []) track.stop();
    this.stream = this.source = this.tap = null;
  }
}

const player = new Player();
const device = new Device();
let settings: Settings | null = null;
let loaded = '';

async function soundOf(wanted: Settings): Promise<Samples | null> {
  if (wanted.from === 'loop') return shippedLoop();
  if (wanted.from !== 'file' || !wanted.file) return null;
  const name = showStore.getState().show.files[wanted.file]?.name ?? 'The sound file';
  const stored = await database.files.get(wanted.file);
  if (!stored) throw new SoundError(`${name} is not in this browser. Choose the file again in Inputs.`);
  const sound = await decodeSound(stored.blob, name);
  engine().send({ type: 'sound-file', file: wanted.file, ...sound });
  return sound;
}

/** Takes over the settings of the show: opens, reads and plays what they ask for. `isNewEngine`: for an engine that knows nothing. */
async function take(next: Settings, isNewEngine = false): Promise<void> {
  const before = settings;
  settings = next;
  if (next.from !== 'device') device.close();
  else if (before?.from !== 'device' || before.device !== next.device) await device.open(next.device);
  else if (isNewEngine) device.handOver();
  // The loop is made only where it is to be heard; the engine has its own.
  const key = next.from === 'file' ? next.file : next.from === 'loop' && next.heard ? 'loop' : '';
  if (key === loaded && !(isNewEngine && next.from === 'file')) return;
  loaded = key;
  try {
    player.load(key ? await soundOf(next) : null);
    if (next.from !== 'device') put('here');
  } catch (error) {
    if (!(error instanceof SoundError)) throw error;
    player.load(null);
    put('away', error.message);
    say({ tone: 'warning', text: error.message });
  }
}

/** Keeps the sound as the show wants it, and in step with the picture; called once when the app starts. */
export function keepSound(): void {
  engine().on('opened', () => void take(showStore.getState().show.inputs.sound, true));
  showStore.subscribe(({ show }) => {
    if (settings && show.inputs.sound !== settings) void take(show.inputs.sound);
  });
  liveStore.subscribe(({ transport }) => {
    const isHeard = settings?.heard === true && settings.from !== 'device';
    // Before the first press of a key or button a browser keeps silent.
    if (isHeard && context?.state === 'suspended' && navigator.userActivation?.hasBeenActive)
      void context.resume();
    player.follow(transport.time, isHeard && transport.playing && transport.done === 1);
  });
  engine().on('heard', ({ level, bands, onsets, bpm, confidence }) => {
    inputStore.setState({ heard: { level, bands, onsets, bpm, confidence } });
    if (bpm !== null && confidence > sureEnough) followTempo('sound', bpm);
  });
}

/** Microphones and lines of this machine. Their names are known only once one of them was allowed. */
export async function listSoundDevices(): Promise<{ id: string; name: string }[]> {
  const devices = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  return devices
    .filter(({ kind, deviceId }) => kind === 'audioinput' && deviceId)
    .map(({ deviceId, label }, k) => ({ id: deviceId, name: label || `Device ${k + 1}` }));
}
