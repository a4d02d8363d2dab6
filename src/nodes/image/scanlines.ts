import { amount, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { hashGlsl } from '../glsl/noise';

export default imageKind({
  id: 'scanlines',
  label: 'Scanlines',
  summary: 'Dark lines across the picture, static and flicker, as of an old tube.',
  words: ['crt', 'tube', 'tv', 'static', 'interlace', 'lines', 'retro', 'grime', 'monitor'],
  inputs: { picture: { label: 'Picture', help: 'What the lines lie on.', carries: 'image' } },
  controls: {
    period: number({
      label: 'Period',
      help: 'From line to line, in pixels of this picture.',
      default: 4,
      range: [2, 16],
      min: 1,
      max: 512,
      unit: 'px',
    }),
    strength: number({
      label: 'Strength',
      help: 'How dark it gets between the lines.',
      default: 0.45,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    roll: number({
      label: 'Roll',
      help: 'Lines a second that run down the picture; 0 stands still.',
      default: 0,
      range: [-20, 20],
      min: -1000,
      max: 1000,
      unit: '/s',
    }),
    triads: number({
      label: 'Triads',
      help: 'How far red, green and blue stand apart as stripes.',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    statics: number({
      label: 'Static',
      help: 'Short bright streaks along the lines.',
      default: 0.05,
      range: [0, 0.5],
      min: 0,
      max: 2,
    }),
    flicker: number({
      label: 'Flicker',
      help: 'How much the whole picture changes its brightness.',
      default: 0.02,
      range: [0, 0.2],
      min: 0,
      max: 1,
    }),
    amount,
  },
  moves: (c) => c.roll !== 0 || c.statics > 0 || c.flicker > 0,
  paint: {
    type: 'shader',
    wet: true,
    helpers: [hashGlsl],
    derived: { run: 'float', tick: 'float' },
    derive(c, moment) {
      const lines = moment.time * c.roll;
      return { run: lines - Math.floor(lines), tick: Math.floor(moment.time * 30 + 1e-6) % 65536 };
    },
    body: `
      vec2 at = p / pixel;
      float line = at.y / $period + $run;
      float dark = 0.5 + 0.5 * cos(6.283185307 * line);
      vec3 v = source.rgb * (1.0 - $strength * dark);
      vec3 stripe = vec3(lessThan(abs(mod(floor(at.x), 3.0) - vec3(0.0, 1.0, 2.0)), vec3(0.5)));
      v *= mix(vec3(1.0), stripe * 2.2 + 0.25, $triads);
      vec3 h = hash33(vec3(floor(at.x / 24.0), floor(line), $tick));
      v += source.a * $statics * step(0.985, h.x) * h.y * 4.0;
      v *= 1.0 + $flicker * (hash33(vec3($tick, 3.0, 7.0)).x * 2.0 - 1.0);
      return vec4(v, source.a);
    `,
  },
});
