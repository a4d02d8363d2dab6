import { writeFileSync } from 'node:fs';

/** Writes the looks that ship with the app: tables of colours in .cube form (Cube LUT Specification 1.0). */

type Colour = [number, number, number];
const size = 17;

const mix = (a: Colour, b: Colour, t: number): Colour => a.map((v, k) => v + (b[k] - v) * t) as Colour;
const brightness = ([r, g, b]: Colour): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;
const curve = (t: number): number => t * t * (3 - 2 * t);

/** Cold: shadows towards deep blue, lights towards pale cyan, colours half as strong. */
const firstFrost = (c: Colour): Colour => {
  const y = brightness(c);
  const cold = mix([0.01, 0.035, 0.08], mix([0.2, 0.46, 0.62], [0.95, 1, 1], y), curve(y));
  return mix(cold, c, 0.16);
};

/** Warm: shadows towards brown, lights towards candle yellow, and a little more contrast. */
const lateAmber = (c: Colour): Colour => {
  const y = brightness(c);
  const warm = mix([0.05, 0.02, 0.015], mix([0.82, 0.4, 0.1], [1, 0.93, 0.74], y), curve(y));
  return mix(warm, c.map((v) => curve(v)) as Colour, 0.45);
};

function write(file: string, title: string, look: (c: Colour) => Colour): void {
  const lines = [`TITLE "${title}"`, `LUT_3D_SIZE ${size}`];
  for (let b = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++) {
        const colour = look([r, g, b].map((v) => v / (size - 1)) as Colour);
        lines.push(colour.map((v) => Math.min(1, Math.max(0, v)).toFixed(5)).join(' '));
      }
  writeFileSync(file, `${lines.join('\n')}\n`);
}

write('public/media/first-frost.cube', 'First frost', firstFrost);
write('public/media/late-amber.cube', 'Late amber', lateAmber);
