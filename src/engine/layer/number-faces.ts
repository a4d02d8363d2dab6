import type { Colour, Ink } from './ink';

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Values that a trace holds. */
export const traceLength = 120;

/** Pixels of a face at its own size. */
const pad = 10;
const side = 8;

/** From values to heights in a box: 0 is always in sight. */
function heights(values: ArrayLike<number>, { y, height }: Box, scale: number): (value: number) => number {
  let [low, high] = [0, 0];
  for (let k = 0; k < values.length; k++) {
    low = Math.min(low, values[k]);
    high = Math.max(high, values[k]);
  }
  if (high - low < 1e-6) high = low + 1;
  const edge = pad * scale;
  return (value) => y + height - edge - ((value - low) / (high - low)) * (height - 2 * edge);
}

const ground = (ink: Ink, box: Box, at: number, scale: number, colour: Colour): void =>
  ink.box(box.x, at - scale / 2, box.width, scale, colour, 0.25);

/** The last values of a signal with one sample as a line; the newest is on the right once it is full. */
export function drawTrace(
  ink: Ink,
  values: ArrayLike<number>,
  box: Box,
  scale: number,
  colour: Colour,
): void {
  const height = heights(values, box, scale);
  ground(ink, box, height(0), scale, colour);
  const x = (k: number): number =>
    box.x + side * scale + (k / (traceLength - 1)) * (box.width - 2 * side * scale);
  for (let k = 1; k < values.length; k++)
    ink.line(x(k - 1), height(values[k - 1]), x(k), height(values[k]), 0.75 * scale, [...colour, 1]);
}

/** Samples side by side as bars. */
export function drawBars(ink: Ink, values: ArrayLike<number>, box: Box, scale: number, colour: Colour): void {
  const height = heights(values, box, scale);
  const zero = height(0);
  ground(ink, box, zero, scale, colour);
  const step = (box.width - 2 * side * scale) / values.length;
  for (let k = 0; k < values.length; k++) {
    const top = height(values[k]);
    ink.box(
      box.x + side * scale + k * step,
      Math.min(top, zero),
      Math.max(scale, step - scale),
      Math.max(scale, Math.abs(top - zero)),
      colour,
    );
  }
}

/** Points seen from three-quarters above, fitted to the box; nearer ones are larger. `positions`: x, y and z in turn. */
export function drawPoints(ink: Ink, positions: Float32Array, box: Box, scale: number, colour: Colour): void {
  const [orbit, tilt] = [0.6, 0.45];
  const [co, so, ct, st] = [Math.cos(orbit), Math.sin(orbit), Math.cos(tilt), Math.sin(tilt)];
  let reach = 1e-6;
  for (let i = 0; i < positions.length; i += 3)
    reach = Math.max(reach, Math.hypot(positions[i], positions[i + 1], positions[i + 2]));
  const size = (Math.min(box.width, box.height) * 0.46) / reach;
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [positions[i], positions[i + 1], positions[i + 2]];
    const deep = so * x + co * z;
    const near = (st * y + ct * deep) / reach;
    const radius = 1.4 * scale * (1 + 0.5 * near);
    const light = 0.45 + 0.5 * Math.min(1, Math.max(0, (near + 1) / 2));
    ink.box(
      box.x + box.width / 2 + (co * x - so * z) * size - radius,
      box.y + box.height / 2 - (ct * y - st * deep) * size - radius,
      2 * radius,
      2 * radius,
      colour,
      light,
    );
  }
}
