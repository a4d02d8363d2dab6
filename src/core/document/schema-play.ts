import {
  about,
  id,
  list,
  name,
  number,
  object,
  oneOf,
  orNull,
  positive,
  range,
  record,
  ref,
  rgb,
  text,
  yesNo,
} from './schema-words';

/** The parts of a show document that are played by hand: the desk, snapshots, cues and recorded moves. */

const cell = { type: 'integer', minimum: 0, maximum: 63 };
const cells = { type: 'integer', minimum: 1, maximum: 16 };
const two = (of: object) => ({ type: 'array', items: of, minItems: 2, maxItems: 2 });
const channel = { type: 'integer', minimum: 1, maximum: 16 };
const data = { type: 'integer', minimum: 0, maximum: 127 };
const share = { type: 'number', minimum: 0, maximum: 1 };

/** One of several objects that are told apart by `type`. */
const oneOfTypes = (names: readonly string[]) => ({
  type: 'object',
  required: ['type'],
  properties: { type: text },
  discriminator: { propertyName: 'type' },
  oneOf: names.map(ref),
  tsType: names.join(' | '),
});
const typed = (type: string, properties: Record<string, object>, description: string) =>
  object({ type: { const: type }, ...properties }, [], { description });

const goes = {
  GoByHand: typed('hand', {}, 'By a key, pedal, button or command.'),
  GoAfter: typed(
    'after',
    { length: positive, unit: oneOf('seconds', 'beats') },
    'By itself, so long after the cue before it began.',
  ),
  GoAtSound: typed(
    'sound',
    { at: positive },
    'When the sound of the show comes to that second; a sound that goes round comes there each time.',
  ),
  GoByNote: typed(
    'note',
    { channel: about('0: any channel.', { ...channel, minimum: 0 }), note: data },
    'By a MIDI note.',
  ),
  GoAtCode: typed('code', { at: positive }, 'When time code comes to that second.'),
};

const sources = {
  ControlSource: typed(
    'control',
    {
      channel,
      control: data,
      fine: about('14 bits: the control 32 numbers further holds the lower seven.', yesNo),
    },
    'A MIDI control change.',
  ),
  NoteSource: typed('note', { channel, note: data }, 'A MIDI note: its velocity while it is held.'),
  BendSource: typed('bend', { channel }, 'A MIDI pitch bend.'),
  OscSource: typed(
    'osc',
    { address: text, arg: { type: 'integer', minimum: 0, maximum: 31 } },
    'A number of an OSC message, 0..1.',
  ),
  ButtonSource: typed(
    'button',
    {
      pad: { type: 'integer', minimum: 1, maximum: 8 },
      button: { type: 'integer', minimum: 0, maximum: 31 },
    },
    'A button of a gamepad.',
  ),
  StickSource: typed(
    'stick',
    { pad: { type: 'integer', minimum: 1, maximum: 8 }, stick: { type: 'integer', minimum: 0, maximum: 3 } },
    'A stick of a gamepad: left x and y, right x and y.',
  ),
  KeySource: typed('key', { code: text }, 'A key, as `KeyboardEvent.code` (UI Events standard).'),
};

const hits = oneOf('strobe', 'invert', 'flash');

const boundTo = {
  ToDesk: typed(
    'desk',
    { control: id, from: about('Which of its numbers.', { type: 'integer', minimum: 0, maximum: 3 }) },
    'A desk control.',
  ),
  ToCommand: typed('command', { command: text }, 'A command of the application, by its id.'),
  ToScene: typed('scene', { scene: id }, 'Takes a scene.'),
  ToSnapshot: typed('snapshot', { snapshot: id }, 'Recalls a snapshot.'),
  ToHit: typed('hit', { hit: hits }, 'A hit on the picture, while it is held.'),
  ToMaster: typed(
    'master',
    { master: oneOf('speed', 'motion', 'crossfader', 'layer') },
    'A master of the performance.',
  ),
};

const moves = {
  MoveDesk: typed(
    'desk',
    { at: positive, control: id, value: ref('DeskValue') },
    'A desk control was moved.',
  ),
  MoveCue: typed('cue', { at: positive, cue: id }, 'A cue began.'),
  MoveRecall: typed(
    'recall',
    { at: positive, snapshot: id, seconds: positive },
    'A snapshot was recalled, over so many seconds.',
  ),
  MoveTake: typed('take', { at: positive, scene: id, seconds: positive }, 'A scene was taken.'),
  MoveFade: typed(
    'crossfade',
    { at: positive, scene: id, to: share },
    'The crossfader brought a scene so far.',
  ),
  MoveTempo: typed('tempo', { at: positive, bpm: positive }, 'The tempo was changed.'),
  MoveMaster: typed(
    'master',
    { at: positive, master: oneOf('speed', 'motion'), value: positive },
    'A master was moved.',
  ),
  MoveLayer: typed('layer', { at: positive, layer: orNull(ref('Layer')) }, 'A layer came, changed or went.'),
  MoveHit: typed('hit', { at: positive, hit: hits, on: yesNo }, 'A hit on the picture began or ended.'),
  MoveSwitch: typed(
    'switch',
    { at: positive, what: oneOf('blackout', 'freeze'), on: yesNo },
    'Blackout or freeze was switched.',
  ),
};

