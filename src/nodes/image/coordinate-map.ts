import { choice } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

export default imageKind({
  id: 'coordinate-map',
  label: 'Coordinate Map',
  summary: 'Every pixel holds its own place: across in red, up in green.',
  words: ['uv', 'position', 'place', 'st map', 'ramp', 'xy'],
  inputs: {},
  controls: {
    range: choice({
      label: 'Range',
      help: 'From 0 to 1 across the picture, or centred units: 0,0 in the middle, height 1.',
      options: { share: '0 to 1', centred: 'Centred' },
      default: 'share',
    }),
    measure: choice({
      label: 'Measure',
      help: 'Across and up, or the distance from the middle and the angle around it in turns.',
      options: { place: 'Across, up', polar: 'Distance, angle' },
      default: 'place',
    }),
  },
  paint: {
    type: 'shader',
    body: `
      vec2 c = (p - 0.5) * vec2(aspect, 1.0);
      vec2 v = $range == 0 ? p : c;
      if ($measure == 1) {
        float turns = atan(c.y, c.x) / 6.283185307;
        // In share units the corner is 1 away, so that nothing is cut off.
        float reach = $range == 0 ? 0.5 * length(vec2(aspect, 1.0)) : 1.0;
        v = vec2(length(c) / reach, $range == 0 ? fract(turns + 1.0) : turns);
      }
      return vec4(v, 0.0, 1.0);
    `,
  },
});
