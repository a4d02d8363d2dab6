/**
 * JSON Schema (draft 2020-12) of a show file, version 1. Published as `docs/show.schema.json`; the validator used at
 * run time is compiled from it ahead of time, because the content policy of the app forbids `eval`.
 */
const name = { type: 'string', pattern: '^[\\s\\S]{1,120}$' } as const;
const id = { type: 'string', pattern: '^[A-Za-z][A-Za-z0-9_-]{0,39}$' } as const;
const range = { type: 'array', items: { type: 'number' }, minItems: 2, maxItems: 2 } as const;
const pixels = { type: 'integer', minimum: 1, maximum: 8192 } as const;

const fit = {
  type: 'object',
  required: ['from', 'to', 'bend', 'edges'],
  additionalProperties: false,
  properties: {
    from: range,
    to: range,
    bend: { type: 'number', minimum: 0.05, maximum: 20 },
    edges: { enum: ['hold', 'pass', 'wrap', 'mirror'] },
  },
} as const;

/** A motion: what all have, and what this one has beside it. */
const motion = <const P extends Record<string, object>>(type: string, own: P) => ({
  type: 'object',
  required: ['type', 'on', 'amount', ...Object.keys(own)],
  additionalProperties: false,
  properties: { type: { const: type }, on: { type: 'boolean' }, amount: { type: 'number' }, ...own },
});
const positive = { type: 'number', minimum: 0 } as const;
const number = { type: 'number' } as const;

const stops = {
  type: 'array',
  maxItems: 16,
  items: {
    type: 'object',
    required: ['at', 'colour'],
    additionalProperties: false,
    properties: {
      at: { type: 'number', minimum: 0, maximum: 1 },
      colour: { type: 'array', items: { type: 'number' }, minItems: 4, maxItems: 4 },
    },
  },
} as const;

const motions = {
  type: 'object',
  required: ['type'],
  properties: { type: { type: 'string' } },
  discriminator: { propertyName: 'type' },
  oneOf: [
    motion('swing', {
      shape: { enum: ['sine', 'triangle', 'square', 'ramp'] },
      rate: positive,
      unit: { enum: ['hertz', 'beats', 'loop'] },
      phase: number,
    }),
    motion('wander', { speed: positive, seed: number }),
    motion('ramp', {
      way: { enum: ['once', 'round', 'toAndFro'] },
      length: positive,
      unit: { enum: ['seconds', 'beats', 'loop'] },
      eased: { type: 'boolean' },
    }),
    motion('walk', { rate: positive, smooth: { type: 'boolean' }, seed: number }),
    motion('hit', { trigger: { anyOf: [{ type: 'null' }, id] }, attack: positive, decay: positive }),
    motion('colours', {
      stops,
      way: { enum: ['once', 'round', 'toAndFro'] },
      length: positive,
      start: number,
      unit: { enum: ['seconds', 'beats', 'loop'] },
    }),
    motion('follow', { rise: positive, fall: positive }),
  ],
};

const back = {
  type: 'object',
  required: ['keep', 'startsFrom', 'clearWhen', 'guard', 'limit'],
  additionalProperties: false,
  properties: {
    keep: { type: 'number', minimum: 0, maximum: 1.2 },
    startsFrom: { anyOf: [{ type: 'null' }, id] },
    clearWhen: { anyOf: [{ type: 'null' }, id] },
    guard: { enum: ['soft', 'off'] },
    limit: { type: 'number', exclusiveMinimum: 0 },
    reading: { enum: ['smooth', 'crisp'] },
    size: {
      anyOf: [{ type: 'null' }, { type: 'array', items: pixels, minItems: 2, maxItems: 2 }],
    },
    precision: { enum: ['auto', '8', '16', '32'] },
    clearWhere: { anyOf: [{ type: 'null' }, id] },
    tap: { enum: ['after', 'before'] },
  },
} as const;

const wire = {
  type: 'object',
  required: ['id', 'from', 'to'],
  additionalProperties: false,
  properties: {
    id,
    from: { type: 'object', required: ['node'], additionalProperties: false, properties: { node: id } },
    to: {
      type: 'object',
      required: ['node', 'port'],
      additionalProperties: false,
      properties: { node: id, port: { type: 'string' } },
    },
    lane: { type: 'string' },
    fit,
    spread: { enum: ['stretch', 'repeat', 'mirror', 'hold'] },
    back,
  },
} as const;

