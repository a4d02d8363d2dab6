import { number, toggle } from '../../core/kind/controls';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-round',
  label: 'Field Round',
  summary: 'Rounds the corners of a field by growing it.',
  words: ['bevel', 'soften', 'smooth corners', 'inflate', 'grow'],
  example: { controls: { radius: 0.08 } },
  inputs: { field: { label: 'Field', help: 'What is rounded.', carries: 'field' } },
  controls: {
    radius: number({
      label: 'Radius',
      help: 'Of the rounded corners; the whole grows by as much.',
      default: 0.05,
      range: [0, 0.3],
    }),
    keep: toggle({
      label: 'Keeps its size',
      help: 'Scaled down first, so that a thing of about size 1 stays as large.',
      default: false,
    }),
  },
  derived: { grown: 'float' },
  derive: ({ keep, radius }) => ({ grown: keep ? 1 / Math.max(0.01, 1 - 2 * radius) : 1 }),
  field: {
    type: 'warp',
    place: `return p * $grown;`,
    distance: `return d / $grown - $radius;`,
  },
});
