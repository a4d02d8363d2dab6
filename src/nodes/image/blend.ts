import { choice, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { alphaGlsl } from '../glsl/colour';

export default imageKind({
  id: 'blend',
  label: 'Blend',
  summary: 'Lays one picture over another: over, add, multiply, screen and more.',
  words: [
    'mix',
    'layer',
    'composite',
    'add',
    'multiply',
    'screen',
    'over',
    'combine',
    'crossfade',
    'feedback',
    'trails',
    'opacity',
    'add pictures',
    'fade in',
  ],
  inputs: {
    picture: { label: 'Under', help: 'The picture below.', carries: 'image' },
    over: { label: 'Over', help: 'The picture on top.', carries: 'image' },
  },
  controls: {
    mode: choice({
      label: 'Mode',
      help: 'How the two are brought together.',
      options: {
        over: 'Over',
        add: 'Add',
        subtract: 'Subtract',
        multiply: 'Multiply',
        screen: 'Screen',
        overlay: 'Overlay',
        softlight: 'Soft light',
        lighten: 'Lighten',
        darken: 'Darken',
        difference: 'Difference',
        burn: 'Burn',
        dodge: 'Dodge',
        average: 'Average',
      },
      default: 'over',
    }),
    amount: number({
      label: 'Amount',
      help: 'Opacity of the picture on top.',
      default: 1,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
  },
  paint: {
    type: 'shader',
    // Modes and compositing after "Compositing and Blending Level 1" (W3C): the blended colour counts where both cover.
    helpers: [
      alphaGlsl,
      `
vec3 blendModes(int mode, vec3 b, vec3 s) {
  if (mode == 2) return b - s;
  if (mode == 5) return mix(2.0 * b * s, 1.0 - 2.0 * (1.0 - b) * (1.0 - s), step(0.5, b));
  if (mode == 6) {
    vec3 d = mix(((16.0 * b - 12.0) * b + 4.0) * b, sqrt(max(b, 0.0)), step(0.25, b));
    return mix(b - (1.0 - 2.0 * s) * b * (1.0 - b), b + (2.0 * s - 1.0) * (d - b), step(0.5, s));
  }
  if (mode == 10) return 1.0 - min(vec3(1.0), (1.0 - b) / max(s, 1e-4));
  if (mode == 11) return min(vec3(1.0), b / max(1.0 - s, 1e-4));
  if (mode == 12) return (b + s) * 0.5;
  return s;
}
`,
    ],
    body: `
      vec4 top = @over(p) * $amount;
      if ($mode == 0) return top + source * (1.0 - top.a);
      if ($mode == 1) return vec4(source.rgb + top.rgb, min(1.0, source.a + top.a));
      // Where the formula can be written for premultiplied colours, nothing has to be divided.
      vec3 rest = source.rgb * (1.0 - top.a) + top.rgb * (1.0 - source.a);
      float a = top.a + source.a * (1.0 - top.a);
      if ($mode == 3) return vec4(source.rgb * top.rgb + rest, a);
      if ($mode == 4) return vec4(source.rgb + top.rgb - source.rgb * top.rgb, a);
      if ($mode == 7) return vec4(max(source.rgb * top.a, top.rgb * source.a) + rest, a);
      if ($mode == 8) return vec4(min(source.rgb * top.a, top.rgb * source.a) + rest, a);
      if ($mode == 9) return vec4(abs(source.rgb * top.a - top.rgb * source.a) + rest, a);
      vec4 b = straight(source); vec4 s = straight(top);
      vec3 mixed = mix(s.rgb, blendModes($mode, b.rgb, s.rgb), b.a);
      return vec4(mixed * top.a + source.rgb * (1.0 - top.a), a);
    `,
  },
});
