import { choice, number, text, whole } from '../../core/kind/controls';
import { signalKind, type Learned } from '../../core/kind/kind';

interface Memory {
  /** Hits of each note when it was looked at last, and when it began. */
  presses: number[];
  first: number[];
}

export default signalKind({
  id: 'midi',
  label: 'MIDI',
  summary: 'A dial, fader, key or pad of a MIDI device, the surface on the screen, or a MIDI file.',
  words: ['controller', 'keyboard', 'fader', 'knob', 'pad', 'note', 'cc', 'pitch bend', 'learn', 'device'],
  inputs: {},
  controls: {
    takes: choice({
      label: 'Takes',
      help: 'Notes, control changes (dials and faders), or the pitch wheel.',
      options: { control: 'Control change', note: 'Note', bend: 'Pitch bend' },
      default: 'control',
    }),
    channel: whole({
      label: 'Channel',
      help: '1 to 16; 0 takes any.',
      default: 0,
      range: [0, 16],
      min: 0,
      max: 16,
    }),
    number: whole({
      label: 'Number',
      help: 'Which control or note: 60 is the middle C. Use Learn to find it.',
      default: 21,
      range: [0, 127],
      min: 0,
      max: 127,
      shownIf: (c) => c.takes !== 'bend',
    }),
    count: whole({
      label: 'How many',
      help: 'Samples for so many numbers from there on: 16 pads at once.',
      default: 1,
      range: [1, 16],
      min: 1,
      max: 128,
      shownIf: (c) => c.takes !== 'bend',
    }),
    gives: choice({
      label: 'Gives',
      help: 'How hard it was hit while it is held, 1 while it is held, turned over or counted by each hit.',
      options: { velocity: 'Velocity', held: 'While held', toggle: 'Toggle', count: 'Count' },
      default: 'velocity',
      shownIf: (c) => c.takes === 'note',
    }),
    start: number({
      label: 'Before it moves',
      help: 'Value until the first message comes.',
      default: 0,
      range: [0, 1],
      shownIf: (c) => c.takes === 'control',
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  naturalRange: (c) =>
    c.takes === 'bend' ? [-1, 1] : c.takes === 'note' && c.gives === 'count' ? [0, 8] : [0, 1],
  moves: () => true,
  learn(event): Learned | null {
    if (event.type !== 'midi') return null;
    const { event: message } = event;
    switch (message.type) {
      case 'control':
        return {
          controls: { takes: 'control', channel: message.channel, number: message.control },
          name: `Control ${message.control}`,
        };
      case 'note':
        return message.on
          ? {
              controls: { takes: 'note', channel: message.channel, number: message.note },
              name: `Note ${message.note}`,
            }
          : null;
      case 'bend':
        return { controls: { takes: 'bend', channel: message.channel }, name: 'Pitch Bend' };
      default:
        return null;
    }
  },
  recalls: false,
  memory: (): Memory => ({ presses: [], first: [] }),
  compute({ controls: c, live, memory, out }) {
    const { midi } = live;
    if (c.takes === 'bend') {
      out.layout([c.lane || 'value'], 1)[0][0] = midi.bends[c.channel] ?? 0;
      return;
    }
    const [into] = out.layout([c.lane || 'value'], c.count);
    for (let k = 0; k < c.count; k++) {
      const key = `${c.channel}/${c.number + k}`;
      if (c.takes === 'control') {
        into[k] = midi.controls[key] ?? c.start;
        continue;
      }
      const note = midi.notes[key] ?? { down: false, velocity: 0, presses: 0 };
      memory.first[k] ??= note.presses;
      // A hit shorter than a frame still counts for one frame.
      const isHit = note.presses > (memory.presses[k] ?? note.presses);
      memory.presses[k] = note.presses;
      const since = note.presses - memory.first[k];
      if (c.gives === 'count') into[k] = since;
      else if (c.gives === 'toggle') into[k] = since % 2;
      else into[k] = note.down || isHit ? (c.gives === 'held' ? 1 : note.velocity) : 0;
    }
  },
});
