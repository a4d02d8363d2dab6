import { choice, curves, number } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';
import { curveAt, valuesOfCurves } from '../../core/signal/curve';
import { timeNamed, type Moment } from '../../core/time/clock';

type Unit = 'seconds' | 'beats' | 'frames' | 'loop';
type Way = 'round' | 'toAndFro' | 'once';

/** Time since the start in the unit of the keys. */
function counted(moment: Moment, unit: Unit, later: number): number {
  if (unit === 'loop') return moment.loop + later / moment.loopSeconds;
  if (unit === 'beats') return timeNamed('beat', moment, later);
  return (moment.time + later) * (unit === 'frames' ? moment.fps : 1);
}

/** Where along keys of that length something is that has gone so far. phase = f / N. */
function along(now: number, length: number, play: Way): number {
  // The small addition keeps the frame on which a round begins from ending the one before.
  const rounds = now / length + 1e-9;
  if (play === 'once') return Math.min(1, Math.max(0, rounds)) * length;
  const share = rounds - Math.floor(rounds);
  return (play === 'toAndFro' && Math.floor(rounds) % 2 !== 0 ? 1 - share : share) * length;
}

export default signalKind({
  id: 'keyframes',
  label: 'Keyframes',
  summary: 'Values drawn over time: lanes of keys, played once, round, or to and fro.',
  words: ['animation', 'timeline', 'keys', 'automation', 'path', 'tween', 'ease', 'sequence', 'curve'],
  inputs: {
    at: {
      label: 'Position',
      help: 'Where it plays, in the unit of the keys; what is wired here takes the place of time.',
      carries: 'signal',
    },
  },
  controls: {
    lanes: curves({
      label: 'Keys',
      help: 'Each lane is a curve; drawn on the bench.',
      default: [
        {
          name: 'value',
          keys: [
            { at: 0, value: 0, form: 'smooth' },
            { at: 2, value: 1, form: 'smooth' },
            { at: 4, value: 0, form: 'smooth' },
          ],
        },
      ],
      span: { control: 'length' },
      many: true,
      playhead(c, now) {
        const at = { seconds: now.time, beats: now.beat, frames: now.frame, loop: now.loop }[c.unit as Unit];
        return along((at - Number(c.start)) * Number(c.speed), Number(c.length), c.play as Way);
      },
    }),
    unit: choice({
      label: 'Keys in',
      help: 'What the time of the keys and the length are counted in.',
      options: { seconds: 'Seconds', beats: 'Beats', frames: 'Frames', loop: 'Rounds of the loop' },
      default: 'seconds',
    }),
    length: number({
      label: 'Length',
      help: 'Where it ends. A key that stands there, on frame N of N, is met again at the start.',
      default: 4,
      range: [0, 16],
      min: 0.001,
    }),
    play: choice({
      label: 'Plays',
      help: 'Round and round, to and fro, or once, holding its last value.',
      options: { round: 'Round', toAndFro: 'To and fro', once: 'Once' },
      default: 'round',
    }),
    start: number({
      label: 'Start',
      help: 'How much later all of it plays, in the unit of the keys.',
      default: 0,
      range: [0, 16],
    }),
    speed: number({
      label: 'Speed',
      help: '2 plays twice as fast, 0 stands still.',
      default: 1,
      range: [0, 4],
    }),
  },
  naturalRange: (c) => valuesOfCurves(c.lanes),
  moves: () => true,
  each: () => true,
  fromMotion: (motion, base) =>
    motion.type === 'ramp'
      ? {
          controls: {
            lanes: [
              {
                name: 'value',
                keys: [0, 1].map((share) => ({
                  at: share * motion.length,
                  value: base + share * motion.amount,
                  form: motion.eased ? ('smooth' as const) : ('straight' as const),
                })),
              },
            ],
            unit: motion.unit,
            length: motion.length,
            play: motion.way,
          },
        }
      : null,
  compute({ controls: c, inputs, moment, out }) {
    const at = inputs.at?.lanes[0]?.samples;
    const n = Math.max(at?.length ?? 1, moment.spread?.length ?? 1);
    const into = out.layout(
      c.lanes.map((lane) => lane.name),
      n,
    );
    for (let i = 0; i < n; i++) {
      const now = at
        ? at[at.length === 1 ? 0 : i]
        : (counted(moment, c.unit, moment.spread?.[i] ?? 0) - c.start) * c.speed;
      const place = along(now, c.length, c.play);
      c.lanes.forEach(({ keys }, k) => (into[k][i] = curveAt(keys, place)));
    }
  },
});
