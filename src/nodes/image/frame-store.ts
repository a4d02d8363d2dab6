import { amount, choice, number, whole } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { channelGlsl, channelOptions } from '../glsl/colour';

export default imageKind({
  id: 'frame-store',
  label: 'Frame Store',
  summary: 'Keeps the last frames: shows one of them, or cuts through them by another picture.',
  words: ['delay', 'echo', 'past', 'time', 'slit', 'slice', 'buffer', 'history', 'lag', 'trails', 'feedback'],
  example: { controls: { back: 0, depth: 60 }, feed: { kind: 'clip' } },
  inputs: {
    picture: { label: 'Picture', help: 'Whose past is kept.', carries: 'image', reads: 'many' },
    slices: {
      label: 'Slices',
      help: 'How far back each place looks: 0 now, 1 the oldest.',
      carries: 'image',
    },
  },
  controls: {
    frames: whole({
      label: 'Frames',
      help: 'How many are kept, each 1/60 s after the other. The card’s memory may hold fewer at full size.',
      default: 60,
      range: [2, 120],
      min: 1,
      max: 240,
    }),
    kept: choice({
      label: 'Kept at',
      help: 'Smaller pictures make room for a longer past.',
      options: { full: 'Full size', half: 'Half', quarter: 'A quarter' },
      default: 'quarter',
    }),
    back: number({
      label: 'Back',
      help: 'How many frames ago, of 1/60 s.',
      default: 30,
      range: [0, 120],
      min: 0,
      max: 240,
    }),
    channel: choice({
      label: 'Slice by',
      help: 'Which channel of Slices looks back, on top of Back.',
      options: channelOptions,
      default: 'brightness',
    }),
    depth: number({
      label: 'Slice depth',
      help: 'Frames that the brightest place of Slices looks back.',
      default: 40,
      range: [0, 120],
      min: -240,
      max: 240,
    }),
    amount,
  },
  moves: () => true,
  paint: {
    type: 'shader',
    helpers: [channelGlsl],
    sheets: {
      past: {
        from: 'past',
        keep: (c) => ({ frames: c.frames, scale: { full: 1, half: 0.5, quarter: 0.25 }[c.kept] }),
      },
    },
    body: `
      float back = $back + channelOf(@slices(p), $channel) * $depth;
      vec4 then = back < 0.5 ? @picture(p) : @past(p, back);
      return mix(@picture(p), then, $amount);
    `,
  },
});
