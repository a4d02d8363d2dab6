import {
  mostNumber,
  ref,
  record,
  object,
  list,
  about,
  orNull,
  oneOf,
  name,
  id,
  text,
  yesNo,
  number,
  positive,
  range,
  pixels,
  size,
  rgb,
} from './schema-words';
import { playDefinitions, playProperties } from './schema-play';
import { moduleDefinitions, moduleId, patchFrames } from './schema-module';
import { wallDefinitions } from './schema-wall';
import { showFormat, showVersion } from './version';

/**
 * JSON Schema (draft 2020-12) of a show file of the version of today. The types of the document (`types.generated.ts`) and
 * the validator (compiled ahead of time, because the content policy of the app forbids `eval`) are made from it, and it is
 * published, with the controls of every node kind added, as `docs/show.schema.json`.
 *
 * `tsType` says how TypeScript writes what a schema bounds more closely than a type can.
 */

/** Bounds of a scene's loop, in its unit: what lies beyond gives phases that floating point can't tell apart. */
const loopBounds = { least: 0.01, most: 1e6 } as const;

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
      from: object(
        { node: id, output: about('Of a module with several outputs: which; absent: its first.', id) },
        ['output'],
      ),
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
      frozen: about('Id of the costly node that this one stands for; absent: it stands for itself.', id),
      draft: about(
        'Values for work, by control: used in place of `controls` while only the desk looks on; stage, outputs and exports never use them.',
        record('ControlValue', ref('ControlValue')),
      ),
      delay: about('Of a module: seconds by which the time inside of it is behind; below 0, ahead.', {
        type: 'number',
        minimum: -86400,
        maximum: 86400,
      }),
    },
    ['size', 'frozen', 'draft', 'delay'],
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
  Scene: object(
    {
      id,
      name,
      loop: ref('SceneLoop'),
      nodes: record('PatchNode', ref('PatchNode')),
      wires: record('Wire', ref('Wire')),
      button: ref('SceneButton'),
      frames: patchFrames,
    },
    ['button', 'frames'],
  ),
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
        to: about(
          'Address and port that bound controls are sent back to, `192.0.2.7:9000`; empty: none.',
          text,
        ),
      }),
      clock: about('What the tempo follows.', oneOf('own', 'sound', 'midi')),
      code: about(
        'Where time code comes from: MIDI time code, or linear time code (SMPTE ST 12-1) in the sound that is heard.',
        oneOf('none', 'midi', 'sound'),
      ),
    },
    [],
    {
      description:
        'What drives a show from outside. Devices are those of the machine that the show was made on.',
    },
  ),
  Transition: object(
    {
      look: about(
        'mix: one into the other; dip: through a colour; add: both at full in the middle; wipe: an edge that travels; iris: an edge that opens from the middle; mask: dark places of another scene or picture first, bright ones last; blur: through a blur; displace: each is bent by the other.',
        oneOf('mix', 'dip', 'add', 'wipe', 'iris', 'mask', 'blur', 'displace'),
      ),
      length: { type: 'number', minimum: 0, maximum: 600 },
      unit: oneOf('seconds', 'beats'),
      start: about('When a take begins: at once, or with the next beat or bar.', oneOf('now', 'beat', 'bar')),
      angle: about('Of a wipe: the way its edge travels, degrees from the right, counter-clockwise.', {
        type: 'number',
        minimum: -360,
        maximum: 360,
      }),
      soft: about('Of a wipe, iris or mask: width of the edge, as a share of its way.', {
        type: 'number',
        minimum: 0,
        maximum: 1,
      }),
      colour: about('Of a dip: red, green and blue.', rgb(0, 1)),
      mask: about(
        'Of a mask: a scene of the show, or a picture file; null: none yet.',
        orNull(ref('TransitionMask')),
      ),
      amount: about('Of a blur or displacement: how strong it is in the middle, in heights of the picture.', {
        type: 'number',
        minimum: 0,
        maximum: 1,
      }),
    },
    [],
    { description: 'How a take looks, and how long it lasts.' },
  ),
  TransitionMask: object({ from: oneOf('scene', 'file'), id: text }),
  ...moduleDefinitions,
  ...playDefinitions,
  ...wallDefinitions,
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
    transition: ref('Transition'),
    ...playProperties,
    inputs: ref('ShowInputs'),
    wall: ref('Wall'),
    files: about(
      'Files by id.',
      record('ShowFile', ref('ShowFile'), {
        propertyNames: { type: 'string', pattern: '^[A-Za-z0-9_-]{1,64}$' },
      }),
    ),
    modules: about(
      'Modules by id: a node of the kind `module-` and that id is one of it.',
      record('Module', ref('Module'), { propertyNames: moduleId, maxProperties: 500 }),
    ),
    scenes: list('Scene', ref('Scene'), { minItems: 1, maxItems: 200 }),
  }),
  $defs: definitions,
};
