import { gradientAt } from '../colour';
import { octaveNoise } from '../noise';
import { envelopeAt, envelopeLength, type EnvelopeShape } from '../signal/envelope';
import { Triggers } from '../signal/rows';
import type { Signal } from '../signal/signal';
import { Walk } from '../signal/walk';
import { wave } from '../signal/wave';
import type { ColourWay, Follow, Hit, Motion, Ramp } from '../document/types';
import { cyclesAt, loopedWay, wayDone, type Moment } from '../time/clock';

/** Hits that may sound at once; the oldest is dropped. */
const mostHits = 16;

/** Share of a way at a moment, 0..1. */
function wayAt(
  { way, length, unit, start = 0 }: Pick<Ramp, 'way' | 'length' | 'unit'> & { start?: number },
  moment: Moment,
): number {
  const now = unit === 'beats' ? moment.beat : unit === 'loop' ? moment.loop : moment.time;
  // clamp((t - t0) / (t1 - t0)).
  if (way === 'once')
    return length > 0 ? Math.min(1, Math.max(0, (now - start) / length)) : now >= start ? 1 : 0;
  if (length <= 0) return 1;
  // Only what goes round is made to fit a locked loop.
  const cycle = length * (way === 'toAndFro' ? 2 : 1);
  const cycles =
    unit === 'beats'
      ? cyclesAt(moment, cycle, 'beats')
      : cyclesAt(moment, 1 / cycle, unit === 'loop' ? 'loop' : 'hertz');
  const turns = cycles - start / cycle + 1e-9;
  const share = turns - Math.floor(turns);
  if (way === 'round') return share;
  return share < 0.5 ? 2 * share : 2 - 2 * share;
}

function rampAt(motion: Ramp, moment: Moment): number {
  const share = wayAt(motion, moment);
  return motion.eased ? share * share * (3 - 2 * share) : share;
}

/** One motion of a control while it runs. */
export class MotionRun {
  private readonly walk = new Walk();
  private readonly one = new Float32Array(1);
  private readonly triggers = new Triggers();
  private readonly hits: number[] = [];
  private followed: Float32Array | null = null;

  /** `salt` sets the unrest of one control part apart from that of the next, whose seed is the same. */
  constructor(
    readonly type: Motion['type'],
    private readonly salt: number,
    /** Which part of its control it moves. */
    private readonly part = 0,
  ) {}

  /** Lays the motion on `samples`, in the unit of the control. `trigger` is the signal that a Hit waits for. */
  apply(motion: Motion, samples: Float32Array, moment: Moment, trigger: Signal | null): void {
    if (motion.type === 'follow') {
      this.follow(motion, samples, moment.dt);
      return;
    }
    const master = moment.motion ?? 1;
    if (motion.type === 'colours') {
      if (!motion.on) return;
      const goal = gradientAt(motion.stops, wayAt(motion, moment))[this.part];
      for (let i = 0; i < samples.length; i++) samples[i] += (goal - samples[i]) * motion.amount * master;
      return;
    }
    const offset = motion.on ? motion.amount * master * this.shapeOf(motion, moment, trigger) : 0;
    for (let i = 0; i < samples.length; i++) samples[i] += offset;
  }

  /** How far the motion is, as a share of its amount. */
  private shapeOf(
    motion: Exclude<Motion, Follow | ColourWay>,
    moment: Moment,
    trigger: Signal | null,
  ): number {
    switch (motion.type) {
      case 'swing':
        return wave(motion.shape, cyclesAt(moment, motion.rate, motion.unit) + motion.phase);
      case 'wander': {
        const [y, z] = loopedWay(moment, motion.speed);
        const noise = octaveNoise(motion.seed * 71.7 + this.salt * 13.37, y + 0.37, z + 0.71, 2, 0.5);
        // Gradient noise seldom passes 0.7, so it is opened to the range it promises.
        return Math.max(-1, Math.min(1, noise * 1.4));
      }
      case 'ramp':
        return rampAt(motion, moment);
      case 'walk':
        this.walk.at(
          moment.time,
          { ...motion, low: -1, high: 1, step: 0.25, seed: motion.seed * 31 + this.salt },
          this.one,
        );
        return this.one[0];
      case 'hit':
        return this.hit(motion, moment.time, trigger);
    }
  }

  private hit({ attack, decay }: Hit, time: number, trigger: Signal | null): number {
    const shape: EnvelopeShape = {
      attackSeconds: attack,
      holdSeconds: 0,
      decaySeconds: decay,
      sustain: 0,
      releaseSeconds: 0,
      attackBend: 2,
      decayBend: 2,
      releaseBend: 1,
    };
    // Time that went back takes hits with it that have not happened yet.
    const { hits } = this;
    while (hits.length && (hits[0] > time || time - hits[0] > envelopeLength(shape, 0))) hits.shift();
    if (this.triggers.anyRose(trigger)) hits.push(time);
    if (hits.length > mostHits) hits.shift();
    let most = 0;
    for (const at of hits) most = Math.max(most, envelopeAt(shape, time - at, 0));
    return most;
  }

  private follow({ on, amount, rise, fall }: Follow, samples: Float32Array, dt: number): void {
    if (this.followed?.length !== samples.length) this.followed = samples.slice();
    const { followed } = this;
    const [up, down] = [wayDone(rise, dt), wayDone(fall, dt)];
    for (let i = 0; i < samples.length; i++) {
      followed[i] += (samples[i] - followed[i]) * (samples[i] > followed[i] ? up : down);
      if (on) samples[i] += (followed[i] - samples[i]) * amount;
    }
  }
}
