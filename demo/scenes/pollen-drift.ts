import { palette } from '../palette';
import { Sketch } from '../sketch';

/** Pixels as copies: swarms carried by a 64 x 4 noise, and a field of grains that remember where they belong. */
export function pollenDrift(): Sketch {
  const s = new Sketch('s1', 'Pollen Drift', [1570, 120]);
  const places = s.add(
    'noise',
    'Places',
    [0, 0],
    { channels: 'three', period: 0.42, octaves: 2, amplitude: 1.15, rate: 0.07, seed: 4 },
    { size: [64, 4] },
  );
  const grains = s.add('scatter', 'Grains', [210, 300], {
    form: 'normal',
    range: [-1, 1],
    samples: 4096,
    lanes: 3,
    seed: 7,
  });
  const sizes = s.add('scatter', 'Grain Sizes', [400, 300], {
    form: 'even',
    range: [0, 1],
    samples: 4096,
    seed: 11,
  });
  const swarm = s.add('instances', 'Swarms', [240, 40], {
    count: 4096,
    reads: 'rows',
    reach: [1.05, 0.52, 0.6],
    turnReach: [0, 0, 0],
    sizeRange: [0.35, 1.5],
    tint: [1.6, 0.98, 0.4, 0.85],
    facing: 'camera',
    spread: 'repeat',
  });
  s.wire(places, swarm, 'pixels');
  s.wire(grains, swarm, 'place', [-0.24, 0.24]);
  s.wire(sizes, swarm, 'size', [0.008, 0.045], {
    fit: { from: [0, 1], to: [0.008, 0.045], bend: 3, edges: 'hold' },
  });

  const home = s.add(
    'noise',
    'Home',
    [0, 420],
    { form: 'random', channels: 'three', amplitude: 0.5, rate: 0, seed: 23 },
    { size: [64, 64] },
  );
  const wind = s.add(
    'noise',
    'Wind',
    [0, 560],
    { period: 0.5, octaves: 2, rate: 0.12, seed: 9 },
    { size: [64, 64] },
  );
  const slope = s.add('steepness', 'Push', [210, 560], { strength: 1, zero: 'zero', reach: 2 });
  const mask = s.add(
    'flat-shape',
    'Way Home',
    [210, 690],
    { form: 'disc', size: [0.9, 0.9], softness: 0.45, fill: [1, 1, 1, 1] },
    { size: [64, 64] },
  );
  const remember = s.add('masked-mix', 'Remember', [420, 440], { invert: true });
  const step = s.add('blend', 'Step', [620, 520], { mode: 'add', amount: 0.09 });
  const key = s.add('keys', 'H Brings Home', [620, 700], { key: 'KeyH' });
  s.wire(wind, slope, 'picture');
  s.wire(home, remember, 'picture');
  s.wire(mask, remember, 'mask');
  s.wire(remember, step, 'picture');
  s.wire(slope, step, 'over');
  const loop = s.wire(step, remember, 'light');
  s.back(loop, { keep: 1, startsFrom: home, clearWhen: key, guard: 'off' });
  s.swing(mask, 'place.x', { amount: 1, rate: 0.043 });
  s.swing(mask, 'place.y', { amount: 0.35, rate: 0.061, phase: 0.2 });
  const dust = s.add('instances', 'Dust', [820, 440], {
    mostPixels: 4096,
    size: 0.009,
    reach: [1.7, 0.85, 0.7],
    tint: [0.34, 0.95, 0.88, 0.8],
    facing: 'camera',
  });
  s.wire(remember, dust, 'pixels');

  const camera = s.add('camera', 'Camera', [620, 230], { orbit: 18, height: 10, distance: 1.75, view: 42 });
  s.swing(camera, 'orbit', { amount: 26, rate: 0.021 });
  const shot = s.add('shot', 'Shot', [1010, 120], { background: palette.clear, edges: 'plain' });
  s.wire(swarm, shot, 'props');
  s.wire(dust, shot, 'props');
  s.wire(camera, shot, 'props');
  const sky = s.add('gradient', 'Night', [820, -60], {
    form: 'radial',
    length: 2.1,
    place: [-0.25, -0.1],
    colours: [
      { at: 0, colour: [0.16, 0.075, 0.13, 1] },
      { at: 0.45, colour: [0.06, 0.035, 0.085, 1] },
      { at: 1, colour: [0.012, 0.014, 0.03, 1] },
    ],
  });
  const haze = s.add('blur', 'Haze', [1190, 240], { radius: 0.03 });
  const scene = s.add('blend', 'On Night', [1190, 60], { mode: 'over' });
  const glow = s.add('blend', 'Shine', [1380, 120], { mode: 'add', amount: 1 });
  s.wire(sky, scene, 'picture');
  s.wire(shot, scene, 'over');
  s.wire(shot, haze, 'picture');
  s.wire(scene, glow, 'picture');
  s.wire(haze, glow, 'over');
  s.wire(glow, s.out, 'picture');
  return s;
}
