import { choice, number, whole } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { pushShape } from '../../core/shape/deform';
import { emptyShape } from '../../core/shape/shape';

export default shapeKind({
  id: 'push',
  label: 'Push',
  summary: 'Moves the points of a shape by noise: landscapes, blobs, trembling.',
  words: ['noise', 'displace', 'deform', 'terrain', 'landscape', 'wobble', 'crumple', 'fractal'],
  example: { controls: { octaves: 3, speed: 0.3 } },
  inputs: { shape: { label: 'Shape', help: 'Whose points are moved.', carries: 'shape' } },
  moves: (c) => c.speed !== 0,
  controls: {
    strength: number({
      label: 'Strength',
      help: 'How far points are moved.',
      default: 0.15,
      range: [0, 0.6],
    }),
    along: choice({
      label: 'Along',
      help: 'Outward, one axis, or every axis by a noise of its own.',
      options: { normal: 'Outward', x: 'x', y: 'y', z: 'z', all: 'Every axis' },
      default: 'normal',
    }),
    period: number({
      label: 'Period',
      help: 'Width of the swells.',
      default: 0.4,
      range: [0.05, 2],
      min: 0.0001,
    }),
    octaves: whole({
      label: 'Octaves',
      help: 'Layers of ever finer noise.',
      default: 1,
      range: [1, 8],
      min: 1,
      max: 10,
    }),
    roughness: number({
      label: 'Roughness',
      help: 'Strength of each layer compared to the one before.',
      default: 0.5,
      range: [0, 1],
      min: 0,
      max: 1,
      shownIf: (c) => Number(c.octaves) > 1,
    }),
    speed: number({
      label: 'Speed',
      help: 'How fast the noise changes; 0 stands still.',
      default: 0,
      range: [0, 2],
    }),
    phase: number({
      label: 'Phase',
      help: 'Where the noise stands; turn it to move by hand.',
      default: 0,
      range: [0, 4],
    }),
    seed: whole({ label: 'Seed', help: 'Another noise.', default: 1, range: [1, 99] }),
  },
  make: ({ controls: c, inputs, moment }) =>
    inputs.shape ? pushShape(inputs.shape, { ...c, at: c.phase + moment.time * c.speed }) : emptyShape,
});
