import { vector } from '../../core/kind/controls';
import { fieldLook } from '../../core/kind/field-look';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-box',
  label: 'Field Box',
  summary: 'A box as a distance field.',
  words: ['cube', 'block', 'sdf', 'distance field'],
  inputs: {},
  controls: {
    size: vector({
      label: 'Size',
      help: 'Width, height and depth.',
      default: [0.5, 0.5, 0.5],
      range: [0, 2],
      min: 0,
    }),
    ...fieldLook,
  },
  field: {
    type: 'solid',
    distance: `vec3 q = abs(p) - $size * 0.5; return length(max(q, 0.0)) + min(max(q.x, max(q.y, q.z)), 0.0);`,
  },
});
