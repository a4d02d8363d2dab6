import { choice, number, point, toggle } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { channelGlsl, channelOptions } from '../glsl/colour';

export default imageKind({
  id: 'masked-mix',
  label: 'Masked Mix',
  summary: 'Shows one picture where a mask is dark and another where it is light.',
  words: ['mask', 'matte', 'stencil', 'reveal', 'switch by image', 'alpha', 'crop'],
  inputs: {
    picture: {
      label: 'Dark',
      help: 'Seen where the mask is 0; empty if nothing is wired.',
      carries: 'image',
    },
    light: { label: 'Light', help: 'Seen where the mask is 1; empty if nothing is wired.', carries: 'image' },
    mask: { label: 'Mask', help: 'Decides between the two.', carries: 'image' },
  },
  controls: {
    channel: choice({
      label: 'Channel',
      help: 'Which channel of the mask decides.',
      options: channelOptions,
      default: 'brightness',
    }),
    range: point({
      label: 'Range',
      parts: ['From', 'To'],
      help: 'Mask values at which the mix begins and is complete.',
      default: [0, 1],
      range: [0, 1],
    }),
    invert: toggle({ label: 'Invert', help: 'Exchanges dark and light.', default: false }),
    amount: number({
      label: 'Amount',
      help: 'How far the mask may go towards Light.',
      default: 1,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
  },
  paint: {
    type: 'shader',
    helpers: [channelGlsl],
    body: `
      float m = channelOf(@mask(p), $channel);
      m = clamp((m - $range.x) / (abs($range.y - $range.x) < 1e-6 ? 1e-6 : $range.y - $range.x), 0.0, 1.0);
      if ($invert) m = 1.0 - m;
      return mix(source, @light(p), m * $amount);
    `,
  },
});
