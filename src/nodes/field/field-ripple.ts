import { choice, number, point } from '../../core/kind/controls';
import { fieldKind } from '../../core/kind/kind';
import { hashGlsl, noiseGlsl } from '../glsl/noise';

export default fieldKind({
  id: 'field-ripple',
  label: 'Field Ripple',
  summary: 'Moves the surface of a field in and out, by noise or by an image.',
  words: ['noise', 'displace', 'wobble', 'waves', 'bumps', 'relief', 'organic'],
  inputs: {
    field: { label: 'Field', help: 'Whose surface is moved.', carries: 'field' },
    image: {
      label: 'Image',
      help: 'Bright is out: laid over it from the front.',
      carries: 'image',
      reads: 'many',
    },
  },
  controls: {
    by: choice({
      label: 'By',
      help: 'Noise, or the image.',
      options: { noise: 'Noise', image: 'Image' },
      default: 'noise',
    }),
    strength: number({
      label: 'Strength',
      help: 'How far the surface moves.',
      default: 0.05,
      range: [0, 0.3],
    }),
    period: number({
      label: 'Period',
      help: 'Width of the ripples.',
      default: 0.25,
      range: [0.05, 1],
      min: 0.001,
      shownIf: (c) => c.by === 'noise',
    }),
    speed: number({
      label: 'Speed',
      help: 'How fast they change; 0 stands still.',
      default: 0.3,
      range: [0, 2],
      shownIf: (c) => c.by === 'noise',
    }),
    frame: point({
      label: 'Image size',
      help: 'Width and height over which the image lies.',
      default: [1, 1],
      range: [0.1, 3],
      min: 0.0001,
      shownIf: (c) => c.by === 'image',
    }),
  },
  moves: (c) => c.by === 'noise' && c.speed !== 0,
  helpers: [hashGlsl, noiseGlsl],
  derived: { at: 'float' },
  derive: ({ speed }, moment) => ({ at: moment.time * speed }),
  field: {
    type: 'warp',
    place: 'return p;',
    // A surface that is moved is steeper than a distance may be: shorter steps keep rays from passing through it.
    distance: `if ($by == 1) return (d - $strength * dot(@image(p.xy / $frame + 0.5).rgb, vec3(0.2126, 0.7152, 0.0722))) * 0.6;
    return (d - $strength * noise3(p / $period + vec3(0.0, 0.0, $at))) / (1.0 + 2.0 * abs($strength) / $period);`,
  },
});
