import { choice, number, text } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { envelopeAt, envelopeLength, type EnvelopeShape } from '../../core/signal/envelope';

interface Voice {
  at: number;
  /** Seconds it was held, Infinity while it is. */
  held: number;
}

interface Memory {
  high: boolean[];
  voices: Voice[][];
}

const mostVoices = 16;
/** A trigger that is never high. */
const low = new Float32Array(1);
const bend = (label: string) =>
  number({
    label,
    help: '1 is straight, above 1 fast at first, below 1 slow at first.',
    default: 2,
    range: [0.25, 4],
    min: 0.05,
    max: 20,
  });

export default signalKind({
  id: 'envelope',
  label: 'Envelope',
  summary: 'A hit rises and dies away: attack, hold, decay, sustain, release.',
  words: ['adsr', 'hit', 'trigger', 'flash', 'pulse', 'attack', 'decay', 'one shot', 'strobe'],
  example: { feed: { kind: 'beat-clock', controls: { gives: 'hit' } } },
  inputs: {
    trigger: {
      label: 'Trigger',
      help: 'Fires when it rises over a half, lets go when it falls below.',
      carries: 'signal',
    },
  },
  controls: {
    attack: number({
      label: 'Attack',
      help: 'Seconds to the top.',
      default: 0.1,
      range: [0, 2],
      min: 0,
      unit: 's',
    }),
    attackBend: bend('Attack bend'),
    hold: number({
      label: 'Hold',
      help: 'Seconds at the top.',
      default: 0,
      range: [0, 2],
      min: 0,
      unit: 's',
    }),
    decay: number({
      label: 'Decay',
      help: 'Seconds from the top down to the sustain level.',
      default: 0.8,
      range: [0, 4],
      min: 0,
      unit: 's',
    }),
    decayBend: bend('Decay bend'),
    sustain: number({
      label: 'Sustain',
      help: 'Level while the trigger stays high.',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    release: number({
      label: 'Release',
      help: 'Seconds from the sustain level to 0.',
      default: 0.3,
      range: [0, 4],
      min: 0,
      unit: 's',
    }),
    releaseBend: bend('Release bend'),
    again: choice({
      label: 'A new hit',
      help: 'Starts over, adds a voice beside those still sounding, or waits until they are done.',
      options: { overlap: 'Adds a voice', restart: 'Starts over', wait: 'Waits' },
      default: 'overlap',
    }),
    delay: number({
      label: 'Delay',
      help: 'Seconds before it is felt; many values give each sample its own.',
      default: 0,
      range: [0, 1],
      min: 0,
      unit: 's',
      many: true,
    }),
    level: number({ label: 'Level', help: 'Height of the top.', default: 1, range: [0, 1] }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  countOf: (_c, inputs, longest) => Math.max(longest, inputs.trigger?.length ?? 1),
  naturalRange: (c) => [0, c.level || 1],
  moves: () => true,
  memory: (): Memory => ({ high: [], voices: [] }),
  compute({ controls: c, inputs, moment, count, memory, out }) {
    const shape: EnvelopeShape = {
      attackSeconds: c.attack,
      holdSeconds: c.hold,
      decaySeconds: c.decay,
      sustain: c.sustain,
      releaseSeconds: c.release,
      attackBend: c.attackBend,
      decayBend: c.decayBend,
      releaseBend: c.releaseBend,
    };
    const trigger = inputs.trigger?.lanes[0]?.samples ?? low;
    const longestDelay = c.delay.reduce((most, d) => Math.max(most, d), 0);
    for (let k = 0; k < trigger.length; k++) {
      const voices = (memory.voices[k] ??= []);
      const high = trigger[k] > 0.5;
      if (high && !memory.high[k]) {
        const last = voices[voices.length - 1];
        const busy =
          last &&
          moment.time - last.at <
            envelopeLength(shape, last.held === Infinity ? moment.time - last.at : last.held);
        if (c.again === 'restart') voices.length = 0;
        if (c.again !== 'wait' || !busy) voices.push({ at: moment.time, held: Infinity });
        if (voices.length > mostVoices) voices.shift();
      }
      if (!high && memory.high[k])
        for (const voice of voices) if (voice.held === Infinity) voice.held = moment.time - voice.at;
      memory.high[k] = high;
      while (
        voices.length &&
        voices[0].held !== Infinity &&
        moment.time - voices[0].at > envelopeLength(shape, voices[0].held) + longestDelay
      ) {
        voices.shift();
      }
    }
    const [into] = out.layout([c.lane || 'value'], count);
    for (let i = 0; i < count; i++) {
      const delay = c.delay[c.delay.length === 1 ? 0 : i];
      const voices = memory.voices[trigger.length === 1 ? 0 : i % trigger.length] ?? [];
      let most = 0;
      for (const voice of voices)
        most = Math.max(most, envelopeAt(shape, moment.time - voice.at - delay, voice.held));
      into[i] = most * c.level;
    }
  },
});
