import { amount, choice, formula, number, point, toggle, vector } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { alphaGlsl } from '../glsl/colour';
import { hashGlsl, noiseGlsl } from '../glsl/noise';

export default imageKind({
  id: 'levels',
  label: 'Levels',
  summary: 'Brightness, contrast, gamma, input and output range, and a curve of your own.',
  words: [
    'brightness',
    'contrast',
    'gamma',
    'curve',
    'exposure',
    'invert',
    'tone',
    'range',
    'black and white',
    'opacity',
    'fade',
  ],
  example: { controls: { contrast: 1.8 } },
  inputs: { picture: { label: 'Picture', help: 'What is changed.', carries: 'image' } },
  controls: {
    input: point({
      label: 'Input',
      parts: ['Input low', 'Input high'],
      help: 'The values that become the two ends.',
      default: [0, 1],
      range: [-1, 2],
    }),
    output: point({
      label: 'Output',
      parts: ['Output low', 'Output high'],
      help: 'What the ends become; also below 0.',
      default: [0, 1],
      range: [-1, 2],
    }),
    gamma: number({
      label: 'Gamma',
      help: 'Lifts (above 1) or sinks the middle values.',
      default: 1,
      range: [0.2, 4],
      min: 0.01,
      max: 20,
    }),
    contrast: number({
      label: 'Contrast',
      help: 'Spreads values away from the middle grey.',
      default: 1,
      range: [0, 3],
      min: -20,
      max: 20,
    }),
    brightness: number({ label: 'Brightness', help: 'Added to every value.', default: 0, range: [-1, 1] }),
    gain: vector({
      label: 'Channels',
      parts: ['Red', 'Green', 'Blue'],
      help: 'Strength of each colour.',
      default: [1, 1, 1],
      range: [0, 2],
    }),
    curve: formula({
      label: 'Curve',
      help: 'A formula of v, each value of the picture: v^2, smoothstep(0.2, 0.8, v).',
      default: 'v',
      variables: ['v'],
    }),
    invert: toggle({ label: 'Invert', help: 'Turns light into dark.', default: false }),
    channels: choice({
      label: 'Changes',
      help: 'Which channels are changed; the others stay.',
      options: { all: 'All colours', red: 'Red', green: 'Green', blue: 'Blue' },
      default: 'all',
    }),
    alpha: choice({
      label: 'Alpha',
      help: 'Keep it, or take the brightness as the new one.',
      options: { keep: 'Keep', brightness: 'From brightness', opaque: 'Opaque' },
      default: 'keep',
    }),
    amount,
  },
  paint: {
    type: 'shader',
    helpers: [alphaGlsl, hashGlsl, noiseGlsl],
    wet: true,
    derived: { rise: 'vec2', bend: 'float', slope: 'vec3', base: 'vec3' },
    // What comes before the curve of gamma, and what comes after it, is a straight line each.
    derive(c) {
      const [low, high] = c.input;
      const width = Math.abs(high - low) < 1e-6 ? 1e-6 : high - low;
      const [from, to] = c.output;
      const slope = (to - from) * c.contrast;
      const base = (from - 0.5) * c.contrast + 0.5 + c.brightness;
      return {
        rise: [1 / width, -low / width],
        bend: 1 / c.gamma,
        slope: c.gain.map((gain) => slope * gain),
        base: c.gain.map((gain) => base * gain),
      };
    },
    body: `
      vec4 s = straight(source);
      vec3 v = s.rgb * $rise.x + $rise.y;
      for (float bend = $bend; bend != 1.0; bend = 1.0) v = sign(v) * pow(abs(v), vec3(bend));
      v = v * $slope + $base;
      v = vec3($curve(v.x), $curve(v.y), $curve(v.z));
      if ($invert) v = 1.0 - v;
      if ($channels != 0) v = mix(s.rgb, v, vec3($channels == 1, $channels == 2, $channels == 3));
      float a = s.a;
      if ($alpha == 1) a = clamp(dot(v, vec3(0.2126, 0.7152, 0.0722)), 0.0, 1.0) * s.a;
      else if ($alpha == 2) a = 1.0;
      return vec4(v * a, a);
    `,
  },
});
