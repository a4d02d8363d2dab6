import { choice } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';

export default signalKind({
  id: 'point-reader',
  label: 'Point Reader',
  summary: 'The points of a shape as numbers: their places, directions or places on a picture.',
  words: ['vertices', 'positions', 'points to numbers', 'extract', 'coordinates', 'normals'],
  inputs: { shape: { label: 'Shape', help: 'Whose points are read, in their order.', carries: 'shape' } },
  controls: {
    gives: choice({
      label: 'Gives',
      help: 'Where the points are, which way the surface faces there, or where they lie on a picture.',
      options: { places: 'Places', normals: 'Normals', picture: 'Places on a picture', middle: 'The middle' },
      default: 'places',
    }),
  },
  naturalRange: (c) => (c.gives === 'picture' ? [0, 1] : c.gives === 'normals' ? [-1, 1] : [-0.5, 0.5]),
  moves: () => false,
  compute({ controls: c, inputs, out }) {
    const { shape } = inputs;
    const isFlat = c.gives === 'picture';
    const names = isFlat ? ['x', 'y'] : ['x', 'y', 'z'];
    const width = names.length;
    const isMiddle = c.gives === 'middle';
    const n = Math.max(1, isMiddle ? 1 : (shape?.count ?? 0));
    const lanes = out.layout(names, n);
    if (!shape?.count) {
      for (const lane of lanes) lane.fill(0);
      return;
    }
    const from = c.gives === 'normals' ? shape.normals : isFlat ? shape.uvs : shape.positions;
    lanes.forEach((into, axis) => {
      if (!isMiddle) for (let i = 0; i < n; i++) into[i] = from[width * i + axis];
      else {
        let sum = 0;
        for (let i = 0; i < shape.count; i++) sum += from[width * i + axis];
        into[0] = sum / shape.count;
      }
    });
  },
});
