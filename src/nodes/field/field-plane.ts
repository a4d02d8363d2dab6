import { number, vector } from '../../core/kind/controls';
import { fieldLook } from '../../core/kind/field-look';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-plane',
  label: 'Field Plane',
  summary: 'An endless floor or wall as a distance field.',
  words: ['floor', 'ground', 'wall', 'half space', 'sdf', 'distance field'],
  inputs: {},
  controls: {
    normal: vector({
      label: 'Looks to',
      help: 'The way its surface looks.',
      default: [0, 1, 0],
      range: [-1, 1],
    }),
    offset: number({
      label: 'Offset',
      help: 'How far it lies from 0, 0, 0 along that way.',
      default: -0.4,
      range: [-1, 1],
    }),
    ...fieldLook,
  },
  derived: { way: 'vec3' },
  derive({ normal }) {
    const length = Math.hypot(...normal);
    return { way: length > 0 ? normal.map((v) => v / length) : [0, 1, 0] };
  },
  field: { type: 'solid', distance: `return dot(p, $way) - $offset;` },
});
