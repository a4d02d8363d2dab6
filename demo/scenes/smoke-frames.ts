import { Sketch } from '../sketch';

/** Feedback: a small picture that is moved, turned and pushed a little each frame, and laid over itself. */
export function smokeFrames(): Sketch {
  const s = new Sketch('s2', 'Smoke Frames', [1550, 110]);
  const pixels: [number, number] = [480, 270];
  const rings = s.add(
    'gradient',
    'Rings',
    [-400, -60],
    {
      form: 'radial',
      ends: 'repeat',
      length: 0.07,
      colours: [
        { at: 0, colour: [1, 1, 1, 0] },
        { at: 0.32, colour: [1, 1, 1, 0] },
        { at: 0.5, colour: [1, 1, 1, 1] },
        { at: 0.68, colour: [1, 1, 1, 0] },
        { at: 1, colour: [1, 1, 1, 0] },
      ],
    },
    { size: pixels },
  );
  const spot = s.add(
    'flat-shape',
    'Spot',
    [-400, 100],
    { form: 'disc', size: [0.34, 0.34], softness: 0.22, fill: [1, 1, 1, 1] },
    { size: pixels },
  );
  const cut = s.add('masked-mix', 'Cut Out', [-200, 0], { channel: 'alpha' });
  const dye = s.add('levels', 'Dye', [0, 0]);
  s.wire(rings, cut, 'light');
  s.wire(spot, cut, 'mask');
  s.wire(cut, dye, 'picture');
  const wander = s.add('drift', 'Wander', [-400, 260], { lanes: 2, speed: 0.6, seed: 5 });
  const tides = s.add('oscillator', 'Tides', [0, 200], { rate: 0.23 });
  s.wire(wander, spot, 'place', [-0.5, 0.5]);
  s.wire(wander, rings, 'place', [-0.4, 0.4]);
  s.wire(tides, dye, 'gain.x', [0.1, 1]);
  s.wire(tides, dye, 'gain.y', [0.62, 0.55]);
  s.wire(tides, dye, 'gain.z', [0.66, 0.12]);
  const breath = s.add('oscillator', 'Breath', [-200, 260], { rate: 0.17, shape: 'triangle' });
  s.wire(breath, rings, 'length', [0.05, 0.11]);

  const noise = s.add(
    'noise',
    'Air',
    [400, 330],
    { channels: 'three', period: 0.3, octaves: 4, roughness: 0.62, rate: 0.3 },
    { size: [240, 135] },
  );
  const carry = s.add(
    'transform',
    'Carry',
    [620, 180],
    { scale: 1.009, turn: 0.7, move: [0, 0.0016], reading: 'crisp', outside: 'nothing' },
    { size: pixels },
  );
  const push = s.add('displace', 'Push', [810, 180], { push: 0.014, outside: 'hold' });
  const lay = s.add('blend', 'Lay Over', [430, 20], { mode: 'over', amount: 0.8 }, { size: pixels });
  const frame = s.add(
    'flat-shape',
    'Frame',
    [810, 350],
    { form: 'box', size: [1.66, 0.9], softness: 0.16, fill: [1, 1, 1, 1] },
    { size: pixels },
  );
  const keep = s.add('masked-mix', 'Inside the Frame', [1000, 130]);
  s.wire(dye, lay, 'over');
  s.wire(carry, push, 'picture');
  s.wire(noise, push, 'map');
  s.wire(push, keep, 'light');
  s.wire(frame, keep, 'mask');
  s.wire(keep, lay, 'picture');
  const loop = s.wire(lay, carry, 'picture');
  s.back(loop, { keep: 0.991, limit: 2 });
  s.swing(carry, 'turn', { amount: 0.5, rate: 0.05 });

  const slope = s.add('steepness', 'Light From the Side', [800, -100], { strength: 2.2, reach: 1.5 });
  const silver = s.add('levels', 'Sheen', [990, -100], {
    input: [0.5, 1.1],
    output: [0, 1],
    gain: [1, 0.82, 0.55],
    curve: 'v^2',
  });
  const ground = s.add('gradient', 'Ground', [810, -260], {
    form: 'radial',
    length: 2.2,
    colours: [
      { at: 0, colour: [0.085, 0.05, 0.1, 1] },
      { at: 1, colour: [0.014, 0.014, 0.028, 1] },
    ],
  });
  const over = s.add('blend', 'On Ground', [1180, -30], { mode: 'over' });
  const shine = s.add('blend', 'Shine', [1365, 110], { mode: 'screen', amount: 0.5 });
  s.wire(lay, slope, 'picture');
  s.wire(slope, silver, 'picture');
  s.wire(ground, over, 'picture');
  s.wire(lay, over, 'over');
  s.wire(over, shine, 'picture');
  s.wire(silver, shine, 'over');
  s.wire(shine, s.out, 'picture');
  return s;
}
