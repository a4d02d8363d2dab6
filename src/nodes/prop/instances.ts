import {
  angle,
  choice,
  colour,
  countsDiffer,
  gradient,
  number,
  point,
  toggle,
  vector,
  whole,
} from '../../core/kind/controls';
import { propKind } from '../../core/kind/kind';
import {
  bodyOf,
  drawnAs,
  levelsOf,
  plainLook,
  type BodyProp,
  type InstancesProp,
} from '../../core/kind/prop';
import { layoutShape, type Layout } from '../../core/shape/layout';
import { boundsOf, type Bounds } from '../../core/shape/measure';
import { orderedOnce, pointOrders } from '../shared/point-order';
import { pointShape, type Shape } from '../../core/shape/shape';

/** What is copied while nothing is wired: a small soft dot. */
const dot: BodyProp = {
  type: 'body',
  node: '',
  shape: pointShape(new Float32Array(3)),
  look: { ...plainLook, draw: 'points', shading: 'glow', blending: 'add', pointSize: 1, solid: false },
};

/** How deep copies of copies may go: each level reads seven tables, and GPUs take sixteen. */
const mostLevels = 2;

const sides = {
  own: 'Where the shape has it',
  middle: 'Middle',
  bottom: 'Bottom',
  top: 'Top',
  back: 'Back',
  front: 'Front',
} as const;

const anchors = new WeakMap<Shape, Bounds | null>();

/** The place in the space of a shape that a copy of it stands on. */
function anchorOf(shape: Shape, side: keyof typeof sides): [number, number, number] {
  if (side === 'own') return [0, 0, 0];
  // Found once for each shape: looking through all of its points every frame would cost more than drawing it.
  let bounds = anchors.get(shape);
  if (bounds === undefined) anchors.set(shape, (bounds = boundsOf(shape)));
  if (!bounds) return [0, 0, 0];
  const { low, high } = bounds;
  const at = low.map((v, k) => (v + high[k]) / 2) as [number, number, number];
  if (side === 'bottom') at[1] = low[1];
  if (side === 'top') at[1] = high[1];
  if (side === 'back') at[2] = low[2];
  if (side === 'front') at[2] = high[2];
  return at;
}

interface LayoutControls {
  layout: 'none' | Layout['form'];
  layoutSize: number;
  arc: number;
  turns: number;
  columns: number;
  rows: number;
  layers: number;
  spacing: [number, number, number];
}

function layoutOf(c: LayoutControls): Layout | null {
  switch (c.layout) {
    case 'none':
      return null;
    case 'line':
      return { form: 'line', length: c.layoutSize };
    case 'circle':
      return { form: 'circle', size: c.layoutSize, arcRad: c.arc };
    case 'spiral':
      return { form: 'spiral', size: c.layoutSize, turns: c.turns };
    case 'grid':
      return { form: 'grid', counts: [c.columns, c.rows, c.layers], spacing: c.spacing };
  }
}

/** Copies that the pixels of an image stand for. */
const pixelCopies = (reads: string, { width, height }: { width: number; height: number }): number =>
  reads === 'rows' ? width : width * height;

/** Copies a layout stands for if nobody says how many. */
const usualCount = 12;

