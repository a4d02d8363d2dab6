import { amount, file } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { alphaGlsl } from '../glsl/colour';

export default imageKind({
  id: 'lut',
  label: 'LUT',
  summary: 'Grades a picture by a look table from a .cube file, of one or three dimensions.',
  words: ['look', 'grade', 'cube', 'colour table', 'film look', 'lookup'],
  inputs: { picture: { label: 'Picture', help: 'What is graded.', carries: 'image' } },
  controls: {
    file: file({
      label: 'Look',
      help: 'A .cube file of the show, or a look that ships with Pyrvel.',
      accepts: 'look',
      default: 'shipped:first-frost.cube',
    }),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    sheets: { look: { from: 'look', control: 'file' } },
    helpers: [alphaGlsl],
    // Trilinear by eight exact readings: filtered readings of a flattened cube would bleed from slice to slice, and on many
    // GPUs mix in steps of 1/256. Row 0 is the head: dimensions and size, least and greatest input.
    code: `
vec3 lookEntry~(vec3 at, int size) {
  return @look.at(int(at.r), 1 + int(at.g) + size * int(at.b)).rgb;
}
vec3 lookCurve~(vec3 q, int size) {
  vec3 low = floor(q); vec3 t = q - low; vec3 high = min(low + 1.0, float(size - 1));
  int wide = min(size, 4096);
  ivec3 a = ivec3(low); ivec3 b = ivec3(high);
  vec3 from = vec3(@look.at(a.r % wide, 1 + a.r / wide).r, @look.at(a.g % wide, 1 + a.g / wide).g, @look.at(a.b % wide, 1 + a.b / wide).b);
  vec3 to = vec3(@look.at(b.r % wide, 1 + b.r / wide).r, @look.at(b.g % wide, 1 + b.g / wide).g, @look.at(b.b % wide, 1 + b.b / wide).b);
  return mix(from, to, t);
}
vec3 lookCube~(vec3 q, int size) {
  vec3 low = floor(q); vec3 t = q - low; vec3 high = min(low + 1.0, float(size - 1));
  vec3 a = mix(lookEntry~(low, size), lookEntry~(vec3(high.r, low.gb), size), t.r);
  vec3 b = mix(lookEntry~(vec3(low.r, high.g, low.b), size), lookEntry~(vec3(high.rg, low.b), size), t.r);
  vec3 c = mix(lookEntry~(vec3(low.rg, high.b), size), lookEntry~(vec3(high.r, low.g, high.b), size), t.r);
  vec3 d = mix(lookEntry~(vec3(low.r, high.gb), size), lookEntry~(high, size), t.r);
  return mix(mix(a, b, t.g), mix(c, d, t.g), t.b);
}
`,
    body: `
      if (@look.size.x < 2.0) return source;
      vec4 head = @look.at(0, 0);
      vec3 least = @look.at(1, 0).rgb; vec3 most = @look.at(2, 0).rgb;
      vec4 s = straight(source);
      int size = int(head.y);
      vec3 q = clamp((s.rgb - least) / (most - least), 0.0, 1.0) * float(size - 1);
      vec3 v = head.x < 2.0 ? lookCurve~(q, size) : lookCube~(q, size);
      return vec4(v * s.a, s.a);
    `,
  },
});
