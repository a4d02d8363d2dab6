import { point, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { anchor, anchored } from '../shared/anchor';
import { sheetShape } from '../../core/shape/make';

export default shapeKind({
  id: 'sheet',
  label: 'Sheet',
  summary: 'A flat sheet of rows and columns.',
  words: ['plane', 'grid', 'floor', 'wall', 'surface', 'quad'],
  inputs: {},
  controls: {
    size: point({ label: 'Size', help: 'Width and height.', default: [1, 1], range: [0, 4], min: 0 }),
    columns: whole({
      label: 'Columns',
      help: 'Points across.',
      default: 2,
      range: [2, 128],
      min: 2,
      max: 1024,
    }),
    rows: whole({ label: 'Rows', help: 'Points up.', default: 2, range: [2, 128], min: 2, max: 1024 }),
    anchor,
  },
  make: ({ controls: c }) => anchored(sheetShape(c.size[0], c.size[1], c.columns, c.rows), c.anchor),
});
