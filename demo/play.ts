/** What is played of the demo show by hand: a desk for each scene, snapshots, the running order of the evening, and a minute of moves. */
import { catalogue } from '../src/nodes/catalogue';
import {
  addCue,
  addPage,
  addTarget,
  bind,
  controlOf,
  cueOf,
  pageOf,
  putOnDesk,
  storeSnapshot,
} from '../src/core/show/edit-desk';
import { homeTransition } from '../src/core/show/transition';
import type { Cue, DeskControl, DeskValue, Move, Scene, Show } from '../src/core/document/types';

/** Name on the desk, node, part of its control, and what is special: `range` is where the picture stays good. */
type Control = [
  string,
  string,
  string,
  Partial<Pick<DeskControl, 'range' | 'type' | 'step' | 'unit' | 'motions'>>?,
];
/** Name and where controls stand, by their names. */
type Snap = [string, Record<string, DeskValue>];

const pages: Record<string, { controls: Control[]; snapshots?: Snap[] }> = {
  'Pollen Drift': {
    controls: [
      ['Wind', 'Step', 'amount', { range: [0, 0.25] }],
      ['Unrest', 'Wind', 'period', { range: [0.2, 1.2] }],
      ['Swarm', 'Swarms', 'tint', { type: 'chip' }],
      ['Dust', 'Dust', 'tint', { type: 'chip' }],
      ['Height', 'Camera', 'height', { range: [-25, 60], type: 'dial' }],
      ['Near', 'Camera', 'distance', { range: [1.2, 3] }],
      ['Haze', 'Haze', 'radius', { range: [0, 0.08] }],
    ],
    snapshots: [
      ['Still Air', { Wind: [0.02], Unrest: [0.9], Near: [1.75], Haze: [0.02] }],
      ['Storm', { Wind: [0.2], Unrest: [0.28], Near: [1.4], Haze: [0.05] }],
    ],
  },
  'Smoke Frames': {
    controls: [
      ['Push', 'Push', 'push', { range: [0, 0.05] }],
      ['Grow', 'Carry', 'scale', { range: [0.985, 1.03] }],
      ['Lay Over', 'Lay Over', 'amount', { range: [0.2, 1] }],
      ['Place', 'Frame', 'place', { range: [-0.6, 0.6] }],
      ['Sheen', 'Light From the Side', 'strength', { range: [0, 5] }],
      ['Shine', 'Shine', 'amount'],
    ],
    snapshots: [
      ['Slow Smoke', { Push: [0.006], Grow: [1.004], 'Lay Over': [0.7], Shine: [0.3] }],
      ['Out of the Middle', { Push: [0.02], Grow: [1.02], 'Lay Over': [0.9], Shine: [0.6] }],
      ['Falling In', { Push: [0.03], Grow: [0.99], 'Lay Over': [0.6], Shine: [0.8] }],
    ],
  },
  'Smoke Froth': {
    controls: [
      ['Waves', 'Waves', 'push', { range: [0, 0.25] }],
      ['Froth', 'First Push', 'push', { range: [0, 0.06] }],
      ['Melt', 'Melt', 'radius', { range: [0, 0.01] }],
      ['Light', 'Lit', 'amount'],
    ],
  },
  'Waggle Trace': {
    controls: [
      ['Last', 'Last Moments', 'span', { range: [0.3, 4], unit: ' s' }],
      ['Stroke', 'Stroke', 'width', { range: [0.8, 5] }],
      ['Colour', 'Stroke', 'colour', { type: 'chip' }],
      ['Height', 'Camera', 'height', { range: [-40, 60], type: 'dial' }],
      ['Around', 'Camera', 'orbit', { range: [0, 360], type: 'dial' }],
      ['Air', 'Air', 'rate', { range: [0, 0.6] }],
    ],
    snapshots: [
      ['From Above', { Height: [50], Around: [20], Last: [2.4] }],
      ['Behind', { Height: [-10], Around: [350], Last: [0.8] }],
    ],
  },
  'Shade Slats': {
    controls: [
      ['Crossing', 'Slats', 'crossing', { range: [20, 90], type: 'dial' }],
      ['Softness', 'Slats', 'softness', { range: [0.02, 0.6] }],
      ['Burn', 'Slats', 'burn', { range: [0, 1] }],
      ['Amber', 'Slats', 'ink', { type: 'chip' }],
      ['Jade', 'Slats', 'second', { type: 'chip' }],
      ['Wood', 'Uneven Wood', 'push', { range: [0, 0.06] }],
      ['Shine', 'Shine', 'strength', { range: [0, 1.4] }],
    ],
    snapshots: [
      ['Late Sun', { Crossing: [76], Softness: [0.26], Burn: [0.85], Amber: [0.96, 0.62, 0.2, 1] }],
      ['Moonlight', { Crossing: [40], Softness: [0.5], Burn: [0.3], Amber: [0.45, 0.62, 0.95, 1] }],
    ],
  },
  'Frost Lattice': {
    controls: [
      ['Ribs', 'Ribs', 'lineWidth', { range: [1, 10] }],
      ['Pearls', 'Pearls', 'part', { range: [0.02, 0.4] }],
      ['Thaw', 'Thaw', 'push', { range: [0, 0.15] }],
      ['Focus', 'Focus', 'radius', { range: [0, 0.08] }],
      ['Frost', 'First Frost', 'amount'],
      ['Both Grids', 'Both Grids', 'amount'],
    ],
    snapshots: [
      ['Hard Frost', { Ribs: [4], Thaw: [0.01], Focus: [0.01], Frost: [0.9] }],
      ['Thaw', { Ribs: [2], Thaw: [0.13], Focus: [0.05], Frost: [0.4] }],
    ],
  },
  'Lantern Row': {
    controls: [
      ['Sign', 'Lantern Row Sign', 'text'],
      ['Wicks', 'Wicks', 'copies', { range: [3, 18] }],
      ['Size', 'Wicks', 'size', { range: [0.2, 0.8] }],
      ['Frame', 'Frame', 'size', { range: [0.4, 0.95] }],
      ['Place', 'Lantern Row Sign', 'place', { range: [-0.45, 0.45] }],
      ['Tint', 'Shine', 'tint', { type: 'chip' }],
    ],
    snapshots: [
      ['Doors', { Sign: 'DOORS OPEN', Wicks: [12], Size: [0.5] }],
      ['Last Song', { Sign: 'GOOD NIGHT', Wicks: [6], Size: [0.36] }],
    ],
  },
  'Queen Pulse': {
    controls: [
      ['One Way', 'One Way', 'opening', { range: [30, 360], type: 'dial' }],
      ['Comb', 'Comb Line', 'width', { range: [1, 12] }],
      ['Pollen', 'Pollen', 'pointSize', { range: [0.003, 0.03] }],
      ['Comb Colour', 'Comb Line', 'colour', { type: 'chip' }],
      ['Shine', 'Shine', 'strength', { range: [0, 2] }],
    ],
    snapshots: [
      ['Narrow', { 'One Way': [70], Comb: [3], Shine: [0.6] }],
      ['All Round', { 'One Way': [350], Comb: [7], Shine: [1.3] }],
    ],
  },
  'Two Bees': {
    controls: [
      ['Speed', 'First Way', 'speed', { range: [0.05, 1] }],
      ['Trail', 'First Trail', 'span', { range: [1, 12], unit: ' s' }],
      ['Tremble', 'Tremble', 'speed', { range: [0, 5] }],
      ['Second Bee', 'Second Disc', 'fill', { type: 'chip' }],
      ['Shine', 'Shine', 'strength', { range: [0, 2] }],
    ],
  },
  'Loom Rows': {
    controls: [
      ['Cloth', 'Cloth', 'period', { range: [0.25, 1.2] }],
      ['Weave', 'Cloth', 'rate', { range: [0, 0.8] }],
      ['Fall', 'Softly', 'fall', { range: [0.05, 1.5], unit: ' s' }],
      ['Threads', 'Rows', 'width', { range: [2, 16] }],
      ['Tilt', 'Laid Back', 'turn.x', { range: [-85, -20], type: 'dial' }],
    ],
  },
  'Comb Wall': {
    controls: [
      ['Bass', 'Bands', 'tilt', { range: [0, 9] }],
      ['Fall', 'Bands', 'fall', { range: [0.1, 2], unit: ' s' }],
      ['Lamp', 'Lamp', 'strength', { range: [0, 4] }],
      ['Lamp Colour', 'Lamp', 'colour', { type: 'chip' }],
      ['Near', 'Camera', 'distance', { range: [0.9, 2.2] }],
      ['Shine', 'Shine', 'strength', { range: [0, 2] }],
    ],
    snapshots: [
      ['Warm Wall', { Lamp: [1.8], Fall: [0.5], 'Lamp Colour': [1, 0.8, 0.55, 1] }],
      ['Cold Wall', { Lamp: [2.6], Fall: [1.2], 'Lamp Colour': [0.5, 0.75, 1, 1] }],
    ],
  },
  'Glass Leaves': {
    controls: [
      ['Leaves', 'Four Frames Each', 'samples', { range: [20, 240] }],
      ['Apart', 'Four Frames Each', 'step', { range: [1, 12] }],
      ['Pane', 'Pane', 'size', { range: [0.4, 1.2], type: 'xy' }],
      ['Exposure', 'Shot', 'exposure', { range: [0.4, 1.6] }],
      ['Shine', 'Shine', 'strength', { range: [0, 1.4] }],
    ],
    snapshots: [
      ['Doors', { Leaves: [120], Apart: [6], Exposure: [0.8] }],
      ['Full Fan', { Leaves: [220], Apart: [3], Exposure: [1] }],
    ],
  },
  'Nectar Merge': {
    controls: [
      ['Melting', 'Melting', 'soft', { range: [0.01, 0.4] }],
      ['Drops', 'Drop', 'radius', { range: [0.05, 0.18] }],
      ['Honey', 'Drop', 'colour', { type: 'chip' }],
      ['Around', 'Camera', 'orbit', { range: [-60, 60], type: 'dial' }],
      ['Lamp', 'Lamp', 'strength', { range: [0.3, 3] }],
    ],
    snapshots: [
      ['Honey', { Melting: [0.15], Honey: [1, 0.5, 0.1, 1], Around: [10] }],
      ['Jade', { Melting: [0.3], Honey: [0.2, 0.7, 0.55, 1], Around: [-30] }],
    ],
  },
  'Hedge Flight': {
    controls: [
      ['Hedges', 'Lines', 'liftDepth', { range: [0.1, 1.2] }],
      ['Lines', 'Lines', 'width', { range: [0.8, 4] }],
      ['View', 'Camera', 'view', { range: [35, 90], type: 'dial' }],
      ['Lamps', 'Lamps', 'amount'],
    ],
  },
  'Reed Fan': {
    controls: [
      ['Bend', 'Bent', 'push', { range: [0, 0.4] }],
      ['Panes', 'Behind Panes', 'amount'],
      ['Lens', 'Shifted', 'distance', { range: [0, 12] }],
      ['Exposure', 'Shot', 'exposure', { range: [0.2, 1.4] }],
      ['Scan Lines', 'Scan Lines', 'amount'],
    ],
  },
  'Silk Skin': {
    controls: [
      ['Gap', 'Diamonds', 'gap', { range: [0.02, 0.4] }],
      ['Silk', 'Silk', 'colour', { type: 'chip' }],
      ['Height', 'Camera', 'height', { range: [-30, 60], type: 'dial' }],
      ['Lamp', 'Lamp', 'strength', { range: [0, 8] }],
      ['Glass', 'Glass', 'strength', { range: [0, 8] }],
    ],
  },
  'Turning Glass': {
    controls: [
      ['Solid', 'Solid', 'solid'],
      ['Size', 'Solid', 'size', { range: [0.3, 1] }],
      ['Lights', 'Lights', 'strength', { range: [0, 8] }],
      ['Glass', 'Glass', 'colour', { type: 'chip' }],
      ['Around', 'Camera', 'orbit', { range: [-90, 90], type: 'dial' }],
      ['Shine', 'Shine', 'strength', { range: [0, 1.5] }],
    ],
  },
};

