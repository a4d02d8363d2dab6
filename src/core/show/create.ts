import type { Catalogue, Kind } from '../kind/kind';
import { formulaName } from '../formula/names';
import { homeSeat } from '../wall/room';
import { homeTransition } from './transition';
import { homeLoop } from '../time/clock';
import {
  showFormat,
  showVersion,
  type ControlValue,
  type PatchNode,
  type Scene,
  type Show,
  type ShowInputs,
} from '../document/types';

/** The next free `prefix` + number among the keys. */
export function freeId(prefix: string, taken: Iterable<string>): string {
  let most = 0;
  for (const id of taken) {
    const found = id.startsWith(prefix) ? Number(id.slice(prefix.length)) : NaN;
    if (Number.isInteger(found) && found > most) most = found;
  }
  return `${prefix}${most + 1}`;
}

/** `wanted`, or `wanted 2`, `wanted 3` … if another bears that name in formulas. */
export function freeName(wanted: string, taken: Iterable<string>): string {
  const used = new Set([...taken].map(formulaName));
  if (!used.has(formulaName(wanted))) return wanted;
  const stem = wanted.replace(/ \d+$/, '');
  for (let k = 2; ; k++) if (!used.has(formulaName(`${stem} ${k}`))) return `${stem} ${k}`;
}

/** Plain values of all controls of a kind, as they are when it is added. */
function defaultControls(kind: Kind): Record<string, ControlValue> {
  const values: Record<string, ControlValue> = {};
  for (const [name, spec] of Object.entries(kind.controls)) {
    const value = spec.default;
    values[name] = (typeof value === 'object' ? structuredCloneOf(value) : value) as ControlValue;
  }
  return values;
}

/** Deep copy of plain data; the platform's own is not there in every place the core runs in. */
export const structuredCloneOf = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

export function makeNode(kind: Kind, id: string, name: string, place: readonly [number, number]): PatchNode {
  return {
    id,
    kind: kind.id,
    name,
    place: [place[0], place[1]],
    on: true,
    controls: defaultControls(kind),
    formulas: {},
    motions: {},
    precision: 'auto',
  };
}

/** A scene with nothing but its Scene Out. */
export function makeScene(catalogue: Catalogue, id: string, name: string): Scene {
  const scene: Scene = { id, name, loop: { ...homeLoop }, nodes: {}, wires: {} };
  for (const kind of catalogue.values()) {
    if (kind.output === 'image' && kind.isSceneOut)
      scene.nodes.n1 = makeNode(kind, 'n1', kind.label, [640, 160]);
  }
  return scene;
}

/** Inputs as a show begins with them: the loop that ships, unheard, and OSC on a port of our own. */
export const homeInputs: ShowInputs = {
  sound: { from: 'loop', file: '', device: '', gain: 0, heard: false },
  midi: { file: '', rounds: true },
  osc: { port: 9140, to: '' },
  clock: 'own',
  code: 'none',
};

/** A show without desk, snapshots, cues and moves. */
export const nothingPlayed = (): Pick<
  Show,
  'desk' | 'snapshots' | 'cues' | 'bindings' | 'moves' | 'home'
> => ({ desk: [], snapshots: [], cues: [], bindings: [], moves: [], home: { scene: null, snapshot: null } });

export function makeShow(catalogue: Catalogue, name: string): Show {
  return {
    format: showFormat,
    version: showVersion,
    name,
    tempo: { bpm: 120, beatsPerBar: 4 },
    canvas: { width: 1920, height: 1080, fps: 60 },
    transition: homeTransition(),
    ...nothingPlayed(),
    inputs: structuredCloneOf(homeInputs),
    wall: { outputs: [], venue: null, limiter: false, seat: [...homeSeat] },
    files: {},
    modules: {},
    scenes: [makeScene(catalogue, 's1', 'Scene 1')],
  };
}
