import { number } from '../../core/kind/controls';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-shell',
  label: 'Field Shell',
  summary: 'Makes a field hollow: a wall on both sides of its surface.',
  words: ['hollow', 'skin', 'wall', 'onion', 'outline'],
  inputs: { field: { label: 'Field', help: 'What becomes hollow.', carries: 'field' } },
  controls: {
    thickness: number({ label: 'Thickness', help: 'Of the wall.', default: 0.04, range: [0, 0.3], min: 0 }),
  },
  field: {
    type: 'warp',
    place: `return p;`,
    distance: `return abs(d) - $thickness * 0.5;`,
  },
});
