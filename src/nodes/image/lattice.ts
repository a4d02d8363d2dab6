import { angle, choice, colour, number, point } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { cyclesAt } from '../../core/time/clock';
import { alphaGlsl } from '../glsl/colour';

export default imageKind({
  id: 'lattice',
  label: 'Lattice',
  summary: 'Lines in two directions, their crossings, dots on them, or boxes inside their cells.',
  words: ['grid', 'mesh', 'net', 'dots', 'crosses', 'boxes', 'graph paper', 'checker'],
  inputs: {},
  controls: {
    form: choice({
      label: 'Form',
      help: 'What is drawn of the lattice.',
      options: { lines: 'Lines', crossings: 'Crossings', dots: 'Dots', boxes: 'Inner boxes' },
      default: 'lines',
    }),
    by: choice({
      label: 'By',
      help: 'A number of cells in the height, or the size of a cell.',
      options: { count: 'Cells in the height', size: 'Pixels a cell' },
      default: 'count',
    }),
    cells: point({
      label: 'Cells',
      help: 'In the height: their width is judged by the first, their height by the second.',
      default: [12, 12],
      range: [1, 60],
      min: 0.05,
      max: 2048,
      shownIf: (c) => c.by === 'count',
    }),
    size: point({
      label: 'Cell size',
      help: 'Width and height of a cell, in pixels of this picture.',
      default: [40, 40],
      range: [4, 240],
      min: 1,
      max: 8192,
      unit: 'px',
      shownIf: (c) => c.by === 'size',
    }),
    lineWidth: number({
      label: 'Line width',
      help: 'As a share of the cell. Near 1, lines leave only small cells open.',
      default: 0.06,
      range: [0.01, 1],
      min: 0,
      max: 1,
      shownIf: (c) => c.form !== 'dots',
    }),
    part: number({
      label: 'Part',
      help: 'Length of the crossings’ arms, size of the dots or of the boxes, as a share of the cell.',
      default: 0.4,
      range: [0.02, 1],
      min: 0,
      max: 1,
      shownIf: (c) => c.form !== 'lines',
    }),
    softness: number({
      label: 'Softness',
      help: 'Width of the soft edge, as a share of the cell.',
      default: 0,
      range: [0, 0.5],
      min: 0,
      max: 1,
    }),
    turn: angle({
      label: 'Turn',
      help: 'Turns the lattice about the middle.',
      default: 0,
      range: [-180, 180],
    }),
    origin: choice({
      label: 'Begins',
      help: 'Where a crossing of lines stands.',
      options: { middle: 'In the middle', half: 'Half a cell off the middle', corner: 'At the lower left' },
      default: 'middle',
    }),
    travel: point({
      label: 'Travel',
      help: 'Moves it on, in cells: every whole number looks the same again.',
      default: [0, 0],
      range: [-1, 1],
    }),
    cellsALoop: point({
      label: 'Cells a loop',
      help: 'How many whole cells it travels in one loop, along each axis; 0 stands still.',
      default: [0, 0],
      range: [-4, 4],
      min: -1000,
      max: 1000,
    }),
    loop: number({
      label: 'Loop',
      help: 'Length of the loop, after which the picture is the first again.',
      default: 4,
      range: [0.5, 30],
      min: 0.01,
      max: 3600,
      unit: 's',
      shownIf: (c) => JSON.stringify(c.cellsALoop) !== '[0,0]',
      pace: 'period',
    }),
    ink: colour({ label: 'Colour', help: 'Of what is drawn.', default: [0.93, 0.88, 0.78, 1] }),
    ground: colour({ label: 'Ground', help: 'Behind it.', default: [0, 0, 0, 0] }),
    accent: number({
      label: 'Main lines',
      help: 'Every so many lines one is three times as wide; 0 makes all alike.',
      default: 0,
      range: [0, 10],
      min: 0,
      max: 1000,
      shownIf: (c) => c.form === 'lines',
    }),
  },
  moves: (c) => c.cellsALoop[0] !== 0 || c.cellsALoop[1] !== 0,
  paint: {
    type: 'shader',
    helpers: [
      alphaGlsl,
      `
vec2 coverWithin(vec2 d, vec2 half_, vec2 edge) {
  return 1.0 - smoothstep(half_ - edge * 0.5, half_ + edge * 0.5, d);
}
`,
    ],
    derived: { run: 'vec2' },
    derive(c, moment) {
      const turns = cyclesAt(moment, 1 / c.loop, 'hertz');
      const share = turns - Math.floor(turns);
      // Only whole cells meet again at the end of the loop.
      return { run: c.cellsALoop.map((cells) => share * Math.round(cells)) };
    },
    body: `
      vec2 cell = $by == 0 ? 1.0 / max($cells, vec2(1e-3)) : max($size, 1.0) * pixel.y;
      vec2 c = (p - ($origin == 2 ? 0.0 : 0.5)) * vec2(aspect, 1.0);
      float ct = cos($turn); float st = sin($turn);
      vec2 q = vec2(ct * c.x + st * c.y, -st * c.x + ct * c.y) / cell - $travel - $run;
      if ($origin == 1) q += 0.5;
      // From the nearest crossing, in cells; an edge is never sharper than a pixel.
      vec2 near = abs(fract(q + 0.5) - 0.5);
      vec2 edge = max(vec2($softness), pixel.y / cell);
      float v;
      if ($form == 2) {
        vec2 square = near * cell / min(cell.x, cell.y);
        v = coverWithin(vec2(length(square)), vec2($part * 0.5), edge).x;
      } else if ($form == 3) {
        vec2 from = abs(fract(q) - 0.5);
        vec2 outer = coverWithin(from, vec2($part * 0.5), edge);
        vec2 inner = coverWithin(from, vec2(max(0.0, $part * 0.5 - $lineWidth)), edge);
        v = outer.x * outer.y * (1.0 - inner.x * inner.y);
      } else {
        vec2 width = vec2($lineWidth * 0.5);
        if ($form == 0) width *= 1.0 + 2.0 * step(0.5, $accent) * step(abs(mod(floor(q + 0.5), max(floor($accent + 0.5), 1.0))), vec2(0.25));
        vec2 line = $lineWidth <= 0.0 ? vec2(0.0) : coverWithin(near, width, min(edge, max(width * 2.0, pixel.y / cell)));
        if ($form == 1) line *= coverWithin(near.yx, vec2($part * 0.5), edge);
        v = max(line.x, line.y);
      }
      vec4 ink = premultiplied($ink) * v;
      return ink + premultiplied($ground) * (1.0 - ink.a);
    `,
  },
});
