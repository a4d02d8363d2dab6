import { bandAmplitudes, bandEdges, bandLevel } from '../../core/audio/bands';
import { Listener, SampleListener, silence, type SoundState } from '../../core/audio/listener';
import { makeLoop } from '../../core/audio/loop';
import type { MidiFile } from '../../core/midi/file';
import { LtcReader } from '../../core/time-code/ltc';
import { MidiPlayer } from '../../core/midi/player';
import type { MidiState } from '../../core/midi/state';
import { idleControllers, type ControllerState, type InputState } from '../../core/inputs/inputs';
import type { ShowInputs } from '../../core/document/types';

const loopRate = 48000;
const meterBands = 32;
const meterEdges = bandEdges(meterBands, 40, 12000);
/** Milliseconds for which what another machine hears counts: after them this one hears for itself again. */
const elsewhereMs = 500;
const meterShape = { tilt: 3, floor: -54, gains: [0, 0, 0] as const };

let loopSamples: Float32Array | null = null;

export interface Sampled {
  rate: number;
  samples: Float32Array;
}

/** Sound that is there as a whole, with its gain. */
function amplified({ samples, rate }: Sampled, gain: number): Sampled {
  if (gain === 0) return { samples, rate };
  const factor = Math.pow(10, gain / 20);
  return { rate, samples: samples.map((v) => v * factor) };
}

/** All that comes to the engine from outside, brought together for each frame. */
export class LiveInputs {
  controllers: ControllerState = idleControllers();
  /** Is given the sound of a device as it comes; null: nobody wants it. */
  tap: ((samples: Float32Array, rate: number) => void) | null = null;
  /** The sound file that was handed over last. */
  private file: (Sampled & { id: string }) | null = null;
  private stream: { listener: Listener; port: MessagePort } | null = null;
  private settings: ShowInputs['sound'] | null = null;
  private listener: SampleListener | null = null;
  /** What another machine has heard last, and when that came. */
  private elsewhere = { state: silence, at: -Infinity };
  private midi: { file: MidiFile; roundSeconds: number; player: MidiPlayer } | null = null;
  private hasListener = false;
  private lastSound: SoundState = silence;
  private codeFrom: ShowInputs['code'] = 'none';
  /** Time code in the sound. */
  private ltc: { reader: LtcReader; seconds: number | null; heardTo: number } | null = null;

  setShow(inputs: ShowInputs): void {
    if (inputs.code !== this.codeFrom) this.ltc = null;
    this.codeFrom = inputs.code;
    if (inputs.sound === this.settings) return;
    const before = this.settings;
    this.settings = inputs.sound;
    const { from, file, gain } = inputs.sound;
    if (from !== before?.from || file !== before.file || gain !== before.gain) this.hasListener = false;
  }

  addFile(file: string, rate: number, samples: Float32Array): void {
    this.file = { id: file, rate, samples };
    if (this.settings?.file === file) this.hasListener = false;
  }

  setStream(rate: number, port: MessagePort | null): void {
    this.stream?.port.close();
    this.stream = null;
    if (!port) return;
    const listener = new Listener(rate);
    this.stream = { listener, port };
    port.onmessage = ({ data }: MessageEvent<Float32Array>) => {
      this.tap?.(data, rate);
      this.readCode(data, rate);
      const factor = Math.pow(10, (this.settings?.gain ?? 0) / 20);
      listener.push(factor === 1 ? data : data.map((v) => v * factor));
    };
  }

  setMidiFile(file: MidiFile | null, roundSeconds: number): void {
    this.midi = file && { file, roundSeconds, player: new MidiPlayer(file, roundSeconds) };
  }

  /** The sound that is there as a whole; null: it comes from a device, or is not there. */
  private get sampled(): Sampled | null {
    if (!this.settings) return null;
    const { from, file } = this.settings;
    if (from === 'loop') return { rate: loopRate, samples: (loopSamples ??= makeLoop(loopRate)) };
    return from === 'file' && this.file?.id === file ? this.file : null;
  }

  /** The sound that plays, where it is there as a whole. */
  get whole(): Sampled | null {
    return this.sampled;
  }