export default propKind({
  id: 'instances',
  label: 'Instances',
  summary:
    'Copies of a body, or of other copies: on points, in a layout, on pixels, or wherever numbers say.',
  words: [
    'copies',
    'particles',
    'duplicate',
    'clone',
    'many',
    'swarm',
    'crowd',
    'scatter',
    'dots',
    'grid',
    'circle',
    'array',
  ],
  example: { controls: { size: 0.12, growth: 'bottom', facing: 'normal' } },
  inputs: {
    body: {
      label: 'Body',
      help: 'What is copied: a body, a shape or other copies; a glowing dot if nothing is wired.',
      carries: 'prop',
      also: 'shape',
      optional: true,
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
    layout: choice({
      label: 'Layout',
      help: 'Where copies stand if no shape is wired into On.',
      options: { none: 'None', line: 'Line', circle: 'Circle', grid: 'Grid', spiral: 'Spiral' },
      default: 'none',
    }),
    layoutSize: number({
      label: 'Layout size',
      help: 'Length of the line, diameter of the circle or spiral; 0 puts all in one place.',
      default: 1,
      range: [0, 2],
      shownIf: (c) => c.layout === 'line' || c.layout === 'circle' || c.layout === 'spiral',
    }),
    arc: angle({
      label: 'Arc',
      help: 'Part of the circle; a whole one is closed.',
      default: 360,
      range: [0, 360],
      min: 0,
      max: 360,
      shownIf: (c) => c.layout === 'circle',
    }),
    turns: number({
      label: 'Turns',
      help: 'How often the spiral goes round.',
      default: 3,
      range: [0, 12],
      shownIf: (c) => c.layout === 'spiral',
    }),
    columns: whole({
      label: 'Columns',
      help: 'Copies across.',
      default: 8,
      range: [1, 64],
      min: 1,
      max: 1024,
      shownIf: (c) => c.layout === 'grid',
    }),
    rows: whole({
      label: 'Rows',
      help: 'Copies up.',
      default: 5,
      range: [1, 64],
      min: 1,
      max: 1024,
      shownIf: (c) => c.layout === 'grid',
    }),
    layers: whole({
      label: 'Layers',
      help: 'Copies in depth.',
      default: 1,
      range: [1, 16],
      min: 1,
      max: 256,
      shownIf: (c) => c.layout === 'grid',
    }),
    spacing: vector({
      label: 'Spacing',
      help: 'From copy to copy, on each axis.',
      default: [0.15, 0.15, 0.15],
      range: [0, 0.5],
      shownIf: (c) => c.layout === 'grid',
    }),
    numbering: choice({
      label: 'Numbering',
      help: 'Which point gets the first copy, and so the first of all numbers.',
      options: pointOrders,
      default: 'none',
    }),
    numberFrom: vector({
      label: 'Numbered from',
      help: 'Where distances and the spiral begin.',
      default: [0, 0, 0],
      range: [-1, 1],
      shownIf: (c) => c.numbering === 'distance' || c.numbering === 'spiral',
    }),
    facing: choice({
      label: 'Faces',
      help: 'Which way the front of each copy looks.',
      options: {
        none: 'As it is',
        camera: 'The camera',
        normal: 'Away from the surface',
        direction: 'Along a direction',
        outward: 'Away from the middle',
      },
      default: 'none',
    }),
    toward: vector({
      label: 'Direction',
      help: 'Which way all of them look.',
      default: [0, 1, 0],
      range: [-1, 1],
      shownIf: (c) => c.facing === 'direction',
    }),
    growth: choice({
      label: 'Grows from',
      help: 'The part of the body that stands on the point and stays there when a copy is scaled or turned.',
      options: sides,
      default: 'own',
    }),
    paletteWay: choice({
      label: 'Palette',
      help: 'Colours over the copies: once from first to last, again and again, or there and back.',
      options: { none: 'None', once: 'Once', repeat: 'Repeated', mirror: 'There and back' },
      default: 'none',
    }),
    palette: gradient({
      label: 'Colours',
      help: 'Multiplied with the tint.',
      default: [
        { at: 0, colour: [0.93, 0.33, 0.16, 1] },
        { at: 0.5, colour: [1, 0.66, 0.2, 1] },
        { at: 1, colour: [0.2, 0.72, 0.7, 1] },
      ],
      shownIf: (c) => c.paletteWay !== 'none',
    }),
    paletteTimes: number({
      label: 'Times',
      help: 'How often it goes over the copies.',
      default: 1,
      range: [1, 12],
      min: 0,
      shownIf: (c) => c.paletteWay === 'repeat' || c.paletteWay === 'mirror',
    }),
    part: choice({
      label: 'Picture part',
      help: "What each copy shows of the body's picture: all of it, one cell of a grid, or what lies where the copy is at home.",
      options: { whole: 'Whole', cells: 'A cell each', place: 'Where it stands' },
      default: 'whole',
    }),
    cells: point({
      label: 'Cells',
      help: 'Columns and rows that the picture is cut into.',
      default: [4, 4],
      range: [1, 16],
      min: 1,
      max: 1024,
      shownIf: (c) => c.part === 'cells',
    }),
    cell: number({
      label: 'Cell',
      help: 'Added to the number of each copy; counted from the lower left.',
      default: 0,
      range: [0, 16],
      many: true,
      shownIf: (c) => c.part === 'cells',
    }),
    frame: point({
      label: 'Picture size',
      help: 'Width and height, in scene units, over which the picture lies.',
      default: [1.6, 0.9],
      range: [0.1, 3],
      min: 0.0001,
      shownIf: (c) => c.part === 'place',
    }),
    region: choice({
      label: 'Region',
      help: 'A part of space, soft at its rim, inside which copies are changed.',
      options: { none: 'None', ball: 'Ball', box: 'Box' },
      default: 'none',
    }),
    regionPlace: vector({
      label: 'Region place',
      help: 'Its middle.',
      default: [0, 0, 0],
      range: [-1, 1],
      shownIf: (c) => c.region !== 'none',
    }),
    regionSize: vector({
      label: 'Region size',
      help: 'Width, height and depth.',
      default: [0.6, 0.6, 0.6],
      range: [0, 2],
      min: 0,
      shownIf: (c) => c.region !== 'none',
    }),
    regionSoft: number({
      label: 'Region softness',
      help: 'Share of its size over which it fades.',
      default: 0.6,
      range: [0, 1],
      min: 0,
      max: 1,
      shownIf: (c) => c.region !== 'none',
    }),
    regionPush: number({
      label: 'Region push',
      help: 'Moves copies inside it.',
      default: 0.15,
      range: [-0.5, 0.5],
      shownIf: (c) => c.region !== 'none',
    }),
    regionWay: choice({
      label: 'Pushes',
      help: 'The way each copy looks, or away from the middle of the region.',
      options: { own: 'Forward', outward: 'Outward' },
      default: 'own',
      shownIf: (c) => c.region !== 'none',
    }),
    regionTurn: vector({
      label: 'Region turn',
      help: 'Turns copies inside it.',
      default: [0, 0, 0],
      range: [-180, 180],
      unit: '°',
      angle: true,
      shownIf: (c) => c.region !== 'none',
    }),
    regionScale: number({
      label: 'Region scale',
      help: 'Scale of copies inside it.',
      default: 1,
      range: [0, 3],
      shownIf: (c) => c.region !== 'none',
    }),
    regionTint: colour({
      label: 'Region tint',
      help: 'Multiplied with the colour of copies inside it.',
      default: [1, 1, 1, 1],
      shownIf: (c) => c.region !== 'none',
    }),
    timed: toggle({
      label: 'Start times',
      help: 'Copies come, and go, at times of their own.',
      default: false,
    }),
    start: number({
      label: 'Start',
      help: 'When a copy begins.',
      default: 0,
      range: [0, 10],
      unit: 's',
      many: true,
      shownIf: (c) => c.timed === true,
    }),
    rise: number({
      label: 'Rise',
      help: 'How long it grows.',
      default: 0.4,
      range: [0, 4],
      min: 0,
      unit: 's',
      shownIf: (c) => c.timed === true,
    }),
    stay: number({
      label: 'Stay',
      help: 'How long it is there before it shrinks again; 0 is for good.',
      default: 0,
      range: [0, 10],
      min: 0,
      unit: 's',
      shownIf: (c) => c.timed === true,
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
      label: 'Size range',
      parts: ['Size from', 'Size to'],
      help: 'Pixel values 0 to 1 lie between these.',
      default: [0.2, 1],
      range: [0, 2],
      shownIf: (c) => c.reads === 'rows',
    }),
    spread: countsDiffer('How fewer points or pixels serve more copies.'),
    mostPixels: whole({
      label: 'Pixels at most',
      help: 'How many copies the pixels of an image make at most while Count is 0, spread over the whole image. A whole picture has hundreds of thousands.',
      default: 1000,
      range: [0, 10000],
      min: 1,
      max: 1048576,
      shownIf: (c) => Number(c.count) === 0,
    }),
  },
  // Shows of version 1 had no limit.
  migrate: { 1: (controls) => ({ mostPixels: 1048576, ...controls }) },
  moves: (c) => c.timed,
  countOf(c, inputs, longest) {
    if (c.count > 0) return c.count;
    const pixels = inputs.pixels;
    const fromPixels = pixels ? Math.min(c.mostPixels, pixelCopies(c.reads, pixels)) : 0;
    const on = (inputs.on as Shape | null)?.count ?? 0;
    const others = Math.max(longest, fromPixels, on);
    if (c.layout === 'grid' && !on) return Math.min(1048576, Math.max(others, c.columns * c.rows * c.layers));
    return Math.min(1048576, c.layout !== 'none' && others === 1 ? usualCount : others);
  },
  describe({ controls: c, inputs, count, moment, remark }): InstancesProp {
    const given = inputs.pixels && c.count === 0 ? pixelCopies(c.reads, inputs.pixels) : 0;
    if (given > c.mostPixels)
      remark?.(
        `${given.toLocaleString('en')} pixels, ${count.toLocaleString('en')} copies: raise “Pixels at most” for more.`,
      );
    const wired = inputs.body;
    let body: BodyProp | InstancesProp = dot;
    if (wired && 'positions' in wired)
      body = { ...dot, shape: wired, look: { ...plainLook, draw: drawnAs(wired) } };
    else if (wired?.type === 'body' || wired?.type === 'instances') body = wired;
    else if (wired)
      throw new Error(`A ${wired.type} cannot be copied. Wire a body, a shape or other copies into Body.`);
    if (levelsOf(body).length >= mostLevels)
      throw new Error(
        'Copies of copies of copies cannot be drawn. Join two of the steps with Stack or a shape.',
      );
    const { pixels } = inputs;
    const layout = layoutOf(c);
    const on = inputs.on ?? (layout ? layoutShape(layout, count) : null);
    return {
      type: 'instances',
      node: '',
      body,
      count: on?.count === 0 ? 0 : count,
      place: c.place,
      turn: c.turn,
      size: c.stretch,
      scale: c.size,
      tint: c.tint,
      on: on && orderedOnce(on, c.numbering, c.numberFrom),
      facing: c.facing,
      toward: c.toward,
      anchor: anchorOf(bodyOf(body).shape, c.growth),
      pixels: pixels && {
        image: pixels,
        mode: c.reads,
        rows: [c.rowPlace, c.rowTint, c.rowTurn, c.rowSize],
        reach: c.reach,
        turnReach: c.turnReach,
        sizeRange: c.sizeRange,
        spread: c.spread,
      },
      palette:
        c.paletteWay === 'none' ? null : { stops: c.palette, way: c.paletteWay, times: c.paletteTimes },
      part:
        c.part === 'cells'
          ? { by: 'cells', columns: Math.round(c.cells[0]), rows: Math.round(c.cells[1]), cell: c.cell }
          : c.part === 'place'
            ? { by: 'place', frame: c.frame }
            : null,
      region:
        c.region === 'none'
          ? null
          : {
              form: c.region,
              place: c.regionPlace,
              size: [c.regionSize[0] / 2, c.regionSize[1] / 2, c.regionSize[2] / 2],
              soft: c.regionSoft,
              push: c.regionPush,
              outward: c.regionWay === 'outward',
              turnRad: c.regionTurn,
              scale: c.regionScale,
              tint: c.regionTint,
            },
      start: c.timed ? { at: c.start, riseSeconds: c.rise, staySeconds: c.stay, time: moment.time } : null,
      spread: c.spread,
    };
  },
});
