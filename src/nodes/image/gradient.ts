import { angle, choice, gradient, number, point } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { ends, endsGlsl } from '../glsl/colour';

export default imageKind({
  id: 'gradient',
  label: 'Gradient',
  summary: 'A run of colours along a line, outward, round a centre or in diamonds.',
  words: ['ramp', 'palette', 'fade', 'colours', 'sky', 'vignette', 'radial'],
  inputs: {},
  controls: {
    form: choice({
      label: 'Form',
      help: 'Along which measure the colours run.',
      options: { line: 'Line', radial: 'Radial', angular: 'Angular', diamond: 'Diamond' },
      default: 'line',
    }),
    colours: gradient({
      label: 'Colours',
      help: 'Stops of the gradient: drag to move, double-click to add, drag away to remove.',
      default: [
        { at: 0, colour: [0.05, 0.03, 0.06, 1] },
        { at: 0.55, colour: [0.72, 0.32, 0.14, 1] },
        { at: 1, colour: [1, 0.88, 0.6, 1] },
      ],
    }),
    place: point({
      label: 'Place',
      help: 'The middle of the gradient, in heights from the middle of the picture.',
      default: [0, 0],
      range: [-1, 1],
      handle: { as: 'place' },
    }),
    turn: angle({
      label: 'Turn',
      help: 'Direction of the run.',
      default: 0,
      range: [0, 360],
      handle: { of: 'place', length: 'length' },
    }),
    length: number({
      label: 'Length',
      help: 'Picture heights from the first colour to the last.',
      default: 1,
      range: [0.05, 3],
      min: 0.001,
      max: 100,
    }),
    phase: number({
      label: 'Phase',
      help: 'Slides the colours along, one full run at 1.',
      default: 0,
      range: [0, 1],
    }),
    ends,
  },
  paint: {
    type: 'shader',
    helpers: [endsGlsl],
    derived: { along: 'vec2' },
    derive: (c) => ({ along: [Math.cos(c.turn) / c.length, Math.sin(c.turn) / c.length] }),
    body: `
      vec2 c = (p - 0.5) * vec2(aspect, 1.0) - $place;
      vec2 q = vec2(dot($along, c), $along.x * c.y - $along.y * c.x);
      float t = q.x + 0.5;
      if ($form == 1) t = length(q) * 2.0;
      else if ($form == 2) t = fract(atan(q.y, q.x) / 6.283185307 + 1.0);
      else if ($form == 3) t = (abs(q.x) + abs(q.y)) * 2.0;
      t += $phase;
      vec4 v = $colours(endsPlace(t, $ends));
      return vec4(v.rgb * v.a, v.a);
    `,
  },
});
