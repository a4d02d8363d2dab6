import type { ModulePack } from '../src/core/show/module-pack';
import { ModuleSketch } from './module-sketch';

const honey: [number, number, number, number] = [1, 0.66, 0.2, 1];
const teal: [number, number, number, number] = [0.37, 0.78, 0.75, 1];
const rose: [number, number, number, number] = [0.91, 0.45, 0.52, 1];
const night: [number, number, number, number] = [0.05, 0.03, 0.08, 1];
const warm = [
  { at: 0, colour: night },
  { at: 0.45, colour: [0.55, 0.16, 0.2, 1] },
  { at: 0.8, colour: honey },
  { at: 1, colour: [1, 0.95, 0.8, 1] },
];

/** What stands in for a picture: glowing noise, in the colours of the show. */
function pictureIn(s: ModuleSketch, name = 'Picture', row = 0): string {
  const noise = s.add('noise', `${name} Noise`, [-2, row], { period: 0.5, octaves: 3, contrast: 1.6 });
  const tint = s.add('gradient-map', `${name} Tint`, [-1, row], { colours: warm as never });
  s.wire(noise, tint, 'picture');
  return s.input(name, 'image', [0, row], tint);
}

function waterRings(): ModuleSketch {
  const s = new ModuleSketch(
    'water-rings',
    'Water Rings',
    'Bends a picture by rings that run outward from a place.',
    'ripple, drop, wave, circles, refraction, pool',
  );
  const picture = pictureIn(s);
  const pace = s.add('oscillator', 'Pace', [1, 2], { shape: 'fall', rate: 0.25 });
  const rings = s.add('gradient', 'Rings', [1, 1], { form: 'radial', length: 0.22, ends: 'mirror' });
  s.wire(pace, rings, 'phase', [0, 1]);
  const slope = s.add('steepness', 'Slope', [2, 1], { zero: 'half', strength: 2 });
  s.wire(rings, slope, 'picture');
  const bent = s.add('displace', 'Bent', [3, 0], {
    push: 0.06,
    across: 'red',
    up: 'green',
    outside: 'mirror',
  });
  s.wire(picture, bent, 'picture');
  s.wire(slope, bent, 'map');
  s.output(bent, [4, 0]);
  s.control('Strength', [bent, 'push'], { help: 'How far the rings bend the picture.', range: [0, 0.3] });
  s.control('Width', [rings, 'length'], { help: 'From one ring to the next.', range: [0.05, 0.6] });
  s.control('Speed', [pace, 'rate'], { help: 'Rings a second.', range: [0, 2] });
  s.control('Place', [rings, 'place'], { help: 'Where they begin.' });
  return s;
}

function echoTrails(): ModuleSketch {
  const s = new ModuleSketch(
    'echo-trails',
    'Echo Trails',
    'Leaves fading copies of a picture behind that grow, turn and drift.',
    'feedback, trails, echo, copies, tunnel, delay',
  );
  const picture = pictureIn(s);
  const moved = s.add('transform', 'Moved On', [2, 1], { scale: 1.03, turn: 1 });
  const faded = s.add('levels', 'Faded', [3, 1], { brightness: -0.02 });
  const both = s.add('blend', 'With the Past', [2, 0], { mode: 'lighten' });
  s.wire(moved, faded, 'picture');
  s.wire(picture, both, 'picture');
  s.wire(faded, both, 'over');
  const back = s.wire(both, moved, 'picture');
  s.back(back, { keep: 0.97 });
  s.output(both, [3, 0]);
  s.control('Grow', [moved, 'scale'], {
    help: 'Size of each copy against the one before.',
    range: [0.9, 1.15],
  });
  s.control('Turn', [moved, 'turn'], { help: 'Degrees from one copy to the next.', range: [-10, 10] });
  s.control('Drift', [moved, 'move'], { help: 'Where the copies go.' });
  s.control('Fade', [faded, 'brightness'], { help: 'How much darker each copy is.', range: [-0.2, 0] });
  return s;
}

function mirrorRoom(): ModuleSketch {
  const s = new ModuleSketch(
    'mirror-room',
    'Mirror Room',
    'A kaleidoscope: wedges of a picture mirrored around the middle, which turn and come nearer.',
    'kaleidoscope, symmetry, mirror, mandala, wedges',
  );
  const picture = pictureIn(s);
  const spin = s.add('oscillator', 'Spin', [1, 1], { shape: 'ramp', rate: 0.03 });
  const turned = s.add('transform', 'Turned', [1, 0], { scale: 1.4, outside: 'mirror' });
  s.wire(picture, turned, 'picture');
  s.wire(spin, turned, 'turn', [0, 360]);
  const room = s.add('mirror', 'Wedges', [2, 0], { form: 'rosette', wedges: 8, outside: 'mirror' });
  s.wire(turned, room, 'picture');
  s.output(room, [3, 0]);
  s.control('Wedges', [room, 'wedges'], { help: 'How many mirrors stand around the middle.' });
  s.control('Turning', [spin, 'rate'], { help: 'Turns a second.', range: [-0.3, 0.3] });
  s.control('Nearness', [turned, 'scale'], {
    help: 'How large the picture is in the room.',
    range: [0.5, 4],
  });
  s.control('Middle', [room, 'place'], { help: 'Where the mirrors meet.' });
  return s;
}

