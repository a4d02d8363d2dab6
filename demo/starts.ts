import type { Module, Scene } from '../src/core/document/types';
import { catalogue } from '../src/nodes/catalogue';
import { shippedPacks } from './modules';
import { palette } from './palette';
import { Sketch } from './sketch';

/** A scene to begin from, with what it shows. */
interface Start {
  id: string;
  name: string;
  about: string;
  scene: Scene;
  /** Modules that it uses, by id. */
  modules: string[];
}

const ember = [
  { at: 0, colour: [0.03, 0.02, 0.06, 1] },
  { at: 0.5, colour: [0.6, 0.18, 0.16, 1] },
  { at: 0.8, colour: palette.honey },
  { at: 1, colour: [1, 0.96, 0.85, 1] },
] as never;

function oneNoise(s: Sketch): void {
  const noise = s.add('noise', 'Noise', [0, 0], { period: 0.45, octaves: 3, contrast: 1.5 });
  const tint = s.add('gradient-map', 'Colours', [200, 0], { colours: ember });
  s.wire(noise, tint, 'picture');
  s.wire(tint, s.out, 'picture');
}

function travellingStripes(s: Sketch): void {
  s.scene.loop = { length: 8, unit: 'beats', lock: true };
  const bars = s.add('stripes', 'Stripes', [0, 0], {
    count: [12, 12],
    periods: 2,
    turn: 35,
    softness: 0.3,
    ink: palette.honey,
    ground: [0.05, 0.03, 0.1, 1],
  });
  const soft = s.add('glow', 'Shine', [200, 0], { strength: 0.6 });
  s.wire(bars, soft, 'picture');
  s.wire(soft, s.out, 'picture');
}

function feedback(s: Sketch): void {
  const disc = s.add('flat-shape', 'Disc', [0, 200], {
    size: [0.14, 0.14],
    fill: palette.honey,
    softness: 0.02,
  });
  s.swing(disc, 'place.x', { amount: 0.45, rate: 0.13 });
  s.swing(disc, 'place.y', { amount: 0.28, rate: 0.19, phase: 0.25 });
  const past = s.add('transform', 'Past', [200, 0], { scale: 1.015, turn: 1.2 });
  const tinted = s.add('hue-saturation', 'Older', [400, 0], { hue: 4 });
  const both = s.add('blend', 'Both', [400, 200], { mode: 'lighten' });
  s.wire(past, tinted, 'picture');
  s.wire(disc, both, 'picture');
  s.wire(tinted, both, 'over');
  s.back(s.wire(both, past, 'picture'), { keep: 0.985 });
  s.wire(both, s.out, 'picture');
}

function kaleidoscope(s: Sketch): void {
  const picture = s.add('picture', 'Picture', [0, 0], { file: 'shipped:wax-pane.webp', fit: 'cover' });
  const room = s.add('module-mirror-room', 'Mirror Room', [200, 0]);
  s.wire(picture, room, Object.keys(catalogue.get('module-mirror-room')!.inputs)[0]);
  s.wire(room, s.out, 'picture');
}

function points(s: Sketch): void {
  const swarm = s.add('module-swarm', 'Swarm', [0, 0], { how_many: 900 });
  s.wire(swarm, s.out, 'picture');
}

function solid(s: Sketch): void {
  const body = s.add('polyhedron', 'Solid', [0, 0], { solid: 'icosahedron', size: 0.75 });
  const look = s.add('body', 'Look', [200, 0], { colour: palette.honey, shine: 0.5 });
  s.wire(body, look, 'shape');
  const camera = s.add('camera', 'Camera', [200, 200], { height: 20, distance: 1.7 });
  s.formula(camera, 'orbit', 'time * 25');
  const light = s.add('light', 'Light', [200, 400], { form: 'sun', strength: 1.2 });
  const shot = s.add('shot', 'Shot', [400, 0], { background: [0.04, 0.03, 0.08, 1] });
  for (const prop of [look, camera, light]) s.wire(prop, shot, 'props');
  s.wire(shot, s.out, 'picture');
}

