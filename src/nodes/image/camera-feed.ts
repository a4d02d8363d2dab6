import { device, toggle } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { fit, fitGlsl } from '../glsl/media';

export default imageKind({
  id: 'camera-feed',
  label: 'Camera Feed',
  summary: 'What a camera sees now, or the simulated one that ships with Pyrvel.',
  words: ['webcam', 'live video', 'input', 'capture', 'device'],
  inputs: {},
  controls: {
    camera: device({
      label: 'Camera',
      help: 'A camera of this machine, or the stand-in, a keeper before the panes of a glasshouse.',
      default: '',
    }),
    fit,
    flip: toggle({ label: 'Flip', help: 'Left and right exchanged, as in a looking glass.', default: true }),
  },
  moves: () => true,
  paint: {
    type: 'shader',
    helpers: [fitGlsl],
    sheets: { view: { from: 'camera', device: (c) => c.camera } },
    body: `
      vec2 q = fitPlace(p, @view.size, aspect, pixel, $fit);
      float inside = insidePlace(q);
      if ($flip) q.x = 1.0 - q.x;
      return @view(q) * inside;
    `,
  },
});
