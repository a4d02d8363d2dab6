import { amount, choice } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { alphaGlsl, channelGlsl } from '../glsl/colour';

const from = {
  brightness: 'Brightness',
  red: 'Red',
  green: 'Green',
  blue: 'Blue',
  alpha: 'Alpha',
  zero: 'Nothing (0)',
  one: 'Full (1)',
} as const;

export default imageKind({
  id: 'channel-swap',
  label: 'Channel Swap',
  summary: 'Fills each channel of a picture from any other one.',
  words: ['red', 'green', 'blue', 'alpha', 'shuffle', 'rearrange', 'opaque', 'mask from'],
  example: { controls: { red: 'blue', blue: 'red' } },
  inputs: { picture: { label: 'Picture', help: 'Where the channels come from.', carries: 'image' } },
  controls: {
    red: choice({ label: 'Red from', help: 'What fills the red channel.', options: from, default: 'red' }),
    green: choice({
      label: 'Green from',
      help: 'What fills the green channel.',
      options: from,
      default: 'green',
    }),
    blue: choice({
      label: 'Blue from',
      help: 'What fills the blue channel.',
      options: from,
      default: 'blue',
    }),
    alpha: choice({
      label: 'Alpha from',
      help: 'What fills the alpha channel; Full makes the picture opaque.',
      options: from,
      default: 'alpha',
    }),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    helpers: [
      alphaGlsl,
      channelGlsl,
      `
float channelOrPlain(vec4 c, int which) { return which < 5 ? channelOf(c, which) : float(which - 5); }
`,
    ],
    body: `
      vec4 s = straight(source);
      vec4 v = vec4(channelOrPlain(s, $red), channelOrPlain(s, $green), channelOrPlain(s, $blue), channelOrPlain(s, $alpha));
      return premultiplied(vec4(v.rgb, clamp(v.a, 0.0, 1.0)));
    `,
  },
});
