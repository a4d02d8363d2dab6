/** Writes the demo show, demo/night-apiary.pyrvel.json; `--check` only looks whether it is up to date. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { makeShow } from '../src/core/show/create';
import { checkShow, writeShow } from '../src/core/show/validate';
import { catalogue } from '../src/nodes/catalogue';
import { combWall } from './scenes/comb-wall';
import { frostLattice } from './scenes/frost-lattice';
import { lanternRow } from './scenes/lantern-row';
import { loomRows } from './scenes/loom-rows';
import { pollenDrift } from './scenes/pollen-drift';
import { queenPulse } from './scenes/queen-pulse';
import { smokeFrames } from './scenes/smoke-frames';
import { shadeSlats } from './scenes/shade-slats';
import { smokeFroth } from './scenes/smoke-froth';
import { glassLeaves } from './scenes/glass-leaves';
import { hedgeFlight } from './scenes/hedge-flight';
import { nectarMerge } from './scenes/nectar-merge';
import { reedFan } from './scenes/reed-fan';
import { silkSkin } from './scenes/silk-skin';
import { turningGlass } from './scenes/turning-glass';
import { twoBees } from './scenes/two-bees';
import { waggleTrace } from './scenes/waggle-trace';
import { shippedPacks } from './modules';
import { starts } from './starts';
import { addPlay } from './play';
import { apiaryWall } from './wall';

const show = makeShow(catalogue, 'Night Apiary');
show.tempo.bpm = 96;
show.wall = apiaryWall(show.canvas);
show.scenes = [
  pollenDrift(),
  smokeFrames(),
  smokeFroth(),
  waggleTrace(),
  shadeSlats(),
  frostLattice(),
  lanternRow(),
  queenPulse(),
  twoBees(),
  loomRows(),
  combWall(),
  glassLeaves(),
  nectarMerge(),
  hedgeFlight(),
  reedFan(),
  silkSkin(),
  turningGlass(),
].map((sketch) => sketch.scene);
addPlay(show);

const findings = checkShow(show, catalogue);
for (const { level, where, what } of findings) console.error(`${level}: ${where}: ${what}`);
if (findings.length) process.exit(1);

const packs = shippedPacks();
const library = makeShow(catalogue, 'Library');
for (const { modules } of packs) Object.assign(library.modules, modules);
const begun = starts();
library.scenes = begun.map(({ scene, id }) => ({ ...scene, id }));
const remarks = checkShow(library, catalogue);
for (const { level, where, what } of remarks) console.error(`${level}: ${where}: ${what}`);
if (remarks.length) process.exit(1);

const isCheck = process.argv.includes('--check');
const root = path.resolve(import.meta.dirname, '..');
for (const [file, text] of [
  ['demo/night-apiary.pyrvel.json', writeShow(show)],
  ['src/nodes/modules/shipped.generated.json', `${JSON.stringify(packs, null, 1)}\n`],
  ['src/nodes/modules/starts.generated.json', `${JSON.stringify(begun, null, 1)}\n`],
]) {
  const full = path.join(root, file);
  if (existsSync(full) && readFileSync(full, 'utf8') === text) continue;
  if (isCheck) {
    console.error(`${file} is stale. Run: npm run generate`);
    process.exit(1);
  }
  writeFileSync(full, text);
  console.log(`wrote ${file}`);
}