function pictureCloud(): ModuleSketch {
  const s = new ModuleSketch(
    'picture-cloud',
    'Picture Cloud',
    'A picture as a cloud of points in space, raised by its brightness, seen by a camera that goes round.',
    'point cloud, 3d, relief, particles, depth, pixels',
  );
  const picture = pictureIn(s);
  const cloud = s.add('relief', 'Cloud', [1, 0], { depth: 0.5, columns: 200, rows: 112, size: 0.005 });
  s.wire(picture, cloud, 'picture');
  s.wire(picture, cloud, 'lift');
  const camera = s.add('camera', 'Eye', [1, 1], { orbit: 20, height: 18, distance: 1.35 });
  s.motion(camera, 'orbit', {
    type: 'swing',
    on: true,
    amount: 18,
    shape: 'sine',
    rate: 0.05,
    unit: 'hertz',
    phase: 0,
  });
  const shot = s.add('shot', 'Seen', [2, 0]);
  s.wire(cloud, shot, 'props');
  s.wire(camera, shot, 'props');
  s.output(shot, [3, 0]);
  s.control('Depth', [cloud, 'depth'], { help: 'How far bright places come forward.' });
  s.control('Points across', [cloud, 'columns'], { help: 'How many points stand in a row.', group: 'Cloud' });
  s.control('Rows', [cloud, 'rows'], { help: 'How many rows there are.', group: 'Cloud' });
  s.control('Point size', [cloud, 'size'], { group: 'Cloud', help: 'Size of a point.' });
  s.control('Orbit', [camera, 'orbit'], { group: 'Camera', help: 'From which side it is seen.' });
  s.control('Height', [camera, 'height'], { group: 'Camera', help: 'From how far above.' });
  s.control('Distance', [camera, 'distance'], { group: 'Camera', help: 'From how far away.' });
  return s;
}

function ledLook(): ModuleSketch {
  const s = new ModuleSketch(
    'led-look',
    'LED Look',
    'Shows a picture as a wall of lights that shine.',
    'led, dots, pixels, lamps, halftone, wall',
  );
  const picture = pictureIn(s);
  const dots = s.add('led-dots', 'Lights', [1, 0], { lights: 64, size: 0.75, gain: 1.6 });
  s.wire(picture, dots, 'picture');
  const glow = s.add('glow', 'Shine', [2, 0], { strength: 0.6, threshold: 0.4, reach: 0.05 });
  s.wire(dots, glow, 'picture');
  s.output(glow, [3, 0]);
  s.control('Lights', [dots, 'lights'], { help: 'How many stand above each other.' });
  s.control('Size', [dots, 'size'], { help: 'How much of its cell a light fills.' });
  s.control('Form', [dots, 'form'], { help: 'Form of a light.' });
  s.control('Brightness', [dots, 'gain'], { help: 'How bright they are.' });
  s.control('Shine', [glow, 'strength'], { help: 'Light around them.' });
  return s;
}

function beatFlash(): ModuleSketch {
  const s = new ModuleSketch(
    'beat-flash',
    'Beat Flash',
    'Brightens a picture with the beat, never more than three times a second.',
    'strobe, flash, pulse, blink, beat, tempo',
  );
  const picture = pictureIn(s);
  const beat = s.add('beat-clock', 'Beat', [0, 2], { periods: [1], gives: 'hit' });
  // What waits until it is over cannot begin again within a third of a second, whatever the tempo is.
  const flash = s.add('envelope', 'Flash', [1, 2], { attack: 0.01, hold: 0, decay: 0.34, again: 'wait' });
  s.wire(beat, flash, 'trigger');
  const lit = s.add('levels', 'Lit', [1, 0]);
  s.wire(picture, lit, 'picture');
  s.wire(flash, lit, 'brightness', [0, 0.35]);
  s.output(lit, [2, 0]);
  s.control('Amount', [lit, 'amount'], { help: 'How much of it is seen.' });
  s.control('Every', [beat, 'periods'], { help: 'Beats from one flash to the next.' });
  return s;
}

function titleCard(): ModuleSketch {
  const s = new ModuleSketch(
    'title-card',
    'Title',
    'Words with a soft light over a picture.',
    'text, words, caption, name, lower third',
  );
  const black = s.add('fill', 'Ground', [-1, 0], { colour: night });
  const picture = s.input('Picture', 'image', [0, 0], black);
  const words = s.add('text', 'Words', [0, 1], {
    text: 'Night Apiary',
    size: 0.18,
    spacing: 0.06,
    fill: honey,
  });
  const glow = s.add('glow', 'Light', [1, 1], { strength: 0.7, threshold: 0.2, reach: 0.12 });
  s.wire(words, glow, 'picture');
  const both = s.add('blend', 'Over', [2, 0], { mode: 'over' });
  s.wire(picture, both, 'picture');
  s.wire(glow, both, 'over');
  s.output(both, [3, 0]);
  s.control('Words', [words, 'text'], { help: 'What is written.' });
  s.control('Font', [words, 'font'], { group: 'Letters', help: 'Typeface.' });
  s.control('Size', [words, 'size'], { group: 'Letters', help: 'Height of the letters.' });
  s.control('Spacing', [words, 'spacing'], { group: 'Letters', help: 'Space between letters.' });
  s.control('Colour', [words, 'fill'], { help: 'Colour of the letters.' });
  s.control('Place', [words, 'place'], { help: 'Where the words stand.' });
  s.control('Light', [glow, 'strength'], { help: 'Light around the letters.' });
  s.control('Shown', [both, 'amount'], { help: 'How much of the words is seen.' });
  return s;
}

