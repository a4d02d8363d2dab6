import { amount, angle, colour, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

type Matrix = readonly [number, number, number, number, number, number, number, number, number];

/** hueRotate and saturate of the Filter Effects Module Level 1 (W3C): brightness is kept. */
const grey = [0.213, 0.715, 0.072] as const;

function saturate(s: number): Matrix {
  const [r, g, b] = grey;
  return [
    r + (1 - r) * s,
    g - g * s,
    b - b * s,
    r - r * s,
    g + (1 - g) * s,
    b - b * s,
    r - r * s,
    g - g * s,
    b + (1 - b) * s,
  ];
}

function turnHue(a: number): Matrix {
  const [r, g, b] = grey;
  const c = Math.cos(a);
  const s = Math.sin(a);
  return [
    r + c * (1 - r) - s * r,
    g - c * g - s * g,
    b - c * b + s * (1 - b),
    r - c * r + s * 0.143,
    g + c * (1 - g) + s * 0.14,
    b - c * b - s * 0.283,
    r - c * r - s * (1 - r),
    g - c * g + s * g,
    b + c * (1 - b) + s * b,
  ];
}

const times = (a: Matrix, b: Matrix): number[] =>
  a.map((_, k) => {
    const row = Math.floor(k / 3) * 3;
    return a[row] * b[k % 3] + a[row + 1] * b[(k % 3) + 3] + a[row + 2] * b[(k % 3) + 6];
  });

export default imageKind({
  id: 'hue-saturation',
  label: 'Hue & Saturation',
  summary: 'Turns the colours round, makes them stronger or grey, lighter or darker, or tints them.',
  words: [
    'colour',
    'recolour',
    'grey',
    'desaturate',
    'vivid',
    'tint',
    'grade',
    'lightness',
    'black and white',
  ],
  example: { controls: { hue: 150 } },
  inputs: { picture: { label: 'Picture', help: 'What is recoloured.', carries: 'image' } },
  controls: {
    hue: angle({ label: 'Hue', help: 'Turns all colours round the circle.', default: 0, range: [-180, 180] }),
    saturation: number({
      label: 'Saturation',
      help: '0 is grey, 1 as it comes, 2 twice as strong.',
      default: 1,
      range: [0, 2],
      min: -4,
      max: 8,
    }),
    lightness: number({
      label: 'Lightness',
      help: 'Towards white above 0, towards black below.',
      default: 0,
      range: [-1, 1],
      min: -1,
      max: 1,
    }),
    tint: colour({ label: 'Tint', help: 'Every colour is multiplied by this one.', default: [1, 1, 1, 1] }),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    derived: { toRed: 'vec3', toGreen: 'vec3', toBlue: 'vec3', lift: 'float' },
    // All of it is linear, so that one matrix holds hue, saturation, tint and lightness together.
    derive(c) {
      const m = times(saturate(c.saturation), turnHue(c.hue));
      const share = 1 - Math.abs(c.lightness);
      const row = (k: number): number[] => m.slice(3 * k, 3 * k + 3).map((v) => v * c.tint[k] * share);
      return { toRed: row(0), toGreen: row(1), toBlue: row(2), lift: Math.max(0, c.lightness) };
    },
    body: `
      vec3 v = vec3(dot($toRed, source.rgb), dot($toGreen, source.rgb), dot($toBlue, source.rgb));
      return vec4(v + $lift * source.a, source.a);
    `,
  },
});
