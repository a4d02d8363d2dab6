import { amount, point } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

const corner = (label: string, x: -1 | 1, y: -1 | 1) =>
  point({
    label,
    help: 'How far this corner is pulled from its own, in picture heights.',
    default: [0, 0],
    range: [-0.5, 0.5],
    min: -20,
    max: 20,
    handle: { as: 'corner', at: [x, y] },
  });

export default imageKind({
  id: 'corner-pin',
  label: 'Corner Pin',
  summary: 'Pulls a flat picture into perspective by its four corners.',
  words: ['perspective', 'quad', 'warp', 'mapping', 'keystone', 'tilt', 'projection'],
  example: {
    controls: { upperLeft: [0.4, -0.15], upperRight: [-0.3, -0.05] },
    feed: { kind: 'lattice', controls: { cells: [8, 8] } },
  },
  inputs: { picture: { label: 'Picture', help: 'What is pulled.', carries: 'image', reads: 'moved' } },
  controls: {
    lowerLeft: corner('Lower left', -1, -1),
    lowerRight: corner('Lower right', 1, -1),
    upperRight: corner('Upper right', 1, 1),
    upperLeft: corner('Upper left', -1, 1),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    // From a square to any four corners and back (Heckbert, "Fundamentals of Texture Mapping and Image Warping", 1989).
    helpers: [
      `
mat3 squareToQuad(vec2 a, vec2 b, vec2 c, vec2 d) {
  vec2 s = a - b + c - d; vec2 e = b - c; vec2 f = d - c;
  float det = e.x * f.y - f.x * e.y;
  if (abs(det) < 1e-9) det = 1e-9;
  float g = (s.x * f.y - f.x * s.y) / det; float h = (e.x * s.y - s.x * e.y) / det;
  return mat3(vec3(b - a + g * b, g), vec3(d - a + h * d, h), vec3(a, 1.0));
}
`,
    ],
    body: `
      vec2 wide = vec2(aspect, 1.0);
      mat3 m = squareToQuad($lowerLeft / wide, vec2(1.0, 0.0) + $lowerRight / wide, vec2(1.0) + $upperRight / wide, vec2(0.0, 1.0) + $upperLeft / wide);
      vec3 q = inverse(m) * vec3(p, 1.0);
      vec2 at = q.xy / q.z;
      // Half a pixel of softness at the rim, or pulled edges would be stairs.
      vec2 rim = max(fwidth(at), 1e-6);
      vec2 in_ = clamp(min(at, 1.0 - at) / rim + 0.5, 0.0, 1.0);
      return q.z * determinant(m) > 0.0 ? @picture(clamp(at, 0.0, 1.0)) * in_.x * in_.y : vec4(0.0);
    `,
  },
});
