import { amount, angle, choice, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

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
const across = (direction: string): string => `
      vec2 along = ${direction};
      vec4 sum = @previous(p);
      float total = 1.0;
      float g = 1.0;
      float fall = exp(-2.0 / max($reach * $reach, 1e-3));
      float faster = fall * fall;
      for (float a = 1.0; a <= $reach + 1.0; a += 2.0) {
        float near = (g *= fall); fall *= faster;
        float far = (g *= fall); fall *= faster;
        float w = near + far;
        vec2 o = along * (a + far / max(w, 1e-9));
        sum += (@previous(p + o) + @previous(p - o)) * w;
        total += 2.0 * w;
      }
      return sum / total;`;

export default imageKind({
  id: 'blur',
  label: 'Blur',
  summary: 'Softens a picture, evenly or along one direction.',
  words: ['soft', 'gaussian', 'defocus', 'smooth', 'motion blur', 'haze'],
  inputs: { picture: { label: 'Picture', help: 'What is softened.', carries: 'image', reads: 'many' } },
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
    amount,
  },
  paint: {
    type: 'passes',
    derived: { reach: 'float' },
    derive: (c, _moment, height) => ({ reach: c.radius * height * share(c.radius, height) }),
    passes: [
      {
        scale: (c, height) => share(c.radius, height),
        skip: (c, height) => share(c.radius, height) === 1,
        body: 'return (@previous(p + pixel * vec2(0.25, 0.25)) + @previous(p + pixel * vec2(-0.25, 0.25)) + @previous(p + pixel * vec2(0.25, -0.25)) + @previous(p + pixel * vec2(-0.25, -0.25))) * 0.25;',
      },
      {
        scale: (c, height) => share(c.radius, height),
        skip: (c) => c.radius <= 0,
        body: across('pixel * ($form == 1 ? vec2(cos($turn), sin($turn)) : vec2(1.0, 0.0))'),
      },
      {
        scale: (c, height) => share(c.radius, height),
        skip: (c) => c.form === 'directed' || c.radius <= 0,
        body: across('pixel * vec2(0.0, 1.0)'),
      },
      {
        skip: (c, height) => c.radius > 0 && share(c.radius, height) === 1 && c.amount >= 1,
        body: 'vec4 soft = @previous(p); return $amount < 1.0 ? mix(@picture(p), soft, $amount) : soft;',
      },
    ],
  },
});
