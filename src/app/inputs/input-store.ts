import { create } from 'zustand';

/** How it stands with a source that needs leave or a wire. */
type Standing =
  /** Nobody asked for it yet. */
  | 'idle'
  | 'asking'
  | 'here'
  /** Refused, gone or not available; `message` says why. */
  | 'away';

export interface SourceStatus {
  standing: Standing;
  message: string;
}

interface HeardSound {
  level: number;
  bands: Float32Array;
  onsets: number;
  bpm: number | null;
  confidence: number;
}

interface InputsState {
  midi: SourceStatus & { devices: string[] };
  osc: SourceStatus & { lastAddress: string };
  sound: SourceStatus;
  /** Whether Pyrvel's own server answers; null: not known yet. */
  server: boolean | null;
  pads: string[];
  heard: HeardSound | null;
  /** Beats a minute of MIDI clock; null: none comes. */
  midiTempo: number | null;
  /** Where dials, faders and lights of the surface on the screen stand, 0..1, by `channel/number` and `note channel/number`. */
  surface: Readonly<Record<string, number>>;
}

const idle: SourceStatus = { standing: 'idle', message: '' };

/** How the sources stand, for the desk. */
export const inputStore = create<InputsState>()(() => ({
  midi: { ...idle, devices: [] },
  osc: { ...idle, lastAddress: '' },
  sound: idle,
  server: null,
  pads: [],
  heard: null,
  midiTempo: null,
  surface: {},
}));
