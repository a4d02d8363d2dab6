import { choice, number } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';

export default signalKind({
  id: 'audio-onset',
  label: 'Audio Onset',
  summary: 'Fires when a note or a beat starts in the sound, in all of it or in one range.',
  words: ['beat', 'kick', 'hit', 'transient', 'attack', 'trigger', 'drum', 'detect', 'sound'],
  inputs: {},
  controls: {
    range: choice({
      label: 'Listens to',
      help: 'Everything, or what is low (kick), between, or high (hat).',
      options: { all: 'Everything', low: 'Low', mid: 'Middle', high: 'High' },
      default: 'all',
    }),
    least: number({
      label: 'Least strength',
      help: 'Starts that stand out less do not fire.',
      default: 0.1,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    rest: number({
      label: 'Rest',
      help: 'Seconds after a hit in which it does not fire again.',
      default: 0.1,
      range: [0, 1],
      min: 0,
      unit: 's',
    }),
  },
  naturalRange: () => [0, 1],
  moves: () => true,
  hears: true,
  memory: () => ({ heard: null as number | null, count: 0, last: -Infinity, strength: 0 }),
  compute({ controls: c, live, moment, memory, out }) {
    const { count, strength } = live.sound.onsets[c.range];
    // A source that was just chosen, or that began again, has a count of its own.
    if (memory.heard === null || count < memory.heard) memory.heard = count;
    if (moment.time < memory.last) memory.last = -Infinity;
    const isNew = count > memory.heard && strength >= c.least && moment.time - memory.last >= c.rest;
    memory.heard = count;
    if (isNew) {
      memory.count++;
      memory.last = moment.time;
      memory.strength = strength;
    }
    const [hit, strong, counted] = out.layout(['hit', 'strength', 'count'], 1);
    hit[0] = isNew ? 1 : 0;
    strong[0] = memory.strength;
    counted[0] = memory.count;
  },
});
