import { amount, colour, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

/** Each level is half as large as the one before: seven reach across a screen of 2,160 lines. */
const levels = 7;

interface Spread {
  reach: number;
}

/** How many levels are needed, with the share of the last: the reach of a level is about twice its own pixels. */
const depth = (reach: number, height: number): number =>
  Math.min(levels, Math.max(1, Math.log2(Math.max(2, (reach * height) / 2))));

/** Wide light counts for more: a halo is seen by its outer part, the inner one drowns in what shines. */
const weight = (reach: number, height: number, level: number): number =>
  level * Math.min(1, Math.max(0, depth(reach, height) - level + 1));

const last = (reach: number, height: number): number =>
  Math.min(levels, Math.floor(depth(reach, height)) + 1);

/** Reads four places between pixels: a mean of 4 x 4 pixels of the picture before, which is twice as large. */
const shrink =
  '0.25 * (@previous(p + 0.5 * pixel) + @previous(p - 0.5 * pixel) + @previous(p + vec2(0.5, -0.5) * pixel) + @previous(p + vec2(-0.5, 0.5) * pixel))';

/** A tent of 3 x 3 over the smaller picture, so that its pixels do not show. */
const grow = `
  vec2 o = 1.0 / @previous.size;
  vec4 wide = 0.25 * @previous(p)
    + 0.125 * (@previous(p + vec2(o.x, 0.0)) + @previous(p - vec2(o.x, 0.0)) + @previous(p + vec2(0.0, o.y)) + @previous(p - vec2(0.0, o.y)))
    + 0.0625 * (@previous(p + o) + @previous(p - o) + @previous(p + vec2(o.x, -o.y)) + @previous(p + vec2(-o.x, o.y)));`;

const scaleOf = (level: number) => (): number => 2 ** -level;

interface GlowPass {
  name?: string;
  scale(): number;
  skip(c: Spread, height: number): boolean;
  body: string;
}

const down = (level: number): GlowPass => ({
  name: `d${level}`,
  scale: scaleOf(level),
  skip: (c, height) => level > last(c.reach, height),
  body:
    level === 1
      ? `
      vec4 v = ${shrink};
      float most = max(v.r, max(v.g, v.b));
      float over = max(0.0, most - $threshold);
      // A soft knee: light just over the threshold comes in gently, and nothing flickers at its edge.
      float share = over * over / max((over + $knee) * most, 1e-4);
      return v * share;`
      : `return ${shrink};`,
});

const up = (level: number): GlowPass => ({
  scale: scaleOf(level),
  skip: (c, height) => level >= last(c.reach, height),
  body: `${grow}
      return @d${level}(p) * $w${level} + wide * $carry${level};`,
});

const numbers = Object.fromEntries(
  Array.from({ length: levels }, (_, k) => [
    [`w${k + 1}`, 'float'],
    [`carry${k + 1}`, 'float'],
  ]).flat(),
) as Record<string, 'float'>;

export default imageKind({
  id: 'glow',
  label: 'Glow',
  summary: 'Lets what is bright shine over its edges, near or far.',
  words: ['bloom', 'shine', 'halo', 'light', 'neon', 'aura', 'glare'],
  example: {
    controls: { strength: 2.5, threshold: 0.2 },
    feed: { kind: 'beam', controls: { form: 'star', halo: 0, core: 0.03 } },
  },
  inputs: { picture: { label: 'Picture', help: 'What shines.', carries: 'image', reads: 'many' } },
  controls: {
    strength: number({
      label: 'Strength',
      help: 'How much light is added.',
      default: 0.8,
      range: [0, 3],
      min: 0,
      max: 50,
    }),
    threshold: number({
      label: 'Threshold',
      help: 'Brightness above which light shines; 0 lets everything.',
      default: 0.5,
      range: [0, 1.5],
      min: 0,
      max: 20,
    }),
    knee: number({
      label: 'Knee',
      help: 'How gently the threshold sets in.',
      default: 0.15,
      range: [0, 1],
      min: 0,
      max: 10,
    }),
    reach: number({
      label: 'Spread',
      help: 'How far it shines, in picture heights.',
      default: 0.15,
      range: [0.01, 0.6],
      min: 0.002,
      max: 2,
    }),
    tint: colour({
      label: 'Tint',
      help: 'The light that is added takes this colour.',
      default: [1, 1, 1, 1],
    }),
    amount,
  },
  paint: {
    type: 'passes',
    derived: { ...numbers, share: 'float' },
    derive(c, _moment, height) {
      const values: Record<string, number> = {};
      let sum = 0;
      for (let level = 1; level <= levels; level++) {
        const w = weight(c.reach, height, level);
        sum += w;
        values[`w${level}`] = w;
        // The smallest level comes unweighed into the first step up.
        values[`carry${level}`] =
          level + 1 === last(c.reach, height) ? weight(c.reach, height, level + 1) : 1;
      }
      values.share = (c.strength * c.amount) / Math.max(1, sum * 0.45);
      return values;
    },
    passes: [
      ...Array.from({ length: levels }, (_, k) => down(k + 1)),
      ...Array.from({ length: levels - 1 }, (_, k) => up(levels - 1 - k)),
      {
        body: `${grow}
      vec4 s = @picture(p);
      vec4 light = wide * $share * vec4($tint.rgb, 1.0);
      return vec4(s.rgb + light.rgb, s.a + clamp(light.a, 0.0, 1.0) * (1.0 - s.a));`,
      },
    ],
  },
});
