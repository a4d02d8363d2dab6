import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { mutated, randomFrom } from '../../../test/mutate';
import { trial } from '../../../test/trial';
import type { Scene, Show } from '../document/types';

const demo = JSON.parse(
  readFileSync(path.resolve(import.meta.dirname, '../../../demo/night-apiary.pyrvel.json'), 'utf8'),
) as Show;
/** Small scenes, so that many can be tried; `npm run fuzz` tries all of them. */
const small = demo.scenes.filter((scene) => Object.keys(scene.nodes).length <= 16);

/** The demo show with one scene and what is played of it: the rest would take most of the mutations. */
const withScene = (scene: Scene): Show => ({
  ...demo,
  scenes: [scene],
  desk: demo.desk.filter((page) => page.scene === scene.id),
  snapshots: demo.snapshots.filter((one) => one.scene === scene.id),
  cues: demo.cues.slice(0, 3),
  moves: demo.moves.slice(0, 12),
});

test.each([1, 2, 3, 4, 5, 6])(
  'mutated shows are refused with a place, or open and play (part %i)',
  (part) => {
    const random = randomFrom(part);
    let opened = 0;
    for (let k = 0; k < 60; k++) {
      const document = mutated(withScene(small[k % small.length]), random);
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
