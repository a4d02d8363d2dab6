import { amount, choice, colour, number, toggle } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { alphaGlsl, brightnessGlsl } from '../glsl/colour';

export default imageKind({
  id: 'key-out',
  label: 'Key Out',
  summary: 'Makes part of a picture see-through: by its brightness, a colour, or its alpha.',
  words: ['chroma', 'green screen', 'transparent', 'cut out', 'luma', 'matte', 'remove background', 'opaque'],
  inputs: { picture: { label: 'Picture', help: 'What is cut out of.', carries: 'image' } },
  controls: {
    by: choice({
      label: 'By',
      help: 'Brightness takes out what is dark, colour what is near one colour; alpha hardens what is half see-through.',
      options: { brightness: 'Brightness', colour: 'Colour', alpha: 'Alpha' },
      default: 'brightness',
    }),
    key: colour({
      label: 'Key colour',
      help: 'What is near this colour goes.',
      default: [0.1, 0.75, 0.25, 1],
      shownIf: (c) => c.by === 'colour',
    }),
    level: number({
      label: 'Level',
      help: 'Brightness, nearness or alpha at which it is cut.',
      default: 0.2,
      range: [0, 1],
      min: 0,
      max: 2,
    }),
    softness: number({
      label: 'Softness',
      help: 'How gradually it goes from gone to kept.',
      default: 0.15,
      range: [0, 0.6],
      min: 0,
      max: 2,
    }),
    invert: toggle({ label: 'Invert', help: 'Keeps what would go.', default: false }),
    spill: number({
      label: 'Spill',
      help: 'Takes the key colour’s tint out of what stays.',
      default: 0.5,
      range: [0, 1],
      min: 0,
      max: 1,
      shownIf: (c) => c.by === 'colour',
    }),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    helpers: [alphaGlsl, brightnessGlsl],
    // A colour is compared without its brightness: chroma as in Rec. 709.
    body: `
      vec4 s = straight(source);
      float v = s.a;
      if ($by == 0) v = brightness(s.rgb);
      if ($by == 1) {
        vec3 a = s.rgb - brightness(s.rgb); vec3 b = $key.rgb - brightness($key.rgb);
        v = length(a - b);
        float along = max(0.0, dot(a, b) / max(dot(b, b), 1e-4));
        s.rgb -= b * along * $spill;
      }
      float e = max($softness, 1e-4);
      float kept = clamp((v - $level) / e + 0.5, 0.0, 1.0);
      if ($invert) kept = 1.0 - kept;
      float a = $by == 2 ? kept : s.a * kept;
      return vec4(s.rgb * a, a);
    `,
  },
});