function wornScreen(): ModuleSketch {
  const s = new ModuleSketch(
    'worn-screen',
    'Worn Screen',
    'An old screen: lines, colours that part, noise and a little bend.',
    'tv, crt, vhs, glitch, static, scan lines, retro',
  );
  const picture = pictureIn(s);
  const parted = s.add('channel-shift', 'Parted', [1, 0], { form: 'lens', distance: 4 });
  s.wire(picture, parted, 'picture');
  const shake = s.add('drift', 'Shake', [1, 2], { speed: 6, amplitude: 0.004, lanes: 1 });
  const moved = s.add('transform', 'Shaken', [2, 0], { outside: 'hold' });
  s.wire(parted, moved, 'picture');
  s.wire(shake, moved, 'move.x', [-0.004, 0.004]);
  const lines = s.add('scanlines', 'Lines', [3, 0], { strength: 0.5, statics: 0.08, flicker: 0.02 });
  s.wire(moved, lines, 'picture');
  s.output(lines, [4, 0]);
  s.control('Colours apart', [parted, 'distance'], { help: 'Pixels by which the colours part.' });
  s.control('Lines', [lines, 'strength'], { help: 'How dark the lines are.' });
  s.control('Noise', [lines, 'statics'], { help: 'Static over the picture.' });
  s.control('Shake', [shake, 'amplitude'], { help: 'How far it shakes.', range: [0, 0.05] });
  return s;
}

function inkDrawing(): ModuleSketch {
  const s = new ModuleSketch(
    'ink-drawing',
    'Ink Drawing',
    'Draws the edges of a picture in ink on paper.',
    'outline, edges, comic, sketch, lines, contour',
  );
  const picture = pictureIn(s);
  const soft = s.add('blur', 'Softened', [1, 0], { radius: 0.004 });
  s.wire(picture, soft, 'picture');
  const edges = s.add('edges', 'Ink', [2, 0], { lineWidth: 3, threshold: 0.05, ink: [0.12, 0.08, 0.06, 1] });
  s.wire(soft, edges, 'picture');
  const paper = s.add('fill', 'Paper', [1, 1], { colour: [0.95, 0.9, 0.8, 1] });
  const grain = s.add('grain', 'Fibres', [2, 1], { strength: 0.05, speed: 0, size: 2 });
  s.wire(paper, grain, 'picture');
  const both = s.add('blend', 'Drawn', [3, 0], { mode: 'over' });
  s.wire(grain, both, 'picture');
  s.wire(edges, both, 'over');
  s.output(both, [4, 0]);
  s.control('Line width', [edges, 'lineWidth'], { help: 'Width of the lines.' });
  s.control('Detail', [edges, 'threshold'], { help: 'How faint an edge is still drawn.' });
  s.control('Smoothing', [soft, 'radius'], { help: 'Takes small things out.', range: [0, 0.03] });
  s.control('Ink', [edges, 'ink'], { help: 'Colour of the lines.' });
  s.control('Paper', [paper, 'colour'], { help: 'Colour of the paper.' });
  return s;
}

function twoInks(): ModuleSketch {
  const s = new ModuleSketch(
    'two-inks',
    'Two Inks',
    'Brings a picture to a gradient of a few colours, with grain as in print.',
    'duotone, tint, colour, grade, monochrome, print',
  );
  const picture = pictureIn(s);
  const contrast = s.add('levels', 'Contrast', [1, 0], { contrast: 1.3 });
  s.wire(picture, contrast, 'picture');
  const tint = s.add('gradient-map', 'Inks', [2, 0], {
    colours: [
      { at: 0, colour: [0.04, 0.05, 0.12, 1] },
      { at: 0.5, colour: teal },
      { at: 1, colour: [1, 0.93, 0.78, 1] },
    ] as never,
  });
  s.wire(contrast, tint, 'picture');
  const grain = s.add('grain', 'Grain', [3, 0], { strength: 0.05 });
  s.wire(tint, grain, 'picture');
  s.output(grain, [4, 0]);
  s.control('Inks', [tint, 'colours'], { help: 'From dark to bright.' });
  s.control('Contrast', [contrast, 'contrast'], { help: 'Between dark and bright.' });
  s.control('Grain', [grain, 'strength'], { help: 'Roughness of the print.' });
  return s;
}

