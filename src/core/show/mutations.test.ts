import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { mutated, randomFrom } from '../../../test/mutate';
import { trial } from '../../../test/trial';
import type { Show } from '../document/types';

const demo = JSON.parse(
  readFileSync(path.resolve(import.meta.dirname, '../../../demo/night-apiary.pyrvel.json'), 'utf8'),
) as Show;
/** Small scenes, so that many can be tried; `npm run fuzz` tries all of them. */
const small = demo.scenes.filter((scene) => Object.keys(scene.nodes).length <= 16);

test.each([1, 2, 3, 4, 5, 6])(
  'mutated shows are refused with a place, or open and play (part %i)',
  (part) => {
    const random = randomFrom(part);
    let opened = 0;
    for (let k = 0; k < 60; k++) {
      const document = mutated({ ...demo, scenes: [small[k % small.length]] }, random);
      try {
        if (trial(document)) opened++;
      } catch (error) {
        throw new Error(`Mutation ${k} of part ${part}: ${(error as Error).stack}`, { cause: error });
      }
    }
    // Both ways were taken, or nothing was tested of one.
    expect(opened).toBeGreaterThan(5);
    expect(opened).toBeLessThan(60);
  },
);
