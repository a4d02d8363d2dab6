import { amount, choice, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { softToneGlsl } from '../glsl/tone';

export default imageKind({
  id: 'tone',
  label: 'Tone',
  summary: 'Brings bright, added light into the range that a screen can show.',
  words: ['exposure', 'highlights', 'tone map', 'bright', 'overexposed', 'burnt out', 'range', 'hdr'],
  example: { feed: { kind: 'beam', controls: { form: 'ring', halo: 2 } } },
  inputs: { picture: { label: 'Picture', help: 'What is brought into range.', carries: 'image' } },
  controls: {
    exposure: number({
      label: 'Exposure',
      help: 'Brightness before the curve, in stops: each doubles the light.',
      default: 0,
      range: [-4, 4],
      min: -20,
      max: 20,
    }),
    curve: choice({
      label: 'Curve',
      help: 'Soft leaves dark and middle light alone; Even bends all of it; Cut stops at white.',
      options: { soft: 'Soft', even: 'Even', cut: 'Cut' },
      default: 'soft',
    }),
    white: number({
      label: 'White at',
      help: 'For Even: the brightness that becomes white.',
      default: 4,
      range: [1, 16],
      min: 1,
      max: 1000,
      shownIf: (c) => c.curve === 'even',
    }),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    // Even: the extended curve of Reinhard et al., "Photographic Tone Reproduction for Digital Images" (2002).
    helpers: [softToneGlsl],
    derived: { gain: 'float' },
    derive: (c) => ({ gain: 2 ** c.exposure }),
    body: `
      vec3 v = source.rgb * $gain;
      if ($curve == 0) v = softTone(v);
      else if ($curve == 1) v = v * (1.0 + v / ($white * $white)) / (1.0 + max(v, vec3(0.0)));
      else v = clamp(v, 0.0, 1.0);
      return vec4(v, source.a);
    `,
  },
});
