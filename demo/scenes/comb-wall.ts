import { palette } from '../palette';
import { Sketch } from '../sketch';

/** Sound over pieces: 91 cells of a comb, bass in the middle, each growing from its foot. */
export function combWall(): Sketch {
  const s = new Sketch('s11', 'Comb Wall', [1560, 60]);
  // Eleven by eleven cells, of which those within five steps of the middle are a comb of 91.
  const grid = s.add('formula', 'All Cells', [0, 460], {
    samples: 121,
    formula:
      'q = i % 11 - 5\nr = floor(i / 11) - 5\nx = (i % 11 - 5 + (floor(i / 11) - 5) / 2) * 0.094\ny = (floor(i / 11) - 5) * 0.0814\nd = max(abs(i % 11 - 5), max(abs(floor(i / 11) - 5), abs(i % 11 + floor(i / 11) - 10)))',
  });
  const comb = s.add('pick-lanes', 'Comb', [190, 460], {
    lanes: 'x y',
    keep: 'below',
    by: 'd',
    limits: [0, 5.5],
  });
  const spiral = s.add('rearrange', 'Spiral', [380, 460], { order: 'spiral', place: [0, 0] });
  s.wire(grid, comb, 'in');
  s.wire(comb, spiral, 'in');
  const bands = s.add('audio-bands', 'Bands', [570, 460], {
    low: 45,
    high: 9000,
    tilt: 6,
    floor: -66,
    rise: 0.04,
    fall: 0.5,
  });
  s.wire(spiral, bands, 'like');
  // A soft ball under the hand lifts the cells inside it.
  const hand = s.add('pointer', 'Hand', [380, 620], { lag: 0.25 });
  const apart = s.add('between', 'From the Hand', [570, 620], { gives: 'distance' });
  s.wire(hand, apart, 'a');
  s.wire(spiral, apart, 'b');
  const ball = s.add('remap', 'Soft Ball', [760, 620], {
    from: [0.02, 0.22],
    to: [1, 0],
    edges: 'hold',
    bend: 1,
  });
  s.wire(apart, ball, 'in');
  s.add('oscillator', 'Own Breath', [760, 740], {
    samples: 91,
    rate: 0.2,
    spread: 3,
    order: 'first',
  });

  const cell = s.add('tube', 'Cell', [380, 60], {
    size: 0.1,
    height: 1,
    segments: 6,
    sharp: true,
    axis: 'z',
    anchor: 'foot',
    top: 0.86,
  });
  const wax = s.add('body', 'Wax', [570, 60], { shading: 'lit', colour: [1, 1, 1, 1] });
  s.wire(cell, wax, 'shape');
  // One picture lies across all of the cells and travels with them.
  const swarm = s.add('noise', 'Swarm', [0, 60], {
    octaves: 3,
    period: 0.32,
    rate: 0.12,
    contrast: 1.6,
    amplitude: 0.9,
  });
  const honey = s.add('gradient-map', 'Honey', [190, 60], {
    colours: [
      { at: 0, colour: [0.28, 0.2, 0.3, 1] },
      { at: 0.4, colour: [1, 0.62, 0.3, 1] },
      { at: 0.7, colour: [1.0, 0.95, 0.8, 1] },
      { at: 1, colour: [0.5, 1, 0.95, 1] },
    ],
  });
  s.wire(swarm, honey, 'picture');
  s.wire(honey, wax, 'picture');
  const cells = s.add('instances', 'Cells', [780, 60], { size: 1, part: 'place', frame: [1.15, 1] });
  s.wire(wax, cells, 'body');
  for (const axis of ['x', 'y']) {
    const wire = s.wire(spiral, cells, `place.${axis}`, undefined, { lane: axis });
    delete s.scene.wires[wire].fit;
  }
  s.formula(cells, 'stretch.z', '0.06 + bands * bands * 0.5 + soft_ball * 0.16 + own_breath * 0.014');
  s.formula(cells, 'tint.r', '0.5 - u * 0.3 + bands * (0.8 - u * 0.35) + soft_ball * 0.35');
  s.formula(cells, 'tint.g', '0.24 + u * 0.26 + bands * (0.3 + u * 0.55) + soft_ball * 0.3');
  s.formula(cells, 'tint.b', '0.12 + u * 0.34 + bands * u * 0.8 + soft_ball * 0.25');
  const sun = s.add('light', 'Lamp', [780, 240], {
    colour: [1, 0.8, 0.55, 1],
    strength: 1.8,
    place: [-0.7, 0.9, 1.1],
    shadow: 0.7,
    soft: 0.3,
    shadowWidth: 1.6,
  });
  const moon = s.add('light', 'Glass', [780, 350], {
    form: 'ambient',
    colour: [0.35, 0.5, 0.75, 1],
    strength: 0.5,
  });
  const camera = s.add('camera', 'Camera', [970, 240], { orbit: 0, height: 8, distance: 1.36, view: 40 });
  s.swing(camera, 'orbit', { amount: 24, rate: 1, unit: 'loop' });
  s.swing(camera, 'height', { amount: 10, rate: 1, unit: 'loop', phase: 0.25 });
  s.scene.loop = { length: 48, unit: 'beats', lock: false };
  const shot = s.add('shot', 'Wall', [970, 60], { background: palette.night });
  for (const prop of [cells, sun, moon, camera]) s.wire(prop, shot, 'props');
  const shine = s.add('glow', 'Shine', [1160, 60], { strength: 0.9, threshold: 0.5, reach: 0.07 });
  s.wire(shot, shine, 'picture');
  const tone = s.add('tone', 'Tone', [1350, 60], {});
  s.wire(shine, tone, 'picture');
  s.wire(tone, s.out, 'picture');
  return s;
}
