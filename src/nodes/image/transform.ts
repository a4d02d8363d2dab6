import { amount, angle, choice, number, point, toggle } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { outsideGlsl, outside } from '../glsl/colour';

export default imageKind({
  id: 'transform',
  label: 'Transform',
  summary: 'Moves, scales and turns a picture about a pivot.',
  words: ['move', 'rotate', 'zoom', 'scale', 'shift', 'spin', 'tile', 'repeat', 'shake', 'feedback'],
  example: { controls: { scale: 0.5, turn: 20, outside: 'mirror' } },
  inputs: { picture: { label: 'Picture', help: 'What is moved.', carries: 'image', reads: 'moved' } },
  controls: {
    move: point({
      label: 'Move',
      help: 'Picture heights to the right and up.',
      default: [0, 0],
      range: [-1, 1],
      handle: { as: 'from', of: 'pivot' },
    }),
    scale: number({
      label: 'Scale',
      help: 'Size of the picture; 1 leaves it.',
      default: 1,
      range: [0.1, 3],
      min: -100,
      max: 100,
    }),
    stretch: point({
      label: 'Stretch',
      help: 'Scale of each axis, on top of Scale.',
      default: [1, 1],
      range: [0.1, 3],
      min: -100,
      max: 100,
    }),
    turn: angle({ label: 'Turn', help: 'Counter-clockwise.', default: 0, range: [0, 360] }),
    pivot: point({
      label: 'Pivot',
      help: 'The point that stays where it is while scaling and turning.',
      default: [0, 0],
      range: [-1, 1],
      handle: { as: 'place' },
    }),
    outside: outside('nothing'),
    limited: toggle({
      label: 'Limit repeats',
      help: 'It repeats only so often, with nothing beyond.',
      default: false,
      shownIf: (c) => c.outside === 'repeat' || c.outside === 'mirror',
    }),
    repeats: point({
      label: 'Repeats',
      help: 'How often it repeats to either side along each axis.',
      default: [0, 0],
      range: [0, 8],
      min: 0,
      max: 1000,
      shownIf: (c) => c.limited === true && (c.outside === 'repeat' || c.outside === 'mirror'),
    }),
    reading: choice({
      label: 'Reading',
      help: 'Smooth mixes pixels; crisp takes the nearest.',
      options: { smooth: 'Smooth', crisp: 'Crisp' },
      default: 'smooth',
    }),
    cover: choice({
      label: 'Fit',
      help: 'Cover grows a turned picture until no corner is empty.',
      options: { none: 'As it is', cover: 'Cover' },
      default: 'none',
    }),
    amount,
  },
  paint: {
    type: 'shader',
    helpers: [outsideGlsl],
    wet: true,
    derived: { from: 'vec2', toX: 'vec2', toY: 'vec2', turned: 'vec2' },
    derive(c) {
      const [ct, st] = [Math.cos(c.turn), Math.sin(c.turn)];
      // A picture of no size is as good as none; nothing is divided by 0.
      const sized = (k: number): number => {
        const size = c.scale * c.stretch[k];
        return Math.abs(size) < 1e-6 ? 1e-6 : size;
      };
      return {
        from: [c.move[0] + c.pivot[0], c.move[1] + c.pivot[1]],
        toX: [ct / sized(0), st / sized(0)],
        toY: [-st / sized(1), ct / sized(1)],
        turned: [Math.abs(ct), Math.abs(st)],
      };
    },
    body: `
      vec2 c = (p - 0.5) * vec2(aspect, 1.0) - $from;
      if ($cover == 1) c /= max(($turned.x * aspect + $turned.y) / aspect, $turned.x + $turned.y * aspect);
      vec2 q = vec2(dot($toX, c), dot($toY, c)) + $pivot;
      vec2 to = q / vec2(aspect, 1.0) + 0.5;
      vec3 at = outsidePlace(to, $outside);
      if ($limited && $outside >= 2) {
        vec2 beyond = step($repeats + 1.0, abs(to - 0.5) + 0.5);
        at.z *= 1.0 - max(beyond.x, beyond.y);
      }
      if ($reading == 1) at.xy = (floor(at.xy * @picture.size) + 0.5) / @picture.size;
      return @picture(at.xy) * at.z;
    `,
  },
});
