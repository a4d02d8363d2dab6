/** What a MIDI message says, as far as it is of use here. Channels count from 1, values are as in the standard. */
export type MidiEvent =
  | { type: 'note'; channel: number; note: number; velocity: number; on: boolean }
  | { type: 'control'; channel: number; control: number; value: number }
  /** -1..1. */
  | { type: 'bend'; channel: number; value: number }
  | { type: 'clock' }
  | { type: 'start' }
  | { type: 'stop' };

/**
 * Reads one message (MIDI 1.0 Detailed Specification 4.2), as Web MIDI hands them over. Null for what is not known or not
 * whole; a note with velocity 0 is one that is let go.
 */
export function readMessage(bytes: ArrayLike<number>): MidiEvent | null {
  const status = bytes[0];
  switch (status) {
    case 0xf8:
      return { type: 'clock' };
    case 0xfa:
    case 0xfb:
      return { type: 'start' };
    case 0xfc:
      return { type: 'stop' };
  }
  const [, first, second] = Array.from({ length: 3 }, (_, k) => bytes[k]);
  const isData = (value: number | undefined): value is number =>
    value !== undefined && value >= 0 && value < 0x80;
  if (!(status >= 0x80 && status < 0xf0) || !isData(first) || !isData(second)) return null;
  const channel = (status & 0x0f) + 1;
  switch (status & 0xf0) {
    case 0x80:
      return { type: 'note', channel, note: first, velocity: 0, on: false };
    case 0x90:
      return { type: 'note', channel, note: first, velocity: second, on: second > 0 };
    case 0xb0:
      return { type: 'control', channel, control: first, value: second };
    case 0xe0: {
      const value = ((second << 7) | first) - 8192;
      return { type: 'bend', channel, value: value < 0 ? value / 8192 : value / 8191 };
    }
    default:
      return null;
  }
}

/** The bytes of a message, for what sends some: the surface on the screen. */
export function writeMessage(event: MidiEvent): number[] {
  switch (event.type) {
    case 'note':
      return [(event.on ? 0x90 : 0x80) | (event.channel - 1), event.note, event.velocity];
    case 'control':
      return [0xb0 | (event.channel - 1), event.control, event.value];
    case 'bend': {
      const value = Math.round(event.value * (event.value < 0 ? 8192 : 8191)) + 8192;
      return [0xe0 | (event.channel - 1), value & 0x7f, value >> 7];
    }
    case 'clock':
      return [0xf8];
    case 'start':
      return [0xfa];
    case 'stop':
      return [0xfc];
  }
}
