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

  const sheet = s.add('sheet', 'Thread', [380, 60], { size: [2.1, 1], columns: 2, rows: 2 });
  const body = s.add('body', 'Light', [560, 60], {
    shading: 'flat',
    solid: false,
    blending: 'add',
    colour: [1, 1, 1, 1],
  });
  s.wire(sheet, body, 'shape');
  const copies = s.add('instances', 'Rows', [760, 60], {});
  s.wire(body, copies, 'body');
  s.formula(copies, 'place.y', '((i + 0.5) / n - 0.5) * 0.98');
  s.formula(copies, 'stretch.y', '0.0026 + softly * softly * 0.007 + shuttle * 0.013');
  s.formula(copies, 'size', '1');
  s.formula(copies, 'tint.r', '0.75 + shuttle * 0.9');
  s.formula(copies, 'tint.g', '0.3 + softly * 0.2 + shuttle * 0.62');
  s.formula(copies, 'tint.b', '0.14 + abs(u - 0.5) * 0.9 + shuttle * 0.16');
  s.formula(copies, 'tint.a', '0.7 + shuttle * 0.3');
  s.wire(ripple, copies, 'place.z', [0, 0.001]);
  const camera = s.add('camera', 'Straight', [760, 230], {
    projection: 'straight',
    viewHeight: 1,
    orbit: 0,
    height: 0,
  });
  const shot = s.add('shot', 'Woven', [950, 60], { background: palette.clear });
  for (const prop of [copies, camera]) s.wire(prop, shot, 'props');

  // The hit as a picture, one pixel a row, lifts the rows where the cloth is bright.
  const lanes = s.add('rearrange', 'One a Lane', [560, 560], { order: 'turned' });
  const strip = s.add('data-image', 'Hit Picture', [760, 470], { layout: 'rows', smooth: true });
  s.wire(ripple, lanes, 'in');
  s.wire(lanes, strip, 'in');
  const steady = s.add('levels', 'Always a Little', [950, 470], { output: [0.16, 1] });
  s.wire(strip, steady, 'picture');
  const lift = s.add('blend', 'Lift', [950, 300], { mode: 'multiply' });
  s.wire(cloth, lift, 'picture');
  s.wire(steady, lift, 'over');
  const relief = s.add('displace', 'Relief', [1140, 60], {
    push: 0.15,
    axes: [0, 1],
    middle: 0,
    up: 'brightness',
  });
  s.wire(shot, relief, 'picture');
  s.wire(lift, relief, 'map');
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
  s.wire(relief, laid, 'over');
  const shine = s.add('glow', 'Shine', [1490, 60], { strength: 0.8, threshold: 0.35, reach: 0.04 });
  s.wire(laid, shine, 'picture');
  s.wire(shine, s.out, 'picture');
  return s;
}
