import { choice, number, toggle, vector, whole } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { cyclesAt } from '../../core/time/clock';
import { hashGlsl, noiseGlsl, simplexGlsl, layersGlsl } from '../glsl/noise';

export default imageKind({
  id: 'noise',
  label: 'Noise',
  summary: 'Clouds, cells, ridges or grains that can drift along a third axis.',
  words: [
    'cloud',
    'smoke',
    'random',
    'texture',
    'fog',
    'organic',
    'cells',
    'static',
    'fire',
    'clouds',
    'stars',
  ],
  inputs: {},
  controls: {
    form: choice({
      label: 'Form',
      help: 'What the noise is made of.',
      options: {
        gradient: 'Gradient',
        value: 'Value',
        cellular: 'Cellular',
        ridged: 'Ridged',
        random: 'Random pixels',
        simplex: 'Simplex',
      },
      default: 'gradient',
    }),
    channels: choice({
      label: 'Channels',
      help: 'One noise for all colours, or a noise of its own for each.',
      options: { one: 'One', three: 'Three' },
      default: 'one',
    }),
    period: number({
      label: 'Period',
      help: 'Size of the largest clouds, in picture heights.',
      default: 0.35,
      range: [0.02, 1.5],
      min: 0.001,
      max: 100,
    }),
    stretch: number({
      label: 'Stretch',
      help: 'Above 1 makes clouds wider than high, below 1 higher than wide.',
      default: 1,
      range: [0.25, 4],
      min: 0.01,
      max: 100,
    }),
    octaves: whole({
      label: 'Octaves',
      help: 'How many layers of finer detail are added.',
      default: 3,
      range: [1, 8],
      min: 1,
      max: 8,
    }),
    roughness: number({
      label: 'Roughness',
      help: 'How strong each finer layer is, measured by the one before.',
      default: 0.5,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    amplitude: number({
      label: 'Amplitude',
      help: 'Strength around the middle grey.',
      default: 0.5,
      range: [0, 1.5],
      min: -20,
      max: 20,
    }),
    offset: number({
      label: 'Offset',
      help: 'The middle value, where the noise is zero.',
      default: 0.5,
      range: [0, 1],
      min: -20,
      max: 20,
    }),
    exponent: number({
      label: 'Exponent',
      help: 'Above 1 leaves only the peaks bright, below 1 lifts the valleys.',
      default: 1,
      range: [0.2, 5],
      min: 0.01,
      max: 20,
    }),
    contrast: number({
      label: 'Contrast',
      help: 'Spreads values away from the middle grey.',
      default: 1,
      range: [0, 4],
      min: 0,
      max: 50,
    }),
    place: vector({
      label: 'Place',
      help: 'Moves the view through the noise, in heights.',
      default: [0, 0, 0],
      range: [-2, 2],
    }),
    rate: number({
      label: 'Rate',
      help: 'Cells a second along the third axis; 0 stands still.',
      default: 0.15,
      range: [0, 2],
      min: -100,
      max: 100,
      unit: '/s',
    }),
    loop: number({
      label: 'Loop',
      help: 'Comes back to its start after this time, exactly; 0 goes on forever.',
      onOff: true,
      default: 0,
      range: [0, 16],
      min: 0,
      max: 3600,
      unit: 's',
      pace: 'period',
    }),
    tile: toggle({
      label: 'Tileable',
      help: 'The left edge meets the right one and the top the bottom.',
      default: false,
    }),
    seed: whole({
      label: 'Seed',
      help: 'Another noise of the same form.',
      default: 1,
      range: [1, 99],
      min: 0,
      max: 9999,
    }),
  },
  moves: (c) => c.rate !== 0,
  paint: {
    type: 'shader',
    helpers: [
      hashGlsl,
      noiseGlsl,
      simplexGlsl,
      layersGlsl,
      'float bent(float v, float exponent) { return exponent == 1.0 ? v : sign(v) * pow(abs(v), exponent); }',
    ],
    derived: { travel: 'float', depthCells: 'float' },
    derive(c, moment) {
      if (c.loop <= 0) return { travel: moment.time * c.rate, depthCells: 0 };
      // A loop has to travel a whole number of cells, at least one.
      const cells = Math.max(1, Math.round(Math.abs(c.rate) * c.loop));
      const turns = cyclesAt(moment, 1 / c.loop, 'hertz');
      return { travel: Math.sign(c.rate) * (turns - Math.floor(turns)) * cells, depthCells: cells };
    },
    body: `
      vec2 across = vec2(aspect / max($stretch, 0.01), 1.0);
      vec2 cells = across / $period;
      vec3 wrap = vec3(0.0, 0.0, $depthCells);
      vec2 q = (p - 0.5) * cells + $place.xy / $period;
      if ($tile) { cells = max(vec2(1.0), floor(cells + 0.5)); wrap.xy = cells; q = p * cells + $place.xy / $period; }
      float z = $travel + $place.z / $period;
      // One channel is worked out once, not three times.
      float one = 0.0; vec3 three = vec3(0.0);
      float lift = $seed * 37.0;
      if ($form == 4) {
        vec2 at = floor(p / pixel);
        float slow = floor(z);
        vec3 a = hash33(vec3(at, slow + lift)); vec3 b = hash33(vec3(at, slow + lift + 1.0));
        three = mix(a, b, smoothstep(0.0, 1.0, z - slow)) * 2.0 - 1.0;
        one = three.x;
      } else {
        vec3 shift = vec3(lift * 1.7, lift * 0.9, 0.0);
        if ($tile) shift = vec3(0.0, 0.0, $depthCells > 0.5 ? 0.0 : lift);
        vec3 other = $tile ? vec3(0.0, 0.0, 0.5) : vec3(53.0, 19.0, 0.31);
        vec3 at = vec3(q, z) + shift;
        vec3 next = at + other; vec3 last = at + other * 2.0 + vec3(0.0, 0.0, 0.13);
        if ($tile || $loop?) {
          one = layersWrapped$form(at, wrap, $octaves, $roughness);
          if ($channels == 1) three = vec3(one, layersWrapped$form(next, wrap, $octaves, $roughness), layersWrapped$form(last, wrap, $octaves, $roughness));
        } else {
          one = layers$form(at, vec3(0.0), $octaves, $roughness);
          if ($channels == 1) three = vec3(one, layers$form(next, vec3(0.0), $octaves, $roughness), layers$form(last, vec3(0.0), $octaves, $roughness));
        }
      }
      if ($channels == 0) {
        one = bent(one * $amplitude + $offset, $exponent);
        return vec4(vec3((one - 0.5) * $contrast + 0.5), 1.0);
      }
      three = three * $amplitude + $offset;
      three = vec3(bent(three.x, $exponent), bent(three.y, $exponent), bent(three.z, $exponent));
      return vec4((three - 0.5) * $contrast + 0.5, 1.0);
    `,
  },
});