const sceneNamed = (show: Show, name: string): Scene => {
  const scene = show.scenes.find((one) => one.name === name);
  if (!scene) throw new Error(`There is no scene ${name}.`);
  return scene;
};

function nodeNamed(scene: Scene, name: string): string {
  const node = Object.values(scene.nodes).find((one) => one.name === name);
  if (!node) throw new Error(`There is no node ${name} in ${scene.name}.`);
  return node.id;
}

/** One page: faders and the like stand in a row, chips and dials beside them. */
function addDesk(show: Show, name: string, controls: Control[], snapshots: Snap[] = []): void {
  const scene = sceneNamed(show, name);
  const page = addPage(show, scene.id, name);
  const ids: Record<string, string> = {};
  for (const [label, node, part, special = {}] of controls) {
    const id = putOnDesk(show, catalogue, { scene: scene.id, node: nodeNamed(scene, node), part }, page);
    const control = controlOf(show, id);
    const { range } = special;
    Object.assign(control, special, { name: label });
    if (range) for (const target of control.targets) target.to = [...range];
    ids[label] = id;
  }
  for (const [label, values] of snapshots) {
    const stored = storeSnapshot(
      show,
      Object.fromEntries(Object.entries(values).map(([control, value]) => [ids[control], value])),
      scene.id,
    );
    show.snapshots.find(({ id }) => id === stored)!.name = label;
  }
  const own = show.snapshots.filter((one) => one.scene === scene.id);
  if (own.length > 1) own.slice(0, 4).forEach(({ id }, k) => (pageOf(show, page).corners[k] = id));
}

