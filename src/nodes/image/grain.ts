import { amount, number, toggle, whole } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { hashGlsl } from '../glsl/noise';

export default imageKind({
  id: 'grain',
  label: 'Grain',
  summary: 'Fine noise over the picture, against bands and too clean surfaces.',
  words: ['film', 'noise', 'banding', 'static', 'texture', 'dirt'],
  inputs: { picture: { label: 'Picture', help: 'What the grain lies on.', carries: 'image' } },
  controls: {
    strength: number({
      label: 'Strength',
      help: 'How far each grain may lighten or darken; 0.03 hides bands.',
      default: 0.03,
      range: [0, 0.3],
      min: 0,
      max: 4,
    }),
    size: number({
      label: 'Grain size',
      help: 'In pixels of this picture.',
      default: 1,
      range: [1, 8],
      min: 1,
      max: 256,
      unit: 'px',
    }),
    speed: number({
      label: 'Speed',
      help: 'New grains a second; 0 stands still.',
      default: 24,
      range: [0, 60],
      min: 0,
      max: 240,
      unit: '/s',
    }),
    coloured: toggle({ label: 'Coloured', help: 'Red, green and blue each their own.', default: false }),
    seed: whole({ label: 'Seed', help: 'Another grain.', default: 1, range: [1, 99], min: 0, max: 9999 }),
    amount,
  },
  moves: (c) => c.speed > 0 && c.strength > 0,
  paint: {
    type: 'shader',
    wet: true,
    helpers: [hashGlsl],
    derived: { tick: 'float' },
    derive: (c, moment) => ({ tick: Math.floor(moment.time * c.speed) % 65536 }),
    body: `
      vec3 h = hash33(vec3(floor(p / (pixel * $size)), $tick + $seed * 131.0)) - 0.5;
      if (!$coloured) h = h.xxx;
      return vec4(source.rgb + h * 2.0 * $strength * source.a, source.a);
    `,
  },
});
