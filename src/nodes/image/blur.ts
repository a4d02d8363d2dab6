import { amount, angle, choice, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { channelGlsl, channelOptions } from '../glsl/colour';

/** Radius in pixels above which a smaller picture is blurred instead, which looks the same and stays cheap. */
const widestPx = 6;

function share(radiusHeights: number, height: number): number {
  const radius = radiusHeights * height;
  let scale = 1;
  while (radius * scale > widestPx && scale > 1 / 32) scale /= 2;
  return scale;
}

// Two taps of a filtered read stand for each pair of pixels; the weights are a Gaussian of deviation radius / 2, worked out
// step by step (Turkowski, "Incremental Computation of the Gaussian", GPU Gems 3) and added up as they are used, so that
// brightness is kept at any radius.
const across = (reach: string, direction: string): string => `
      vec2 along = ${direction};
      vec4 sum = @previous(p);
      float total = 1.0;
      float g = 1.0;
      float fall = exp(-2.0 / max($${reach} * $${reach}, 1e-3));
      float faster = fall * fall;
      float a = 1.0;
      do {
        float near = (g *= fall); fall *= faster;
        float far = (g *= fall); fall *= faster;
        float w = near + far;
        vec2 o = along * (a + far / max(w, 1e-9));
        sum += (@previous(p + o) + @previous(p - o)) * w;
        total += 2.0 * w;
        a += 2.0;
      } while (a <= $${reach} + 1.0);
      return sum / total;`;

/** Where a map asks for less than the whole radius, a picture of this share of it stands between sharp and soft. */
const nearShare = 0.25;

interface Reach {
  radius: number;
  form: string;
}
type Has = (input: string) => boolean;

interface BlurPass {
  scale(c: Reach, height: number): number;
  skip(c: Reach, height: number, has: Has): boolean;
  body: string;
}

/** Halves the picture until the radius is a few of its pixels, and blurs it along both axes. */
function softened(
  reach: string,
  radius: (c: Reach) => number,
  never: (c: Reach, has: Has) => boolean,
): BlurPass[] {
  const halve = (level: number): BlurPass => ({
    scale: () => 2 ** -level,
    // Never back to a larger picture: what comes in may be small already.
    skip: (c, height, has) =>
      never(c, has) ||
      share(radius(c), height) > 2 ** -level ||
      (reach === 'reachWide' && has('radiusMap') && share(nearShare * c.radius, height) <= 2 ** -level),
    body: `return (@previous(p + pixel * vec2(0.25, 0.25)) + @previous(p + pixel * vec2(-0.25, 0.25)) + @previous(p + pixel * vec2(0.25, -0.25)) + @previous(p + pixel * vec2(-0.25, -0.25))) * 0.25;`,
  });
  const blur = (direction: string, idle: (c: Reach) => boolean): BlurPass => ({
    scale: (c, height) => share(radius(c), height),
    skip: (c, _height, has) => never(c, has) || c.radius <= 0 || idle(c),
    body: across(reach, direction),
  });
  return [
    ...[1, 2, 3, 4, 5].map(halve),
    blur('pixel * ($form == 1 ? vec2(cos($turn), sin($turn)) : vec2(1.0, 0.0))', () => false),
    blur('pixel * vec2(0.0, 1.0)', (c) => c.form === 'directed'),
  ];
}

export default imageKind({
  id: 'blur',
  label: 'Blur',
  summary: 'Softens a picture, evenly or along one direction.',
  words: ['soft', 'gaussian', 'defocus', 'smooth', 'motion blur', 'haze', 'soften'],
  example: {
    controls: { radius: 0.06 },
    feed: { kind: 'lattice', controls: { form: 'boxes', cells: [6, 6], part: 0.6 } },
  },
  inputs: {
    picture: { label: 'Picture', help: 'What is softened.', carries: 'image', reads: 'many' },
    radiusMap: {
      label: 'Radius map',
      help: 'Share of the radius at each place: black stays sharp, white is blurred in full. Empty: the same everywhere.',
      carries: 'image',
      reads: 'many',
    },
  },
  controls: {
    radius: number({
      label: 'Radius',
      help: 'Reach of the blur, in picture heights.',
      default: 0.02,
      range: [0, 0.2],
      min: 0,
      max: 1,
    }),
    form: choice({
      label: 'Form',
      help: 'In all directions, or along one.',
      options: { even: 'Even', directed: 'Along a direction' },
      default: 'even',
    }),
    turn: angle({
      label: 'Direction',
      help: 'Along which it is blurred.',
      default: 0,
      range: [0, 180],
      shownIf: (c) => c.form === 'directed',
    }),
    channel: choice({
      label: 'Map from',
      help: 'Which channel of the radius map counts.',
      options: channelOptions,
      default: 'brightness',
    }),
    amount,
  },
  paint: {
    type: 'passes',
    helpers: [channelGlsl],
    derived: { reachNear: 'float', reachWide: 'float' },
    derive: (c, _moment, height) => ({
      reachNear: nearShare * c.radius * height * share(nearShare * c.radius, height),
      reachWide: c.radius * height * share(c.radius, height),
    }),
    passes: [
      ...softened(
        'reachNear',
        (c) => nearShare * c.radius,
        (_c, has) => !has('radiusMap'),
      ),
      { name: 'near', skip: () => true, body: 'return @previous(p);' },
      ...softened(
        'reachWide',
        (c) => c.radius,
        () => false,
      ),
      {
        skip: (c, height, has) =>
          !has('radiusMap') && c.radius > 0 && share(c.radius, height) === 1 && c.amount >= 1,
        body: `
      vec4 soft = @previous(p);
      float m = @radiusMap.wired ? clamp(channelOf(@radiusMap(p), $channel), 0.0, 1.0) : 1.0;
      if (@radiusMap.wired) {
        vec4 near = @near(p);
        soft = m < ${nearShare} ? mix(@picture(p), near, m / ${nearShare}) : mix(near, soft, (m - ${nearShare}) / ${1 - nearShare});
      }
      return $amount < 1.0 ? mix(@picture(p), soft, $amount) : soft;`,
      },
    ],
  },
});
