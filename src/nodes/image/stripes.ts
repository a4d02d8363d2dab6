import { angle, choice, colour, number, point, whole } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { cyclesAt } from '../../core/time/clock';
import { alphaGlsl } from '../glsl/colour';

export default imageKind({
  id: 'stripes',
  label: 'Stripes',
  summary: 'One or two crossed families of stripes that travel by whole periods.',
  words: ['lines', 'bars', 'slats', 'checker', 'grid', 'bands', 'louvre', 'loop'],
  inputs: {},
  controls: {
    families: choice({
      label: 'Families',
      help: 'One family of stripes, two laid over each other, or a checker of both.',
      options: { one: 'One', two: 'Two crossed', checker: 'Checker' },
      default: 'one',
    }),
    by: choice({
      label: 'By',
      help: 'A number of periods in the height, or the length of a period.',
      options: { count: 'Periods in the height', size: 'Pixels a period' },
      default: 'count',
    }),
    count: point({
      label: 'Count',
      help: 'Periods in the height of the picture, of the first and the second family.',
      default: [9, 9],
      range: [1, 60],
      min: 0.01,
      max: 4096,
      shownIf: (c) => c.by === 'count',
    }),
    period: point({
      label: 'Period',
      help: 'Length of a period in pixels of this picture, of the first and the second family.',
      default: [40, 40],
      range: [4, 400],
      min: 1,
      max: 8192,
      unit: 'px',
      shownIf: (c) => c.by === 'size',
    }),
    share: point({
      label: 'Share',
      help: 'How much of a period is stripe, of each family.',
      default: [0.5, 0.5],
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    softness: number({
      label: 'Softness',
      help: 'Width of the soft edge, as a share of the stripe; edges are never harder than a pixel.',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    turn: angle({
      label: 'Turn',
      help: 'Turns everything, with its travel.',
      default: 0,
      range: [-180, 180],
    }),
    crossing: angle({
      label: 'Crossing angle',
      help: 'Between the two families.',
      default: 90,
      range: [10, 170],
      shownIf: (c) => c.families !== 'one',
    }),
    travel: point({
      label: 'Travel',
      help: 'Moves each family on, in periods: every whole number looks the same again.',
      default: [0, 0],
      range: [0, 1],
    }),
    periods: whole({
      label: 'Periods a loop',
      help: 'How many whole periods the stripes travel in one loop; 0 stands still. A checker counts two cells.',
      default: 0,
      range: [-8, 8],
      min: -1000,
      max: 1000,
    }),
    loop: number({
      label: 'Loop',
      help: 'Length of the loop, after which the picture is the first again.',
      default: 4,
      range: [0.5, 30],
      min: 0.01,
      max: 3600,
      unit: 's',
      pace: 'period',
    }),
    ink: colour({ label: 'First colour', help: 'Of the first family.', default: [0.94, 0.65, 0.23, 1] }),
    second: colour({
      label: 'Second colour',
      help: 'Of the second family.',
      default: [0.37, 0.78, 0.75, 1],
      shownIf: (c) => c.families === 'two',
    }),
    ground: colour({ label: 'Ground', help: 'Between the stripes.', default: [0, 0, 0, 1] }),
    burn: number({
      label: 'Burn',
      help: 'How much stronger the colours are where stripes cross.',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
      shownIf: (c) => c.families === 'two',
    }),
    light: number({
      label: 'Light falloff',
      help: 'How dark it gets away from the lit line; 0 lights everything.',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    lightTurn: angle({
      label: 'Light direction',
      help: 'Along which the light falls off.',
      default: 0,
      range: [-180, 180],
      shownIf: (c) => c.light !== 0,
    }),
    lightWidth: number({
      label: 'Light width',
      help: 'Width of the lit part, in heights.',
      default: 0.8,
      range: [0.1, 3],
      min: 0.001,
      max: 100,
      shownIf: (c) => c.light !== 0,
    }),
  },
  moves: (c) => c.periods !== 0,
  paint: {
    type: 'shader',
    helpers: [
      alphaGlsl,
      `
float stripeCover(float x, float share, float softness, float px) {
  float d = abs(fract(x) - 0.5) * 2.0;
  float edge = max(softness * share, px * 2.0);
  return share <= 0.0 ? 0.0 : share >= 1.0 ? 1.0 : 1.0 - smoothstep(share - edge * 0.5, share + edge * 0.5, d);
}
`,
    ],
    derived: { run: 'float' },
    derive(c, moment) {
      const turns = cyclesAt(moment, 1 / c.loop, 'hertz');
      return { run: (turns - Math.floor(turns)) * c.periods };
    },
    body: `
      vec2 c = (p - 0.5) * vec2(aspect, 1.0);
      vec2 across = vec2(cos($turn), sin($turn));
      vec2 other = vec2(cos($turn + $crossing), sin($turn + $crossing));
      vec2 count = $by == 0 ? $count : 1.0 / (max($period, 1.0) * pixel.y);
      float a = dot(c, across) * count.x - $travel.x - $run;
      float b = dot(c, other) * count.y - $travel.y - $run;
      float first = stripeCover(a, $share.x, $softness, pixel.y * count.x);
      float next = $families == 0 ? 0.0 : stripeCover(b, $share.y, $softness, pixel.y * count.y);
      vec4 v = premultiplied($ground);
      if ($families == 2) v = mix(v, premultiplied($ink), first + next - 2.0 * first * next);
      else {
        v = mix(v, premultiplied($ink), first);
        v = mix(v, premultiplied($second), next * (1.0 - 0.5 * first));
        if ($families == 1) v.rgb = mix(v.rgb, v.rgb * v.rgb * 1.6, $burn * first * next);
      }
      float off = abs(dot(c, vec2(cos($lightTurn), sin($lightTurn)))) / max($lightWidth, 0.001);
      v.rgb *= 1.0 - $light * smoothstep(0.0, 1.0, off);
      return v;
    `,
  },
});
