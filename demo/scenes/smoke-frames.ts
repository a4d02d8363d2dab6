import { Sketch } from '../sketch';

/** Feedback: a small picture that is moved, turned and pushed a little each frame, and laid over itself. */
export function smokeFrames(): Sketch {
  const s = new Sketch('s2', 'Smoke Frames', [1430, 110]);
  const pixels: [number, number] = [480, 270];
  const ember = s.add(
    'flat-shape',
    'Ember',
    [0, 0],
    { form: 'ring', size: [0.3, 0.3], inner: 0.72, softness: 0.03, fill: [1, 0.62, 0.2, 0.9] },
    { size: pixels },
  );
  const wander = s.add('drift', 'Wander', [0, 200], { lanes: 2, speed: 0.35, seed: 5 });
  const hue = s.add('oscillator', 'Tides', [180, 200], { rate: 0.06 });
  s.wire(wander, ember, 'place', [-0.42, 0.42]);
  s.wire(hue, ember, 'fill.r', [0.12, 1]);
  s.wire(hue, ember, 'fill.b', [0.66, 0.14]);
  const breath = s.add('oscillator', 'Breath', [360, 200], { rate: 0.21, shape: 'triangle' });
  s.wire(breath, ember, 'size', [0.16, 0.46]);

  const noise = s.add('noise', 'Air', [400, 330], { channels: 'three', period: 0.4, octaves: 3, rate: 0.22 }, { size: [240, 135] });
  const carry = s.add('transform', 'Carry', [620, 180], { scale: 1.006, turn: 0.35, move: [0, 0.0016], reading: 'crisp', outside: 'nothing' }, { size: pixels });
  const push = s.add('displace', 'Push', [810, 180], { push: 0.0085, outside: 'hold' });
  const lay = s.add('blend', 'Lay Over', [430, 20], { mode: 'over' }, { size: pixels });
  const frame = s.add('flat-shape', 'Frame', [810, 350], { form: 'box', size: [1.66, 0.9], softness: 0.16, fill: [1, 1, 1, 1] }, { size: pixels });
  const keep = s.add('masked-mix', 'Inside the Frame', [1000, 110]);
  s.wire(ember, lay, 'over');
  s.wire(carry, push, 'picture');
  s.wire(noise, push, 'map');
  s.wire(push, keep, 'light');
  s.wire(frame, keep, 'mask');
  s.wire(keep, lay, 'picture');
  const loop = s.wire(lay, carry, 'picture');
  s.back(loop, { keep: 0.993, limit: 2 });
  s.swing(carry, 'turn', { amount: 0.5, rate: 0.05 });

  const slope = s.add('steepness', 'Light From the Side', [800, -100], { strength: 2.2, reach: 1.5 });
  const silver = s.add('levels', 'Sheen', [990, -100], { input: [0.5, 1.1], output: [0, 1], gain: [1, 0.82, 0.55], curve: 'v^2' });
  const ground = s.add('gradient', 'Ground', [810, -260], {
    form: 'radial',
    length: 2.2,
    colours: [
      { at: 0, colour: [0.085, 0.05, 0.1, 1] },
      { at: 1, colour: [0.014, 0.014, 0.028, 1] },
    ],
  });
  const over = s.add('blend', 'On Ground', [1120, 20], { mode: 'over' });
  const shine = s.add('blend', 'Shine', [1280, 110], { mode: 'screen', amount: 0.5 });
  s.wire(lay, slope, 'picture');
  s.wire(slope, silver, 'picture');
  s.wire(ground, over, 'picture');
  s.wire(lay, over, 'over');
  s.wire(over, shine, 'picture');
  s.wire(silver, shine, 'over');
  s.wire(shine, s.out, 'picture');
  return s;
}