/** A page for the whole show: one fader that moves many scenes, each through its own fit. */
function addShowPage(show: Show): void {
  const page = addPage(show, null, 'Evening');
  const shines: [string, [number, number]][] = [
    ['Shade Slats', [0, 1.4]],
    ['Smoke Froth', [0, 1]],
    ['Comb Wall', [0, 1.8]],
    ['Nectar Merge', [0, 1]],
    ['Two Bees', [0, 2.2]],
    ['Reed Fan', [0, 1]],
  ];
  const targets = shines.map(([name, to]) => {
    const scene = sceneNamed(show, name);
    return { at: { scene: scene.id, node: nodeNamed(scene, 'Shine'), part: 'strength' }, to };
  });
  const id = putOnDesk(show, catalogue, targets[0].at, page);
  const control = controlOf(show, id);
  Object.assign(control, { name: 'All Shine', range: [0, 100], unit: ' %', size: [2, 3], home: [50] });
  for (const { at } of targets.slice(1)) addTarget(show, catalogue, id, at);
  control.targets.forEach((target, k) => (target.to = targets[k].to));
  bind(
    show,
    { type: 'control', channel: 1, control: 48, fine: false },
    { type: 'desk', control: id, from: 0 },
  );
}

const wipe = (angle: number, length: number): Cue['transition'] => ({
  ...homeTransition(),
  look: 'wipe',
  angle,
  length,
  soft: 0.25,
});

