import { palette } from '../palette';
import { Sketch } from '../sketch';

/** A curve from history: where three slow waves have been, standing on every point of a globe. */
export function waggleTrace(): Sketch {
  const s = new Sketch('s3', 'Waggle Trace', [1700, 130]);
  const x = s.add('oscillator', 'Left Right', [0, 620], { rate: 0.31 });
  const y = s.add('oscillator', 'Up Down', [180, 620], { rate: 0.43, phase: 0.25 });
  const z = s.add('oscillator', 'To and Fro', [360, 620], { rate: 0.19, phase: 0.1 });
  const join = s.add('join-lanes', 'Together', [180, 490], { names: 'x y z' });
  const steps = s.add('steps', 'Rounded', [180, 370], { step: 0.022 });
  const past = s.add('history', 'Last Moments', [180, 250], { samples: 48, span: 1.6 });
  for (const wave of [x, y, z]) s.wire(wave, join, 'in');
  s.wire(join, steps, 'in');
  s.wire(steps, past, 'in');
  const curve = s.add('lane-curve', 'Dance', [380, 130], { scale: [0.085, 0.085, 0.085], smooth: 1 });
  s.wire(past, curve, 'in');
  const stroke = s.add('body', 'Stroke', [570, 130], {
    draw: 'lines',
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: [1, 0.86, 0.6, 0.85],
    width: 2.2,
    leastWidth: 1,
  });
  s.wire(curve, stroke, 'shape');

  const points = s.add('ball', 'Points', [380, -40], { form: 'even', points: 180, size: 0.9 });
  const spinPoints = s.add('place', 'Spin Points', [570, -40]);
  const tints = s.add(
    'gradient',
    'Tints',
    [570, -190],
    {
      ends: 'repeat',
      length: 100,
      colours: [
        { at: 0, colour: palette.ember },
        { at: 0.35, colour: palette.honey },
        { at: 0.7, colour: palette.wax },
        { at: 1, colour: palette.glass },
      ],
    },
    { size: [180, 1] },
  );
  const chance = s.add('scatter', 'Any Way', [760, 340], { range: [-1, 1], samples: 180, lanes: 3, seed: 3 });
  const dances = s.add('instances', 'Dances', [780, 60], { reads: 'tints', facing: 'normal' });
  s.wire(points, spinPoints, 'shape');
  s.formula(spinPoints, 'turn.y', 'time * 8');
  s.wire(stroke, dances, 'body');
  s.wire(spinPoints, dances, 'on');
  s.wire(tints, dances, 'pixels');
  s.wire(chance, dances, 'turn', [0, 360]);

  const globe = s.add('ball', 'Globe', [760, -190], { size: 0.88, rings: 20, segments: 72 });
  const spin = s.add('place', 'Spin', [950, -190]);
  s.wire(globe, spin, 'shape');
  s.formula(spin, 'turn.y', 'time * 8');
  const rows = s.add('body', 'Rows', [1140, -260], {
    draw: 'lines',
    lines: 'rows',
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: [0.95, 0.6, 0.24, 0.5],
    width: 1.4,
    fog: 0.85,
    fogNear: 1.5,
    fogFar: 2.4,
    fogColour: [0, 0, 0, 0],
  });
  const skin = s.add('body', 'Skin', [1140, -130], {
    shading: 'lit',
    solid: false,
    colour: [0.09, 0.06, 0.12, 0.62],
  });
  s.wire(spin, rows, 'shape');
  s.wire(spin, skin, 'shape');

  const sheet = s.add('sheet', 'Sheet', [760, 480], { size: [6, 4], columns: 90, rows: 70 });
  const tilt = s.add('place', 'Tilted', [950, 480], { move: [0, -0.1, -1.3], turn: [-24, 0, 14] });
  const lines = s.add('body', 'Lines Behind', [1140, 480], {
    draw: 'lines',
    lines: 'rows',
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: [0.13, 0.34, 0.36, 0.55],
    width: 1.3,
    liftDepth: 0.5,
    liftMiddle: 0.5,
  });
  s.wire(sheet, tilt, 'shape');
  s.wire(tilt, lines, 'shape');
  // The air behind moves as well: the lines are lifted by a slow noise.
  const air = s.add('noise', 'Air', [950, 610], { octaves: 2, period: 0.4, rate: 0.12 });
  s.wire(air, lines, 'lift');
  s.swing(tilt, 'turn.z', { amount: 8, rate: 0.03 });

  const sun = s.add('light', 'Lamp', [950, 330], {
    colour: [1, 0.75, 0.45, 1],
    strength: 1.3,
    place: [-0.9, 1.1, 0.7],
  });
  const dim = s.add('light', 'Moon', [950, 210], {
    form: 'ambient',
    colour: [0.4, 0.5, 0.8, 1],
    strength: 0.35,
  });
  const camera = s.add('camera', 'Camera', [1140, 330], { orbit: 0, height: 14, distance: 1.95, view: 36 });
  const shot = s.add('shot', 'Shot', [1340, 0], { background: palette.night });
  for (const prop of [lines, skin, rows, dances, sun, dim, camera]) s.wire(prop, shot, 'props');
  const haze = s.add('blur', 'Haze', [1340, 190], { radius: 0.02 });
  const shine = s.add('blend', 'Shine', [1520, 130], { mode: 'add', amount: 0.65 });
  s.wire(shot, haze, 'picture');
  s.wire(shot, shine, 'picture');
  s.wire(haze, shine, 'over');
  s.wire(shine, s.out, 'picture');
  return s;
}
