import { choice, countsDiffer, number } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { normalsFrom } from '../../core/shape/measure';
import { emptyShape } from '../../core/shape/shape';
import { spreadInto } from '../../core/signal/spread';

export default shapeKind({
  id: 'edit-points',
  label: 'Edit Points',
  summary:
    'Puts numbers in the place of the points of a shape, in the same order, with its lines and faces kept.',
  words: ['numbers to points', 'set positions', 'vertices', 'deform by numbers', 'morph', 'write points'],
  example: { controls: { how: 'scale', amount: 0.4 }, feed: { kind: 'torus' } },
  inputs: {
    shape: { label: 'Shape', help: 'Whose points are changed.', carries: 'shape' },
    points: {
      label: 'Points',
      help: 'Lanes x, y and z by name, else in their order; a sample a point. A lane that is missing leaves its axis alone.',
      carries: 'signal',
    },
  },
  controls: {
    how: choice({
      label: 'How',
      help: 'The numbers are the new places, are added to the old, or are factors on them.',
      options: { set: 'New places', add: 'Added', scale: 'Factors' },
      default: 'set',
    }),
    amount: number({
      label: 'Amount',
      help: 'From the shape as it comes (0) to the full change (1).',
      default: 1,
      range: [0, 1],
    }),
    spread: countsDiffer('How fewer samples serve more points.'),
  },
  make({ controls: c, inputs, remark }) {
    const { shape, points } = inputs;
    if (!shape) return emptyShape;
    if (!points?.length) return shape;
    if (points.length !== shape.count && points.length > 1)
      remark?.(`${points.length} samples serve ${shape.count} points.`);
    const positions = shape.positions.slice();
    const lane = new Float32Array(shape.count);
    ['x', 'y', 'z'].forEach((name, k) => {
      const named = points.lanes.some((l) => ['x', 'y', 'z'].includes(l.name));
      const found = named ? points.lanes.find((l) => l.name === name) : points.lanes[k];
      if (!found) return;
      spreadInto(lane, found.samples, c.spread);
      for (let i = 0; i < shape.count; i++) {
        const old = positions[3 * i + k];
        const wanted = c.how === 'set' ? lane[i] : c.how === 'add' ? old + lane[i] : old * lane[i];
        positions[3 * i + k] = old + (wanted - old) * c.amount;
      }
    });
    return { ...shape, positions, normals: normalsFrom(positions, shape.triangles, shape.normals) };
  },
});
