import { Sketch } from '../sketch';

/** Feedback at strengths of a few hundredths: two displacements and a blur give froth where two colours meet. */
export function smokeFroth(): Sketch {
  const s = new Sketch('s7', 'Smoke Froth', [1500, 60]);
  const pixels: [number, number] = [640, 360];
  // Seen from above: a stack of half rings that breathes and is not quite straight.
  const stack = s.add(
    'gradient',
    'Stack',
    [-700, 0],
    {
      form: 'radial',
      ends: 'repeat',
      length: 0.2,
      place: [0, -0.42],
      colours: [
        { at: 0, colour: [1, 1, 1, 0] },
        { at: 0.4, colour: [1, 1, 1, 0] },
        { at: 0.5, colour: [1, 1, 1, 1] },
        { at: 0.6, colour: [1, 1, 1, 0] },
        { at: 1, colour: [1, 1, 1, 0] },
      ],
    },
    { size: pixels },
  );
  const breath = s.add('oscillator', 'Breath', [-700, 200], { rate: 0.11 });
  s.wire(breath, stack, 'length', [0.15, 0.24]);
  s.formula(stack, 'phase', '-time * 0.12');
  const wind = s.add(
    'noise',
    'Wind',
    [-700, 360],
    { channels: 'three', period: 0.32, octaves: 3, rate: 0.25, seed: 8 },
    { size: [320, 180] },
  );
  const waves = s.add('displace', 'Waves', [-500, 0], { push: 0.09 });
  s.wire(stack, waves, 'picture');
  s.wire(wind, waves, 'map');
  const half = s.add(
    'flat-shape',
    'Half',
    [-500, 200],
    {
      form: 'wedge',
      place: [0, -0.42],
      size: [1.7, 1.7],
      opening: 172,
      turn: 90,
      softness: 0.1,
      fill: [1, 1, 1, 1],
    },
    { size: pixels },
  );
  const rings = s.add('masked-mix', 'Half Rings', [-300, 0], { channel: 'alpha' });
  s.wire(waves, rings, 'light');
  s.wire(half, rings, 'mask');
  const hues = s.add(
    'gradient',
    'Two Colours',
    [-300, 200],
    {
      form: 'line',
      length: 0.5,
      colours: [
        { at: 0, colour: [0.2, 0.66, 0.64, 1] },
        { at: 0.47, colour: [0.3, 0.74, 0.66, 1] },
        { at: 0.53, colour: [1, 0.56, 0.2, 1] },
        { at: 1, colour: [0.96, 0.38, 0.2, 1] },
      ],
    },
    { size: pixels },
  );
  s.swing(hues, 'turn', { amount: 40, rate: 0.04 });
  const dye = s.add('masked-mix', 'Dye', [-100, 0], { channel: 'alpha' });
  s.wire(rings, dye, 'mask');
  s.wire(hues, dye, 'light');

  const lay = s.add('blend', 'Lay Over', [100, 0], { mode: 'over', amount: 0.32 }, { size: pixels });
  const first = s.add('displace', 'First Push', [100, 220], { push: 0.022, outside: 'mirror' });
  const soft = s.add('blur', 'Soft Copy', [-100, 380], { radius: 0.012 });
  // Pushed by its own colours: where two of them meet, the border folds.
  const second = s.add('displace', 'Self Push', [300, 220], {
    push: -0.034,
    across: 'red',
    up: 'blue',
    outside: 'mirror',
  });
  const melt = s.add('blur', 'Melt', [500, 220], { radius: 0.0022 });
  s.wire(wind, first, 'map');
  s.wire(first, second, 'picture');
  s.wire(soft, second, 'map');
  s.wire(second, melt, 'picture');
  s.wire(melt, lay, 'picture');
  s.wire(dye, lay, 'over');
  const loop = s.wire(lay, first, 'picture');
  s.back(loop, { keep: 0.994, limit: 2 });
  const aside = s.wire(lay, soft, 'picture');
  s.back(aside, { keep: 0.994, limit: 2 });

  const slope = s.add('steepness', 'Edges of Froth', [500, -160], { strength: 2.6, reach: 1.5 });
  const sheen = s.add('levels', 'Sheen', [700, -160], {
    input: [0.52, 1],
    gain: [1, 0.86, 0.7],
    curve: 'v^1.6',
  });
  const ground = s.add('gradient', 'Dark Water', [500, -330], {
    form: 'radial',
    length: 2.3,
    place: [0, -0.3],
    colours: [
      { at: 0, colour: [0.07, 0.045, 0.06, 1] },
      { at: 1, colour: [0.012, 0.012, 0.024, 1] },
    ],
  });
  const over = s.add('blend', 'On Water', [760, 0]);
  const lit = s.add('blend', 'Lit', [960, 0], { mode: 'screen', amount: 0.6 });
  const shine = s.add('glow', 'Shine', [1140, 0], { threshold: 0.6, strength: 0.5, reach: 0.2 });
  const grain = s.add('grain', 'Grain', [1320, 60], { strength: 0.02 });
  s.wire(lay, slope, 'picture');
  s.wire(slope, sheen, 'picture');
  s.wire(ground, over, 'picture');
  s.wire(lay, over, 'over');
  s.wire(over, lit, 'picture');
  s.wire(sheen, lit, 'over');
  s.wire(lit, shine, 'picture');
  s.wire(shine, grain, 'picture');
  s.wire(grain, s.out, 'picture');
  return s;
}
