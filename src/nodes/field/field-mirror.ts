import { number, toggle } from '../../core/kind/controls';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-mirror',
  label: 'Field Mirror',
  summary: 'Mirrors a field across planes through the middle.',
  words: ['symmetry', 'reflect', 'kaleidoscope', 'fold'],
  inputs: { field: { label: 'Field', help: 'What is mirrored.', carries: 'field' } },
  controls: {
    x: toggle({ label: 'Left and right', help: 'What is right shows on both sides.', default: true }),
    y: toggle({ label: 'Up and down', help: 'What is above shows on both sides.', default: false }),
    z: toggle({ label: 'Front and back', help: 'What is in front shows on both sides.', default: false }),
    offset: number({
      label: 'Apart',
      help: 'Moves both sides away from the plane.',
      default: 0,
      range: [-0.5, 0.5],
    }),
  },
  field: {
    type: 'warp',
    place: `vec3 way = vec3($x, $y, $z); return mix(p, abs(p) - $offset, way);`,
  },
});