function endlessZoom(): ModuleSketch {
  const s = new ModuleSketch(
    'endless-zoom',
    'Endless Zoom',
    'Goes into a picture for ever: two copies grow in turn, each fading while it is largest.',
    'zoom, dive, tunnel, loop, infinite',
  );
  const picture = pictureIn(s);
  const ways = [0, 1].map((k) => {
    const grow = s.add('oscillator', `Growing ${k + 1}`, [1, 2 + k], {
      shape: 'ramp',
      rate: 0.1,
      phase: k / 2,
    });
    const moved = s.add('transform', `Copy ${k + 1}`, [1, k], { outside: 'mirror' });
    s.wire(picture, moved, 'picture');
    s.wire(grow, moved, 'scale', [1, 3]);
    return { grow, moved };
  });
  const share = s.add('oscillator', 'Fading', [2, 2], { shape: 'triangle', rate: 0.1, phase: 0 });
  const mixed = s.add('blend', 'Mixed', [2, 0], { mode: 'over' });
  s.wire(ways[0].moved, mixed, 'picture');
  s.wire(ways[1].moved, mixed, 'over');
  s.wire(share, mixed, 'amount', [1, 0]);
  s.output(mixed, [3, 0]);
  s.control('Speed', [ways[0].grow, 'rate'], {
    help: 'Rounds a second.',
    range: [0, 1],
    more: [
      [ways[1].grow, 'rate', null],
      [share, 'rate', null],
    ],
  });
  s.control('Middle', [ways[0].moved, 'pivot'], {
    help: 'Where it goes into the picture.',
    more: [[ways[1].moved, 'pivot', null]],
  });
  return s;
}

function liquid(): ModuleSketch {
  const s = new ModuleSketch(
    'liquid',
    'Liquid',
    'Lets a picture flow: slow noise pushes it about.',
    'flow, warp, melt, distort, fluid, wobble',
  );
  const picture = pictureIn(s);
  const flow = s.add('noise', 'Currents', [1, 1], { channels: 'three', period: 0.5, octaves: 2, rate: 0.15 });
  const bent = s.add('displace', 'Flowing', [2, 0], {
    push: 0.15,
    across: 'red',
    up: 'green',
    outside: 'mirror',
  });
  s.wire(picture, bent, 'picture');
  s.wire(flow, bent, 'map');
  s.output(bent, [3, 0]);
  s.control('Strength', [bent, 'push'], { help: 'How far it flows.', range: [0, 0.5] });
  s.control('Size', [flow, 'period'], { help: 'Size of the currents.' });
  s.control('Speed', [flow, 'rate'], { help: 'How quickly they change.' });
  return s;
}

function driftingTiles(): ModuleSketch {
  const s = new ModuleSketch(
    'drifting-tiles',
    'Drifting Tiles',
    'Fills the canvas with small mirrored copies of a picture that drift.',
    'tile, repeat, pattern, wallpaper, mosaic',
  );
  const picture = pictureIn(s);
  const across = s.add('oscillator', 'Across', [1, 1], { shape: 'ramp', rate: 0.05 });
  const up = s.add('oscillator', 'Upward', [1, 2], { shape: 'ramp', rate: 0.03 });
  const tiles = s.add('transform', 'Tiles', [2, 0], { outside: 'mirror', scale: 0.34 });
  s.wire(picture, tiles, 'picture');
  s.wire(across, tiles, 'move.x', [0, 1.21]);
  s.wire(up, tiles, 'move.y', [0, 0.68]);
  s.output(tiles, [3, 0]);
  s.control('Size', [tiles, 'scale'], { help: 'Size of a tile.', range: [0.05, 1] });
  s.control('Turn', [tiles, 'turn'], { help: 'Turns all of them.' });
  s.control('Drift across', [across, 'rate'], { help: 'Rounds a second.', range: [-0.5, 0.5] });
  s.control('Drift up', [up, 'rate'], { help: 'Rounds a second.', range: [-0.5, 0.5] });
  return s;
}

function noiseReveal(): ModuleSketch {
  const s = new ModuleSketch(
    'noise-reveal',
    'Noise Reveal',
    'One picture eats its way into another along the grain of noise.',
    'transition, wipe, dissolve, burn, crossfade, mask',
  );
  const first = pictureIn(s);
  const stripes = s.add('stripes', 'Second Stripes', [-1, 1], { ink: teal, ground: night, turn: 30 });
  const second = s.input('Second', 'image', [0, 1], stripes);
  const noise = s.add('noise', 'Grain', [0, 2], { period: 0.4, octaves: 4, rate: 0 });
  const level = s.add('oscillator', 'To and Fro', [1, 3], { rate: 0.1 });
  const mask = s.add('levels', 'Edge', [1, 2], { contrast: 6, brightness: 0 });
  s.wire(noise, mask, 'picture');
  s.wire(level, mask, 'brightness', [-0.5, 0.5]);
  const mixed = s.add('masked-mix', 'Revealed', [2, 0]);
  s.wire(first, mixed, 'picture');
  s.wire(second, mixed, 'light');
  s.wire(mask, mixed, 'mask');
  s.output(mixed, [3, 0]);
  s.control('Revealed', [mask, 'brightness'], {
    help: 'How much of the second picture is seen; wire a signal in to play it.',
    range: [-0.6, 0.6],
  });
  s.control('Hardness', [mask, 'contrast'], { help: 'How hard the edge is.', range: [1, 20] });
  s.control('Grain size', [noise, 'period'], { help: 'Size of what eats its way.' });
  s.control('Rounds a second', [level, 'rate'], {
    help: 'How often it goes to and fro by itself.',
    range: [0, 1],
  });
  return s;
}

