import { choice, colour, number, toggle } from '../../core/kind/controls';
import { propKind } from '../../core/kind/kind';

export default propKind({
  id: 'body',
  label: 'Body',
  summary: 'Gives a shape a look: lit, flat or glowing, as a surface, lines or points.',
  words: ['material', 'surface', 'mesh', 'wire', 'object', 'look', 'solid'],
  inputs: {
    shape: { label: 'Shape', help: 'What is seen.', carries: 'shape' },
    picture: { label: 'Picture', help: 'Lies on the surface, or tints the points.', carries: 'image', reads: 'many' },
  },
  controls: {
    draw: choice({ label: 'Draw', help: 'What of the shape is drawn.', options: { surface: 'Surface', lines: 'Lines', points: 'Points' }, default: 'surface' }),
    lines: choice({
      label: 'Which lines',
      help: 'Along rows, along columns, or both.',
      options: { both: 'Rows and columns', rows: 'Rows', columns: 'Columns' },
      default: 'both',
      shownIf: (c) => c.draw === 'lines',
    }),
    shading: choice({
      label: 'Shading',
      help: 'Lit by the lights, plain colour, or glowing brightest where it faces you.',
      options: { lit: 'Lit', flat: 'Flat', glow: 'Glow' },
      default: 'lit',
    }),
    colour: colour({ label: 'Colour', help: 'Its alpha is how much it covers.', default: [0.95, 0.78, 0.5, 1] }),
    blending: choice({
      label: 'Blending',
      help: 'Over what lies behind, added to it, or multiplied with it.',
      options: { over: 'Over', add: 'Add', multiply: 'Multiply' },
      default: 'over',
    }),
    solid: toggle({ label: 'Hides', help: 'Hides what lies behind it.', default: true }),
    width: number({ label: 'Line width', help: 'In pixels of the canvas.', default: 2, range: [0.5, 12], min: 0, max: 200, unit: 'px', shownIf: (c) => c.draw === 'lines' }),
    leastWidth: number({ label: 'Least width', help: 'Lines never get thinner than this.', default: 1, range: [0, 4], min: 0, max: 50, unit: 'px', shownIf: (c) => c.draw === 'lines' }),
    widthShrinks: toggle({ label: 'Thinner far away', help: 'Lines shrink with distance.', default: false, shownIf: (c) => c.draw === 'lines' }),
    pointSize: number({ label: 'Point size', help: 'Diameter, in scene units.', default: 0.01, range: [0.002, 0.1], min: 0, max: 5, shownIf: (c) => c.draw === 'points' }),
    fog: number({ label: 'Fog', help: 'How much distance tints it.', default: 0, range: [0, 1], min: 0, max: 1 }),
    fogNear: number({ label: 'Fog from', help: 'Distance from the camera where the tint begins.', default: 1.2, range: [0, 5], shownIf: (c) => Number(c.fog) !== 0 }),
    fogFar: number({ label: 'Fog to', help: 'Distance where it is full.', default: 3, range: [0, 10], shownIf: (c) => Number(c.fog) !== 0 }),
    fogColour: colour({ label: 'Fog colour', help: 'Alpha 0 fades it out instead.', default: [0, 0, 0, 1], shownIf: (c) => Number(c.fog) !== 0 }),
  },
  describe({ controls: c, inputs }) {
    if (!inputs.shape) return null;
    return {
      type: 'body',
      node: '',
      shape: inputs.shape,
      look: {
        draw: c.draw,
        lines: c.lines,
        shading: c.shading,
        blending: c.blending,
        colour: c.colour,
        picture: inputs.picture,
        widthPx: c.width,
        leastWidthPx: c.leastWidth,
        widthShrinks: c.widthShrinks,
        pointSize: c.pointSize,
        fog: { near: c.fogNear, far: c.fogFar, colour: c.fogColour, amount: c.fog },
        solid: c.solid,
      },
    };
  },
});
