import { assertNever } from '../assert-never';
import { isMeant, type InputEvent } from '../inputs/inputs';
import type { Binding, BindSource } from '../document/types';

/** What a source did: it went to a place (0..1), was turned by a share of its way, or was pressed or let go. */
export interface Turned {
  share?: number;
  by?: number;
  /** Absent: it has no press. */
  down?: boolean;
}

/** Steps of an endless dial from one end to the other. */
const stepsAcross = 127;

/** One word for a source: two that say the same are the same. */
export const sourceKey = (source: BindSource): string => JSON.stringify(source);

/** `Control 21, channel 1`: a source in words. */
export function sourceName(source: BindSource): string {
  switch (source.type) {
    case 'control':
      return `Control ${source.control}, channel ${source.channel}`;
    case 'note':
      return `Note ${source.note}, channel ${source.channel}`;
    case 'bend':
      return `Bend, channel ${source.channel}`;
    case 'osc':
      return source.arg ? `${source.address} (${source.arg + 1})` : source.address;
    case 'button':
      return `Gamepad ${source.pad}, button ${source.button}`;
    case 'stick':
      return `Gamepad ${source.pad}, stick ${source.stick + 1}`;
    case 'key':
      return `Key ${source.code.replace(/^(Key|Digit)/, '')}`;
    default:
      return assertNever(source);
  }
}

/** The source of something that was just done; null for what no control can follow, as the end of a press. */
export function sourceOf(event: InputEvent): BindSource | null {
  if (!isMeant(event)) return null;
  switch (event.type) {
    case 'midi': {
      const { event: midi } = event;
      if (midi.type === 'control')
        return { type: 'control', channel: midi.channel, control: midi.control, fine: false };
      if (midi.type === 'note' && midi.on) return { type: 'note', channel: midi.channel, note: midi.note };
      return midi.type === 'bend' ? { type: 'bend', channel: midi.channel } : null;
    }
    case 'osc':
      return event.args.length ? { type: 'osc', address: event.address, arg: 0 } : null;
    case 'pad':
      if ('stick' in event) return { type: 'stick', pad: event.pad, stick: event.stick };
      return { type: 'button', pad: event.pad, button: event.button };
    case 'key':
      return { type: 'key', code: event.code };
    case 'pointer':
      return null;
    default:
      return assertNever(event);
  }
}

/** Reads what bindings make of what is done. Holds the upper half of 14 bits until the lower one comes. */
export class BindingReader {
  private readonly upper = new Map<string, number>();

  /** What an event means for a binding; null: nothing. */
  read({ source, way }: Binding, event: InputEvent): Turned | null {
    switch (source.type) {
      case 'control': {
        if (event.type !== 'midi' || event.event.type !== 'control') return null;
        const { channel, control, value } = event.event;
        if (channel !== source.channel) return null;
        return source.fine
          ? this.fine(`${channel}/${source.control}`, source.control, control, value)
          : control === source.control
            ? turnedBy(value, way)
            : null;
      }
      case 'note': {
        if (event.type !== 'midi' || event.event.type !== 'note') return null;
        const { channel, note, velocity, on } = event.event;
        if (channel !== source.channel || note !== source.note) return null;
        return { share: on ? velocity / 127 : 0, down: on };
      }
      case 'bend': {
        if (event.type !== 'midi' || event.event.type !== 'bend' || event.event.channel !== source.channel)
          return null;
        return { share: (event.event.value + 1) / 2 };
      }
      case 'osc': {
        if (event.type !== 'osc' || event.address !== source.address) return null;
        const value = event.args[source.arg];
        if (value === undefined) return null;
        if (way === 'relative') return { by: value };
        return { share: Math.min(1, Math.max(0, value)), down: value > 0.5 };
      }
      case 'button':
        if (event.type !== 'pad' || !('button' in event)) return null;
        return event.pad === source.pad && event.button === source.button
          ? { share: event.value, down: event.value > 0.5 }
          : null;
      case 'stick':
        if (event.type !== 'pad' || !('stick' in event)) return null;
        return event.pad === source.pad && event.stick === source.stick
          ? { share: (event.value + 1) / 2 }
          : null;
      case 'key':
        if (event.type !== 'key' || event.code !== source.code) return null;
        return { share: event.down ? 1 : 0, down: event.down };
      default:
        return assertNever(source);
    }
  }

  private fine(key: string, wanted: number, control: number, value: number): Turned | null {
    if (control === wanted) {
      this.upper.set(key, value);
      return turnedTo(value / 127);
    }
    const upper = this.upper.get(key);
    return control === wanted + 32 && upper !== undefined ? turnedTo(((upper << 7) | value) / 16383) : null;
  }
}

const turnedTo = (share: number): Turned => ({ share, down: share > 0.5 });

const turnedBy = (value: number, way: Binding['way']): Turned =>
  way === 'relative' ? { by: (value < 64 ? value : value - 128) / stepsAcross } : turnedTo(value / 127);