function copies(s: Sketch): void {
  const box = s.add('box', 'Bar', [0, 0], { size: [0.03, 0.5, 0.03], anchor: 'bottom' });
  const look = s.add('body', 'Look', [200, 0], { colour: [0.37, 0.78, 0.75, 1], shine: 0.3 });
  s.wire(box, look, 'shape');
  const wave = s.add('oscillator', 'Wave', [200, 400], { samples: 32, spread: 1, rate: 0.3 });
  const row = s.add('instances', 'Row', [400, 0], {
    layout: 'line',
    layoutSize: 1.5,
    growth: 'bottom',
    paletteWay: 'mirror',
  });
  s.wire(look, row, 'body');
  s.wire(wave, row, 'stretch.y', [0.2, 1]);
  const camera = s.add('camera', 'Camera', [400, 200], { orbit: 25, height: 15, distance: 1.8 });
  const shot = s.add('shot', 'Shot', [600, 0], { background: [0.04, 0.03, 0.08, 1] });
  s.wire(row, shot, 'props');
  s.wire(camera, shot, 'props');
  s.wire(shot, s.out, 'picture');
}

function landscape(s: Sketch): void {
  s.wire(s.add('module-ridges', 'Ridges', [0, 0]), s.out, 'picture');
}

function drops(s: Sketch): void {
  s.wire(s.add('module-merging-drops', 'Merging Drops', [0, 0]), s.out, 'picture');
}

function words(s: Sketch): void {
  const noise = s.add('noise', 'Noise', [0, 0], { period: 0.6, octaves: 3, contrast: 1.4 });
  const tint = s.add('gradient-map', 'Colours', [200, 0], { colours: ember });
  s.wire(noise, tint, 'picture');
  const dark = s.add('levels', 'Darker', [400, 0], { brightness: -0.25 });
  s.wire(tint, dark, 'picture');
  const title = s.add('module-title-card', 'Title', [600, 0], { words: 'Doors at eight', size: 0.16 });
  s.wire(dark, title, Object.keys(catalogue.get('module-title-card')!.inputs)[0]);
  s.wire(title, s.out, 'picture');
}

function sound(s: Sketch): void {
  s.wire(s.add('module-sound-fan', 'Sound Fan', [0, 0]), s.out, 'picture');
}

function lightWall(s: Sketch): void {
  const noise = s.add('noise', 'Noise', [0, 0], { form: 'cellular', period: 0.5, octaves: 1, contrast: 1.6 });
  const tint = s.add('gradient-map', 'Colours', [200, 0], { colours: ember });
  s.wire(noise, tint, 'picture');
  const pulse = s.add('module-sound-pulse', 'Sound Pulse', [400, 0]);
  s.wire(tint, pulse, Object.keys(catalogue.get('module-sound-pulse')!.inputs)[0]);
  const lights = s.add('module-led-look', 'LED Look', [600, 0], { lights: 40 });
  s.wire(pulse, lights, Object.keys(catalogue.get('module-led-look')!.inputs)[0]);
  s.wire(lights, s.out, 'picture');
}

const all: readonly [string, string, string, (s: Sketch) => void][] = [
  ['one-noise', 'One Noise', 'A noise in colours: the smallest patch that moves.', oneNoise],
  ['stripes', 'Stripes in a Loop', 'Stripes that travel and close their loop.', travellingStripes],
  ['feedback', 'Feedback', 'A disc that draws its own past, by a wire drawn backwards.', feedback],
  ['kaleidoscope', 'Kaleidoscope', 'A picture in a room of mirrors. Put your own in.', kaleidoscope],
  ['words', 'Words', 'A title over a moving ground.', words],
  ['solid', 'A Solid', 'A body, a light and a camera that goes round.', solid],
  ['copies', 'Many Copies', 'One bar, thirty-two times, each a little later.', copies],
  ['swarm', 'A Swarm', 'Hundreds of lights that wander.', points],
  ['landscape', 'A Landscape', 'Rows of lines raised by noise.', landscape],
  ['drops', 'Merging Drops', 'Distance fields that melt into each other.', drops],
  ['sound', 'Sound', 'Bars as long as the bands of the sound.', sound],
  ['light-wall', 'A Wall with Sound', 'Lights of an LED wall that breathe with the sound.', lightWall],
];

/** The starting points that new scenes are offered, from the smallest to a wall with sound. */
export function starts(): Start[] {
  const library: Record<string, Module> = Object.assign({}, ...shippedPacks().map(({ modules }) => modules));
  catalogue.take(library);
  const made = all.map(([id, name, about, draw]): Start => {
    const s = new Sketch('start', name, [820, 0]);
    draw(s);
    const modules = Object.values(s.scene.nodes).flatMap(({ kind }) =>
      kind.startsWith('module-') ? [kind.slice(7)] : [],
    );
    return { id, name, about, scene: s.scene, modules: [...new Set(modules)] };
  });
  catalogue.take({});
  return made;
}
