import { palette } from '../palette';
import { Sketch } from '../sketch';

/** A hit that travels: 48 rows of light, each lifted later than its neighbour, from the middle to both edges. */
export function loomRows(): Sketch {
  const s = new Sketch('s10', 'Loom Rows', [1660, 40]);
  const key = s.add('keys', 'Space Key', [0, 560], { key: 'Space' });
  const beat = s.add('beat-clock', 'Each Bar', [0, 690], { periods: [4], gives: 'hit' });
  const either = s.add('combine', 'Either', [190, 600], { how: 'most' });
  s.wire(key, either, 'in');
  s.wire(beat, either, 'in');
  const ripple = s.add('ripple', 'Shuttle', [380, 560], {
    samples: 48,
    from: 'centre',
    time: 0.6,
    curve: [
      {
        name: 'value',
        keys: [
          { at: 0, value: 0, form: 'smooth' },
          { at: 1, value: 1, form: 'smooth' },
        ],
      },
    ],
    attack: 0.08,
    decay: 0.9,
    attackBend: 2,
    decayBend: 2,
  });
  s.wire(either, ripple, 'hit');

  // How bright the cloth is at each row sets how thick the row is.
  const cloth = s.add('noise', 'Cloth', [0, 0], {
    octaves: 3,
    period: 0.55,
    rate: 0.22,
    amplitude: 0.9,
    contrast: 1.4,
  });
  const rows = s.add('pixel-reader', 'Row Light', [190, 330], {
    area: 'grid',
    columns: 1,
    rows: 48,
    takes: 'mean',
  });
  s.wire(cloth, rows, 'picture');
  const soft = s.add('smooth', 'Softly', [380, 330], { rise: 0.2, fall: 0.5 });
  s.wire(rows, soft, 'in');

  // The hit as a picture, one pixel a row: where the cloth is bright, it lifts the threads.
  const lanes = s.add('rearrange', 'One a Lane', [560, 560], { order: 'turned' });
  const strip = s.add('data-image', 'Hit Picture', [760, 470], { layout: 'rows', smooth: true });
  s.wire(ripple, lanes, 'in');
  s.wire(lanes, strip, 'in');
  const steady = s.add('levels', 'Always a Little', [950, 470], { output: [0.2, 1] });
  s.wire(strip, steady, 'picture');
  const hot = s.add('gradient-map', 'Hot Where Hit', [950, 300], {
    colours: [
      { at: 0, colour: [0.5, 0.16, 0.3, 1] },
      { at: 0.25, colour: palette.ember },
      { at: 0.6, colour: palette.honey },
      { at: 1, colour: palette.wax },
    ],
  });
  s.wire(steady, hot, 'picture');

  const sheet = s.add('sheet', 'Threads', [380, 60], { size: [2.6, 1.5], columns: 220, rows: 48 });
  const flat = s.add('place', 'Laid Back', [560, 60], { turn: [-62, 0, 0] });
  s.wire(sheet, flat, 'shape');
  const body = s.add('body', 'Rows', [760, 60], {
    draw: 'lines',
    lines: 'rows',
    shading: 'flat',
    solid: false,
    blending: 'add',
    colour: [1, 1, 1, 0.9],
    width: 9,
    leastWidth: 1.1,
    liftAlong: 'y',
    liftDepth: 0.5,
    fog: 0.8,
    fogNear: 1.5,
    fogFar: 2.7,
    fogColour: [0, 0, 0, 0],
  });
  s.wire(flat, body, 'shape');
  s.wire(cloth, body, 'lift');
  s.wire(steady, body, 'liftBy');
  s.wire(hot, body, 'picture');
  // How bright the cloth is sets how thick a thread is, all along it.
  const thick = s.add('levels', 'Thickness', [560, 240], { input: [0.35, 1], output: [0.04, 0.7] });
  s.wire(cloth, thick, 'picture');
  s.wire(thick, body, 'widthBy');
  s.formula(body, 'ownLight', 'softly * 0.8');
  const camera = s.add('camera', 'Camera', [760, 260], { orbit: 0, height: 16, distance: 1.75, view: 40 });
  s.swing(camera, 'orbit', { amount: 7, rate: 0.03 });
  const shot = s.add('shot', 'Woven', [950, 60], { background: palette.clear });
  for (const prop of [body, camera]) s.wire(prop, shot, 'props');
  const dark = s.add('gradient', 'Dark', [1140, 260], {
    turn: 90,
    colours: [
      { at: 0, colour: palette.night },
      { at: 0.5, colour: palette.plum },
      { at: 1, colour: palette.night },
    ],
  });
  const laid = s.add('blend', 'Over Dark', [1320, 80], { mode: 'add' });
  s.wire(dark, laid, 'picture');
  s.wire(shot, laid, 'over');
  const shine = s.add('glow', 'Shine', [1490, 60], { strength: 0.8, threshold: 0.35, reach: 0.04 });
  s.wire(laid, shine, 'picture');
  s.wire(shine, s.out, 'picture');
  return s;
}
