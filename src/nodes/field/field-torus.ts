import { number } from '../../core/kind/controls';
import { fieldLook } from '../../core/kind/field-look';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-torus',
  label: 'Field Torus',
  summary: 'A ring with a round section as a distance field.',
  words: ['donut', 'ring', 'hoop', 'sdf', 'distance field'],
  inputs: {},
  controls: {
    radius: number({
      label: 'Radius',
      help: 'From its middle to the middle of its tube.',
      default: 0.3,
      range: [0, 1],
      min: 0,
    }),
    tube: number({ label: 'Tube', help: 'Radius of the tube.', default: 0.09, range: [0, 0.4], min: 0 }),
    ...fieldLook,
  },
  field: { type: 'solid', distance: `return length(vec2(length(p.xz) - $radius, p.y)) - $tube;` },
});
