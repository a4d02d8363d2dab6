import { number, whole } from '../../core/kind/controls';
import { fieldLook } from '../../core/kind/field-look';
import { fieldKind } from '../../core/kind/kind';

export default fieldKind({
  id: 'field-prism',
  label: 'Field Prism',
  summary: 'A prism of any number of sides as a distance field: six make a cell of a comb.',
  words: ['hexagon', 'triangle', 'comb', 'polygon', 'nut', 'sdf', 'distance field'],
  inputs: {},
  controls: {
    sides: whole({ label: 'Sides', help: 'How many.', default: 6, range: [3, 12], min: 3, max: 64 }),
    radius: number({
      label: 'Radius',
      help: 'From its middle to the middle of a side.',
      default: 0.3,
      range: [0, 1],
      min: 0,
    }),
    height: number({
      label: 'Height',
      help: 'From lid to lid, along z.',
      default: 0.3,
      range: [0, 2],
      min: 0,
    }),
    ...fieldLook,
  },
  field: {
    type: 'solid',
    distance: `float part = 6.2831853 / $sides;
    float a = atan(p.x, p.y);
    a -= part * floor(a / part + 0.5);
    vec2 q = length(p.xy) * vec2(sin(a), cos(a));
    float half_ = $radius * tan(part * 0.5);
    q -= vec2(clamp(q.x, -half_, half_), $radius);
    vec2 w = vec2(length(q) * sign(q.y), abs(p.z) - $height * 0.5);
    return min(max(w.x, w.y), 0.0) + length(max(w, 0.0));`,
  },
});
