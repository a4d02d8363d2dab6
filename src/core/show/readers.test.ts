import { expect, test } from '@jest/globals';
import { randomFrom } from '../../../test/mutate';
import { readers, trialOf } from '../../../test/readers';

test.each(readers)('$name: what is whole is read', async ({ seeds, read }) => {
  for (const seed of seeds) await read(seed);
});

test.each(readers)('$name: what is damaged is read or refused in a sentence', async (reader) => {
  const random = randomFrom(7);
  const taken = new Set<boolean>();
  for (let k = 0; k < 300; k++) taken.add(await trialOf(reader, random));
  // Packets of others, and heads of media, are passed over in silence.
  expect(taken).toContain(true);
});
