import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import { catalogue } from '../../nodes/catalogue';
import { makeShow, structuredCloneOf } from './create';
import { addNode } from './edit';

const root = path.resolve(import.meta.dirname, '../../..');
const read = (file: string): unknown => JSON.parse(readFileSync(path.join(root, file), 'utf8'));
const validate: ValidateFunction = new Ajv2020({ strict: false, discriminator: true }).compile(
  read('docs/show.schema.json') as object,
);

test('the demo show and every kind with its defaults pass the published schema', () => {
  validate(read('demo/night-apiary.pyrvel.json'));
  expect(validate.errors).toBeNull();
  const show = makeShow(catalogue, 'All');
  for (const id of catalogue.keys()) if (id !== 'scene-out') addNode(show.scenes[0], catalogue, id, [0, 0]);
  validate(show);
  expect(validate.errors).toBeNull();
});

test.each([
  ['an option that does not exist', { controls: { form: 'marble' } }],
  ['a control that does not exist', { controls: { sparkle: 1 } }],
  ['a value beyond its limits', { controls: { octaves: -3 } }],
  ['a formula on nothing', { formulas: { wings: '1' } }],
])('%s does not', (_name, change) => {
  const show = structuredCloneOf(makeShow(catalogue, 'One'));
  const id = addNode(show.scenes[0], catalogue, 'noise', [0, 0]);
  for (const [key, value] of Object.entries(change))
    Object.assign(show.scenes[0].nodes[id][key as 'controls'], value);
  expect(validate(show)).toBe(false);
});
