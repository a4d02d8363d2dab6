import { vector } from '../../core/kind/controls';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-repeat',
  label: 'Field Repeat',
  summary: 'Repeats a field in a grid.',
  words: ['grid', 'array', 'tile', 'endless', 'infinite'],
  example: { controls: { spacing: [0.4, 0.4, 0] } },
  inputs: {
    field: { label: 'Field', help: 'What is repeated; it should fit into one step.', carries: 'field' },
  },
  controls: {
    spacing: vector({
      label: 'Spacing',
      help: 'From each to the next; 0 repeats nothing along that axis.',
      default: [0.6, 0.6, 0],
      range: [0, 2],
      min: 0,
    }),
    counts: vector({
      label: 'To each side',
      help: 'How many there are beside the middle one.',
      default: [1, 1, 0],
      range: [0, 8],
      min: 0,
    }),
  },
  field: {
    type: 'warp',
    place: `return p - $spacing * clamp(floor(p / max($spacing, vec3(1e-5)) + 0.5), -floor($counts + 0.5), floor($counts + 0.5)) * step(vec3(1e-5), $spacing);`,
  },
});
