import { palette } from '../palette';
import { Sketch } from '../sketch';

/** Solids by hand: a glass one whose size and turns lie under the hand, and a hive of straw beside it. */
export function turningGlass(): Sketch {
  const s = new Sketch('s17', 'Turning Glass', [1600, 60]);
  const size = s.add('midi', 'Size Fader', [0, 420], { number: 21, start: 0.6 });
  for (const [k, axis] of ['X', 'Y', 'Z'].entries())
    s.add('midi', `Dial ${axis}`, [0, 540 + k * 120], { number: 31 + k });
  // Wanders about until the key brings it back to the middle.
  const home = s.add('keys', 'Home Key', [190, 420], { key: 'KeyH' });
  s.add('random-walk', 'Wandering', [190, 540], {
    range: [-1, 1],
    step: 0.3,
    rate: 1.2,
    seed: 4,
  });
  const held = s.add('smooth', 'Brought Home', [380, 420], { rise: 0.15, fall: 1.6 });
  s.wire(home, held, 'in');
  const beats = s.add('counter', 'Hue Counts', [380, 560], { from: 0, to: 11, ticks: 4, unit: 'beats' });
  const hue = s.add('smooth', 'Hue', [570, 560], { rise: 1.2, fall: 0.6 });
  s.wire(beats, hue, 'in');

  const solid = s.add('polyhedron', 'Solid', [190, -40], { solid: 'dodecahedron', size: 0.74 });
  const place = s.add('place', 'By Hand', [380, -40], {});
  s.wire(solid, place, 'shape');
  s.wire(size, place, 'scale', [0.55, 1.25]);
  s.formula(place, 'turn.x', 'dial_x * 360 + time * 11');
  s.formula(place, 'turn.y', 'dial_y * 360 + time * 17');
  s.formula(place, 'turn.z', 'dial_z * 360');
  s.formula(place, 'move.x', '-0.3 + wandering * 0.16 * (1 - brought_home)');
  s.formula(place, 'move.y', '0.1 + wandering * 0.05 * (1 - brought_home)');
  const glass = s.add('body', 'Glass', [570, -40], {
    colour: [0.3, 0.8, 0.8, 0.3],
    diffuse: 0.8,
    shine: 2.4,
    gloss: 0.5,
    solid: false,
  });
  const edges = s.add('body', 'Edges', [570, 120], {
    draw: 'lines',
    lines: 'edges',
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: [0.75, 1, 0.95, 0.85],
    width: 2.4,
  });
  const inside = s.add('place', 'Inside', [380, 120], { scale: 0.45, centre: 'middle' });
  s.wire(place, inside, 'shape');
  const core = s.add('body', 'Ember Inside', [570, 280], {
    colour: palette.honey,
    ownLight: 0.9,
    shine: 0.6,
  });
  for (const body of [glass, edges]) s.wire(place, body, 'shape');
  s.wire(inside, core, 'shape');

  const hive = s.add('model', 'Skep', [190, 140], { size: 0.62 });
  const beside = s.add('place', 'Beside It', [190, 280], { move: [0.46, -0.09, -0.1] });
  s.wire(hive, beside, 'shape');
  s.formula(beside, 'turn.y', 'time * -14');
  const straw = s.add('body', 'Straw', [780, 280], { colour: [1, 1, 1, 1], shine: 0.08 });
  s.wire(beside, straw, 'shape');
  const sheet = s.add('sheet', 'Bench', [780, 420], { size: [8, 6] });
  const flat = s.add('place', 'Laid Flat', [780, 560], { move: [0, -0.4, 0], turn: [-90, 0, 0] });
  const bench = s.add('body', 'Wood', [960, 420], {
    colour: [0.3, 0.19, 0.17, 1],
    shine: 0.16,
    gloss: 0.35,
    fog: 1,
    fogNear: 1.6,
    fogFar: 4,
    fogColour: palette.night,
  });
  s.wire(sheet, flat, 'shape');
  s.wire(flat, bench, 'shape');

  const lamp = s.add('light', 'Lights', [960, 560], {
    form: 'spot',
    place: [-1.3, 1.9, 1.4],
    aim: [0.1, -0.2, 0],
    angle: 52,
    reach: 2.6,
    colour: [1, 0.84, 0.62, 1],
    strength: 4,
    soft: 0.35,
    shadow: 0.85,
  });
  const rim = s.add('light', 'Rim', [960, 690], {
    form: 'point',
    place: [1.4, 0.7, -1],
    colour: [0.3, 0.7, 1, 1],
    strength: 1.6,
    reach: 1,
  });
  const dim = s.add('light', 'Night', [780, 690], {
    form: 'ambient',
    colour: [0.5, 0.4, 0.65, 1],
    strength: 0.28,
  });
  const camera = s.add('camera', 'Camera', [1150, 280], { orbit: 8, height: 13, distance: 1.95, view: 34 });
  const shot = s.add('shot', 'Shot', [1150, 60], { background: palette.night });
  for (const prop of [bench, straw, core, glass, edges, lamp, rim, dim, camera]) s.wire(prop, shot, 'props');
  const colours = s.add('hue-saturation', 'Hue Round', [1300, 60]);
  s.wire(shot, colours, 'picture');
  s.formula(colours, 'hue', 'hue * 3 - 10');
  const shine = s.add('glow', 'Shine', [1450, 60], { strength: 0.6, threshold: 0.5, reach: 0.09 });
  s.wire(colours, shine, 'picture');
  s.wire(shine, s.out, 'picture');
  return s;
}
