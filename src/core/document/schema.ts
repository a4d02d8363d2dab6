/**
 * JSON Schema (draft 2020-12) of a show file of the version of today. The types of the document (`types.generated.ts`) and
 * the validator (compiled ahead of time, because the content policy of the app forbids `eval`) are made from it, and it is
 * published, with the controls of every node kind added, as `docs/show.schema.json`.
 *
 * `tsType` says how TypeScript writes what a schema bounds more closely than a type can.
 */
export const showFormat = 'pyrvel.show' as const;
export const showVersion = 3 as const;

/** Bounds of a scene's loop, in its unit: what lies beyond gives phases that floating point can't tell apart. */
const loopBounds = { least: 0.01, most: 1e6 } as const;

/** Largest number that a control holds: far below what 32-bit floats can, so that arithmetic has space above it. */
const mostNumber = 1e30;

const ref = (name: string) => ({ $ref: `#/$defs/${name}` });
const record = (name: string, of: object, rest: object = {}) => ({
  type: 'object',
  additionalProperties: of,
  tsType: `Record<string, ${name}>`,
  ...rest,
});
const object = (properties: Record<string, object>, optional: readonly string[] = [], rest: object = {}) => ({
  type: 'object',
  required: Object.keys(properties).filter((key) => !optional.includes(key)),
  additionalProperties: false,
  properties,
  ...rest,
});
const list = (name: string, of: object, rest: object = {}) => ({
  type: 'array',
  items: of,
  tsType: `${name}[]`,
  ...rest,
});
const about = (description: string, of: object) => ({ ...of, description });
const orNull = (of: object) => ({ anyOf: [{ type: 'null' }, of] });
const oneOf = (...values: readonly string[]) => ({ enum: values });

const name = { type: 'string', pattern: '^[\\s\\S]{1,120}$' };
const id = { type: 'string', pattern: '^[A-Za-z][A-Za-z0-9_-]{0,39}$' };
const text = { type: 'string' };
const yesNo = { type: 'boolean' };
const number = { type: 'number', minimum: -mostNumber, maximum: mostNumber };
const positive = { type: 'number', minimum: 0, maximum: mostNumber };
const range = { type: 'array', items: number, minItems: 2, maxItems: 2 };
const pixels = { type: 'integer', minimum: 1, maximum: 16384 };
/** A place on the canvas, in its pixels; parts may lie outside. */
const canvasPixels = { type: 'number', minimum: -100000, maximum: 100000 };
const share = (most: number) => ({ type: 'number', minimum: 0, maximum: most });
const rgb = (least: number, most: number) => ({
  type: 'array',
  items: { type: 'number', minimum: least, maximum: most },
  minItems: 3,
  maxItems: 3,
});
const size = { type: 'array', items: pixels, minItems: 2, maxItems: 2 };

/** A motion: what all have, and what this one has beside it. */
const motion = (description: string, type: string, own: Record<string, object>) =>
  object(
    {
      type: { const: type },
      on: yesNo,
      amount: about('How far it moves the control, in the unit of the control.', number),
      ...own,
    },
    [],
    { description },
  );
const rampWay = about(
  'Once from the start of the show, round and round, or to and fro.',
  oneOf('once', 'round', 'toAndFro'),
);
const rampUnit = oneOf('seconds', 'beats', 'loop');

