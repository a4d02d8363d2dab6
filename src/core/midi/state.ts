import type { MidiEvent } from './message';

interface NoteState {
  down: boolean;
  /** 0..1 of the last hit. */
  velocity: number;
  /** Hits since the start. */
  presses: number;
}

/** What MIDI stands at. Keys are `channel/number`; channel 0 is what came last on any channel. */
export interface MidiState {
  controls: Readonly<Record<string, number>>;
  notes: Readonly<Record<string, NoteState>>;
  bends: Readonly<Record<string, number>>;
}

export const quietMidi: MidiState = { controls: {}, notes: {}, bends: {} };

/** The state after an event; controls and velocities become 0..1. Clock messages change nothing here. */
export function afterEvent(state: MidiState, event: MidiEvent): MidiState {
  switch (event.type) {
    case 'control': {
      const value = event.value / 127;
      return {
        ...state,
        controls: {
          ...state.controls,
          [`${event.channel}/${event.control}`]: value,
          [`0/${event.control}`]: value,
        },
      };
    }
    case 'bend':
      return { ...state, bends: { ...state.bends, [event.channel]: event.value, 0: event.value } };
    case 'note': {
      const notes = { ...state.notes };
      for (const key of [`${event.channel}/${event.note}`, `0/${event.note}`]) {
        const before = notes[key] ?? { down: false, velocity: 0, presses: 0 };
        notes[key] = event.on
          ? { down: true, velocity: event.velocity / 127, presses: before.presses + 1 }
          : { ...before, down: false };
      }
      return { ...state, notes };
    }
    default:
      return state;
  }
}

/** Clock ticks to a beat. */
const ticksPerBeat = 24;

/** Beats a minute of MIDI clock, from the times of its last ticks in seconds. */
export class ClockTempo {
  private times: number[] = [];

  /** Takes the time of a tick; gives the tempo over up to two beats, null until half a beat has passed. */
  tick(seconds: number): number | null {
    const { times } = this;
    // After a pause it counts from the start.
    if (times.length && seconds - times[times.length - 1] > 0.5) times.length = 0;
    times.push(seconds);
    if (times.length > 2 * ticksPerBeat + 1) times.shift();
    const ticks = times.length - 1;
    if (ticks < ticksPerBeat / 2) return null;
    return (60 * ticks) / ticksPerBeat / (seconds - times[0]);
  }
}
