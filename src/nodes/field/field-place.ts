import { number, vector } from '../../core/kind/controls';
import { fieldKind } from '../../core/kind/kind';
import { turnMatrix } from '../../core/shape/shape';

export default fieldKind({
  id: 'field-place',
  label: 'Field Place',
  summary: 'Scales, turns and moves a field.',
  words: ['move', 'rotate', 'scale', 'transform', 'position', 'spin'],
  inputs: { field: { label: 'Field', help: 'What is placed.', carries: 'field' } },
  controls: {
    move: vector({
      label: 'Move',
      help: 'Right, up and towards the viewer.',
      default: [0, 0, 0],
      range: [-1, 1],
      onOff: true,
    }),
    turn: vector({
      label: 'Turn',
      help: 'About x, then y, then z.',
      default: [0, 0, 0],
      range: [0, 360],
      unit: '°',
      angle: true,
      onOff: true,
    }),
    scale: number({
      label: 'Scale',
      help: 'Size of the whole.',
      default: 1,
      range: [0.1, 3],
      min: 0.001,
      onOff: 1,
    }),
  },
  derived: { back: 'mat3' },
  // Rows given as columns: the way back of a turn.
  derive: ({ turn }) => ({ back: turnMatrix(turn[0], turn[1], turn[2]) }),
  field: {
    type: 'warp',
    place: `vec3 q = p;
    if ($move?) q -= $move;
    if ($turn?) q = $back * q;
    if ($scale?) q /= $scale;
    return q;`,
    distance: `return $scale? ? d * $scale : d;`,
  },
});
