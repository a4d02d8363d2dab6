import { choice, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { strandsShape } from '../../core/shape/strands';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'strands',
  label: 'Strands',
  summary: "A shape's rows, columns or edges as lines, straight or rounded.",
  words: ['lines', 'wires', 'threads', 'rows', 'columns', 'edges', 'outline', 'strings'],
  example: { feed: { kind: 'torus' } },
  inputs: { shape: { label: 'Shape', help: 'Whose lines are taken.', carries: 'shape' } },
  controls: {
    which: choice({
      label: 'Which',
      help: 'Along rows, along columns, both, or the edges of the faces.',
      options: { rows: 'Rows', columns: 'Columns', both: 'Rows and columns', edges: 'Edges' },
      default: 'rows',
    }),
    smooth: whole({
      label: 'Smooth',
      help: 'Points put between two on a rounded line; 0 is straight.',
      default: 0,
      range: [0, 12],
      min: 0,
      max: 64,
      shownIf: (c) => c.which !== 'edges',
    }),
  },
  make({ controls: c, inputs, remark }) {
    if (!inputs.shape) return emptyShape;
    const lines = strandsShape(inputs.shape, c.which, c.smooth);
    if (lines.count === 0 && inputs.shape.count > 0)
      remark?.(c.which === 'edges' ? 'The shape has no faces.' : 'The shape has no such lines. Try Edges.');
    return lines;
  },
});