const definitions = {
  Rgba: {
    type: 'array',
    items: number,
    minItems: 4,
    maxItems: 4,
    description:
      'Red, green, blue and alpha, each 0..1, straight (not premultiplied), as shown on a display.',
  },
  Stop: object({ at: { type: 'number', minimum: 0, maximum: 1 }, colour: ref('Rgba') }, [], {
    description: 'One colour of a gradient, `at` 0..1 along it.',
  }),
  CurveKey: object(
    {
      at: number,
      value: number,
      form: about(
        'How the curve passes it. smooth: softly and never beyond its neighbours. straight: in lines. hold: its value stands until the next key. free: with slopes of its own.',
        oneOf('smooth', 'straight', 'hold', 'free'),
      ),
      slopes: about('Slope before and after a free key, value over time.', range),
    },
    ['slopes'],
    { description: 'One key of a drawn curve.' },
  ),
  CurveLane: object(
    {
      name: { type: 'string', pattern: '^[\\s\\S]{0,40}$' },
      keys: list('CurveKey', ref('CurveKey'), { maxItems: 2000 }),
    },
    [],
    { description: 'A drawn curve; its keys are sorted by time.' },
  ),
  ControlValue: {
    description: 'What a control can hold when nothing drives it.',
    anyOf: [
      number,
      yesNo,
      text,
      list('number', number, { maxItems: 4096 }),
      list('Stop', ref('Stop'), { maxItems: 16 }),
      list('CurveLane', ref('CurveLane'), { minItems: 1, maxItems: 32 }),
    ],
  },
  Edges: {
    ...oneOf('hold', 'pass', 'wrap', 'mirror'),
    description: 'What happens to a fitted value outside its range.',
  },
  Fit: object(
    {
      from: range,
      to: range,
      bend: about('Exponent of the curve between the ends; 1 is a straight line.', {
        type: 'number',
        minimum: 0.05,
        maximum: 20,
      }),
      edges: ref('Edges'),
    },
    [],
    { description: 'The range an arriving signal is mapped to on a control.' },
  ),
  Spread: {
    ...oneOf('stretch', 'repeat', 'mirror', 'hold'),
    description: 'How m samples serve n places where the counts differ.',
  },
  Swing: motion('A wave laid on a control: value = base + amount x wave.', 'swing', {
    shape: oneOf('sine', 'triangle', 'square', 'ramp'),
    rate: positive,
    unit: about(
      'hertz: cycles a second. beats: beats a cycle. loop: cycles in each round of the loop.',
      oneOf('hertz', 'beats', 'loop'),
    ),
    phase: about('In turns.', number),
  }),
  Wander: motion('Smooth unrest: value = base + amount x noise, -1..1.', 'wander', {
    speed: about('Turns of direction a second, about.', positive),
    seed: number,
  }),
  Ramp: motion('A way from the base to base + amount.', 'ramp', {
    way: rampWay,
    length: about('How long one way takes; in rounds of the loop where that is the unit.', positive),
    unit: rampUnit,
    eased: yesNo,
  }),
  Stroll: motion(
    'Steps of up to a quarter of `amount`, at random, never further than `amount` from the base.',
    'walk',
    { rate: about('Steps a second.', positive), smooth: yesNo, seed: number },
  ),
  Hit: motion('An envelope of the height `amount`, fired when a signal rises over a half.', 'hit', {
    trigger: about('Signal node; null never fires.', orNull(id)),
    attack: about('Seconds to the top.', positive),
    decay: about('Seconds from the top back to the base.', positive),
  }),
  Follow: motion(
    'Lets all before it in the row follow softly. It has no amount of its own: 0..1 says how much of it counts.',
    'follow',
    { rise: about('Seconds for 95 % of the way up.', positive), fall: about('The same down.', positive) },
  ),
  ColourWay: motion(
    'A way through the colours of a gradient, for a colour as a whole. `amount`, 0..1, is how much of it covers the base.',
    'colours',
    {
      stops: list('Stop', ref('Stop'), { maxItems: 16 }),
      way: rampWay,
      length: about('How long one way takes.', positive),
      start: about('When the first way begins.', number),
      unit: rampUnit,
    },
  ),
  Motion: {
    type: 'object',
    required: ['type'],
    properties: { type: text },
    discriminator: { propertyName: 'type' },
    oneOf: ['Swing', 'Wander', 'Ramp', 'Stroll', 'Hit', 'Follow', 'ColourWay'].map(ref),
    tsType: 'Swing | Wander | Ramp | Stroll | Hit | Follow | ColourWay',
  },
  Precision: oneOf('auto', '8', '16', '32'),
  ReturnSettings: object(
    {
      keep: about('How much survives, 0..1 (and a little above), stated per 1/60 s.', {
        type: 'number',
        minimum: 0,
        maximum: 1.2,
      }),
      startsFrom: about('Node whose output stands in before the first frame; null starts empty.', orNull(id)),
      clearWhen: about('Signal node whose rise over 0.5 starts the feedback again.', orNull(id)),
      guard: oneOf('soft', 'off'),
      limit: about('Where the soft guard holds the values.', {
        type: 'number',
        exclusiveMinimum: 0,
        maximum: mostNumber,
      }),
      reading: about('Of an image: how its pixels are read.', oneOf('smooth', 'crisp')),
      size: about('Of an image: pixels that the feedback is kept at; null: as its source.', orNull(size)),
      precision: about(
        'Of an image: bits a channel that the feedback is kept at; auto: as its source.',
        ref('Precision'),
      ),
      clearWhere: about(
        'Of an image: a picture that says where what the feedback starts from comes back: out = mix(start, previous, mask).',
        orNull(id),
      ),
      tap: about(
        'What other readers of the source get: the picture after this frame’s steps, or the one that entered them. With `before`, feedback that was sent home is seen exactly at home.',
        oneOf('after', 'before'),
      ),
    },
    [],
    { description: 'The controls of a wire that carries the previous frame.' },
  ),
  WireEnd: object({
    node: id,
    port: about('An input of the kind, a control (`size`), or one part of a control (`place.x`).', text),
  }),
  Wire: object(
    {
      id,
      from: object({ node: id }),
      to: ref('WireEnd'),
      lane: about('Lane to take where the target takes one; absent: by name, else the first.', text),
      fit: ref('Fit'),
      spread: ref('Spread'),
      back: ref('ReturnSettings'),
    },
    ['lane', 'fit', 'spread', 'back'],
  ),
  PatchNode: object(
    {
      id,
      kind: id,
      name,
      place: about('Place of the card on the patch, in patch pixels.', range),
      on: yesNo,
      controls: record('ControlValue', ref('ControlValue')),
      formulas: about('Formula by control part, for example `size` or `place.x`.', record('string', text)),
      motions: about('Motions by control part.', record('Motion[]', list('Motion', ref('Motion')))),
      size: about('Pixels of an image node; absent: as its first picture, else as the canvas.', size),
      precision: ref('Precision'),
    },
    ['size'],
  ),
  SceneLoop: object(
    {
      length: { type: 'number', minimum: loopBounds.least, maximum: loopBounds.most },
      unit: oneOf('beats', 'seconds', 'frames'),
      lock: about('Rates are rounded to whole cycles of the loop.', yesNo),
    },
    [],
    { description: 'After which time a scene is to be where it was.' },
  ),
  Scene: object({
    id,
    name,
    loop: ref('SceneLoop'),
    nodes: record('PatchNode', ref('PatchNode')),
    wires: record('Wire', ref('Wire')),
  }),
  ShowFile: object(
    {
      name,
      type: about('Media type (RFC 6838), as far as known.', text),
      bytes: { type: 'integer', minimum: 0 },
    },
    [],
    { description: 'A file that belongs to a show; its bytes are kept beside the document.' },
  ),
  ShowInputs: object(
    {
      sound: object({
        from: about(
          'The built-in sound loop, a file of the show, or a microphone or line.',
          oneOf('loop', 'file', 'device'),
        ),
        file: about('File by its id; empty: none.', text),
        device: about('Device id of this browser; empty: its usual one.', text),
        gain: about('Decibels added before it is heard by the nodes.', {
          type: 'number',
          minimum: -60,
          maximum: 60,
        }),
        heard: about('Whether the sound is heard from this machine.', yesNo),
      }),
      midi: about(
        'A MIDI file that plays with the show: once, or round and round.',
        object({ file: text, rounds: yesNo }),
      ),
      osc: object({
        port: about('UDP port that OSC is listened for on.', {
          type: 'integer',
          minimum: 1024,
          maximum: 65535,
        }),
      }),
      clock: about('What the tempo follows.', oneOf('own', 'sound', 'midi')),
    },
    [],
    {
      description:
        'What drives a show from outside. Devices are those of the machine that the show was made on.',
    },
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
    },
    [],
    { description: 'One window on one display.' },
  ),
  LedTile: object(
    {
      x: about('LED pixels from the wall’s own origin.', canvasPixels),
      y: canvasPixels,
      turn: about('Turns of 90 degrees clockwise.', { type: 'integer', minimum: 0, maximum: 3 }),
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
      send: object({
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
  Wall: object({ outputs: list('Output', ref('Output'), { maxItems: 64 }) }, [], {
    description: 'All outputs of a show.',
  }),
};

export const showSchema = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Show',
  ...object({
    format: { const: showFormat },
    version: { const: showVersion },
    name,
    tempo: object({
      bpm: { type: 'number', minimum: 10, maximum: 400 },
      beatsPerBar: { type: 'integer', minimum: 1, maximum: 32 },
    }),
    canvas: object({ width: pixels, height: pixels, fps: { type: 'number', minimum: 1, maximum: 240 } }),
    fadeSeconds: { type: 'number', minimum: 0, maximum: 60 },
    inputs: ref('ShowInputs'),
    wall: ref('Wall'),
    files: about(
      'Files by id.',
      record('ShowFile', ref('ShowFile'), {
        propertyNames: { type: 'string', pattern: '^[A-Za-z0-9_-]{1,64}$' },
      }),
    ),
    scenes: list('Scene', ref('Scene'), { minItems: 1, maxItems: 200 }),
  }),
  $defs: definitions,
};
