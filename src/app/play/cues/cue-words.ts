import type { Cue, CueGo } from '../../../core/document/types';
import { codeText } from '../../../core/time-code/time-code';
import { shortNumber } from '../../../core/text/short-number';

/** What starts a cue, in a few words. */
export function goWords({ go }: Cue): string {
  switch (go.type) {
    case 'hand':
      return 'by hand';
    case 'after':
      return `after ${shortNumber(go.length, 2)} ${go.unit === 'beats' ? 'beats' : 's'}`;
    case 'sound':
      return `sound at ${shortNumber(go.at, 2)} s`;
    case 'note':
      return `note ${go.note}${go.channel ? `, channel ${go.channel}` : ''}`;
    case 'code':
      return codeText(go.at);
  }
}

/** A cue goes as it begins with another way of starting. */
export function freshGo(type: CueGo['type']): CueGo {
  switch (type) {
    case 'hand':
      return { type };
    case 'after':
      return { type, length: 8, unit: 'seconds' };
    case 'sound':
    case 'code':
      return { type, at: 10 };
    case 'note':
      return { type, channel: 0, note: 60 };
  }
}

/** `1:05`, and with tenths below ten seconds. */
export const leftText = (seconds: number): string =>
  seconds < 10
    ? seconds.toFixed(1)
    : `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
