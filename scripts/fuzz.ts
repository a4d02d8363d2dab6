/**
 * npm run fuzz: opens a few thousand mutated shows, made from every scene of the demo, and plays those that open; then gives
 * every reader of files, packets and texts as many damaged ones. `--count N` and `--seed N` say how many and which; ends
 * with 1 at the first that is neither refused in a sentence nor taken, or that takes longer than a second. A show is
 * written to fuzz-failure.json.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { readArguments } from '../bin/arguments';
import type { Show } from '../src/core/document/types';
import { mutated, randomFrom } from '../test/mutate';
import { readers, trialOf } from '../test/readers';
import { trial } from '../test/trial';

const { options } = readArguments(process.argv.slice(2), ['count', 'seed']);
const count = Number(options.get('count') ?? 3000);
const seed = Number(options.get('seed') ?? 1);
const demo = JSON.parse(
  readFileSync(path.resolve(import.meta.dirname, '../demo/night-apiary.pyrvel.json'), 'utf8'),
) as Show;
const random = randomFrom(seed);
/** Milliseconds in which anything is read or refused, on any machine. */
const longestMs = 1000;
let opened = 0;
for (let k = 0; k < count; k++) {
  const document = mutated({ ...demo, scenes: [demo.scenes[k % demo.scenes.length]] }, random);
  try {
    if (trial(document)) opened++;
  } catch (error) {
    writeFileSync('fuzz-failure.json', JSON.stringify(document, null, 1));
    console.error(`Mutation ${k} of seed ${seed} failed; it is in fuzz-failure.json.`);
    console.error((error as Error).stack);
    process.exit(1);
  }
  if (k % 250 === 249) console.log(`${k + 1} of ${count}: ${opened} opened, ${k + 1 - opened} refused`);
}
console.log(
  `${count} mutated shows: ${opened} opened and played, ${count - opened} were refused with a place.`,
);
for (const reader of readers) {
  let taken = 0;
  for (let k = 0; k < count; k++) {
    const start = performance.now();
    try {
      if (await trialOf(reader, random)) taken++;
      const took = performance.now() - start;
      if (took > longestMs) throw new Error(`It took ${Math.round(took)} ms.`);
    } catch (error) {
      console.error(`Damage ${k} of seed ${seed} to ${reader.name} failed. ${(error as Error).message}`);
      process.exit(1);
    }
  }
  console.log(`${count} damaged ${reader.name}: ${taken} taken, ${count - taken} refused`);
}
