import type { Catalogue } from '../kind/kind';
import { defaultReturn } from '../document/return-settings';
import { homeInputs, nothingPlayed, structuredCloneOf } from './create';
import { homeSeat } from '../wall/room';
import { homeTransition } from './transition';
import { showVersion } from '../document/types';

type Json = Record<string, unknown>;

const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const objectsIn = (value: unknown): Json[] =>
  (Array.isArray(value) ? value : isObject(value) ? Object.values(value) : []).filter(isObject);

/**
 * What each version changed, in order: the entry of a version brings a document of that version to the next. A step is
 * given what a file held, unchecked: it leaves alone what has another form than that version had, for the check to find.
 */
const steps: Readonly<Record<number, (show: Json) => void>> = {
  // Loops got units, shows inputs and files, return wires all that pictures need.
  1: (show) => {
    show.inputs ??= structuredCloneOf(homeInputs);
    show.files ??= {};
    for (const scene of objectsIn(show.scenes)) {
      if (typeof scene.loopBeats === 'number' && scene.loop === undefined) {
        scene.loop = { length: scene.loopBeats, unit: 'beats', lock: false };
        delete scene.loopBeats;
      }
      for (const wire of objectsIn(scene.wires))
        if (isObject(wire.back)) wire.back = { ...defaultReturn(), ...wire.back };
    }
  },
  // Shows got a wall.
  2: (show) => {
    show.wall ??= { outputs: [] };
  },
  // Outputs got a place in a room, tiles outlines, strings a receiver of our own.
  3: (show) => {
    if (!isObject(show.wall)) return;
    show.wall.venue ??= null;
    show.wall.seat ??= [...homeSeat];
    for (const output of objectsIn(show.wall.outputs)) {
      output.room ??= null;
      for (const tile of objectsIn(output.tiles)) tile.outline ??= null;
      if (isObject(output.send)) output.send = { simulated: false, onStop: 'black', ...output.send };
    }
  },
  // A fade became a transition with a look.
  4: (show) => {
    if (show.transition === undefined && typeof show.fadeSeconds === 'number')
      show.transition = { ...homeTransition(), length: show.fadeSeconds };
    delete show.fadeSeconds;
  },
  // Shows got all that is played by hand, and transitions more looks.
  5: (show) => {
    for (const [part, nothing] of Object.entries(nothingPlayed())) show[part] ??= nothing;
    if (isObject(show.transition)) show.transition = { mask: null, amount: 0.1, ...show.transition };
    if (isObject(show.inputs)) {
      show.inputs.code ??= 'none';
      if (isObject(show.inputs.osc)) show.inputs.osc.to ??= '';
    }
  },
  // Shows got modules.
  7: (show) => {
    show.modules ??= {};
  },
  // Walls got a limiter of flashes.
  8: (show) => {
    if (isObject(show.wall)) show.wall.limiter ??= false;
  },
};

/**
 * Brings a document to the version of today, one step a version: first the form of the document, then the controls of the
 * kinds that changed with that version (`migrate`). Changes it in place. Versions without a step changed controls only.
 */
export function migrate(show: Json, catalogue: Catalogue, to: number = showVersion): void {
  if (typeof show.version !== 'number' || !Number.isInteger(show.version) || show.version < 1) return;
  for (let version = show.version; version < to; version++) {
    steps[version]?.(show);
    for (const patch of [...objectsIn(show.scenes), ...objectsIn(show.modules)]) {
      for (const node of objectsIn(patch.nodes)) {
        const change =
          typeof node.kind === 'string' ? catalogue.get(node.kind)?.migrate?.[version] : undefined;
        if (change && isObject(node.controls)) node.controls = change(node.controls);
      }
    }
    show.version = version + 1;
  }
}