function softFrame(): ModuleSketch {
  const s = new ModuleSketch(
    'soft-frame',
    'Soft Frame',
    'Lets a picture fade into the dark at its edges.',
    'vignette, border, edge, fade, mask',
  );
  const picture = pictureIn(s);
  const frame = s.add('flat-shape', 'Frame', [1, 1], {
    form: 'box',
    size: [1.5, 0.8],
    rounding: 0.3,
    softness: 0.25,
    fill: [1, 1, 1, 1],
  });
  const ground = s.add('fill', 'Dark', [1, 2], { colour: [0, 0, 0, 1] });
  const mask = s.add('blend', 'Mask', [2, 1], { mode: 'over' });
  s.wire(ground, mask, 'picture');
  s.wire(frame, mask, 'over');
  const framed = s.add('blend', 'Framed', [3, 0], { mode: 'multiply' });
  s.wire(picture, framed, 'picture');
  s.wire(mask, framed, 'over');
  s.output(framed, [4, 0]);
  s.control('Size', [frame, 'size'], { help: 'Width and height that stay bright.' });
  s.control('Softness', [frame, 'softness'], { help: 'How softly it fades.' });
  s.control('Rounding', [frame, 'rounding'], { help: 'Roundness of the corners.' });
  s.control('Amount', [framed, 'amount'], { help: 'How dark the edges are.' });
  return s;
}

function growingRings(): ModuleSketch {
  const s = new ModuleSketch(
    'growing-rings',
    'Growing Rings',
    'Rings of light that grow from the middle, one after the other.',
    'circles, pulse, radar, ripple, wave, concentric',
  );
  const life = s.add('oscillator', 'One Life', [0, 1], { shape: 'ramp', rate: 0.2 });
  const lives = s.add('time-spread', 'Lives', [1, 1], { samples: 6, cycle: 5 });
  s.wire(life, lives, 'in');
  const ring = s.add('ring', 'Ring', [0, 0], { size: 1, points: 96 });
  const line = s.add('body', 'Line', [1, 0], {
    draw: 'lines',
    shading: 'flat',
    blending: 'add',
    solid: false,
    colour: honey,
    width: 5,
  });
  s.wire(ring, line, 'shape');
  const rings = s.add('instances', 'Rings', [2, 0]);
  s.wire(line, rings, 'body');
  s.wire(lives, rings, 'size', [0, 1.9]);
  s.wire(lives, rings, 'tint.a', [1, 0]);
  const shot = s.add('shot', 'Seen', [3, 0], { background: night });
  const camera = s.add('camera', 'Eye', [2, 1], { projection: 'straight', orbit: 0, height: 0 });
  s.wire(rings, shot, 'props');
  s.wire(camera, shot, 'props');
  const glow = s.add('glow', 'Shine', [4, 0], { strength: 0.9, threshold: 0.2, reach: 0.1 });
  s.wire(shot, glow, 'picture');
  s.output(glow, [5, 0]);
  s.control('Rings', [lives, 'samples'], { help: 'How many are under way.', range: [1, 24] });
  s.control('Speed', [life, 'rate'], { help: 'How often each begins anew, a second.', range: [0, 1] });
  s.control('Corners', [ring, 'points'], { help: '3 makes triangles, many make circles.', range: [3, 128] });
  s.control('Line width', [line, 'width'], { group: 'Look', help: 'Width of the lines.' });
  s.control('Colour', [line, 'colour'], { group: 'Look', help: 'Colour of the lines.' });
  s.control('Shine', [glow, 'strength'], { group: 'Look', help: 'Light around them.' });
  return s;
}

function swarm(): ModuleSketch {
  const s = new ModuleSketch(
    'swarm',
    'Swarm',
    'A swarm of small lights that wander, each on a way of its own.',
    'particles, bees, fireflies, dots, points, crowd',
  );
  const ways = s.add('drift', 'Ways', [0, 1], {
    samples: 400,
    lanes: 3,
    speed: 0.25,
    amplitude: 0.8,
    period: 2,
  });
  const ball = s.add('ball', 'Dot', [0, 0], { size: 0.02, rings: 6, segments: 8 });
  const body = s.add('body', 'Light', [1, 0], {
    shading: 'flat',
    colour: honey,
    blending: 'add',
    solid: false,
  });
  s.wire(ball, body, 'shape');
  const many = s.add('instances', 'Swarm', [2, 0]);
  s.wire(body, many, 'body');
  s.wire(ways, many, 'place', [-0.8, 0.8]);
  const shot = s.add('shot', 'Seen', [3, 0], { background: night });
  const camera = s.add('camera', 'Eye', [2, 1], { orbit: 20, height: 10, distance: 1.6 });
  s.wire(many, shot, 'props');
  s.wire(camera, shot, 'props');
  const glow = s.add('glow', 'Shine', [4, 0], { strength: 1, threshold: 0.2, reach: 0.06 });
  s.wire(shot, glow, 'picture');
  s.output(glow, [5, 0]);
  s.control('How many', [ways, 'samples'], { help: 'Lights in the swarm.', range: [1, 4000] });
  s.control('Speed', [ways, 'speed'], { help: 'How quickly they wander.', range: [0, 2] });
  s.control('Spread', [ways, 'amplitude'], { help: 'How far they go from the middle.', range: [0, 2] });
  s.control('Size', [ball, 'size'], { group: 'Look', help: 'Size of a light.', range: [0.004, 0.1] });
  s.control('Colour', [body, 'colour'], { group: 'Look', help: 'Colour of the lights.' });
  s.control('Shine', [glow, 'strength'], { group: 'Look', help: 'Light around them.' });
  s.control('Orbit', [camera, 'orbit'], { group: 'Camera', help: 'From which side it is seen.' });
  return s;
}

