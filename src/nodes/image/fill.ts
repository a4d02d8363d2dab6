import { colour } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

export default imageKind({
  id: 'fill',
  label: 'Fill',
  summary: 'One colour everywhere, also see-through.',
  words: ['solid', 'background', 'constant', 'flat colour', 'black'],
  inputs: {},
  controls: {
    colour: colour({
      label: 'Colour',
      help: 'The colour; its alpha is how much it covers.',
      default: [0.94, 0.65, 0.23, 1],
    }),
  },
  paint: { type: 'shader', body: 'return vec4($colour.rgb * $colour.a, $colour.a);' },
});
