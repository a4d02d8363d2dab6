import { palette } from '../palette';
import { Sketch } from '../sketch';

/** Things that know each other: two discs that wander, and all that follows from where they are. */
export function twoBees(): Sketch {
  const s = new Sketch('s9', 'Two Bees', [1700, 80]);
  s.scene.loop = { length: 20, unit: 'seconds', lock: false };
  const bee = (name: string, seed: number, x: number): string => {
    const drift = s.add('drift', name, [x, 640], { lanes: 2, seed, speed: 0.34, octaves: 2, amplitude: 1 });
    return drift;
  };
  const first = bee('First Way', 11, 0);
  const second = bee('Second Way', 42, 240);
  // Wider than high, as the picture is.
  const places = [first, second].map((way, k) => {
    const name = k ? 'Second' : 'First';
    const place = s.add('formula', `${name} Bee`, [k * 240, 500], {
      formula: `x = in.x * 0.74 ${k ? '+' : '-'} 0.16\ny = in.y * 0.4`,
      range: [-0.9, 0.9],
    });
    s.wire(way, place, 'in');
    return place;
  });
  const middle = s.add('between', 'Midway', [480, 500], { gives: 'point', share: 0.5 });
  const angle = s.add('between', 'Direction', [660, 500], { gives: 'angle' });
  const apart = s.add('between', 'Apart', [840, 500], { gives: 'distance' });
  for (const node of [middle, angle, apart]) {
    s.wire(places[0], node, 'a');
    s.wire(places[1], node, 'b');
  }

  // The trail of each, and a thread between them on which every point wobbles.
  const tremble = s.add('drift', 'Tremble', [480, 640], { samples: 64, period: 5, speed: 1.4, seed: 7 });
  const thread = s.add('formula', 'Thread', [660, 640], {
    samples: 64,
    formula:
      'x = first_bee.x + (second_bee.x - first_bee.x) * u\ny = first_bee.y + (second_bee.y - first_bee.y) * u + tremble * 0.14 * sin(pi * u)\nz = 0',
  });
  const lines: string[] = [];
  const lineOf = (
    name: string,
    from: string,
    row: number,
    colour: [number, number, number, number],
    width: number,
  ) => {
    const curve = s.add('lane-curve', `${name} Curve`, [420, row], { scale: [1, 1, 1], smooth: 2 });
    const body = s.add('body', name, [610, row], {
      draw: 'lines',
      shading: 'flat',
      blending: 'add',
      solid: false,
      colour,
      width,
    });
    s.wire(from, curve, 'in');
    s.wire(curve, body, 'shape');
    lines.push(body);
  };
  lineOf('String', thread, 0, [1, 0.86, 0.6, 1], 2);
  places.forEach((place, k) => {
    const past = s.add('history', `${k ? 'Second' : 'First'} Trail`, [210, 130 + 130 * k], {
      samples: 160,
      span: 7,
    });
    s.wire(place, past, 'in');
    lineOf(
      `${k ? 'Second' : 'First'} Line`,
      past,
      130 + 130 * k,
      k ? [0.2, 0.72, 0.7, 0.75] : [1, 0.56, 0.14, 0.75],
      3,
    );
  });
  void tremble;
  const camera = s.add('camera', 'Straight', [610, 380], {
    projection: 'straight',
    viewHeight: 1,
    orbit: 0,
    height: 0,
  });
  const shot = s.add('shot', 'Lines', [820, 130], { background: palette.clear });
  for (const prop of [...lines, camera]) s.wire(prop, shot, 'props');

  const discs = places.map((place, k) => {
    const disc = s.add('flat-shape', k ? 'Second Disc' : 'First Disc', [820, 270 + k * 120], {
      size: [0.1, 0.1],
      fill: k ? palette.glass : palette.honey,
      line: palette.wax,
      lineWidth: 0.006,
      softness: 0.008,
    });
    s.wire(place, disc, 'place');
    delete Object.values(s.scene.wires).find((w) => w.to.node === disc)!.fit;
    // Near each other they are large.
    for (const axis of ['x', 'y']) {
      const wire = s.wire(apart, disc, `size.${axis}`, [0.22, 0.05]);
      s.scene.wires[wire].fit = { from: [0.1, 1.4], to: [0.17, 0.05], bend: 1, edges: 'hold' };
    }
    return disc;
  });
  s.scene.nodes[discs[0]].motions.fill = [
    {
      type: 'colours',
      on: true,
      amount: 1,
      stops: [
        { at: 0, colour: palette.honey },
        { at: 0.5, colour: palette.ember },
        { at: 1, colour: palette.wax },
      ],
      way: 'toAndFro',
      length: 0.5,
      start: 0,
      unit: 'loop',
    },
  ];
  const arrow = s.add('flat-shape', 'Arrow', [820, 510], {
    form: 'points',
    points: [0.075, 0, -0.04, 0.034, -0.016, 0, -0.04, -0.034],
    fill: palette.wax,
    softness: 0.004,
  });
  s.wire(middle, arrow, 'place');
  s.wire(angle, arrow, 'turn');
  for (const wire of Object.values(s.scene.wires)) if (wire.to.node === arrow) delete wire.fit;

  const haze = s.add('noise', 'Night Air', [820, -120], {
    octaves: 4,
    period: 0.8,
    rate: 0.05,
    amplitude: 0.5,
    channels: 'one',
  });
  const dark = s.add('gradient-map', 'Dark', [1010, -120], {
    colours: [
      { at: 0, colour: palette.night },
      { at: 1, colour: [0.16, 0.08, 0.2, 1] },
    ],
  });
  s.wire(haze, dark, 'picture');
  let last = dark;
  [shot, ...discs, arrow].forEach((part, k) => {
    const mix = s.add('blend', `Layer ${k + 1}`, [1010 + 130 * k, 60 + 20 * k], {
      mode: k === 0 ? 'add' : 'over',
    });
    s.wire(last, mix, 'picture');
    s.wire(part, mix, 'over');
    last = mix;
  });
  const shine = s.add('glow', 'Shine', [1540, 80], { strength: 1.1, threshold: 0.3, reach: 0.05 });
  s.wire(last, shine, 'picture');
  s.wire(shine, s.out, 'picture');
  return s;
}