function soundFan(): ModuleSketch {
  const s = new ModuleSketch(
    'sound-fan',
    'Sound Fan',
    'Bars around the middle, as long as the bands of the sound: bass to treble.',
    'spectrum, equaliser, audio, bands, music, visualiser',
  );
  const bands = s.add('audio-bands', 'Bands', [0, 1], { bands: 48, tilt: 5, floor: -60 });
  const box = s.add('box', 'Bar', [0, 0], { size: [0.018, 0.4, 0.01], anchor: 'bottom' });
  const body = s.add('body', 'Look', [1, 0], {
    shading: 'flat',
    colour: honey,
    blending: 'add',
    solid: false,
  });
  s.wire(box, body, 'shape');
  const fan = s.add('instances', 'Fan', [2, 0], { growth: 'bottom', paletteWay: 'mirror' });
  const inner = s.add('values', 'Inner', [1, 1], { list: [0.2] });
  s.formula(fan, 'place.x', 'inner.value * sin(tau * i / n)');
  s.formula(fan, 'place.y', 'inner.value * cos(tau * i / n)');
  s.formula(fan, 'turn.z', '-360 * i / n');
  s.wire(body, fan, 'body');
  s.wire(bands, fan, 'stretch.y', [0.04, 1.6]);
  const shot = s.add('shot', 'Seen', [3, 0], { background: night });
  const camera = s.add('camera', 'Eye', [2, 1], { projection: 'straight', orbit: 0, height: 0 });
  s.wire(fan, shot, 'props');
  s.wire(camera, shot, 'props');
  const glow = s.add('glow', 'Shine', [4, 0], { strength: 0.6, threshold: 0.3, reach: 0.08 });
  s.wire(shot, glow, 'picture');
  s.output(glow, [5, 0]);
  s.control('Bands', [bands, 'bands'], { help: 'How many bars there are.', range: [4, 128] });
  s.control('Rise', [bands, 'rise'], { group: 'Sound', help: 'Seconds until a bar is up.' });
  s.control('Fall', [bands, 'fall'], { group: 'Sound', help: 'Seconds until it is down again.' });
  s.control('Tilt', [bands, 'tilt'], { group: 'Sound', help: 'Lifts the treble.' });
  s.control('Inner size', [inner, 'list'], { help: 'Radius of the circle that they stand on.' });
  s.control('Colour', [body, 'colour'], { help: 'Colour of the bars.' });
  return s;
}

function soundPulse(): ModuleSketch {
  const s = new ModuleSketch(
    'sound-pulse',
    'Sound Pulse',
    'Lets a picture breathe with the sound: larger and brighter where it is loud.',
    'audio, level, loud, react, breathe, zoom',
  );
  const picture = pictureIn(s);
  const level = s.add('audio-level', 'Loudness', [1, 1], { rise: 0.03, fall: 0.4 });
  const moved = s.add('transform', 'Larger', [1, 0], { outside: 'mirror' });
  s.wire(picture, moved, 'picture');
  s.wire(level, moved, 'scale', [1, 1.25]);
  const lit = s.add('levels', 'Brighter', [2, 0]);
  s.wire(moved, lit, 'picture');
  s.wire(level, lit, 'brightness', [0, 0.15]);
  s.output(lit, [3, 0]);
  s.control('Size', [moved, 'amount'], { help: 'How much of the growing is seen.' });
  s.control('Light', [lit, 'amount'], { help: 'How much of the brightening is seen.' });
  s.control('Rise', [level, 'rise'], { group: 'Sound', help: 'Seconds until it follows what gets louder.' });
  s.control('Fall', [level, 'fall'], { group: 'Sound', help: 'Seconds until it follows what gets softer.' });
  return s;
}

function ridges(): ModuleSketch {
  const s = new ModuleSketch(
    'ridges',
    'Ridges',
    'Rows of lines raised like hills by moving noise.',
    'landscape, lines, terrain, mountains, relief, wave',
  );
  const noise = s.add('noise', 'Hills', [0, 0], { period: 0.3, octaves: 3, rate: 0.12, contrast: 1.4 });
  const lift = s.input('Lift', 'image', [1, 0], noise);
  const rows = s.add('relief', 'Rows', [2, 0], {
    draw: 'rows',
    rows: 48,
    columns: 160,
    depth: 0.35,
    width: 2,
    tint: teal,
    blending: 'add',
  });
  s.wire(lift, rows, 'lift');
  const camera = s.add('camera', 'Eye', [2, 1], { orbit: 0, height: -52, distance: 1.25 });
  const shot = s.add('shot', 'Seen', [3, 0], { background: night });
  s.wire(rows, shot, 'props');
  s.wire(camera, shot, 'props');
  s.output(shot, [4, 0]);
  s.control('Depth', [rows, 'depth'], { help: 'How high the hills are.' });
  s.control('Rows', [rows, 'rows'], { help: 'How many lines there are.' });
  s.control('Line width', [rows, 'width'], { help: 'Width of the lines.' });
  s.control('Colour', [rows, 'tint'], { help: 'Colour of the lines.' });
  s.control('Hill size', [noise, 'period'], { group: 'Hills', help: 'Size of the hills.' });
  s.control('Speed', [noise, 'rate'], { group: 'Hills', help: 'How quickly they change.' });
  s.control('Tilt', [camera, 'height'], { group: 'Camera', help: 'From how far above it is seen.' });
  return s;
}

