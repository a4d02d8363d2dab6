import { angle } from '../../core/kind/controls';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-twist',
  label: 'Field Twist',
  summary: 'Turns a field more and more along its height.',
  words: ['screw', 'wring', 'spiral', 'deform'],
  inputs: { field: { label: 'Field', help: 'What is twisted.', carries: 'field' } },
  controls: {
    turn: angle({ label: 'Turn', help: 'For each scene unit of height.', default: 120, range: [-720, 720] }),
  },
  field: {
    type: 'warp',
    place: `float a = $turn * p.y; float c = cos(a); float s = sin(a); return vec3(c * p.x - s * p.z, p.y, s * p.x + c * p.z);`,
    distance: `return d / sqrt(1.0 + $turn * $turn * min(dot(p.xz, p.xz), 1.0));`,
  },
});
