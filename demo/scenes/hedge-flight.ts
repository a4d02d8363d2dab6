import { palette } from '../palette';
import { Sketch } from '../sketch';

/** How long one stretch of ground is, which is also how far the flight goes in a loop: its end is its beginning. */
const stretch = 2.4;

/** A landscape of lines, flown over by keyframes, with a ceiling that mirrors it and a horizon that fades. */
export function hedgeFlight(): Sketch {
  const s = new Sketch('s14', 'Hedge Flight', [1660, 60]);
  s.scene.loop = { length: 16, unit: 'beats', lock: true };
  s.add('values', 'Fine', [0, 420], { list: [0] });
  // Five octaves that stand still and go over into themselves at the border.
  const ground = s.add(
    'noise',
    'Ground',
    [0, 40],
    { octaves: 5, period: 0.5, rate: 0, tile: true, roughness: 0.52, amplitude: 0.62, seed: 5 },
    { size: [512, 512] },
  );
  // A lane is left free in the middle, for the flight.
  const lane = s.add(
    'gradient',
    'Lane',
    [0, 210],
    {
      form: 'line',
      length: 1,
      colours: [
        { at: 0, colour: [1, 1, 1, 1] },
        { at: 0.3, colour: [0.8, 0.8, 0.8, 1] },
        { at: 0.4, colour: [0.42, 0.42, 0.42, 1] },
        { at: 0.46, colour: [0.16, 0.16, 0.16, 1] },
        { at: 0.5, colour: [0.1, 0.1, 0.1, 1] },
        { at: 0.54, colour: [0.16, 0.16, 0.16, 1] },
        { at: 0.6, colour: [0.42, 0.42, 0.42, 1] },
        { at: 0.7, colour: [0.8, 0.8, 0.8, 1] },
        { at: 1, colour: [1, 1, 1, 1] },
      ],
    },
    { size: [512, 512] },
  );
  const sheet = s.add('sheet', 'Hedges', [190, 420], { size: [3.6, stretch] });
  // Draft and full quality are one switch: Fine is 0 or 1.
  s.formula(sheet, 'columns', 'fine > 0.5 ? 1024 : 200');
  s.formula(sheet, 'rows', 'fine > 0.5 ? 512 : 64');
  const flat = s.add('place', 'Laid Flat', [380, 420], { turn: [-90, 0, 0] });
  s.wire(sheet, flat, 'shape');
  const lines = s.add('body', 'Lines', [570, 60], {
    draw: 'lines',
    lines: 'rows',
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: [1, 0.72, 0.34, 0.85],
    width: 1.6,
    leastWidth: 0.7,
    liftAlong: 'y',
    liftDepth: 0.75,
    liftMiddle: 0.12,
    fog: 1,
    fogNear: 0.7,
    fogFar: 3.6,
    fogColour: [0.2, 0.3, 0.5, 0],
  });
  s.wire(flat, lines, 'shape');
  s.wire(ground, lines, 'lift');
  s.wire(lane, lines, 'liftBy');
  const floor = s.add('instances', 'Ground Again and Again', [780, 60], { count: 4 });
  s.wire(lines, floor, 'body');
  s.formula(floor, 'place.z', `-${stretch} * i`);
  const ceiling = s.add('instances', 'Mirrored Ceiling', [780, 230], {
    count: 4,
    stretch: [1, -1, 1],
    place: [0, 1.15, 0],
    tint: [0.3, 0.95, 1, 0.62],
  });
  s.wire(lines, ceiling, 'body');
  s.formula(ceiling, 'place.z', `-${stretch} * i`);

  s.add('keyframes', 'Flight', [570, 420], {
    unit: 'loop',
    length: 1,
    lanes: [
      {
        name: 'z',
        keys: [
          { at: 0, value: stretch * 0.4, form: 'straight' },
          { at: 1, value: -stretch * 0.6, form: 'straight' },
        ],
      },
      {
        name: 'y',
        keys: [
          { at: 0, value: 0.42, form: 'smooth' },
          { at: 0.3, value: 0.3, form: 'smooth' },
          { at: 0.65, value: 0.6, form: 'smooth' },
          { at: 1, value: 0.42, form: 'smooth' },
        ],
      },
      {
        name: 'x',
        keys: [
          { at: 0, value: 0, form: 'smooth' },
          { at: 0.3, value: 0.16, form: 'smooth' },
          { at: 0.7, value: -0.18, form: 'smooth' },
          { at: 1, value: 0, form: 'smooth' },
        ],
      },
      {
        name: 'roll',
        keys: [
          { at: 0, value: 0, form: 'smooth' },
          { at: 0.25, value: -7, form: 'smooth' },
          { at: 0.6, value: 8, form: 'smooth' },
          { at: 1, value: 0, form: 'smooth' },
        ],
      },
    ] as never,
  });
  const camera = s.add('camera', 'Camera', [780, 420], { by: 'place', view: 62, near: 0.02 });
  for (const [part, formula] of [
    ['place.x', 'flight.x'],
    ['place.y', 'flight.y'],
    ['place.z', 'flight.z'],
    ['aim.x', 'flight.x * 0.4'],
    ['aim.y', 'flight.y - 0.06'],
    ['aim.z', 'flight.z - 1.2'],
    ['roll', 'flight.roll'],
  ] as const)
    s.formula(camera, part, formula);
  const shot = s.add('shot', 'Shot', [980, 60], { background: palette.clear, exposure: 1.2 });
  for (const prop of [floor, ceiling, camera]) s.wire(prop, shot, 'props');
  const sky = s.add('gradient', 'Dusk', [980, 260], {
    turn: 90,
    colours: [
      { at: 0, colour: palette.night },
      { at: 0.5, colour: [0.34, 0.13, 0.16, 1] },
      { at: 0.56, colour: [0.1, 0.06, 0.15, 1] },
      { at: 1, colour: palette.night },
    ],
  });
  const laid = s.add('blend', 'Before Dusk', [1160, 60], { mode: 'add' });
  s.wire(sky, laid, 'picture');
  s.wire(shot, laid, 'over');
  const dots = s.add('led-dots', 'Lamps', [1330, 200], { lights: 200, size: 0.8, amount: 0.35, gain: 1.6 });
  s.wire(laid, dots, 'picture');
  const shine = s.add('glow', 'Shine', [1500, 60], { strength: 0.8, threshold: 0.4, reach: 0.08 });
  s.wire(dots, shine, 'picture');
  s.wire(shine, s.out, 'picture');
  return s;
}
