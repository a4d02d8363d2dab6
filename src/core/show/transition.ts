import type { Show, Transition } from '../document/types';

/** Two seconds from one to the other. */
export const homeTransition = (): Transition => ({
  look: 'mix',
  length: 2,
  unit: 'seconds',
  start: 'now',
  angle: 0,
  soft: 0.1,
  colour: [0, 0, 0],
  mask: null,
  amount: 0.1,
});

/** Seconds that a take of a show lasts. */
export const transitionSeconds = ({ transition, tempo }: Pick<Show, 'transition' | 'tempo'>): number =>
  transition.unit === 'beats' ? (transition.length * 60) / tempo.bpm : transition.length;

/** The beat at which a take that is asked for now begins; null: at once. */
export function transitionStart(
  { transition, tempo }: Pick<Show, 'transition' | 'tempo'>,
  beat: number,
): number | null {
  if (transition.start === 'now') return null;
  const step = transition.start === 'beat' ? 1 : tempo.beatsPerBar;
  return (Math.floor(beat / step + 1e-6) + 1) * step;
}

/**
 * How much of the coming picture is seen at a place (shares of the picture from its lower left) when a transition has come to `t`, 0..1. In
 * a wipe the edge enters and leaves the picture with all of its width.
 */
export function shareAt(
  { look, angle, soft }: Transition,
  t: number,
  [x, y]: readonly [number, number],
  aspect: number,
): number {
  if (look !== 'wipe' && look !== 'iris') return t;
  const [px, py] = [(x - 0.5) * aspect, y - 0.5];
  const angleRad = (angle * Math.PI) / 180;
  const [dx, dy] = [Math.cos(angleRad), Math.sin(angleRad)];
  const way =
    look === 'iris'
      ? Math.hypot(px, py) / Math.hypot(aspect / 2, 0.5)
      : (px * dx + py * dy) / (Math.abs(dx) * aspect + Math.abs(dy)) + 0.5;
  const width = Math.max(soft, 1e-3);
  return Math.min(1, Math.max(0, (t * (1 + width) - way) / width));
}
