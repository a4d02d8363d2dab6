import { angle } from '../../core/kind/controls';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-bend',
  label: 'Field Bend',
  summary: 'Bends a field along its width.',
  words: ['curve', 'arch', 'curl', 'deform'],
  inputs: { field: { label: 'Field', help: 'What is bent.', carries: 'field' } },
  controls: {
    turn: angle({ label: 'Angle', help: 'For each scene unit of width.', default: 60, range: [-360, 360] }),
  },
  field: {
    type: 'warp',
    place: `float a = $turn * p.x; float c = cos(a); float s = sin(a); return vec3(c * p.x - s * p.y, s * p.x + c * p.y, p.z);`,
    distance: `return d / sqrt(1.0 + $turn * $turn * min(dot(p.xy, p.xy), 1.0));`,
  },
});
