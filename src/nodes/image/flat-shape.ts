import { angle, choice, colour, number, point, whole, numbers } from '../../core/kind/controls';
import { imageKind, type Kind } from '../../core/kind/kind';

// Distances to box, polygon, star and wedge: by folding the plane into one corner, then one line.
const distances = `
float cornerDistance(vec2 q, float corners, float waist) {
  float half_ = 3.14159265359 / corners;
  float a = mod(atan(q.x, q.y) + half_, 2.0 * half_) - half_;
  float r = length(q);
  vec2 tip = vec2(0.0, 1.0);
  vec2 dip = waist * vec2(sin(half_), cos(half_));
  vec2 at = r * vec2(abs(sin(a)), cos(a));
  vec2 along = dip - tip;
  vec2 from = at - tip;
  float t = clamp(dot(from, along) / dot(along, along), 0.0, 1.0);
  float side = along.x * from.y - along.y * from.x;
  return sign(side) * length(from - along * t);
}
float flatDistance(int form, vec2 q, vec2 half_, float corners, float inner, float opening, float rounding) {
  float least = max(min(half_.x, half_.y), 1e-5);
  vec2 unit = q / max(half_, vec2(1e-5));
  if (form == 1) { vec2 d = abs(q) - half_ + rounding; return length(max(d, 0.0)) + min(max(d.x, d.y), 0.0) - rounding; }
  if (form == 2) return cornerDistance(unit, corners, cos(3.14159265359 / corners)) * least - rounding;
  if (form == 3) return cornerDistance(unit, corners, inner) * least - rounding;
  float disc = (length(unit) - 1.0) * least;
  if (form == 4) return max(disc, (inner - length(unit)) * least) - rounding;
  if (form == 5) {
    float a = abs(atan(unit.y, unit.x)) - opening * 0.5;
    return opening > 6.28 ? disc : max(disc, sin(clamp(a, -1.5708, 1.5708)) * length(q));
  }
  return disc;
}
`;

const paintWith = (distance: string): string => `
      vec2 c = (p - 0.5) * vec2(aspect, 1.0) - $place;
      float ct = cos($turn); float st = sin($turn);
      vec2 q = vec2(ct * c.x + st * c.y, -st * c.x + ct * c.y);
      float d = ${distance};
      float edge = max($softness, pixel.y);
      float cover = 1.0 - smoothstep(-edge * 0.5, edge * 0.5, d);
      vec4 v = vec4($fill.rgb * $fill.a, $fill.a) * cover;
      if ($lineWidth > 0.0) {
        float lineCover = (1.0 - smoothstep(-edge * 0.5, edge * 0.5, abs(d) - $lineWidth * 0.5)) * $line.a;
        v = vec4($line.rgb, 1.0) * lineCover + v * (1.0 - lineCover);
      }
      return v;
    `;

