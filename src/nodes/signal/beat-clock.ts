import { choice, numbers, number, text } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';

export default signalKind({
  id: 'beat-clock',
  label: 'Beat Clock',
  summary: 'Where the beat stands: the phase of one or more periods in beats.',
  words: [
    'tempo',
    'beat',
    'bar',
    'phase',
    'bpm',
    'metronome',
    'sync',
    'rhythm',
    'clock',
    'strobe',
    'step sequencer',
  ],
  example: { controls: { periods: [1, 2, 4, 8] } },
  inputs: {},
  controls: {
    periods: numbers({
      label: 'Periods',
      help: 'Beats a cycle, a sample each: 1 is the beat, 4 a bar of four.',
      default: [1],
    }),
    gives: choice({
      label: 'Gives',
      help: 'How far each cycle is, how many are done, or a hit at the start of each.',
      options: { phase: 'Phase (0 to 1)', count: 'Count', hit: 'Hit' },
      default: 'phase',
    }),
    offset: number({
      label: 'Offset',
      help: 'Beats that all of it is late.',
      default: 0,
      range: [0, 4],
    }),
    each: number({
      label: 'Offset each',
      help: 'Beats that each sample is later than the one before.',
      default: 0,
      range: [0, 1],
    }),
    lane: text({ label: 'Lane', help: 'Name of the lane it gives.', default: 'value' }),
  },
  naturalRange: (c) => [0, c.gives === 'count' ? 8 : 1],
  moves: () => true,
  compute({ controls: c, moment, out }) {
    const periods = c.periods.length ? c.periods : [1];
    const [into] = out.layout([c.lane || 'value'], periods.length);
    const lastBeat = moment.beat - (moment.dt * moment.bpm) / 60;
    periods.forEach((period, i) => {
      const late = c.offset + c.each * i;
      // The small addition keeps a beat that falls on a frame from coming one frame late.
      const cycles = (beat: number): number => (period > 0 ? (beat - late) / period + 1e-9 : 0);
      const done = Math.floor(cycles(moment.beat));
      if (c.gives === 'phase') into[i] = cycles(moment.beat) - done;
      else if (c.gives === 'count') into[i] = done;
      else into[i] = period > 0 && (moment.dt === 0 || Math.floor(cycles(lastBeat)) < done) ? 1 : 0;
    });
  },
});
