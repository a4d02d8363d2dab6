import { palette } from '../palette';
import { Sketch } from '../sketch';

/** Many lines: 256 thin bars that turn with their place on a circle, in a palette of 128 mirrored over them. */
export function reedFan(): Sketch {
  const s = new Sketch('s15', 'Reed Fan', [1760, 60]);
  s.add('oscillator', 'Across', [0, 420], { rate: 0.052, samples: 256, spread: 1.5 });
  s.add('oscillator', 'Up', [0, 560], { rate: 0.037, samples: 256, spread: 2.5, phase: 0.25 });
  const bar = s.add('sheet', 'Reed', [0, 40], { size: [0.0045, 1.1] });
  const body = s.add('body', 'Light', [190, 40], {
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: [1, 1, 1, 0.42],
  });
  s.wire(bar, body, 'shape');
  const reeds = s.add('instances', 'Reeds', [400, 40], {
    paletteWay: 'mirror',
    palette: [
      { at: 0, colour: [0.62, 0.16, 0.3, 1] },
      { at: 0.3, colour: palette.ember },
      { at: 0.6, colour: palette.honey },
      { at: 0.82, colour: palette.wax },
      { at: 1, colour: palette.glass },
    ],
  });
  s.wire(body, reeds, 'body');
  s.formula(reeds, 'place.x', '(u - 0.5) * 1.1 + across * 0.2');
  s.formula(reeds, 'place.y', 'up * 0.16 - 0.04');
  s.formula(reeds, 'place.z', 'across * 0.2');
  // The angle of its own place on the circle of the two waves.
  s.formula(reeds, 'turn.z', 'atan2(up, across) * 180 / pi');
  s.formula(reeds, 'stretch.y', '0.5 + 0.5 * abs(sin(u * pi * 3 + time * 0.2))');
  s.formula(reeds, 'size', '1');
  const camera = s.add('camera', 'Camera', [400, 250], { orbit: 0, height: 0, distance: 1.9, view: 34 });
  s.swing(camera, 'orbit', { amount: 16, rate: 0.03 });
  s.swing(camera, 'height', { amount: 7, rate: 0.023, phase: 0.2 });
  const shot = s.add('shot', 'Shot', [590, 40], { background: palette.night, exposure: 0.62 });
  for (const prop of [reeds, camera]) s.wire(prop, shot, 'props');
  const wind = s.add('noise', 'Wind', [590, 250], {
    channels: 'three',
    period: 0.7,
    octaves: 2,
    rate: 0.1,
    amplitude: 0.7,
  });
  const bent = s.add('displace', 'Bent', [780, 40], { push: 0.1 });
  s.wire(shot, bent, 'picture');
  s.wire(wind, bent, 'map');
  const net = s.add('lattice', 'Pane Bars', [780, 250], {
    cells: [20, 20],
    lineWidth: 0.1,
    softness: 0.05,
    ink: [0.3, 0.26, 0.3, 1],
    ground: [1, 1, 1, 1],
  });
  const laid = s.add('blend', 'Behind Panes', [970, 40], { mode: 'multiply', amount: 0.6 });
  s.wire(bent, laid, 'picture');
  s.wire(net, laid, 'over');
  const shift = s.add('channel-shift', 'Shifted', [1150, 40], { distance: 3.5, form: 'lens' });
  s.wire(laid, shift, 'picture');
  const shine = s.add('glow', 'Shine', [1150, 220], { strength: 0.5, threshold: 0.4, reach: 0.1 });
  s.wire(shift, shine, 'picture');
  const lines = s.add('scanlines', 'Scan Lines', [1330, 60], {
    period: 5,
    strength: 0.22,
    statics: 0.04,
    flicker: 0.01,
  });
  s.wire(shine, lines, 'picture');
  s.wire(lines, s.out, 'picture');
  return s;
}
