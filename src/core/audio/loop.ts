import { randomAt } from '../random';

const { exp, min, PI, sin } = Math;

/** Tempo and length of the loop that ships: four bars of four. */
export const loopTempo = 120;
const loopBeats = 16;

const hertzOf = (note: number): number => 440 * Math.pow(2, (note - 69) / 12);

/** Roots of the bass in each bar, as MIDI note numbers, and the lead that goes over them in eighths (0 rests). */
const roots = [33, 33, 36, 31];
const lead = [69, 0, 72, 76, 0, 74, 72, 0, 69, 0, 67, 69, 0, 72, 0, 0];

/**
 * The loop that stands in for music: kick, hat and clap, a bass and a lead, worked out here and nowhere recorded. One
 * channel, `rate` samples a second, 8 s long; its end meets its start.
 */
export function makeLoop(rate: number): Float32Array {
  const beat = 60 / loopTempo;
  const length = Math.round(loopBeats * beat * rate);
  const out = new Float32Array(length);
  /** Adds a voice from a beat on, for so many seconds, round the end. */
  const voice = (atBeat: number, seconds: number, wave: (t: number, k: number) => number): void => {
    const start = Math.round(atBeat * beat * rate);
    const count = Math.round(seconds * rate);
    for (let k = 0; k < count; k++) out[(start + k) % length] += wave(k / rate, k);
  };
  const tail = (t: number, seconds: number): number => min(1, (seconds - t) * 200);
  for (let b = 0; b < loopBeats; b++) {
    // Kick: a sine that falls from 150 to 48 Hz.
    voice(
      b,
      0.28,
      (t) => 0.75 * sin(2 * PI * (48 * t + 5.1 * (1 - exp(-t * 20)))) * exp(-t * 9) * tail(t, 0.28),
    );
    for (const off of [0, 0.5]) {
      // Hat: noise without its lows, longer between the beats.
      const fall = off ? 55 : 110;
      let last = 0;
      voice(b + off, 0.09, (t, k) => {
        const noise = randomAt(k, 11 + b) * 2 - 1;
        const high = noise - last;
        last = noise;
        return 0.12 * high * exp(-t * fall) * tail(t, 0.09);
      });
    }
    if (b % 2 === 1) {
      voice(b, 0.16, (t, k) => 0.3 * (randomAt(k, 31) * 2 - 1) * exp(-t * 28) * tail(t, 0.16));
    }
    // Bass on the eighths, a little after each kick has hit.
    const root = hertzOf(roots[Math.floor(b / 4)]);
    for (const off of [0.25, 0.5, 0.75]) {
      const f = off === 0.75 ? root * 2 : root;
      voice(b + off, 0.12, (t) => {
        const body = sin(2 * PI * f * t) + 0.4 * sin(4 * PI * f * t);
        return 0.24 * body * min(1, t * 250) * exp(-t * 6) * tail(t, 0.12);
      });
    }
  }
  for (let k = 0; k < loopBeats * 2; k++) {
    const note = lead[k % lead.length];
    if (note === 0) continue;
    const f = hertzOf(note + (k >= lead.length ? 12 : 0) - (k % 8 === 6 ? 5 : 0));
    voice(k / 2, 0.3, (t) => {
      const body = sin(2 * PI * f * t + 1.2 * sin(4 * PI * f * t) * exp(-t * 8));
      return 0.13 * body * min(1, t * 150) * exp(-t * 5) * tail(t, 0.3);
    });
  }
  const most = out.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
  for (let k = 0; k < length; k++) out[k] *= 0.9 / most;
  return out;
}
