import { amount, choice, number, point } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { channelGlsl, channelOptions, outsideGlsl, outside } from '../glsl/colour';

export default imageKind({
  id: 'displace',
  label: 'Displace',
  summary: 'Pushes the pixels of one picture about by the values of another.',
  words: ['warp', 'distort', 'refract', 'wobble', 'liquid', 'push', 'heat', 'water', 'ripple', 'shake'],
  inputs: {
    picture: { label: 'Picture', help: 'What is pushed about.', carries: 'image', reads: 'moved' },
    map: { label: 'Map', help: 'Two of its channels say how far.', carries: 'image' },
  },
  controls: {
    push: number({
      label: 'Push',
      help: 'Picture heights at the ends of the map.',
      default: 0.05,
      range: [-0.3, 0.3],
      min: -10,
      max: 10,
    }),
    axes: point({
      label: 'Strength',
      parts: ['Across', 'Up'],
      help: 'Share of the push along each axis.',
      default: [1, 1],
      range: [-1, 1],
    }),
    across: choice({
      label: 'Across from',
      help: 'Channel that pushes to the right.',
      options: channelOptions,
      default: 'red',
    }),
    up: choice({
      label: 'Up from',
      help: 'Channel that pushes up.',
      options: channelOptions,
      default: 'green',
    }),
    middle: number({
      label: 'Middle',
      help: 'The value of the map that leaves a pixel where it is.',
      default: 0.5,
      range: [0, 1],
    }),
    outside: outside('hold'),
    amount,
  },
  paint: {
    type: 'shader',
    helpers: [channelGlsl, outsideGlsl],
    wet: true,
    body: `
      vec4 m = @map(p);
      vec2 by = (vec2(channelOf(m, $across), channelOf(m, $up)) - $middle) * 2.0 * $push * $axes;
      vec3 at = outsidePlace(p - by / vec2(aspect, 1.0), $outside);
      return @picture(at.xy) * at.z;
    `,
  },
});
