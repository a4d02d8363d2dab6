import { amount, choice, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { channelGlsl, channelOptions } from '../glsl/colour';

export default imageKind({
  id: 'steepness',
  label: 'Steepness',
  summary: 'Turns a picture into the direction in which its brightness rises.',
  words: ['slope', 'normal', 'derivative', 'gradient direction', 'relief', 'edge'],
  example: { feed: { kind: 'noise', controls: { octaves: 1 } } },
  inputs: {
    picture: { label: 'Picture', help: 'Whose slope is measured.', carries: 'image', reads: 'many' },
  },
  controls: {
    from: choice({
      label: 'From',
      help: 'Which channel is the height.',
      options: channelOptions,
      default: 'brightness',
    }),
    strength: number({
      label: 'Strength',
      help: 'Factor on the slope.',
      default: 4,
      range: [0, 20],
      min: -1000,
      max: 1000,
    }),
    reach: number({
      label: 'Reach',
      help: 'How far apart the two readings are, in pixels.',
      default: 1,
      range: [0.5, 8],
      min: 0.25,
      max: 64,
      unit: 'px',
    }),
    zero: choice({
      label: 'Flat is',
      help: 'The value of no slope: 0 for use as numbers, a half for use as a picture or map.',
      options: { zero: '0', half: '0.5' },
      default: 'half',
    }),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    helpers: [channelGlsl],
    // x = right - left, y = up - down.
    body: `
      vec2 o = $reach * pixel;
      float x = channelOf(@picture(p + vec2(o.x, 0.0)), $from) - channelOf(@picture(p - vec2(o.x, 0.0)), $from);
      float y = channelOf(@picture(p + vec2(0.0, o.y)), $from) - channelOf(@picture(p - vec2(0.0, o.y)), $from);
      vec2 s = vec2(x, y) * $strength;
      if ($zero == 1) return vec4(s * 0.5 + 0.5, 0.5, 1.0);
      return vec4(s, 0.0, 1.0);
    `,
  },
});