const flatShape = imageKind({
  id: 'flat-shape',
  label: 'Flat Shape',
  summary: 'A disc, box, polygon, star, ring or wedge with its own fill and outline.',
  words: ['circle', 'rectangle', 'square', 'triangle', 'mask', 'ellipse', 'star', 'pie'],
  inputs: {},
  controls: {
    form: choice({
      label: 'Form',
      help: 'Which outline is drawn.',
      options: {
        disc: 'Disc',
        box: 'Box',
        polygon: 'Polygon',
        star: 'Star',
        ring: 'Ring',
        wedge: 'Wedge',
        points: 'Corner points',
      },
      default: 'disc',
    }),
    place: point({
      label: 'Place',
      help: 'Where its middle is, in heights from the middle of the picture.',
      default: [0, 0],
      range: [-1, 1],
      handle: { as: 'place' },
    }),
    size: point({
      label: 'Size',
      help: 'Width and height, in picture heights.',
      default: [0.6, 0.6],
      range: [0, 2],
      min: 0,
      handle: { as: 'box', of: 'place' },
      shownIf: (c) => c.form !== 'points',
    }),
    points: numbers({
      label: 'Corner points',
      help: 'x and y of each corner in turn, in heights from the place; drag them on the monitor.',
      default: [-0.25, -0.2, 0.25, -0.2, 0, 0.3],
      handle: { as: 'places', of: 'place' },
      shownIf: (c) => c.form === 'points',
    }),
    turn: angle({ label: 'Turn', help: 'Turns the shape about its middle.', default: 0, range: [0, 360] }),
    corners: whole({
      label: 'Corners',
      help: 'Corners of a polygon, or points of a star.',
      default: 6,
      range: [3, 12],
      min: 3,
      max: 64,
      shownIf: (c) => c.form === 'polygon' || c.form === 'star',
    }),
    rounding: number({
      label: 'Rounding',
      help: 'Rounds the corners, in heights.',
      default: 0,
      range: [0, 0.3],
      min: 0,
      shownIf: (c) => c.form !== 'disc' && c.form !== 'wedge' && c.form !== 'points',
    }),
    inner: number({
      label: 'Inner size',
      help: 'Inner radius of a ring, or the waist of a star, as a share of the outer.',
      default: 0.6,
      range: [0, 1],
      min: 0,
      max: 1,
      shownIf: (c) => c.form === 'ring' || c.form === 'star',
    }),
    opening: angle({
      label: 'Opening',
      help: 'Angle of the wedge.',
      default: 60,
      range: [0, 360],
      min: 0,
      max: 360,
      shownIf: (c) => c.form === 'wedge',
    }),
    fill: colour({
      label: 'Fill',
      help: 'Colour inside; its alpha is how much it covers.',
      default: [1, 0.78, 0.42, 1],
    }),
    line: colour({ label: 'Outline', help: 'Colour of the outline.', default: [1, 1, 1, 1] }),
    lineWidth: number({
      label: 'Outline width',
      help: 'In picture heights; 0 draws none.',
      default: 0,
      range: [0, 0.1],
      min: 0,
    }),
    softness: number({
      label: 'Softness',
      help: 'Width of the soft edge, in heights.',
      default: 0,
      range: [0, 0.5],
      min: 0,
    }),
  },
  vary: (c): Kind => (c.form === 'points' ? withPoints : flatShape),
  paint: {
    type: 'shader',
    helpers: [distances],
    body: paintWith('flatDistance($form, q, $size * 0.5, $corners, $inner, $opening, $rounding)'),
  },
});

/** Most typed corners: a shader looks at each in every pixel. */
const mostCorners = 64;

/** With corners of its own, which only then are read by the shader. */
const withPoints: Kind = {
  ...flatShape,
  paint: {
    type: 'shader',
    sheets: {
      corners: {
        from: 'numbers',
        of: ['points'],
        fill({ controls }: { controls: { points: readonly number[] } }) {
          const count = Math.min(mostCorners, Math.floor(controls.points.length / 2));
          const rgba = new Float32Array(4 * (mostCorners + 1));
          rgba[0] = count;
          for (let k = 0; k < count; k++) rgba.set(controls.points.slice(2 * k, 2 * k + 2), 4 * (k + 1));
          return { width: mostCorners + 1, height: 1, rgba, smooth: false };
        },
      },
    },
    // Distance to the nearest side; inside where a ray to the right crosses the outline an odd number of times.
    code: `
float cornersDistance~(vec2 q) {
  int count = int(@corners.at(0, 0).r);
  if (count < 3) return 1e5;
  float d = 1e5; float side = 1.0;
  vec2 a = @corners.at(count, 0).xy;
  for (int k = 1; k <= count; k++) {
    vec2 b = @corners.at(k, 0).xy;
    vec2 e = b - a; vec2 w = q - a;
    d = min(d, length(w - e * clamp(dot(w, e) / max(dot(e, e), 1e-12), 0.0, 1.0)));
    if ((a.y > q.y) != (b.y > q.y) && q.x < a.x + e.x * (q.y - a.y) / e.y) side = -side;
    a = b;
  }
  return side * d;
}
`,
    body: paintWith('cornersDistance~(q)'),
  },
} as unknown as Kind;

export default flatShape;