/** The evening in fourteen cues. */
function addCues(show: Show): void {
  const snapshot = (name: string): string => show.snapshots.find((one) => one.name === name)!.id;
  const cues: [string, string | null, string, Partial<Cue>?][] = [
    ['Doors', 'Glass Leaves', 'House light down to half. Half an hour, nothing repeats.', { bpm: 72 }],
    [
      'Sign',
      'Lantern Row',
      'When the bar closes. Titles can be typed here.',
      { snapshot: snapshot('Doors') },
    ],
    [
      'First Song',
      'Pollen Drift',
      'On the first note of the bass.',
      { snapshot: snapshot('Still Air'), bpm: 96 },
    ],
    [
      'Storm',
      null,
      'Second verse: the air moves.',
      { snapshot: snapshot('Storm'), seconds: 12, go: { type: 'after', length: 64, unit: 'beats' } },
    ],
    [
      'Smoke',
      'Smoke Frames',
      'Let the drums go first.',
      { transition: { ...homeTransition(), look: 'blur', amount: 0.25, length: 3 } },
    ],
    ['Out of the Middle', null, 'Chorus.', { snapshot: snapshot('Out of the Middle'), seconds: 4 }],
    ['Slats', 'Shade Slats', 'On the bar.', { transition: { ...wipe(0, 8)!, unit: 'beats', start: 'bar' } }],
    [
      'Moonlight',
      null,
      'Quiet: no hits here.',
      { snapshot: snapshot('Moonlight'), seconds: 20, go: { type: 'after', length: 32, unit: 'beats' } },
    ],
    [
      'Comb',
      'Comb Wall',
      'With the sound. Hand on the wall is allowed.',
      { snapshot: snapshot('Warm Wall') },
    ],
    [
      'Comb Cold',
      null,
      'Back and forth with the warm one until the singer talks.',
      { snapshot: snapshot('Cold Wall'), seconds: 6, go: { type: 'after', length: 16, unit: 'beats' } },
    ],
    [
      'Queen',
      'Queen Pulse',
      'Solo. Hold here if she goes on.',
      { transition: { ...homeTransition(), look: 'iris', soft: 0.3, length: 4 } },
    ],
    ['Honey', 'Nectar Merge', 'Slow.', { snapshot: snapshot('Honey'), bpm: 80 }],
    [
      'Flight',
      'Hedge Flight',
      'Last song. Speed up with the fader.',
      { transition: { ...homeTransition(), look: 'displace', amount: 0.15, length: 4 }, bpm: 112 },
    ],
    [
      'Good Night',
      'Lantern Row',
      'House light comes after eight bars.',
      { snapshot: snapshot('Last Song'), transition: { ...homeTransition(), look: 'dip', length: 4 } },
    ],
  ];
  for (const [name, scene, note, more = {}] of cues) {
    const id = addCue(show, null, scene && sceneNamed(show, scene).id);
    Object.assign(cueOf(show, id), { name, note, ...more });
  }
  const named = (name: string): Cue => show.cues.find((cue) => cue.name === name)!;
  named('Comb Cold').back = { cue: named('Comb').id, times: 2 };
}

