import type { ControlSpec } from '../src/core/kind/controls';
import { partName, partsOf } from '../src/core/kind/controls';
import type { Kind } from '../src/core/kind/kind';
import { showSchema } from '../src/core/document/schema';
import { catalogue, familyLabels, familyOf } from '../src/nodes/catalogue';

type Json = Record<string, unknown>;

const bounds = (spec: { min?: number; max?: number }): Json => ({
  ...(spec.min !== undefined && { minimum: spec.min }),
  ...(spec.max !== undefined && { maximum: spec.max }),
});

function valueOf(spec: ControlSpec): Json {
  switch (spec.type) {
    case 'number':
    case 'angle':
    case 'button':
      return { type: 'number', ...bounds(spec as { min?: number; max?: number }) };
    case 'whole':
      return { type: 'integer', ...bounds(spec) };
    case 'toggle':
      return { type: 'boolean' };
    case 'choice':
      return { oneOf: Object.entries(spec.options).map(([id, title]) => ({ const: id, title })) };
    case 'colour':
      return { $ref: '#/$defs/Rgba' };
    case 'point':
    case 'vector': {
      const count = spec.default.length;
      return { type: 'array', items: { type: 'number', ...bounds(spec) }, minItems: count, maxItems: count };
    }
    case 'gradient':
      return { type: 'array', items: { $ref: '#/$defs/Stop' }, maxItems: 16 };
    case 'curves':
      return { type: 'array', items: { $ref: '#/$defs/CurveLane' } };
    case 'numbers':
      return { type: 'array', items: { type: 'number' } };
    default:
      return { type: 'string' };
  }
}

const unitOf = (spec: ControlSpec): string => ('unit' in spec && spec.unit ? ` (${spec.unit})` : '');

const keyedBy = (names: readonly string[]): Json =>
  names.length ? { type: 'object', propertyNames: { enum: names } } : { type: 'object', maxProperties: 0 };

/** The controls of a kind by id, and the parts of them that formulas and motions can be laid on. */
function definitionOf(kind: Kind): Json {
  const specs = Object.entries(kind.controls);
  const parts = specs.flatMap(([id, spec]) => partsOf(spec).map((part) => partName(id, part)));
  const wholes = specs.filter(([, spec]) => partsOf(spec).length > 1).map(([id]) => id);
  return {
    title: kind.label,
    description: `${kind.summary} ${familyLabels[familyOf(kind)]}; gives ${kind.output}.`,
    type: 'object',
    properties: {
      controls: {
        type: 'object',
        properties: Object.fromEntries(
          specs.map(([id, spec]) => [
            id,
            {
              title: spec.label,
              description: `${spec.help}${unitOf(spec)}`,
              default: spec.default,
              ...valueOf(spec),
            },
          ]),
        ),
        // A kind that follows from what is typed into a node may have other controls than it begins with.
        ...(kind.vary ? {} : { additionalProperties: false }),
      },
      ...(kind.vary
        ? {}
        : {
            formulas: keyedBy(parts),
            motions: keyedBy([...parts, ...wholes]),
          }),
    },
  };
}

/**
 * The schema as it is published: that of the document, with a definition for each node kind, so that editors complete and
 * check controls, options and formulas. Stricter than what opens: values that do not fit are only remarked there.
 */
export function publishedSchema(): Json {
  const { $defs, ...show } = JSON.parse(
    JSON.stringify(showSchema, (key, value: unknown) => (key === 'tsType' ? undefined : value)),
  ) as Json & { $defs: Record<string, Json> };
  const kinds = [...catalogue.values()];
  const node = $defs.PatchNode as { properties: Record<string, Json> };
  return {
    ...show,
    $defs: {
      ...$defs,
      PatchNode: {
        ...node,
        properties: {
          ...node.properties,
          kind: { ...node.properties.kind, examples: kinds.map(({ id }) => id) },
        },
        allOf: kinds.map(({ id }) => ({
          if: { properties: { kind: { const: id } } },
          then: { $ref: `#/$defs/kind-${id}` },
        })),
      },
      ...Object.fromEntries(kinds.map((kind) => [`kind-${kind.id}`, definitionOf(kind)])),
    },
  };
}