function slats(): ModuleSketch {
  const s = new ModuleSketch(
    'slats',
    'Crossed Slats',
    'Two families of slats that cross and travel, and close their loop.',
    'stripes, bars, blinds, pattern, moire, loop',
  );
  const bars = s.add('stripes', 'Slats', [0, 0], {
    families: 'two',
    count: [14, 9],
    periods: 2,
    turn: 20,
    crossing: 70,
    share: [0.45, 0.3],
    ink: honey,
    second: rose,
    ground: night,
    burn: 0.5,
  });
  s.output(bars, [1, 0]);
  s.control('Slats', [bars, 'count'], { help: 'How many of each family.', range: [1, 40] });
  s.control('Width', [bars, 'share'], { help: 'How much of its space a slat fills.' });
  s.control('Travel', [bars, 'periods'], { help: 'Slats that go by in each loop.', range: [-8, 8] });
  s.control('Turn', [bars, 'turn'], { help: 'Turns both families.' });
  s.control('Crossing', [bars, 'crossing'], { help: 'Degrees between them.' });
  s.control('First', [bars, 'ink'], { group: 'Colours', help: 'Colour of the first family.' });
  s.control('Second', [bars, 'second'], { group: 'Colours', help: 'Colour of the second family.' });
  s.control('Ground', [bars, 'ground'], { group: 'Colours', help: 'What lies between them.' });
  s.control('Burn', [bars, 'burn'], { group: 'Colours', help: 'How bright it is where they cross.' });
  return s;
}

function glowingWord(): ModuleSketch {
  const s = new ModuleSketch(
    'glowing-word',
    'Glowing Word',
    'A word as a line of light that runs along its letters.',
    'neon, sign, letters, text, beam, outline',
  );
  const beam = s.add('beam', 'Word', [0, 0], {
    form: 'letters',
    text: 'HIVE',
    size: 0.3,
    motion: 'run',
    span: 6,
    lit: [0, 0.7],
    halo: 0.7,
  });
  s.output(beam, [1, 0]);
  s.control('Word', [beam, 'text'], { help: 'What is written.' });
  s.control('Size', [beam, 'size'], { help: 'Height of the letters.' });
  s.control('Span', [beam, 'span'], { help: 'Seconds that the light takes for its way.' });
  s.control('Core', [beam, 'core'], { group: 'Light', help: 'Width of the bright line.' });
  s.control('Halo', [beam, 'halo'], { group: 'Light', help: 'Light around it.' });
  s.control('Colours', [beam, 'colours'], { group: 'Light', help: 'Along the line.' });
  return s;
}

function mergingDrops(): ModuleSketch {
  const s = new ModuleSketch(
    'merging-drops',
    'Merging Drops',
    'Three drops that swing through each other and merge softly.',
    'blobs, metaballs, sdf, distance field, liquid, honey',
  );
  const drops = [0, 1, 2].map((k) => {
    const drop = s.add('field-ball', `Drop ${k + 1}`, [0, k], {
      radius: 0.22,
      colour: [honey, rose, teal][k],
    });
    const swing = s.add('oscillator', `Way ${k + 1}`, [0, 3 + k], {
      rate: 0.1 + 0.03 * k,
      phase: k / 3,
      samples: 1,
    });
    const place = s.add('field-place', `Place ${k + 1}`, [1, k]);
    s.wire(drop, place, 'field');
    s.wire(swing, place, k === 1 ? 'move.y' : 'move.x', [-0.35, 0.35]);
    return { drop, swing, place };
  });
  const merged = s.add('field-blend', 'Merged', [2, 0], { soft: 0.25 });
  for (const { place } of drops) s.wire(place, merged, 'fields');
  const shot = s.add('field-shot', 'Seen', [3, 0], { background: night });
  s.wire(merged, shot, 'fields');
  s.output(shot, [4, 0]);
  s.control('Softness', [merged, 'soft'], { help: 'How softly they merge.' });
  s.control('Size', [drops[0].drop, 'radius'], {
    help: 'Radius of a drop.',
    range: [0.05, 0.5],
    more: drops.slice(1).map(({ drop }) => [drop, 'radius', null]),
  });
  s.control('Speed', [drops[0].swing, 'rate'], {
    help: 'Of the first; the others follow a little quicker.',
    range: [0, 1],
    more: [
      [drops[1].swing, 'rate', [0, 1.3]],
      [drops[2].swing, 'rate', [0, 1.6]],
    ],
  });
  s.control('Ground', [shot, 'background'], { help: 'Colour behind them.' });
  return s;
}

