import { choice, colour, countsDiffer, number, point, vector, whole } from '../../core/kind/controls';
import { propKind } from '../../core/kind/kind';
import type { BodyProp, InstancesProp } from '../../core/prop';
import { pointShape, type Shape } from '../../core/shape/shape';

/** What is copied while nothing is wired: a small soft dot. */
const dot: BodyProp = {
  type: 'body',
  node: '',
  shape: pointShape(new Float32Array(3)),
  look: {
    draw: 'points',
    lines: 'both',
    shading: 'glow',
    blending: 'add',
    colour: [1, 1, 1, 1],
    picture: null,
    widthPx: 1,
    leastWidthPx: 1,
    widthShrinks: false,
    pointSize: 1,
    fog: { near: 0, far: 1, colour: [0, 0, 0, 1], amount: 0 },
    solid: false,
  },
};

const plainLook = { ...dot.look, draw: 'surface', shading: 'lit', blending: 'over', solid: true } as const;

export default propKind({
  id: 'instances',
  label: 'Instances',
  summary: 'Copies of a body on points, on pixels, or wherever numbers say.',
  words: ['copies', 'particles', 'duplicate', 'clone', 'many', 'swarm', 'crowd', 'scatter', 'dots'],
  inputs: {
    body: {
      label: 'Body',
      help: 'What is copied; a glowing dot that always faces the camera if nothing is wired.',
      carries: 'prop',
      also: 'shape',
    },
    on: { label: 'On', help: 'A copy stands on each point of this shape.', carries: 'shape' },
    pixels: {
      label: 'Pixels',
      help: 'An image whose pixels say where the copies are, and more.',
      carries: 'image',
      reads: 'data',
    },
  },
  controls: {
    count: whole({
      label: 'Count',
      help: 'How many copies; 0 takes as many as points, pixels or samples come in.',
      default: 0,
      range: [0, 10000],
      min: 0,
      max: 1048576,
    }),
    size: number({ label: 'Size', help: 'Scale of each copy.', default: 1, range: [0, 0.2], many: true }),
    stretch: vector({
      label: 'Stretch',
      help: 'Scale of each axis, on top of Size.',
      default: [1, 1, 1],
      range: [0, 2],
      many: true,
    }),
    place: vector({
      label: 'Place',
      help: 'Moves each copy; added to points and pixels.',
      default: [0, 0, 0],
      range: [-0.5, 0.5],
      many: true,
    }),
    turn: vector({
      label: 'Turn',
      help: 'About x, then y, then z.',
      default: [0, 0, 0],
      range: [0, 360],
      unit: '°',
      angle: true,
      many: true,
    }),
    tint: colour({
      label: 'Tint',
      help: 'Multiplied with the colour of the body.',
      default: [1, 1, 1, 1],
      many: true,
    }),
    facing: choice({
      label: 'Faces',
      help: 'Which way the front of each copy looks.',
      options: { none: 'As it is', camera: 'The camera', normal: 'Away from the surface' },
      default: 'none',
    }),
    reads: choice({
      label: 'Pixels are',
      help: 'Places, tints, or a row of pixels for each of several things.',
      options: { places: 'Places', tints: 'Tints', rows: 'A row each' },
      default: 'places',
    }),
    reach: vector({
      label: 'Reach',
      help: 'Pixel values 0 to 1 lie between minus this and this.',
      default: [0.8, 0.45, 0.45],
      range: [0, 2],
    }),
    rowPlace: whole({
      label: 'Row of places',
      help: 'Counted from 0 at the bottom; -1 leaves it out.',
      default: 0,
      range: [-1, 7],
      min: -1,
      max: 8191,
      shownIf: (c) => c.reads === 'rows',
    }),
    rowTint: whole({
      label: 'Row of tints',
      help: 'Counted from 0 at the bottom; -1 leaves it out.',
      default: 1,
      range: [-1, 7],
      min: -1,
      max: 8191,
      shownIf: (c) => c.reads === 'rows',
    }),
    rowTurn: whole({
      label: 'Row of turns',
      help: 'Counted from 0 at the bottom; -1 leaves it out.',
      default: 2,
      range: [-1, 7],
      min: -1,
      max: 8191,
      shownIf: (c) => c.reads === 'rows',
    }),
    rowSize: whole({
      label: 'Row of sizes',
      help: 'Counted from 0 at the bottom; -1 leaves it out.',
      default: 3,
      range: [-1, 7],
      min: -1,
      max: 8191,
      shownIf: (c) => c.reads === 'rows',
    }),
    turnReach: vector({
      label: 'Turn reach',
      help: 'Pixel values 0 to 1 turn between minus this and this.',
      default: [180, 180, 180],
      range: [0, 360],
      unit: '°',
      angle: true,
      shownIf: (c) => c.reads === 'rows',
    }),
    sizeRange: point({
      label: 'Size from, to',
      help: 'Pixel values 0 to 1 lie between these.',
      default: [0.2, 1],
      range: [0, 2],
      shownIf: (c) => c.reads === 'rows',
    }),
    spread: countsDiffer('How fewer points or pixels serve more copies.'),
  },
  countOf(c, inputs, longest) {
    if (c.count > 0) return c.count;
    const pixels = inputs.pixels;
    const fromPixels = pixels ? (c.reads === 'rows' ? pixels.width : pixels.width * pixels.height) : 0;
    return Math.min(1048576, Math.max(longest, fromPixels, (inputs.on as Shape | null)?.count ?? 0));
  },
  describe({ controls: c, inputs, count }): InstancesProp | null {
    const wired = inputs.body;
    let body: BodyProp | null = dot;
    if (wired && 'positions' in wired) body = { ...dot, shape: wired, look: plainLook };
    else if (wired) body = wired.type === 'body' ? wired : null;
    if (!body) throw new Error('Only a body or a shape can be copied. Wire one into Body.');
    const { pixels } = inputs;
    return {
      type: 'instances',
      node: '',
      body,
      count,
      place: c.place,
      turn: c.turn,
      size: c.stretch,
      scale: c.size,
      tint: c.tint,
      on: inputs.on,
      facing: c.facing,
      pixels: pixels && {
        image: pixels,
        mode: c.reads,
        rows: [c.rowPlace, c.rowTint, c.rowTurn, c.rowSize],
        reach: c.reach,
        turnReach: c.turnReach,
        sizeRange: c.sizeRange,
        spread: c.spread,
      },
      spread: c.spread,
    };
  },
});
