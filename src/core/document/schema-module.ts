import { about, id, list, name, object, oneOf, orNull, range, record, ref, rgb, text } from './schema-words';

/** Frames and notes of a patch. */
export const patchFrames = about(
  'Frames and notes on the patch, by id.',
  record('PatchFrame', ref('PatchFrame')),
);

/** The id of a module: short enough for the id of its node kind, `module-` and this. */
export const moduleId = { type: 'string', pattern: '^[a-z][a-z0-9-]{0,31}$' };

/** Modules: parts of a patch that are used as one node. */
export const moduleDefinitions = {
  PatchFrame: object(
    {
      id,
      type: about(
        'A frame holds the cards that lie in it, and moves them; a note is words.',
        oneOf('frame', 'note'),
      ),
      text: about('Title of a frame; Markdown (CommonMark) of a note.', {
        type: 'string',
        pattern: '^[\\s\\S]{0,8000}$',
      }),
      place: about('Its upper left, in patch pixels.', range),
      size: about('Width and height, in patch pixels.', {
        type: 'array',
        items: { type: 'number', minimum: 40, maximum: 100000 },
        minItems: 2,
        maxItems: 2,
        tsType: '[number, number]',
      }),
      tint: about('null: none.', orNull(rgb(0, 1))),
    },
    [],
    { description: 'A frame around cards, or a note beside them.' },
  ),
  ModuleTarget: object(
    {
      node: id,
      control: text,
      to: about(
        'Its values at both ends of the range; null: it takes the very value. Only where the control is one number.',
        orNull(range),
      ),
    },
    [],
    { description: 'A control inside of a module that one of its own controls sets.' },
  ),
  ModuleControl: object(
    {
      id: { type: 'string', pattern: '^[a-z][a-z0-9_]{0,39}$' },
      name,
      help: text,
      group: about('Heading that it stands under; empty: none.', {
        type: 'string',
        pattern: '^[\\s\\S]{0,40}$',
      }),
      range: about('Useful range: ends of its slider and of the first fit.', range),
      home: ref('ControlValue'),
      targets: about(
        'The first says what type of control it is.',
        list('ModuleTarget', ref('ModuleTarget'), { minItems: 1, maxItems: 64 }),
      ),
    },
    [],
    { description: 'A control of a module, chosen from those inside.' },
  ),
  Module: object(
    {
      id: moduleId,
      name,
      help: about('One sentence: what it does.', text),
      words: about('What a performer would type to find it.', list('string', text, { maxItems: 40 })),
      version: about('Rises each time it is kept in the library after a change.', {
        type: 'integer',
        minimum: 1,
        maximum: 100000,
      }),
      nodes: record('PatchNode', ref('PatchNode')),
      wires: record('Wire', ref('Wire')),
      controls: list('ModuleControl', ref('ModuleControl'), { maxItems: 100 }),
      frames: patchFrames,
    },
    ['frames'],
    {
      description:
        'A part of a patch that is used as one node. Its inputs are its nodes of the kind `way-in`, its outputs those of the kind `way-out`, both in the order of their places from top to bottom.',
    },
  ),
};
