import { amount, angle, choice, point, whole } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { outsideGlsl, outside } from '../glsl/colour';

export default imageKind({
  id: 'mirror',
  label: 'Mirror',
  summary: 'Folds a picture over at a line, or into a rosette of several wedges.',
  words: [
    'reflect',
    'symmetry',
    'fold',
    'rosette',
    'radial symmetry',
    'flip',
    'ceiling',
    'water',
    'kaleidoscope',
  ],
  example: { feed: { kind: 'clip' } },
  inputs: { picture: { label: 'Picture', help: 'What is folded.', carries: 'image', reads: 'moved' } },
  controls: {
    form: choice({
      label: 'Form',
      help: 'One line, two that cross, or several wedges around a centre.',
      options: { line: 'Line', cross: 'Cross', rosette: 'Rosette' },
      default: 'line',
    }),
    place: point({
      label: 'Place',
      help: 'A point of the line, or the centre; in heights from the middle.',
      default: [0, 0],
      range: [-1, 1],
      handle: { as: 'place' },
    }),
    turn: angle({
      label: 'Turn',
      help: 'Direction of the line: 90 stands upright and folds left over right, 0 lies and folds up over down.',
      default: 90,
      range: [-180, 180],
    }),
    wedges: whole({
      label: 'Wedges',
      help: 'How often the rosette repeats around its centre.',
      default: 6,
      range: [2, 24],
      min: 1,
      max: 256,
      shownIf: (c) => c.form === 'rosette',
    }),
    side: choice({
      label: 'Keeps',
      help: 'Which side is kept and folded over.',
      options: { left: 'The left of the line', right: 'The right of the line' },
      default: 'left',
      shownIf: (c) => c.form !== 'rosette',
    }),
    outside: outside('mirror'),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    helpers: [outsideGlsl],
    body: `
      vec2 c = (p - 0.5) * vec2(aspect, 1.0) - $place;
      if ($form == 2) {
        float wedge = 6.283185307 / $wedges;
        float a = atan(c.y, c.x) - $turn;
        a = abs(mod(a + wedge * 0.5, wedge) - wedge * 0.5) + $turn;
        c = length(c) * vec2(cos(a), sin(a));
      } else {
        // off is the distance to the left of the line, seen along its direction.
        vec2 along = vec2(cos($turn), sin($turn));
        float off = along.x * c.y - along.y * c.x;
        float on = dot(along, c);
        float keep = $side == 0 ? 1.0 : -1.0;
        if (off * keep < 0.0) off = -off;
        if ($form == 1 && on * keep > 0.0) on = -on;
        c = along * on + vec2(-along.y, along.x) * off;
      }
      vec3 at = outsidePlace((c + $place) / vec2(aspect, 1.0) + 0.5, $outside);
      return @picture(at.xy) * at.z;
    `,
  },
});