/** A minute of hands on Smoke Frames: takes, a fader that breathes, a place that wanders, two hits. */
function addMoves(show: Show): void {
  const control = (name: string): string =>
    show.desk.find((page) => page.name === 'Smoke Frames')!.controls.find((one) => one.name === name)!.id;
  const at = (seconds: number): number => Math.round(seconds * 1000) / 1000;
  const moves: Move[] = [{ type: 'take', at: 0, scene: sceneNamed(show, 'Smoke Frames').id, seconds: 2 }];
  for (let k = 0; k < 240; k++) {
    const t = k / 4;
    const breath = 0.5 - 0.5 * Math.cos((2 * Math.PI * t) / 20);
    moves.push({ type: 'desk', at: at(t), control: control('Push'), value: [at(0.012 + 0.022 * breath)] });
    if (k % 2 === 0)
      moves.push({
        type: 'desk',
        at: at(t),
        control: control('Place'),
        value: [at(0.4 * Math.sin(t / 5)), at(0.2 * Math.sin(t / 3.1))],
      });
  }
  // Where the air is pushed most: bare rings that cross the picture inverted would flash.
  for (const t of [10, 30]) {
    moves.push(
      { type: 'hit', at: t, hit: 'invert', on: true },
      { type: 'hit', at: t + 0.6, hit: 'invert', on: false },
    );
  }
  moves.push({ type: 'take', at: 56, scene: sceneNamed(show, 'Smoke Froth').id, seconds: 3 });
  show.moves = moves.sort((a, b) => a.at - b.at);
}

/** Adds all of it to the demo show. */
export function addPlay(show: Show): void {
  for (const [name, { controls, snapshots }] of Object.entries(pages))
    addDesk(show, name, controls, snapshots);
  addShowPage(show);
  addCues(show);
  addMoves(show);
  show.home = { scene: sceneNamed(show, 'Glass Leaves').id, snapshot: null };
}
