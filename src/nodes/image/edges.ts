import { amount, choice, colour, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { alphaGlsl, channelGlsl, channelOptions } from '../glsl/colour';

/** Readings on two rings and in the middle: enough that a line stays whole at any width and direction. */
const ring = 12;

export default imageKind({
  id: 'edges',
  label: 'Edges',
  summary: 'Lines of a true width where a picture changes.',
  words: ['outline', 'contour', 'line drawing', 'stroke', 'border', 'trace', 'detect'],
  example: { feed: { kind: 'flat-shape', controls: { form: 'star', size: [0.7, 0.7], fill: [1, 1, 1, 1] } } },
  inputs: {
    picture: { label: 'Picture', help: 'Whose edges are drawn.', carries: 'image', reads: 'many' },
  },
  controls: {
    from: choice({
      label: 'From',
      help: 'Which channel has the edges.',
      options: channelOptions,
      default: 'brightness',
    }),
    lineWidth: number({
      label: 'Line width',
      help: 'In pixels of this picture.',
      default: 3,
      range: [1, 24],
      min: 0.5,
      max: 256,
      unit: 'px',
    }),
    threshold: number({
      label: 'Threshold',
      help: 'How large a change has to be to count.',
      default: 0.08,
      range: [0, 0.5],
      min: 0,
      max: 4,
    }),
    softness: number({
      label: 'Softness',
      help: 'Changes of this much more are drawn in full.',
      default: 0.04,
      range: [0, 0.5],
      min: 0,
      max: 4,
    }),
    ink: colour({ label: 'Colour', help: 'Of the lines.', default: [1, 1, 1, 1] }),
    ground: choice({
      label: 'Behind',
      help: 'What is seen between the lines.',
      options: { nothing: 'Nothing', black: 'Black', picture: 'The picture' },
      default: 'nothing',
    }),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    helpers: [alphaGlsl, channelGlsl],
    // A place is on a line of width w if the picture changes within w / 2 of it, which holds on both sides of an edge.
    body: `
      float low = channelOf(@picture(p), $from);
      float high = low;
      float reach = max(0.5, $lineWidth * 0.5);
      int k = 0;
      do {
        float a = 6.283185307 * (float(k) + 0.5) / ${ring.toFixed(1)};
        vec2 o = vec2(cos(a), sin(a)) * pixel * reach;
        float v = channelOf(@picture(p + o), $from);
        low = min(low, v); high = max(high, v);
        v = channelOf(@picture(p + o * 0.5), $from);
        low = min(low, v); high = max(high, v);
      } while (++k < ${ring});
      float v = clamp((high - low - $threshold) / max($softness, 1e-4), 0.0, 1.0);
      vec4 ink = premultiplied($ink) * v;
      vec4 behind = $ground == 0 ? vec4(0.0) : $ground == 1 ? vec4(0.0, 0.0, 0.0, 1.0) : @picture(p);
      return ink + behind * (1.0 - ink.a);
    `,
  },
});
