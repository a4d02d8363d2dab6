import { palette } from '../palette';
import { Sketch } from '../sketch';

/** Distance fields: a rounded cell of comb, and three drops that leave it and come back, melting as they touch. */
export function nectarMerge(): Sketch {
  const s = new Sketch('s13', 'Nectar Merge', [1500, 60]);
  s.scene.loop = { length: 16, unit: 'beats', lock: true };
  const clock = s.add('beat-clock', 'Eight Beats', [0, 680], { periods: [8] });
  // Three phases of one clock, a third apart, through a sine.
  const phases = s.add('oscillator', 'Three Drops', [190, 680], {
    rate: 0,
    samples: 3,
    spread: 1,
    amplitude: 1,
  });
  s.wire(clock, phases, 'phase');
  const travel = s.add('remap', 'Travel', [380, 680], { from: [-1, 1], to: [0.16, 0.56], bend: 1 });
  s.wire(phases, travel, 'in');

  const drop = s.add('field-ball', 'Drop', [190, 20], {
    radius: 0.115,
    colour: [1, 0.5, 0.1, 1],
    shine: 0.7,
  });
  const drops = s.add('field-copies', 'Drops', [380, 20], { soft: 0.12 });
  s.wire(drop, drops, 'field');
  s.formula(drops, 'place.x', 'travel * cos(i * tau / 3 + 0.5)');
  s.formula(drops, 'place.y', 'travel * sin(i * tau / 3 + 0.5)');
  s.formula(drops, 'place.z', '0.05 * sin(i * 2.1 + beat * tau / 16)');
  s.formula(drops, 'size', '1.1 - travel * 0.55');

  const prism = s.add('field-prism', 'Cell', [0, 180], {
    radius: 0.25,
    height: 0.17,
    colour: palette.honey,
    shine: 0.45,
  });
  const hollow = s.add('field-prism', 'Well', [0, 340], {
    radius: 0.185,
    height: 0.3,
    colour: [0.9, 0.42, 0.1, 1],
  });
  const cup = s.add('field-blend', 'Cup', [190, 200], { how: 'cut', soft: 0.04 });
  s.wire(prism, cup, 'fields');
  const front = s.add('field-place', 'To the Front', [0, 500], { move: [0, 0, 0.11] });
  s.wire(hollow, front, 'field');
  s.wire(front, cup, 'fields');
  const round = s.add('field-round', 'Rounded', [380, 200], { radius: 0.025 });
  s.wire(cup, round, 'field');

  const all = s.add('field-blend', 'Melting', [570, 80], { soft: 0.15 });
  s.wire(round, all, 'fields');
  s.wire(drops, all, 'fields');
  const turn = s.add('field-place', 'Turning', [760, 80]);
  s.wire(all, turn, 'field');
  s.formula(turn, 'turn.z', 'beat / 16 * 360');
  s.swing(turn, 'turn.x', { amount: 14, rate: 1, unit: 'loop' });
  s.swing(turn, 'turn.y', { amount: 20, rate: 1, unit: 'loop', phase: 0.25 });
  const wall = s.add('field-plane', 'Wall', [760, 260], {
    normal: [0, 0, 1],
    offset: -0.34,
    colour: [0.3, 0.15, 0.22, 1],
    shine: 0.2,
  });
  const ripple = s.add('field-ripple', 'Wax Wall', [950, 260], { strength: 0.03, period: 0.22, speed: 0 });
  s.wire(wall, ripple, 'field');

  const sun = s.add('light', 'Lamp', [760, 430], {
    place: [-0.9, 1.1, 1.3],
    colour: [1, 0.86, 0.66, 1],
    strength: 1.5,
    shadow: 0.85,
    soft: 0.35,
  });
  const glass = s.add('light', 'Glass', [950, 430], {
    form: 'point',
    place: [0.9, -0.4, 0.7],
    colour: [0.25, 0.8, 0.8, 1],
    strength: 0.9,
    reach: 0.9,
  });
  const dim = s.add('light', 'Night', [950, 560], {
    form: 'ambient',
    colour: [0.5, 0.42, 0.7, 1],
    strength: 0.22,
  });
  const camera = s.add('camera', 'Camera', [760, 560], { orbit: 10, height: 8, distance: 1.5, view: 36 });
  const shot = s.add('field-shot', 'Shot', [1140, 80], {
    quality: 0.7,
    contact: 0.6,
    background: palette.night,
    far: 4,
  });
  for (const field of [turn, ripple]) s.wire(field, shot, 'fields');
  for (const prop of [camera, sun, glass, dim]) s.wire(prop, shot, 'props');
  const shine = s.add('glow', 'Shine', [1320, 80], { strength: 0.5, threshold: 0.62, reach: 0.1 });
  s.wire(shot, shine, 'picture');
  s.wire(shine, s.out, 'picture');
  return s;
}
