import { palette } from '../palette';
import { Sketch } from '../sketch';

/** Copies apart in time: a ring grows over 150 frames, and six of them stand 25 frames apart. */
export function queenPulse(): Sketch {
  const s = new Sketch('s8', 'Queen Pulse', [1620, 60]);
  s.scene.loop = { length: 150, unit: 'frames', lock: false };
  const life = s.add('keyframes', 'One Life', [200, 560], {
    unit: 'frames',
    length: 150,
    lanes: [
      {
        name: 'size',
        keys: [
          { at: 0, value: 0, form: 'free', slopes: [0, 0.0105] },
          { at: 150, value: 1, form: 'free', slopes: [0.0045, 0] },
        ],
      },
      {
        name: 'glow',
        keys: [
          { at: 0, value: 0, form: 'straight' },
          { at: 12, value: 1, form: 'straight' },
          { at: 125, value: 0.75, form: 'smooth' },
          { at: 150, value: 0, form: 'smooth' },
        ],
      },
      {
        name: 'turn',
        keys: [
          { at: 0, value: 0, form: 'straight' },
          { at: 150, value: 60, form: 'straight' },
        ],
      },
    ],
  });
  const six = s.add('time-spread', 'Six Lives', [400, 420], { samples: 6, cycle: 150, unit: 'frames' });
  s.wire(life, six, 'in');

  const ring = s.add('ring', 'Comb Ring', [200, 0], { size: 1.9, points: 6, start: 30 });
  const stroke = s.add('body', 'Comb Line', [390, 0], {
    draw: 'lines',
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: palette.honey,
    width: 5,
    leastWidth: 1,
  });
  s.wire(ring, stroke, 'shape');
  const beads = s.add('ring', 'Beads', [200, 170], { size: 1.9, points: 72 });
  const dots = s.add('body', 'Pollen', [390, 170], {
    draw: 'points',
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: [1, 0.84, 0.52, 0.85],
    pointSize: 0.011,
  });
  s.wire(beads, dots, 'shape');
  const combs = s.add('instances', 'Combs', [600, 0]);
  const swarm = s.add('instances', 'Swarm', [600, 170]);
  s.wire(stroke, combs, 'body');
  s.wire(dots, swarm, 'body');
  for (const copies of [combs, swarm]) {
    s.wire(six, copies, 'size', [0, copies === combs ? 0.92 : 1.05], { lane: 'size' });
    s.wire(six, copies, 'tint.a', [0, 1], { lane: 'glow' });
  }
  for (const id of Object.keys(s.scene.wires)) {
    const wire = s.scene.wires[id];
    if (wire.from.node === six && wire.fit) wire.fit.from = [0, 1];
  }
  const turned = s.wire(six, combs, 'turn.z', undefined, { lane: 'turn' });
  delete s.scene.wires[turned].fit;
  s.wire(six, swarm, 'turn.z', [0, -25], { lane: 'turn' });
  const back = Object.values(s.scene.wires).find((w) => w.to.node === swarm && w.to.port === 'turn.z')!;
  back.fit!.from = [0, 60];

  const camera = s.add('camera', 'Above', [600, 330], {
    projection: 'straight',
    viewHeight: 1.05,
    orbit: 0,
    height: 0,
  });
  const shot = s.add('shot', 'Waves', [800, 60], { background: palette.clear });
  for (const prop of [combs, swarm, camera]) s.wire(prop, shot, 'props');
  // One way only: a soft wedge that looks round once in four lives.
  const wedge = s.add('flat-shape', 'One Way', [800, 260], {
    form: 'wedge',
    opening: 205,
    size: [3, 3],
    softness: 0.28,
    fill: [1, 1, 1, 1],
  });
  s.formula(wedge, 'turn', 'frame / 600 * 360 + 90');
  const masked = s.add('masked-mix', 'Masked', [1000, 60], {});
  const dim = s.add('levels', 'Rest', [1000, 230], { output: [0, 0.16] });
  s.wire(shot, dim, 'picture');
  s.wire(dim, masked, 'picture');
  s.wire(shot, masked, 'light');
  s.wire(wedge, masked, 'mask');

  const queen = s.add('beam', 'Queen', [1000, 400], {
    form: 'polygon',
    corners: 6,
    size: 0.1,
    core: 0.006,
    halo: 1.1,
    reach: 0.16,
  });
  s.swing(queen, 'halo', { amount: 0.5, rate: 1, unit: 'loop', shape: 'sine' });
  const ground = s.add('gradient', 'Dark', [1000, -120], {
    form: 'radial',
    colours: [
      { at: 0, colour: palette.plum },
      { at: 1, colour: palette.night },
    ],
  });
  const laid = s.add('blend', 'Over Dark', [1210, 0], { mode: 'add' });
  const crowned = s.add('blend', 'Crowned', [1210, 200], { mode: 'add' });
  const shine = s.add('glow', 'Shine', [1420, 60], { strength: 0.9, threshold: 0.25, reach: 0.05 });
  s.wire(ground, laid, 'picture');
  s.wire(masked, laid, 'over');
  s.wire(laid, crowned, 'picture');
  s.wire(queen, crowned, 'over');
  s.wire(crowned, shine, 'picture');
  s.wire(shine, s.out, 'picture');
  return s;
}