  /** The built-in sound loop, if that is what plays. */
  get loop(): Sampled | null {
    return this.settings?.from === 'loop' ? this.sampled : null;
  }

  private makeListener(): SampleListener | null {
    const source = this.sampled;
    if (!source) return null;
    const { samples, rate } = amplified(source, this.settings!.gain);
    return new SampleListener(samples, rate);
  }

  /** What the machine that is followed hears of its device: a player has none, and what a spare has is not the same. */
  hearElsewhere(state: SoundState): void {
    this.elsewhere = { state, at: performance.now() };
  }

  /** What a device of this machine has been heard of; null: there is none, or nobody listens to it. */
  get heardFromDevice(): SoundState | null {
    return this.settings?.from === 'device' ? (this.stream?.listener.state ?? null) : null;
  }

  private sound(time: number): SoundState {
    if (this.settings?.from === 'device') {
      const { state, at } = this.elsewhere;
      if (performance.now() - at < elsewhereMs) return state;
      // What came last is held while a device is away.
      return this.stream?.listener.state ?? this.lastSound;
    }
    if (!this.hasListener) {
      this.hasListener = true;
      this.listener = this.makeListener();
    }
    return this.listener?.at(time) ?? silence;
  }

  private readCode(samples: Float32Array, rate: number): void {
    if (this.codeFrom !== 'sound') return;
    this.ltc ??= { reader: new LtcReader(rate), seconds: null, heardTo: 0 };
    this.ltc.seconds = this.ltc.reader.push(samples) ?? this.ltc.seconds;
  }

  /** Seconds of time code that came last; null: none has come. `time`: seconds of the show, by which the sound of a file is read. */
  codeAt(time: number): number | null {
    if (this.codeFrom === 'midi') return this.controllers.code;
    if (this.codeFrom === 'none') return null;
    const source = this.sampled;
    if (source) {
      const { rate, samples } = source;
      const from = this.ltc?.heardTo ?? time;
      // Only what was passed just now: after a jump it begins again.
      if (time > from && time - from < 1) {
        const length = samples.length / rate;
        const start = Math.floor((from % length) * rate);
        this.readCode(samples.subarray(start, start + Math.ceil((time - from) * rate)), rate);
      }
      this.ltc ??= { reader: new LtcReader(rate), seconds: null, heardTo: time };
      this.ltc.heardTo = time;
    }
    return this.ltc?.seconds ?? null;
  }

  /** Second of the sound at a time of the show; null where the sound has no places, as that of a device. */
  soundPlace(time: number): number | null {
    const source = this.sampled;
    return source ? time % (source.samples.length / source.rate) : null;
  }

  /** What stands at a moment of the show. Nobody listens where nobody wants to hear. */
  at(time: number, hears: boolean): InputState {
    if (hears) this.lastSound = this.sound(time);
    return { ...this.controllers, midi: this.midiAt(time), sound: this.lastSound };
  }

  private midiAt(time: number): MidiState {
    const { midi } = this.controllers;
    if (!this.midi) return midi;
    const played = this.midi.player.at(time);
    // Hands come over what the file plays: who turns a dial means it.
    return {
      controls: { ...played.controls, ...midi.controls },
      notes: { ...played.notes, ...midi.notes },
      bends: { ...played.bends, ...midi.bends },
    };
  }

  /** The same files without hands and devices, for frames that have to be the same every time. */
  exact(): LiveInputs {
    const exact = new LiveInputs();
    exact.settings = this.settings;
    exact.file = this.file;
    if (this.midi) exact.setMidiFile(this.midi.file, this.midi.roundSeconds);
    return exact;
  }

  /** What a meter on the desk shows. */
  meter(): { level: number; bands: Float32Array; onsets: number; bpm: number | null; confidence: number } {
    const { level, power, rate, onsets, bpm, confidence } = this.lastSound;
    const bands = new Float32Array(meterBands);
    bandAmplitudes(power, rate, meterEdges, bands);
    for (let k = 0; k < meterBands; k++)
      bands[k] = bandLevel(bands[k], Math.sqrt(meterEdges[k] * meterEdges[k + 1]), meterShape);
    return { level: level * Math.SQRT2, bands, onsets: onsets.all.count, bpm, confidence };
  }
}
