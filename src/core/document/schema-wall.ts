import {
  ref,
  object,
  list,
  about,
  orNull,
  oneOf,
  name,
  id,
  text,
  yesNo,
  range,
  size,
  pixels,
  rgb,
  threeOf,
} from './schema-words';

/** A place on the canvas, in its pixels; parts may lie outside. */
const canvasPixels = { type: 'number', minimum: -100000, maximum: 100000 };
const share = (most: number) => ({ type: 'number', minimum: 0, maximum: most });

const room = about(
  'Where it hangs in the room; null: as its part lies on the canvas.',
  orNull(ref('RoomPlace')),
);
/** Metres: x to the right, y up, z towards the audience; the floor is at y = 0, the back wall at z = 0. */
const metres = { type: 'number', minimum: -1000, maximum: 1000 };

/** The wall: all outputs of a show. */
export const wallDefinitions = {
  RoomPlace: object(
    {
      at: about(
        'Middle of its surface, metres from the middle of the back wall on the floor: x to the right, y up, z towards the audience.',
        threeOf(metres),
      ),
      turn: about(
        'Degrees about x, then y, then z; none faces the audience.',
        threeOf({ type: 'number', minimum: -360, maximum: 360 }),
      ),
      width: about('Metres. An LED wall has the width of its pixels instead.', {
        type: 'number',
        minimum: 0.01,
        maximum: 1000,
      }),
    },
    [],
    { description: 'Where the surface of an output is in the simulated room.' },
  ),
  OutputPart: object(
    {
      x: canvasPixels,
      y: canvasPixels,
      width: { type: 'number', minimum: 1, maximum: 100000 },
      height: { type: 'number', minimum: 1, maximum: 100000 },
      turn: about('Degrees clockwise, around its middle.', { type: 'number', minimum: -360, maximum: 360 }),
    },
    [],
    { description: 'What an output takes of the canvas, in pixels from its top left.' },
  ),
  Warp: object(
    {
      columns: { type: 'integer', minimum: 2, maximum: 9 },
      rows: { type: 'integer', minimum: 2, maximum: 9 },
      smooth: about('Curves between the points, else lines.', yesNo),
      points: about(
        'Where the points of a regular grid over the picture lie on the output, row by row, as shares from its top left.',
        list(
          '[number, number]',
          { ...range, items: { type: 'number', minimum: -4, maximum: 5 } },
          {
            minItems: 4,
            maxItems: 81,
          },
        ),
      ),
    },
    [],
    {
      description:
        'How the picture is bent onto a surface. 2 x 2 points are corners: the bend is a perspective.',
    },
  ),
  OutputMask: object(
    {
      points: about(
        'Corners of a polygon, as shares of the output from its top left.',
        list(
          '[number, number]',
          { ...range, items: { type: 'number', minimum: -1, maximum: 2 } },
          {
            minItems: 3,
            maxItems: 32,
          },
        ),
      ),
      soft: about('Width of its soft edge, as a share of the height of the output.', share(0.5)),
      hides: about('What is black: what lies inside of it, or outside.', oneOf('inside', 'outside')),
    },
    [],
    { description: 'What is cut away from an output.' },
  ),
  EdgeBlend: object(
    {
      left: share(1),
      right: share(1),
      top: share(1),
      bottom: share(1),
      power: about('Form of the curve; 1 is a straight line in linear light.', {
        type: 'number',
        minimum: 1,
        maximum: 5,
      }),
      gamma: about('Of the projector.', { type: 'number', minimum: 1, maximum: 3 }),
      lift: about('Light added to black where nothing overlaps, in linear light.', share(0.5)),
    },
    [],
    { description: 'How two projectors overlap: the width of each side, as a share of the picture.' },
  ),
  OutputColour: object(
    {
      gain: rgb(0, 2),
      gamma: about('Of each channel: above 1 its middle is brighter.', rgb(0.2, 5)),
      black: about('Of each channel: what black is raised to.', rgb(0, 0.5)),
      kelvin: about('Colour temperature of white; 6500 changes nothing.', {
        type: 'number',
        minimum: 2000,
        maximum: 15000,
      }),
      brightness: about('Most light it gives, as a share of what it can.', share(1)),
    },
    [],
    { description: 'How an output shows colours: red, green and blue.' },
  ),
  ScreenOutput: object(
    {
      id,
      name,
      type: { const: 'screen' },
      part: ref('OutputPart'),
      quarterTurns: about('Turns of 90 degrees clockwise.', { type: 'integer', minimum: 0, maximum: 3 }),
      mirrored: yesNo,
      warp: ref('Warp'),
      masks: list('OutputMask', ref('OutputMask'), { maxItems: 8 }),
      blend: ref('EdgeBlend'),
      colour: ref('OutputColour'),
      room,
    },
    [],
    { description: 'One window on one display.' },
  ),
  LedTile: object(
    {
      x: about('LED pixels from the wall’s own origin.', canvasPixels),
      y: canvasPixels,
      turn: about('Turns of 90 degrees clockwise.', { type: 'integer', minimum: 0, maximum: 3 }),
      outline: about(
        'Corners of the lit part, as shares of the tile from its top left before it is turned; null: all of it.',
        orNull(
          list(
            '[number, number]',
            { ...range, items: { type: 'number', minimum: 0, maximum: 1 } },
            { minItems: 3, maxItems: 64 },
          ),
        ),
      ),
    },
    [],
    { description: 'One cabinet of an LED wall.' },
  ),
  LedRaster: object(
    {
      width: pixels,
      height: pixels,
      along: about('Whether tiles are wired row by row or column by column.', oneOf('rows', 'columns')),
      from: about(
        'The corner of the wall where the chain begins.',
        oneOf('topLeft', 'topRight', 'lowerLeft', 'lowerRight'),
      ),
      serpentine: about('Every other line runs back.', yesNo),
      places: about(
        'Upper left corner of each tile in the raster, if they are placed by hand; null: packed in the order of the chain.',
        orNull(
          list(
            '[number, number]',
            { ...range, items: { type: 'integer', minimum: 0, maximum: 16384 } },
            { maxItems: 4096 },
          ),
        ),
      ),
    },
    [],
    { description: 'The picture that an LED processor expects: where the pixels of each tile lie in it.' },
  ),
  LedWall: object(
    {
      id,
      name,
      type: { const: 'led' },
      place: about(
        'Where the wall’s origin lies on the canvas, pixels from its top left.',
        object({ x: canvasPixels, y: canvasPixels }),
      ),
      pixelSize: about('Pixels of the canvas for each of the wall.', {
        type: 'number',
        minimum: 0.05,
        maximum: 100,
      }),
      tile: about('Pixels of a tile, before it is turned.', {
        ...size,
        items: { type: 'integer', minimum: 1, maximum: 4096 },
      }),
      pitch: about('Millimetres from one LED pixel to the next.', {
        type: 'number',
        minimum: 0.1,
        maximum: 1000,
      }),
      tiles: list('LedTile', ref('LedTile'), { maxItems: 4096 }),
      raster: ref('LedRaster'),
      colour: ref('OutputColour'),
      room,
    },
    [],
    { description: 'A wall of LED tiles, fed through a processor.' },
  ),
  PixelString: object(
    {
      id,
      name,
      type: { const: 'string' },
      layout: about(
        'path: pixels evenly along the line through the points. points: a pixel at each point.',
        oneOf('path', 'points'),
      ),
      points: about(
        'Places on the canvas, pixels from its top left.',
        list('[number, number]', { ...range, items: canvasPixels }, { minItems: 1, maxItems: 20000 }),
      ),
      closed: about('Of a path: the last point is joined to the first.', yesNo),
      reversed: about('The last pixel is fed first.', yesNo),
      pixels: about('How many lie along a path.', { type: 'integer', minimum: 1, maximum: 20000 }),
      area: about('Side of the square of the canvas that a pixel stands for, in pixels of the canvas.', {
        type: 'number',
        minimum: 0.1,
        maximum: 4096,
      }),
      order: about(
        'Order of the channels of a pixel.',
        oneOf('RGB', 'RBG', 'GRB', 'GBR', 'BRG', 'BGR', 'RGBW', 'GRBW', 'WRGB'),
      ),
      bits: { ...{ enum: [8, 16] }, tsType: '8 | 16' },
      gamma: { type: 'number', minimum: 0.2, maximum: 5 },
      brightness: share(1),
      milliamperes: about('What one channel of one pixel draws at full.', {
        type: 'number',
        minimum: 0,
        maximum: 1000,
      }),
      mostAmperes: about('The string is dimmed where it would draw more by estimate; 0: no limit.', {
        type: 'number',
        minimum: 0,
        maximum: 10000,
      }),
      room,
      send: object({
        simulated: about('Sent to the receiver that is built in, and not to the network.', yesNo),
        onStop: about('What nodes are left with when nothing is sent any more.', oneOf('black', 'hold')),
        protocol: about(
          'Art-Net 4, sACN (ANSI E1.31), DDP, or none: nothing is sent.',
          oneOf('none', 'artnet', 'sacn', 'ddp'),
        ),
        address: about('IPv4 address of the node; empty: multicast, with sACN only.', {
          type: 'string',
          pattern: '^$|^(?:\\d{1,3}\\.){3}\\d{1,3}$',
        }),
        universe: about('The first; a Port-Address with Art-Net.', {
          type: 'integer',
          minimum: 0,
          maximum: 63999,
        }),
        channel: about('Where the first pixel begins in it.', { type: 'integer', minimum: 1, maximum: 512 }),
        priority: about('With sACN.', { type: 'integer', minimum: 0, maximum: 200 }),
        sync: about('Whether nodes wait for a synchronization packet before they show a frame.', yesNo),
        rate: about('Most frames a second.', { type: 'number', minimum: 1, maximum: 60 }),
      }),
    },
    [],
    { description: 'A run of single pixels that is fed over the network.' },
  ),
  Output: {
    type: 'object',
    required: ['type'],
    properties: { type: text },
    discriminator: { propertyName: 'type' },
    oneOf: ['ScreenOutput', 'LedWall', 'PixelString'].map(ref),
    tsType: 'ScreenOutput | LedWall | PixelString',
  },
  Wall: object(
    {
      outputs: list('Output', ref('Output'), { maxItems: 64 }),
      venue: about('Model of the venue: the id of a file, in metres; null: none.', orNull(text)),
      limiter: about('Flashes of what is on air are held within the limit.', yesNo),
      seat: about('Where the eyes of somebody in the audience are, metres in the room.', threeOf(metres)),
    },
    [],
    { description: 'All outputs of a show, and the room they hang in.' },
  ),
};
