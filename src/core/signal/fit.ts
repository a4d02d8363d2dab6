import type { Edges, Fit } from '../document/types';

function edge(share: number, edges: Edges): number {
  switch (edges) {
    case 'hold':
      return share < 0 ? 0 : share > 1 ? 1 : share;
    case 'wrap':
      return share - Math.floor(share);
    case 'mirror': {
      const k = share - 2 * Math.floor(share / 2);
      return k > 1 ? 2 - k : k;
    }
    case 'pass':
      return share;
  }
}

/** out = outLow + (in - inLow) x (outHigh - outLow) / (inHigh - inLow), with a bend and a choice at the edges. */
export function fitValue(value: number, fit: Fit): number {
  const [inLow, inHigh] = fit.from;
  const [outLow, outHigh] = fit.to;
  const raw = inHigh === inLow ? 0 : (value - inLow) / (inHigh - inLow);
  let share = edge(raw, fit.edges);
  if (fit.bend !== 1) share = Math.sign(share) * Math.pow(Math.abs(share), fit.bend);
  return outLow + share * (outHigh - outLow);
}

/** Fits every sample of `samples` in place. */
export function fitInPlace(samples: Float32Array, fit: Fit): void {
  const { from, to, bend, edges } = fit;
  const range = from[1] - from[0];
  if (bend !== 1 || range === 0 || edges === 'wrap' || edges === 'mirror') {
    for (let i = 0; i < samples.length; i++) samples[i] = fitValue(samples[i], fit);
    return;
  }
  // A straight line, which nearly all fits are, in one multiplication.
  const slope = (to[1] - to[0]) / range;
  const start = to[0] - from[0] * slope;
  if (edges === 'pass') {
    for (let i = 0; i < samples.length; i++) samples[i] = samples[i] * slope + start;
    return;
  }
  const [low, high] = to[0] < to[1] ? to : [to[1], to[0]];
  for (let i = 0; i < samples.length; i++) {
    const value = samples[i] * slope + start;
    samples[i] = value < low ? low : value > high ? high : value;
  }
}
