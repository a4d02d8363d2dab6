/** Words that the schema of shows is written in: pieces of JSON Schema. */

/** Largest number that a control holds: far below what 32-bit floats can, so that arithmetic has space above it. */
export const mostNumber = 1e30;

export const ref = (name: string) => ({ $ref: `#/$defs/${name}` });
export const record = (name: string, of: object, rest: object = {}) => ({
  type: 'object',
  additionalProperties: of,
  tsType: `Record<string, ${name}>`,
  ...rest,
});
export const object = (
  properties: Record<string, object>,
  optional: readonly string[] = [],
  rest: object = {},
) => ({
  type: 'object',
  required: Object.keys(properties).filter((key) => !optional.includes(key)),
  additionalProperties: false,
  properties,
  ...rest,
});
export const list = (name: string, of: object, rest: object = {}) => ({
  type: 'array',
  items: of,
  tsType: `${name}[]`,
  ...rest,
});
export const about = (description: string, of: object) => ({ ...of, description });
export const orNull = (of: object) => ({ anyOf: [{ type: 'null' }, of] });
export const oneOf = (...values: readonly string[]) => ({ enum: values });

export const name = { type: 'string', pattern: '^[\\s\\S]{1,120}$' };
export const id = { type: 'string', pattern: '^[A-Za-z][A-Za-z0-9_-]{0,39}$' };
export const text = { type: 'string' };
export const yesNo = { type: 'boolean' };
export const number = { type: 'number', minimum: -mostNumber, maximum: mostNumber };
export const positive = { type: 'number', minimum: 0, maximum: mostNumber };
export const range = { type: 'array', items: number, minItems: 2, maxItems: 2 };
export const pixels = { type: 'integer', minimum: 1, maximum: 16384 };
export const size = { type: 'array', items: pixels, minItems: 2, maxItems: 2 };
export const threeOf = (items: object) => ({ type: 'array', items, minItems: 3, maxItems: 3 });
export const rgb = (least: number, most: number) =>
  threeOf({ type: 'number', minimum: least, maximum: most });
