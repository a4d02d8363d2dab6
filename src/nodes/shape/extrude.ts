import { choice, number, toggle } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { extrudeShape } from '../../core/shape/extrude';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'extrude',
  label: 'Extrude',
  summary: 'Gives a surface thickness, and turns lines into bands.',
  words: ['thicken', 'depth', 'wall', 'ribbon', 'raise', 'solidify'],
  example: { feed: { kind: 'ring', controls: { inner: 0.5, points: 6 } } },
  inputs: { shape: { label: 'Shape', help: 'A surface, or lines.', carries: 'shape' } },
  controls: {
    depth: number({ label: 'Depth', help: 'How thick it becomes.', default: 0.15, range: [-0.5, 0.5] }),
    along: choice({
      label: 'Along',
      help: 'Which way: outward from the surface, or along an axis.',
      options: { normal: 'Outward', x: 'x', y: 'y', z: 'z' },
      default: 'z',
    }),
    middle: toggle({ label: 'To both sides', help: 'Half of the depth on each.', default: true }),
  },
  make: ({ controls: c, inputs }) =>
    inputs.shape ? extrudeShape(inputs.shape, c.depth, c.along, c.middle) : emptyShape,
});
