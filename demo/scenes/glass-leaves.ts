import { palette } from '../palette';
import { Sketch } from '../sketch';

/** One motion, many times: 180 leaves of glass, each four frames behind the last, swinging at rates that share no short period. */
export function glassLeaves(): Sketch {
  const s = new Sketch('s12', 'Glass Leaves', [1640, 60]);
  // Primes over a common measure: the three meet again after hours, and the loop section says when.
  const axes = [
    ['About x', 0.0389, 0],
    ['About y', 0.0293, 0.2],
    ['About z', 0.0217, 0.55],
  ] as const;
  const turns = s.add('join-lanes', 'Swing', [190, 480], { names: 'x y z' });
  axes.forEach(([name, rate, phase], k) => {
    const wave = s.add('oscillator', name, [0, 440 + k * 130], { rate, phase });
    s.wire(wave, turns, 'in');
  });
  const past = s.add('time-spread', 'Four Frames Each', [380, 480], {
    samples: 180,
    apart: 'step',
    step: 4,
    unit: 'frames',
  });
  s.wire(turns, past, 'in');

  const rim = s.add('ring', 'Square', [190, 0], { size: 1.3, points: 4, start: 45 });
  const pane = s.add('sheet', 'Pane', [190, 170], { size: [0.92, 0.92] });
  const outline = s.add('body', 'Outline', [380, 0], {
    draw: 'lines',
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: [1, 1, 1, 0.62],
    width: 1.4,
    leastWidth: 0.7,
  });
  const fill = s.add('body', 'Faint Fill', [380, 170], {
    shading: 'glow',
    blending: 'add',
    solid: false,
    colour: [1, 1, 1, 0.03],
  });
  s.wire(rim, outline, 'shape');
  s.wire(pane, fill, 'shape');
  const shot = s.add('shot', 'Shot', [860, 60], { background: palette.clear, exposure: 0.95 });
  for (const [k, [body, name]] of (
    [
      [outline, 'Outlines'],
      [fill, 'Panes'],
    ] as const
  ).entries()) {
    const leaves = s.add('instances', name, [620, k * 170], {
      paletteWay: 'once',
      // A spectrum, half saturated.
      palette: [
        { at: 0, colour: [0.95, 0.42, 0.3, 1] },
        { at: 0.24, colour: [1, 0.7, 0.36, 1] },
        { at: 0.45, colour: [0.62, 0.78, 0.4, 1] },
        { at: 0.68, colour: [0.34, 0.72, 0.74, 1] },
        { at: 0.86, colour: [0.42, 0.46, 0.82, 1] },
        { at: 1, colour: [0.82, 0.46, 0.72, 1] },
      ],
    });
    s.wire(body, leaves, 'body');
    s.wire(past, leaves, 'turn', [-170, 170]);
    // Growing toward the last one, a quarter more than full.
    s.formula(leaves, 'size', '0.06 + 0.68 * u * 1.25');
    s.formula(leaves, 'place.x', '(u - 0.5) * 0.5');
    s.formula(leaves, 'tint.a', '0.25 + 0.75 * u * u');
    s.wire(leaves, shot, 'props');
  }
  const camera = s.add('camera', 'Camera', [620, 340], { orbit: 0, height: 4, distance: 1.6, view: 38 });
  s.wire(camera, shot, 'props');
  s.swing(camera, 'orbit', { amount: 14, rate: 0.011 });
  const soft = s.add('blur', 'Against Stairs', [1050, 60], { radius: 0.0012 });
  s.wire(shot, soft, 'picture');
  const shine = s.add('glow', 'Shine', [1240, 60], { strength: 0.55, threshold: 0.45, reach: 0.12 });
  s.wire(soft, shine, 'picture');
  const dark = s.add('gradient', 'Glasshouse', [1050, 260], {
    form: 'radial',
    length: 1.4,
    colours: [
      { at: 0, colour: [0.075, 0.05, 0.1, 1] },
      { at: 1, colour: palette.night },
    ],
  });
  const laid = s.add('blend', 'Over Dark', [1430, 60], { mode: 'add' });
  s.wire(dark, laid, 'picture');
  s.wire(shine, laid, 'over');
  s.wire(laid, s.out, 'picture');
  return s;
}
