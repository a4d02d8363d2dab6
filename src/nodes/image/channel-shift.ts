import { amount, angle, choice, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { outsideGlsl, outside } from '../glsl/colour';

export default imageKind({
  id: 'channel-shift',
  label: 'Channel Shift',
  summary: 'Moves red and blue apart, so that edges show colours.',
  words: ['chromatic', 'fringe', 'split', 'rgb', 'glitch', 'aberration', 'offset'],
  inputs: {
    picture: { label: 'Picture', help: 'Whose channels are moved.', carries: 'image', reads: 'many' },
  },
  controls: {
    form: choice({
      label: 'Form',
      help: 'Along one direction, or outwards from the middle as a lens does.',
      options: { line: 'Along a direction', lens: 'From the middle' },
      default: 'line',
    }),
    distance: number({
      label: 'Distance',
      help: 'How far red and blue are moved, each its own way, in pixels of a picture 1080 high.',
      default: 3,
      range: [-20, 20],
      min: -2000,
      max: 2000,
      unit: 'px',
    }),
    turn: angle({
      label: 'Turn',
      help: 'The direction.',
      default: 0,
      range: [0, 360],
      shownIf: (c) => c.form === 'line',
    }),
    outside: outside('hold'),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    helpers: [outsideGlsl],
    body: `
      vec2 c = (p - 0.5) * vec2(aspect, 1.0);
      vec2 way = $form == 0 ? vec2(cos($turn), sin($turn)) : c * 2.0;
      vec2 step_ = way * $distance / 1080.0 / vec2(aspect, 1.0);
      vec3 low = outsidePlace(p + step_, $outside);
      vec3 high = outsidePlace(p - step_, $outside);
      vec4 red = @picture(low.xy) * low.z;
      vec4 blue = @picture(high.xy) * high.z;
      vec4 middle = @picture(p);
      return vec4(red.r, middle.g, blue.b, max(middle.a, max(red.a, blue.a)));
    `,
  },
});
