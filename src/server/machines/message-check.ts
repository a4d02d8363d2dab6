import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import type { PerformanceCommand } from '../../core/desk/command';
import { showSchema } from '../../core/document/schema';
import { id, number, object, oneOf, orNull, positive, ref, yesNo } from '../../core/document/schema-words';
import { machineIdPattern, type Handshake, type MachineReport } from '../../core/machines/link';

const share = { type: 'number', minimum: 0, maximum: 1 };
const way = { type: 'number', minimum: -1, maximum: 1 };
const part = { type: 'integer', minimum: 0, maximum: 3 };
const seconds = { type: 'number', minimum: 0, maximum: 3600 };
const place = { type: 'array', items: share, minItems: 2, maxItems: 2 };
const source = { type: 'string', maxLength: 80 };

const machineId = { type: 'string', pattern: machineIdPattern.source };

/** What each command has beside its type. */
const schemas: Readonly<Record<PerformanceCommand['type'], object>> = {
  play: object({ playing: yesNo }),
  step: object({}),
  seek: object({ time: positive, exactly: yesNo }),
  range: object({ range: orNull({ type: 'array', items: positive, minItems: 2, maxItems: 2 }) }),
  take: object({ scene: id, seconds }),
  'take-next': object({ seconds }),
  next: object({ scene: orNull(id) }),
  crossfade: object({ to: share }),
  'crossfade-by': object({ by: way }),
  blackout: object({ on: yesNo }, ['on']),
  freeze: object({ on: yesNo }, ['on']),
  desk: object({ control: id, value: ref('DeskValue') }),
  turn: object({ control: id, from: part, share, source, pickup: yesNo }),
  'turn-by': object({ control: id, from: part, by: way }),
  press: object({ control: id, down: yesNo }),
  flip: object({ control: id }),
  'desk-home': object({ control: orNull(id) }),
  'desk-undo': object({}),
  recall: object({ snapshot: id, seconds, start: oneOf('now', 'beat', 'bar') }, ['start']),
  morph: object({ page: id, at: place }),
  cue: object({ do: oneOf('go', 'leave', 'back', 'hold', 'resume') }),
  'cue-jump': object({ cue: id }),
  master: object({ master: oneOf('speed', 'motion'), value: { type: 'number', minimum: 0, maximum: 4 } }),
  layer: object({ layer: orNull(ref('Layer')) }),
  hit: object({ hit: oneOf('strobe', 'invert', 'flash'), on: yesNo }),
  panic: object({}),
  tempo: object({ bpm: { type: 'number', minimum: 10, maximum: 400 } }),
  record: object({ on: yesNo }),
  replay: object({ on: yesNo }),
};

const ajv = new Ajv2020({ strict: false });
const checks = new Map<string, ValidateFunction>();

function checkOf(type: string): ValidateFunction | null {
  if (!Object.hasOwn(schemas, type)) return null;
  const known = checks.get(type);
  if (known) return known;
  const { required, properties, ...rest } = schemas[type as PerformanceCommand['type']] as {
    required: string[];
    properties: object;
  };
  const compiled = ajv.compile({
    ...rest,
    required: ['type', ...required],
    properties: { type: { const: type }, ...properties },
    $defs: showSchema.$defs,
  });
  checks.set(type, compiled);
  return compiled;
}

/** A command that came over the network, if it is one to the letter; else null. */
export function readCommand(value: unknown): PerformanceCommand | null {
  if (typeof value !== 'object' || value === null) return null;
  const { type } = value as { type?: unknown };
  if (typeof type !== 'string') return null;
  return checkOf(type)?.(value) === true ? (value as PerformanceCommand) : null;
}

/** Values of which all that are named have to be there; others are let through, and not read. */
const withAll = (properties: Record<string, object>): object => ({
  type: 'object',
  required: Object.keys(properties),
  properties,
});
const word = (maxLength: number): object => ({ type: 'string', maxLength });
const count = { type: 'number', minimum: 0, exclusiveMaximum: 1e6 };

/** Whether it is what a machine says of itself. */
export const isReport = ajv.compile<MachineReport>(
  withAll({
    clock: orNull(
      withAll({ offset: number, jitter: number, drift: number, roundTrip: number, rounds: number }),
    ),
    asked: count,
    lost: count,
    framesPerSecond: orNull(count),
    lacks: word(300),
    where: word(120),
  }),
);

/** Whether a machine says who it is as it has to. */
export const isHandshake = ajv.compile<Handshake>(
  withAll({
    version: { type: 'number' },
    role: oneOf('main', 'remote', 'player', 'spare'),
    machine: machineId,
    name: word(80),
    token: word(2000),
  }),
);