const curveLanes = {
  type: 'array',
  minItems: 1,
  maxItems: 32,
  items: {
    type: 'object',
    required: ['name', 'keys'],
    additionalProperties: false,
    properties: {
      name: { type: 'string', pattern: '^[\\s\\S]{0,40}$' },
      keys: {
        type: 'array',
        maxItems: 2000,
        items: {
          type: 'object',
          required: ['at', 'value', 'form'],
          additionalProperties: false,
          properties: {
            at: number,
            value: number,
            form: { enum: ['smooth', 'straight', 'hold', 'free'] },
            slopes: range,
          },
        },
      },
    },
  },
} as const;

const controlValue = {
  anyOf: [
    { type: 'number' },
    { type: 'boolean' },
    { type: 'string' },
    { type: 'array', items: { type: 'number' }, maxItems: 4096 },
    stops,
    curveLanes,
  ],
} as const;

const node = {
  type: 'object',
  required: ['id', 'kind', 'name', 'place', 'on', 'controls', 'formulas', 'motions', 'precision'],
  additionalProperties: false,
  properties: {
    id,
    kind: id,
    name,
    place: range,
    on: { type: 'boolean' },
    controls: { type: 'object', additionalProperties: controlValue },
    formulas: { type: 'object', additionalProperties: { type: 'string' } },
    motions: { type: 'object', additionalProperties: { type: 'array', items: motions } },
    size: { type: 'array', items: pixels, minItems: 2, maxItems: 2 },
    precision: { enum: ['auto', '8', '16', '32'] },
  },
} as const;

const scene = {
  type: 'object',
  required: ['id', 'name', 'loop', 'nodes', 'wires'],
  additionalProperties: false,
  properties: {
    id,
    name,
    loop: {
      type: 'object',
      required: ['length', 'unit', 'lock'],
      additionalProperties: false,
      properties: {
        length: { type: 'number', exclusiveMinimum: 0 },
        unit: { enum: ['beats', 'seconds', 'frames'] },
        lock: { type: 'boolean' },
      },
    },
    nodes: { type: 'object', additionalProperties: node },
    wires: { type: 'object', additionalProperties: wire },
  },
} as const;

export const showSchema = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Pyrvel show',
  type: 'object',
  required: ['format', 'version', 'name', 'tempo', 'canvas', 'fadeSeconds', 'inputs', 'scenes'],
  additionalProperties: false,
  properties: {
    format: { const: 'pyrvel.show' },
    version: { const: 1 },
    name,
    tempo: {
      type: 'object',
      required: ['bpm', 'beatsPerBar'],
      additionalProperties: false,
      properties: {
        bpm: { type: 'number', minimum: 10, maximum: 400 },
        beatsPerBar: { type: 'integer', minimum: 1, maximum: 32 },
      },
    },
    canvas: {
      type: 'object',
      required: ['width', 'height', 'fps'],
      additionalProperties: false,
      properties: { width: pixels, height: pixels, fps: { type: 'number', minimum: 1, maximum: 240 } },
    },
    fadeSeconds: { type: 'number', minimum: 0, maximum: 60 },
    inputs: {
      type: 'object',
      required: ['sound', 'midi', 'osc', 'clock'],
      additionalProperties: false,
      properties: {
        sound: {
          type: 'object',
          required: ['from', 'file', 'device', 'gain', 'heard'],
          additionalProperties: false,
          properties: {
            from: { enum: ['loop', 'file', 'device'] },
            file: { type: 'string' },
            device: { type: 'string' },
            gain: { type: 'number', minimum: -60, maximum: 60 },
            heard: { type: 'boolean' },
          },
        },
        midi: {
          type: 'object',
          required: ['file', 'rounds'],
          additionalProperties: false,
          properties: { file: { type: 'string' }, rounds: { type: 'boolean' } },
        },
        osc: {
          type: 'object',
          required: ['port'],
          additionalProperties: false,
          properties: { port: { type: 'integer', minimum: 1024, maximum: 65535 } },
        },
        clock: { enum: ['own', 'sound', 'midi'] },
      },
    },
    files: {
      type: 'object',
      propertyNames: { pattern: '^[A-Za-z0-9_-]{1,64}$' },
      additionalProperties: {
        type: 'object',
        required: ['name', 'type', 'bytes'],
        additionalProperties: false,
        properties: { name, type: { type: 'string' }, bytes: { type: 'integer', minimum: 0 } },
      },
    },
    scenes: { type: 'array', items: scene, minItems: 1, maxItems: 200 },
  },
} as const;