export const playDefinitions = {
  DeskValue: {
    description:
      'What a desk control stands at: one number of a fader, dial, pad or switch, two of a pad x/y, four of a chip (red, green, blue, alpha); the chosen option, or the words of a title.',
    anyOf: [
      list('number', number, { minItems: 1, maxItems: 4 }),
      { type: 'string', pattern: '^[\\s\\S]{0,4000}$' },
    ],
  },
  DeskTarget: object(
    {
      scene: id,
      node: id,
      part: about('A control (`size`) or one part of it (`place.x`).', text),
      from: about('Which number of the desk control moves it.', { type: 'integer', minimum: 0, maximum: 3 }),
      to: about('Its values at the low and at the high end.', range),
      bend: about('Exponent of the curve between the ends; 1 is a straight line.', {
        type: 'number',
        minimum: 0.05,
        maximum: 20,
      }),
    },
    [],
    { description: 'A control of a node that a desk control moves.' },
  ),
  DeskControl: object(
    {
      id,
      name,
      type: oneOf('fader', 'dial', 'pad', 'switch', 'chip', 'xy', 'choice', 'title'),
      place: about('Column and row of its upper left cell on the page.', two(cell)),
      size: about('Columns and rows that it covers.', two(cells)),
      range: about(
        'What it can be moved between: narrower than what its node takes, where that is safer.',
        range,
      ),
      step: about('It stands on multiples of this from its low end; 0: anywhere.', positive),
      home: ref('DeskValue'),
      unit: text,
      stored: about('Snapshots store it.', yesNo),
      targets: list('DeskTarget', ref('DeskTarget'), { maxItems: 64 }),
      motions: about('Motions that move it by themselves, in its own unit.', list('Motion', ref('Motion'))),
    },
    [],
    { description: 'A control under the fingers of the performer.' },
  ),
  DeskPage: object(
    {
      id,
      name,
      scene: about('The scene whose page it is; null: of the whole show.', orNull(id)),
      controls: list('DeskControl', ref('DeskControl'), { maxItems: 400 }),
      corners: about('Snapshots at the ends of its morph: left, right, upper left, upper right.', {
        type: 'array',
        items: orNull(id),
        minItems: 4,
        maxItems: 4,
      }),
    },
    [],
    { description: 'One page of the desk.' },
  ),
  Snapshot: object(
    {
      id,
      name,
      scene: about('The scene it is for; null: any.', orNull(id)),
      values: about('What desk controls stood at, by id.', record('DeskValue', ref('DeskValue'))),
    },
    [],
    { description: 'Stored values of desk controls.' },
  ),
  ...goes,
  CueGo: oneOfTypes(Object.keys(goes)),
  CueMove: object({ control: id, value: ref('DeskValue'), seconds: positive }, [], {
    description: 'A desk control that a cue moves, over so many seconds.',
  }),
  Cue: object(
    {
      id,
      name,
      note: about('What the performer should know.', { type: 'string', pattern: '^[\\s\\S]{0,2000}$' }),
      scene: about('Scene that is taken; null: what is on air stays.', orNull(id)),
      snapshot: about('Snapshot that is recalled; null: the desk stays.', orNull(id)),
      seconds: about('How long the recall takes.', positive),
      moves: list('CueMove', ref('CueMove'), { maxItems: 64 }),
      transition: about('How its scene comes; null: as the show says.', orNull(ref('Transition'))),
      bpm: about(
        'Tempo from here on; null: as it is.',
        orNull({ type: 'number', minimum: 10, maximum: 400 }),
      ),
      go: about('What starts it.', ref('CueGo')),
      back: about(
        'After it, the running order goes back to a cue, so many times; 0 times: until a hand goes on.',
        orNull(object({ cue: id, times: { type: 'integer', minimum: 0, maximum: 1000 } })),
      ),
    },
    [],
    { description: 'A step of the running order.' },
  ),
  Layer: object(
    {
      scene: id,
      blend: oneOf('over', 'add', 'screen', 'multiply'),
      opacity: share,
    },
    [],
    { description: 'A scene that lies over the program.' },
  ),
  ...sources,
  BindSource: oneOfTypes(Object.keys(sources)),
  ...boundTo,
  BindTarget: oneOfTypes(Object.keys(boundTo)),
  Binding: object(
    {
      id,
      source: ref('BindSource'),
      target: ref('BindTarget'),
      way: about(
        'absolute: where it stands is where the control stands; relative: an endless dial that tells by how much it was turned (two’s complement).',
        oneOf('absolute', 'relative'),
      ),
      pickup: about('It moves nothing until it has come to where the control stands.', yesNo),
      feedback: about('Where the control stands is sent back, to lights and motors.', yesNo),
    },
    [],
    { description: 'What a hand or device moves.' },
  ),
  ...moves,
  Move: oneOfTypes(Object.keys(moves)),
  Home: object({ scene: about('null: the first.', orNull(id)), snapshot: orNull(id) }, [], {
    description: 'What is on stage after a panic.',
  }),
  SceneButton: object(
    {
      tint: about('Colour of its mark; null: none.', orNull(rgb(0, 1))),
      page: { type: 'integer', minimum: 1, maximum: 9 },
    },
    [],
    { description: 'How a scene stands among the buttons of Play.' },
  ),
};

/** What a show document has of it. */
export const playProperties = {
  desk: list('DeskPage', ref('DeskPage'), { maxItems: 200 }),
  snapshots: list('Snapshot', ref('Snapshot'), { maxItems: 1000 }),
  cues: list('Cue', ref('Cue'), { maxItems: 1000 }),
  bindings: list('Binding', ref('Binding'), { maxItems: 2000 }),
  moves: about('In the order of time.', list('Move', ref('Move'), { maxItems: 500000 })),
  home: ref('Home'),
};
