import { silence, type SoundState } from '../audio/listener';
import type { MidiEvent } from '../midi/message';
import { quietMidi, type MidiState } from '../midi/state';

/** One key of the keyboard. */
export interface KeyState {
  down: boolean;
  /** How often it has gone down since the start. */
  presses: number;
}

/** One pointer, in centred units: 0,0 in the middle, height 1, y up. */
export interface PointerState {
  x: number;
  y: number;
  down: boolean;
  presses: number;
  /** Sum of wheel steps, up is positive. */
  wheel: number;
  /** Over the monitor or a stage window. */
  inside: boolean;
}

/** A gamepad in the layout of the W3C Gamepad standard. */
export interface PadState {
  /** Left x, left y, right x, right y; -1..1, y up. */
  sticks: readonly number[];
  /** 0..1 each. */
  buttons: readonly number[];
}

/** The last message at an address. */
export interface OscValue {
  args: readonly number[];
  /** Messages since the start. */
  count: number;
}

/** What comes from hands and wires, as it stands. */
export interface ControllerState {
  keys: Readonly<Record<string, KeyState>>;
  /** The pointer that moved last. */
  pointer: Readonly<PointerState>;
  /** All that touch the picture, in the order they came. */
  pointers: readonly Readonly<PointerState>[];
  pads: readonly PadState[];
  midi: MidiState;
  /** Seconds of MIDI time code that came last; null: none has come. */
  code: number | null;
  /** By address. */
  osc: Readonly<Record<string, OscValue>>;
}

/** What comes from outside, as it stands at this frame. */
export interface InputState extends ControllerState {
  sound: Readonly<SoundState>;
}

/** Something that a hand or a device just did, by which a control can learn what it is to follow, and be moved. */
export type InputEvent =
  | { type: 'key'; code: string; down: boolean }
  | { type: 'pointer' }
  | { type: 'midi'; event: MidiEvent }
  | { type: 'osc'; address: string; args: readonly number[] }
  /** Buttons stand at 0..1, sticks at -1..1. */
  | { type: 'pad'; pad: number; button: number; value: number }
  | { type: 'pad'; pad: number; stick: number; value: number };

/** How far a stick is moved by a hand that means to be followed. */
const meantMove = 0.6;

/** Whether what was done is meant to be learned: a key that goes down and not up, a stick that is moved and not touched. */
export function isMeant(event: InputEvent): boolean {
  if (event.type === 'key') return event.down;
  if (event.type !== 'pad') return true;
  return 'stick' in event ? Math.abs(event.value) > meantMove : event.value > 0.5;
}

export const idleControllers = (): ControllerState => ({
  keys: {},
  pointer: { x: 0, y: 0, down: false, presses: 0, wheel: 0, inside: false },
  pointers: [],
  pads: [],
  midi: quietMidi,
  code: null,
  osc: {},
});

export const idleInputs = (): InputState => ({ ...idleControllers(), sound: silence });
