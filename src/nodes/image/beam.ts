import {
  angle,
  choice,
  gradient,
  number,
  numbers,
  point,
  text,
  toggle,
  whole,
} from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { cyclesAt } from '../../core/time/clock';
import { strokePixels, strokeOf } from '../shared/stroke';
import { fonts } from '../../core/text/layout';

export default imageKind({
  id: 'beam',
  label: 'Beam',
  summary:
    'A glowing stroke along a line, an outline, letters or drawn points; part of it lit, copied round a centre.',
  words: ['neon', 'laser', 'light line', 'glow', 'stroke', 'ray', 'tube', 'sign', 'trace'],
  example: { controls: { motion: 'run', lit: [0, 0.5], form: 'polygon', taper: 0.3 } },
  inputs: {},
  controls: {
    form: choice({
      label: 'Form',
      help: 'What the stroke follows.',
      options: {
        line: 'Line',
        polygon: 'Polygon',
        star: 'Star',
        ring: 'Ring',
        points: 'Drawn points',
        letters: 'Letters',
      },
      default: 'line',
    }),
    from: point({
      label: 'From',
      help: 'Where the line begins, in heights from the middle of the picture.',
      default: [-0.5, -0.15],
      range: [-1, 1],
      handle: { as: 'place' },
      shownIf: (c) => c.form === 'line',
    }),
    to: point({
      label: 'To',
      help: 'Where the line ends.',
      default: [0.5, 0.15],
      range: [-1, 1],
      handle: { as: 'place' },
      shownIf: (c) => c.form === 'line',
    }),
    place: point({
      label: 'Place',
      help: 'Middle of the outline or the letters, and the centre that copies stand round.',
      default: [0, 0],
      range: [-1, 1],
      handle: { as: 'place' },
    }),
    size: number({
      label: 'Size',
      help: 'Height of the outline or of a capital letter, in picture heights.',
      default: 0.5,
      range: [0.02, 1.5],
      min: 0,
      max: 20,
      shownIf: (c) => c.form !== 'line' && c.form !== 'points',
    }),
    corners: whole({
      label: 'Corners',
      help: 'Of a polygon, or points of a star.',
      default: 6,
      range: [3, 12],
      min: 2,
      max: 64,
      shownIf: (c) => c.form === 'polygon' || c.form === 'star',
    }),
    points: numbers({
      label: 'Points',
      help: 'x and y of each point in turn, in heights from the place; drag them on the monitor.',
      default: [-0.6, -0.1, -0.3, 0.2, 0, -0.2, 0.3, 0.2, 0.6, -0.1],
      handle: { as: 'places', of: 'place' },
      shownIf: (c) => c.form === 'points',
    }),
    closed: toggle({
      label: 'Closed',
      help: 'The last point leads back to the first.',
      default: false,
      shownIf: (c) => c.form === 'points',
    }),
    text: text({
      label: 'Letters',
      help: 'Whose outlines glow.',
      default: 'GLOW',
      shownIf: (c) => c.form === 'letters',
    }),
    font: choice({
      label: 'Font',
      help: 'One of the shipped typefaces.',
      options: fonts,
      default: 'sans',
      shownIf: (c) => c.form === 'letters',
    }),
    spacing: number({
      label: 'Letter spacing',
      help: 'Added between letters, in capital heights.',
      default: 0.2,
      range: [0, 2],
      min: -1,
      max: 10,
      shownIf: (c) => c.form === 'letters',
    }),
    turn: angle({
      label: 'Turn',
      help: 'Turns everything about the place.',
      default: 0,
      range: [-180, 180],
    }),
    core: number({
      label: 'Core',
      help: 'Width of the bright line, in picture heights.',
      default: 0.012,
      range: [0.001, 0.08],
      min: 0,
      max: 1,
    }),
    taper: number({
      label: 'Taper',
      help: 'Width at the far end, as a share of that at the beginning.',
      default: 1,
      range: [0, 1],
      min: 0,
      max: 10,
    }),
    halo: number({
      label: 'Halo',
      help: 'Strength of the light around it.',
      default: 0.6,
      range: [0, 2],
      min: 0,
      max: 20,
    }),
    reach: number({
      label: 'Halo reach',
      help: 'How far the light goes, in picture heights.',
      default: 0.12,
      range: [0.01, 0.5],
      min: 0.001,
      max: 2,
    }),
    lit: point({
      label: 'Lit part',
      parts: ['Lit from', 'Lit to'],
      help: 'The part of the stroke that is lit: 0 its beginning, 1 its end.',
      default: [0, 1],
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    motion: choice({
      label: 'Life',
      help: 'Lit parts stand still, run along forever, or grow from nothing, stay and fade.',
      options: { still: 'Still', run: 'Runs along', grow: 'Grows and fades' },
      default: 'still',
    }),
    span: number({
      label: 'Span',
      help: 'Seconds of one run, or of one life.',
      default: 4,
      range: [0.25, 16],
      min: 0.01,
      max: 3600,
      unit: 's',
      shownIf: (c) => c.motion !== 'still',
      pace: 'period',
    }),
    colours: gradient({
      label: 'Colours',
      help: 'From the first copy to the last; a single beam takes the first.',
      default: [
        { at: 0, colour: [1, 0.58, 0.2, 1] },
        { at: 1, colour: [0.36, 0.8, 0.78, 1] },
      ],
    }),
    white: number({
      label: 'White core',
      help: 'How far the middle of the stroke goes to white.',
      default: 0.7,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    copies: whole({
      label: 'Copies',
      help: 'How many stand round the place.',
      default: 1,
      range: [1, 24],
      min: 1,
      max: 128,
    }),
    copyTurn: angle({
      label: 'Turn each',
      help: 'From one copy to the next; 0 shares the full turn evenly.',
      default: 0,
      range: [-180, 180],
      shownIf: (c) => Number(c.copies) > 1,
    }),
    delay: number({
      label: 'Delay each',
      help: 'How much later each copy lives than the one before; span / copies spreads them evenly.',
      default: 0,
      range: [0, 4],
      min: -3600,
      max: 3600,
      unit: 's',
      shownIf: (c) => Number(c.copies) > 1 && c.motion !== 'still',
    }),
  },
  moves: (c) => c.motion !== 'still',
  paint: {
    type: 'shader',
    derived: { now: 'float', lag: 'float', each: 'float' },
    derive(c, moment) {
      const turns = cyclesAt(moment, 1 / c.span, 'hertz');
      return {
        now: turns - Math.floor(turns),
        lag: c.delay / c.span,
        each: c.copyTurn === 0 ? (2 * Math.PI) / c.copies : c.copyTurn,
      };
    },
    sheets: {
      stroke: {
        from: 'numbers',
        of: ['form', 'from', 'to', 'place', 'size', 'corners', 'points', 'closed', 'text', 'font', 'spacing'],
        fill: ({ controls, letters }) => strokePixels(strokeOf(controls, letters)),
      },
    },
    // Head: how many groups and segments. A group is a box and its segments; one that is too far away is not entered, in a
    // loop that ends at once, as renderers in software work out both sides of an if.
    code: `
vec4 strokeItem~(int k) { return @stroke.at(k % 64, k / 64); }
// Distance to the lit part of the stroke, and how far along it the nearest place is.
vec2 strokeNear~(vec2 q, vec2 lit, float far) {
  vec4 head = strokeItem~(0);
  vec2 best = vec2(far, 0.0);
  for (int g = 0; g < int(head.x); g++) {
    vec4 box = strokeItem~(1 + 2 * g);
    vec4 list = strokeItem~(2 + 2 * g);
    vec2 out_ = max(max(box.xy - q, q - box.zw), 0.0);
    int end = length(out_) < best.x ? int(list.y) : 0;
    for (int k = 0; k < end; k++) {
      int at = int(list.x) + 2 * k;
      vec4 line = strokeItem~(at);
      vec2 run = strokeItem~(at + 1).xy;
      float length_ = max(run.y - run.x, 1e-6);
      vec2 e = line.zw - line.xy;
      float h = clamp(dot(q - line.xy, e) / max(dot(e, e), 1e-12), 0.0, 1.0);
      // The lit part may run over the end and go on at the beginning: two pieces.
      float piece = -1.0;
      do {
        vec2 part = (lit + piece - run.x) / length_;
        bool seen = part.y >= 0.0 && part.x <= 1.0 && part.y > part.x;
        float there = clamp(clamp(h, part.x, part.y), 0.0, 1.0);
        float d = length(q - line.xy - e * there);
        if (seen && d < best.x) best = vec2(d, run.x + there * length_);
      } while (++piece <= 0.0);
    }
  }
  return best;
}
`,
    body: `
      vec2 c = (p - 0.5) * vec2(aspect, 1.0) - $place;
      float far = $reach + $core;
      vec3 light = vec3(0.0);
      float k = 0.0;
      do {
        float a = -($turn + k * $each);
        vec2 q = vec2(cos(a) * c.x - sin(a) * c.y, sin(a) * c.x + cos(a) * c.y);
        float phase = fract($now - k * $lag);
        vec2 lit = $lit;
        float life = 1.0;
        if ($motion == 1) lit += phase;
        if ($motion == 2) {
          float up = clamp(phase / 0.45, 0.0, 1.0);
          up = 1.0 - (1.0 - up) * (1.0 - up);
          lit = mix(lit.xx, lit, up);
          life = 1.0 - smoothstep(0.6, 1.0, phase);
        }
        vec2 near = strokeNear~(q, lit, far);
        float width = $core * mix(1.0, $taper, near.y) * 0.5;
        float core = 1.0 - smoothstep(width - pixel.y, width + pixel.y, near.x);
        core *= step(1e-6, width);
        float fall = clamp(1.0 - near.x / far, 0.0, 1.0);
        float halo = $halo * fall * fall * (0.35 + 0.65 * exp(-6.0 * near.x / $reach)) * sqrt(clamp(width / max($core * 0.5, 1e-6), 0.0, 1.0));
        vec4 tint = $colours($copies > 1.0 ? k / ($copies - 1.0) : 0.0);
        light += (tint.rgb * halo + mix(tint.rgb, vec3(1.0), $white) * core) * tint.a * life;
      } while (++k < $copies);
      return vec4(light, clamp(max(light.r, max(light.g, light.b)), 0.0, 1.0));
    `,
  },
});
