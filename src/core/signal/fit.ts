import type { Edges, Fit } from '../show/types';

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

/** K01: out = outLow + (in - inLow) x (outHigh - outLow) / (inHigh - inLow), with a bend and a choice at the edges. */
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
  for (let i = 0; i < samples.length; i++) samples[i] = fitValue(samples[i], fit);
}
