import { amount, choice, gradient, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { alphaGlsl, channelGlsl, channelOptions, ends, endsGlsl } from '../glsl/colour';

export default imageKind({
  id: 'gradient-map',
  label: 'Gradient Map',
  summary: 'Gives each brightness a colour of a gradient.',
  words: [
    'palette',
    'duotone',
    'two colours',
    'recolour',
    'heat',
    'ramp',
    'false colour',
    'grade',
    'fire',
    'black and white',
  ],
  example: { feed: { kind: 'noise' } },
  inputs: { picture: { label: 'Picture', help: 'Its brightness picks the colour.', carries: 'image' } },
  controls: {
    colours: gradient({
      label: 'Colours',
      help: 'The first stands for black, the last for white.',
      default: [
        { at: 0, colour: [0.03, 0.02, 0.06, 1] },
        { at: 0.4, colour: [0.35, 0.1, 0.2, 1] },
        { at: 0.75, colour: [0.94, 0.5, 0.15, 1] },
        { at: 1, colour: [1, 0.93, 0.7, 1] },
      ],
    }),
    channel: choice({
      label: 'Read',
      help: 'Which number of the picture picks the colour.',
      options: channelOptions,
      default: 'brightness',
    }),
    repeats: number({
      label: 'Repeats',
      help: 'How often the colours run from black to white.',
      default: 1,
      range: [1, 8],
      min: 0,
      max: 256,
    }),
    phase: number({
      label: 'Phase',
      help: 'Slides the colours along, round and round at whole numbers.',
      default: 0,
      range: [0, 1],
    }),
    ends,
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    helpers: [alphaGlsl, channelGlsl, endsGlsl],
    body: `
      vec4 s = straight(source);
      float t = channelOf(s, $channel) * $repeats + $phase;
      vec4 c = $colours(endsPlace(t, $ends));
      return premultiplied(vec4(c.rgb, c.a * s.a));
    `,
  },
});
