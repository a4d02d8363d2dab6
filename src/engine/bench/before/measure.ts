import type { Work } from '../measure';

/** A work whose result is a picture. */
export interface Drawing extends Work {
  /** Share of the picture that is not empty, 0..1. */
  covered(): number;
}

/** How much of a picture is not empty: red, green, blue and alpha of each pixel. What a copy smears aside does not count. */
export const coverOf = (rgba: Float32Array): number => {
  let full = 0;
  for (let k = 3; k < rgba.length; k += 4) if (rgba[k] > 0.05) full++;
  return full / (rgba.length / 4);
};

/** Two works that are to be compared, once it is seen that they draw as much at frame 2. */
export function alike(a: Drawing, b: Drawing): [Work, Work] {
  const [ca, cb] = [a, b].map((work) => {
    for (let k = 0; k < 3; k++) work.frame(k);
    return work.covered();
  });
  if (ca < 0.01 || Math.abs(ca / cb - 1) > 0.05)
    throw new Error(`Not the same picture: ${ca.toFixed(3)} of it is drawn, by hand ${cb.toFixed(3)}.`);
  return [a, b];
}
