import { choice, file } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { fit, fitGlsl } from '../glsl/media';

/** A crest or a word is to be seen whole; a photograph covers by one choice. */
const whole = { ...fit, default: 'contain' } as const;

export default imageKind({
  id: 'picture',
  label: 'Picture',
  summary: 'A still from a file: PNG, JPEG, WebP, AVIF, EXR, HDR, or SVG drawn sharp at any size.',
  words: ['image', 'photo', 'logo', 'vector', 'svg', 'still', 'import', 'file', 'texture'],
  inputs: {},
  controls: {
    file: file({
      label: 'File',
      help: 'The picture: one of the show’s files, or one that ships with Pyrvel.',
      accepts: 'picture',
      default: 'shipped:comb-crest.svg',
    }),
    fit: whole,
    reading: choice({
      label: 'Reading',
      help: 'Smooth mixes pixels; crisp shows each as it is.',
      options: { smooth: 'Smooth', crisp: 'Crisp' },
      default: 'smooth',
    }),
  },
  paint: {
    type: 'shader',
    helpers: [fitGlsl],
    sheets: { pixels: { from: 'file', control: 'file' } },
    body: `
      vec2 q = fitPlace(p, @pixels.size, aspect, pixel, $fit);
      float inside = insidePlace(q);
      if ($reading == 1) q = (floor(q * @pixels.size) + 0.5) / @pixels.size;
      return @pixels(q) * inside;
    `,
  },
});
