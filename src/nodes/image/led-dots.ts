import { amount, choice, colour, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { alphaGlsl } from '../glsl/colour';

export default imageKind({
  id: 'led-dots',
  label: 'LED Dots',
  summary: 'The picture as seen on a wall of single lights.',
  words: ['led wall', 'pixels', 'lamps', 'halftone', 'bulbs', 'matrix', 'board'],
  inputs: { picture: { label: 'Picture', help: 'What the lights show.', carries: 'image', reads: 'moved' } },
  controls: {
    by: choice({
      label: 'By',
      help: 'A number of lights in the height, or pixels from light to light.',
      options: { count: 'Lights in the height', size: 'Pixels a light' },
      default: 'count',
    }),
    lights: number({
      label: 'Lights',
      help: 'In the height of the picture.',
      default: 48,
      range: [8, 160],
      min: 1,
      max: 2048,
      shownIf: (c) => c.by === 'count',
    }),
    pitch: number({
      label: 'Pitch',
      help: 'From light to light, in pixels of this picture.',
      default: 12,
      range: [3, 64],
      min: 1,
      max: 1024,
      unit: 'px',
      shownIf: (c) => c.by === 'size',
    }),
    form: choice({
      label: 'Form',
      help: 'What a light looks like: round, square, or three bars of red, green and blue.',
      options: { round: 'Round', square: 'Square', bars: 'Three bars' },
      default: 'round',
    }),
    rows: choice({
      label: 'Rows',
      help: 'Lights in straight columns, or every other row half a light aside.',
      options: { straight: 'Straight', staggered: 'Staggered' },
      default: 'straight',
    }),
    size: number({
      label: 'Size',
      help: 'Of a light, as a share of the distance.',
      default: 0.72,
      range: [0.1, 1],
      min: 0,
      max: 1.5,
    }),
    bySize: number({
      label: 'Dark ones smaller',
      help: 'How much the size of a light follows its brightness.',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    softness: number({
      label: 'Softness',
      help: 'Soft edge of a light, as a share of the distance.',
      default: 0.15,
      range: [0, 1],
      min: 0,
      max: 2,
    }),
    gain: number({
      label: 'Brightness',
      help: 'Makes up for the dark between the lights.',
      default: 1.4,
      range: [0.5, 3],
      min: 0,
      max: 20,
    }),
    ground: colour({ label: 'Between', help: 'Colour between the lights.', default: [0, 0, 0, 1] }),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    helpers: [alphaGlsl],
    body: `
      float step_ = $by == 0 ? 1.0 / max($lights, 1.0) : max($pitch, 1.0) * pixel.y;
      vec2 q = (p - 0.5) * vec2(aspect, 1.0) / step_;
      float row = floor(q.y);
      if ($rows == 1) q.x += 0.5 * mod(row, 2.0);
      vec2 middle = floor(q) + 0.5;
      vec2 d = q - middle;
      if ($rows == 1) middle.x -= 0.5 * mod(row, 2.0);
      vec4 v = @picture(clamp(middle * step_ / vec2(aspect, 1.0) + 0.5, pixel * 0.5, 1.0 - pixel * 0.5));
      float level = max(v.r, max(v.g, v.b));
      float half_ = 0.5 * $size * mix(1.0, sqrt(clamp(level, 0.0, 1.0)), $bySize);
      float edge = max($softness, pixel.y / step_);
      float from = $form == 0 ? length(d) : max(abs(d.x), abs(d.y));
      float cover = 1.0 - smoothstep(half_ - edge * 0.5, half_ + edge * 0.5, from);
      vec3 light = v.rgb;
      if ($form == 2) {
        float bar = (d.x / max(half_ * 2.0, 1e-4) + 0.5) * 3.0;
        light *= 3.0 * smoothstep(0.5, 0.3, abs(bar - vec3(0.5, 1.5, 2.5)));
      }
      vec4 lit = vec4(light * $gain, v.a) * cover;
      return lit + premultiplied($ground) * (1.0 - clamp(lit.a, 0.0, 1.0));
    `,
  },
});
