import { amount, angle, choice, number, point } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { outsideGlsl, outside } from '../glsl/colour';

export default imageKind({
  id: 'polar-wrap',
  label: 'Polar Wrap',
  summary: 'Bends a picture round into a ring, or unrolls a ring into a strip.',
  words: ['polar', 'tunnel', 'circle', 'ring', 'unroll', 'swirl', 'bend', 'planet'],
  example: { feed: { kind: 'stripes' } },
  inputs: { picture: { label: 'Picture', help: 'What is bent.', carries: 'image', reads: 'moved' } },
  controls: {
    way: choice({
      label: 'Way',
      help: 'Wrap bends the lower edge round the centre; Unroll is the way back.',
      options: { wrap: 'Wrap', unroll: 'Unroll' },
      default: 'wrap',
    }),
    place: point({
      label: 'Place',
      help: 'The centre, in heights from the middle.',
      default: [0, 0],
      range: [-1, 1],
    }),
    inner: number({
      label: 'Inner radius',
      help: 'Where the lower edge of the picture lies, in heights.',
      default: 0,
      range: [0, 0.5],
      min: 0,
      max: 10,
    }),
    outer: number({
      label: 'Outer radius',
      help: 'Where the upper edge lies, in heights.',
      default: 0.5,
      range: [0.05, 1.2],
      min: 0.0001,
      max: 10,
    }),
    turn: angle({ label: 'Turn', help: 'Where the left edge begins.', default: 90, range: [0, 360] }),
    twist: angle({
      label: 'Twist',
      help: 'How far the outer edge is turned on against the inner one.',
      default: 0,
      range: [-360, 360],
    }),
    repeats: number({
      label: 'Repeats',
      help: 'How often the picture stands around the ring; whole numbers close it without a seam.',
      default: 1,
      range: [1, 12],
      min: 0.01,
      max: 1000,
    }),
    outside: outside('nothing', 'What is seen beyond the lower and upper edge.'),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    helpers: [outsideGlsl],
    body: `
      float span = $outer - $inner;
      span = abs(span) < 1e-5 ? 1e-5 : span;
      if ($way == 1) {
        float r = $inner + p.y * span;
        float a = $turn - p.x * 6.283185307 / max($repeats, 0.01) + p.y * $twist;
        vec2 c = r * vec2(cos(a), sin(a)) + $place;
        vec3 at = outsidePlace(c / vec2(aspect, 1.0) + 0.5, $outside);
        return @picture(at.xy) * at.z;
      }
      vec2 c = (p - 0.5) * vec2(aspect, 1.0) - $place;
      float up = (length(c) - $inner) / span;
      float round_ = fract(($turn - atan(c.y, c.x) + up * $twist) / 6.283185307 * $repeats);
      vec3 at = outsidePlace(vec2(0.5, up), $outside);
      return @picture(vec2(round_, at.y)) * at.z;
    `,
  },
});
