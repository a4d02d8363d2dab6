import { toggle, vector, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { checkPoints } from '../../core/shape/repeat';
import { pointGrid } from '../../core/shape/scatter';

export default shapeKind({
  id: 'point-grid',
  label: 'Point Grid',
  summary: 'Points in columns, rows and layers, centred.',
  words: ['lattice', 'matrix', 'array', 'rows', 'columns', 'cube of points', 'dots', 'layout'],
  inputs: {},
  controls: {
    columns: whole({
      label: 'Columns',
      help: 'Points across.',
      default: 12,
      range: [1, 64],
      min: 1,
      max: 1024,
    }),
    rows: whole({ label: 'Rows', help: 'Points up.', default: 8, range: [1, 64], min: 1, max: 1024 }),
    layers: whole({
      label: 'Layers',
      help: 'Points in depth.',
      default: 1,
      range: [1, 32],
      min: 1,
      max: 1024,
    }),
    spacing: vector({
      label: 'Spacing',
      help: 'From one point to the next, on each axis.',
      default: [0.1, 0.1, 0.1],
      range: [0, 0.5],
    }),
    staggered: toggle({
      label: 'Staggered',
      help: 'Every second row stands half a step aside, like the cells of a comb.',
      default: false,
    }),
  },
  make({ controls: c }) {
    checkPoints(c.columns * c.rows * c.layers);
    return pointGrid([c.columns, c.rows, c.layers], c.spacing, c.staggered);
  },
});
