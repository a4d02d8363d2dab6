/**
 * npm run soak [-- --minutes 60] [--seed 1] [--scene NAME] [--chart FILE.svg]: an evening in the real pages, with a stage window and Play: takes,
 * hands on the desk, blackouts, cues and edits, and every half minute a fault, all by a seed. Writes a chart and ends with 1 if anything has grown at
 * its end (the heaps of the page and of the engine, targets, textures, shaders, listeners), the show's clock leaves the wall's, or the stage is dark.
 *
 * npm run soak -- --alone [--minutes 5] [--frames 10000] [SCENE …]: scenes of the demo by themselves, one after the other, as `soak-scenes.ts` says.
 */
import { readArguments } from '../bin/arguments';
import { soakEvening } from './soak-evening';
import { soakScenes } from './soak-scenes';

const isAlone = process.argv.includes('--alone');
const { plain, options } = readArguments(
  process.argv.slice(2).filter((word) => word !== '--alone'),
  ['minutes', 'frames', 'seed', 'scene', 'chart'],
);
const isFine = isAlone
  ? await soakScenes(plain, options)
  : await soakEvening({
      minutes: Number(options.get('minutes') ?? 5),
      seed: Number(options.get('seed') ?? 1),
      scene: options.get('scene') ?? null,
      chart: options.get('chart') ?? 'soak.svg',
      say: console.log,
    });
process.exitCode = isFine ? 0 : 1;
