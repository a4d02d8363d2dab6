import { choice, number } from '../../core/kind/controls';
import { fieldLook } from '../../core/kind/field-look';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-tube',
  label: 'Field Tube',
  summary: 'A cylinder, or a stick with round ends, as a distance field.',
  words: ['cylinder', 'capsule', 'rod', 'pill', 'sdf', 'distance field'],
  inputs: {},
  controls: {
    radius: number({ label: 'Radius', help: 'Of its section.', default: 0.15, range: [0, 1], min: 0 }),
    height: number({ label: 'Height', help: 'From end to end.', default: 0.7, range: [0, 2], min: 0 }),
    ends: choice({
      label: 'Ends',
      help: 'Flat or round.',
      options: { flat: 'Flat', round: 'Round' },
      default: 'flat',
    }),
    ...fieldLook,
  },
  field: {
    type: 'solid',
    distance: `float h = $height * 0.5;
    if ($ends == 1) { float k = max(h - $radius, 0.0); return length(p - vec3(0.0, clamp(p.y, -k, k), 0.0)) - $radius; }
    vec2 q = vec2(length(p.xz) - $radius, abs(p.y) - h);
    return length(max(q, 0.0)) + min(max(q.x, q.y), 0.0);`,
  },
});
