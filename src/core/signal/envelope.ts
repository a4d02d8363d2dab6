/** Times in seconds; bends are exponents of the way, 1 straight, above 1 fast first (ease-out). */
export interface EnvelopeShape {
  attackSeconds: number;
  holdSeconds: number;
  decaySeconds: number;
  sustain: number;
  releaseSeconds: number;
  attackBend: number;
  decayBend: number;
  releaseBend: number;
}

/** Share of a way done at t 0..1, bent: ease-out for bend above 1. */
const ease = (t: number, bend: number): number => 1 - Math.pow(1 - Math.min(1, Math.max(0, t)), bend);

/** Value while the gate is held, `since` seconds after the hit. */
function held(shape: EnvelopeShape, since: number): number {
  if (since < 0) return 0;
  if (since < shape.attackSeconds) return ease(since / shape.attackSeconds, shape.attackBend);
  const after = since - shape.attackSeconds - shape.holdSeconds;
  if (after <= 0) return 1;
  const t = shape.decaySeconds > 0 ? after / shape.decaySeconds : 1;
  return 1 + (shape.sustain - 1) * ease(t, shape.decayBend);
}

/**
 * Value of one voice `since` seconds after its hit, let go `heldSeconds` after it (Infinity: still held). A voice
 * without sustain runs its course whether it is held or not.
 */
export function envelopeAt(shape: EnvelopeShape, since: number, heldSeconds: number): number {
  const course = shape.attackSeconds + shape.holdSeconds + (shape.sustain > 0 ? 0 : shape.decaySeconds);
  const letGo = Math.max(heldSeconds, course);
  if (since < letGo) return held(shape, since);
  const level = held(shape, letGo);
  const t = shape.releaseSeconds > 0 ? (since - letGo) / shape.releaseSeconds : 1;
  return t >= 1 ? 0 : level * (1 - ease(t, shape.releaseBend));
}

/** Seconds after which a voice let go at `heldSeconds` is silent. */
export const envelopeLength = (shape: EnvelopeShape, heldSeconds: number): number =>
  Math.max(heldSeconds, shape.attackSeconds + shape.holdSeconds + shape.decaySeconds) + shape.releaseSeconds;