function travellingGrid(): ModuleSketch {
  const s = new ModuleSketch(
    'travelling-grid',
    'Travelling Grid',
    'A floor of lines that comes towards you out of the dark, and closes its loop.',
    'floor, perspective, retro, road, horizon, synth',
  );
  const grid = s.add('lattice', 'Grid', [0, 0], {
    cells: [20, 20],
    lineWidth: 0.05,
    ink: teal,
    ground: [0, 0, 0, 1],
    cellsALoop: [0, -2],
    softness: 0.02,
  });
  const floor = s.add('corner-pin', 'Floor', [1, 0], {
    upperLeft: [0.42, -0.5],
    upperRight: [-0.42, -0.5],
    lowerLeft: [-1.6, 0],
    lowerRight: [1.6, 0],
  });
  s.wire(grid, floor, 'picture');
  const fog = s.add('gradient', 'Fog', [1, 1], {
    colours: [
      { at: 0, colour: [1, 1, 1, 1] },
      { at: 0.5, colour: [0, 0, 0, 1] },
    ] as never,
    turn: 90,
    length: 1,
  });
  const black = s.add('fill', 'Black', [1, 2], { colour: [0, 0, 0, 1] });
  const laid = s.add('blend', 'Laid', [2, 2], { mode: 'over' });
  s.wire(black, laid, 'picture');
  s.wire(floor, laid, 'over');
  const faded = s.add('blend', 'Faded', [2, 0], { mode: 'multiply' });
  s.wire(laid, faded, 'picture');
  s.wire(fog, faded, 'over');
  const sky = s.add('fill', 'Sky', [2, 1], { colour: night });
  const both = s.add('blend', 'Under the Sky', [3, 0], { mode: 'add' });
  s.wire(sky, both, 'picture');
  s.wire(faded, both, 'over');
  const glow = s.add('glow', 'Shine', [4, 0], { strength: 0.8, threshold: 0.25, reach: 0.08 });
  s.wire(both, glow, 'picture');
  s.output(glow, [5, 0]);
  s.control('Cells', [grid, 'cells'], { help: 'How many lie across and along.', range: [2, 60] });
  s.control('Travel', [grid, 'cellsALoop'], { help: 'Cells that go by in each loop.', range: [-8, 8] });
  s.control('Line width', [grid, 'lineWidth'], { help: 'Width of the lines.' });
  s.control('Lines', [grid, 'ink'], { group: 'Colours', help: 'Colour of the lines.' });
  s.control('Sky', [sky, 'colour'], { group: 'Colours', help: 'Colour of the dark.' });
  s.control('Shine', [glow, 'strength'], { group: 'Colours', help: 'Light around the lines.' });
  return s;
}

function bounce(): ModuleSketch {
  const s = new ModuleSketch(
    'bounce',
    'Bounce',
    'A number that bounces from 0 up to 1 and falls back, for each of several copies a little later.',
    'ball, jump, hop, easing, gravity',
  );
  const swing = s.add('oscillator', 'Way', [0, 0], { rate: 0.5, samples: 1, spread: 0 });
  const up = s.add('formula', 'Up', [1, 0], { formula: 'abs(in.value)', range: [0, 1] });
  s.wire(swing, up, 'in');
  s.output(up, [2, 0]);
  s.control('Rate', [swing, 'rate'], { help: 'Two bounces in each round of it.', range: [0, 4] });
  s.control('Copies', [swing, 'samples'], { help: 'How many numbers there are.', range: [1, 64] });
  s.control('Apart', [swing, 'spread'], { help: 'How far they are apart, in turns.', range: [0, 1] });
  return s;
}

function hitOnBeat(): ModuleSketch {
  const s = new ModuleSketch(
    'hit-on-beat',
    'Hit on the Beat',
    'A number that jumps up with the beat and falls back.',
    'pulse, kick, envelope, trigger, tempo, decay',
  );
  const beat = s.add('beat-clock', 'Beat', [0, 0], { periods: [1], gives: 'hit' });
  const hit = s.add('envelope', 'Hit', [1, 0], { attack: 0.02, decay: 0.4 });
  s.wire(beat, hit, 'trigger');
  s.output(hit, [2, 0]);
  s.control('Every', [beat, 'periods'], { help: 'Beats from one hit to the next.' });
  s.control('Attack', [hit, 'attack'], { help: 'Seconds until it is up.' });
  s.control('Decay', [hit, 'decay'], { help: 'Seconds until it is down again.' });
  return s;
}

/** The modules that ship with the app, in the order in which Add lists them. */
export const shippedPacks = (): ModulePack[] =>
  [
    waterRings,
    echoTrails,
    mirrorRoom,
    liquid,
    endlessZoom,
    driftingTiles,
    noiseReveal,
    softFrame,
    twoInks,
    inkDrawing,
    ledLook,
    wornScreen,
    beatFlash,
    soundPulse,
    titleCard,
    glowingWord,
    growingRings,
    swarm,
    soundFan,
    ridges,
    pictureCloud,
    slats,
    travellingGrid,
    mergingDrops,
    bounce,
    hitOnBeat,
  ].map((make) => make().pack);
