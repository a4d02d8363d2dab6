import { Sketch } from '../sketch';

/** Blocks in the height of the picture, for the mosaic and all that has to meet it. */
const blocks = 12;

/** Matched grids: edges of a mosaic, the same turned by 45° and scaled by 1/√2, dots and boxes on its cells. */
export function frostLattice(): Sketch {
  const s = new Sketch('s4', 'Frost Lattice', [2150, 120]);
  const drift = s.add('noise', 'Drift Ice', [-600, 0], {
    period: 0.55,
    octaves: 2,
    rate: 0.1,
    contrast: 2.2,
    seed: 6,
  });
  const facets = s.add('mosaic', 'Facets', [-400, 0], {
    by: 'count',
    blocks: [blocks, blocks],
    origin: 'middle',
  });
  const ribs = s.add('edges', 'Ribs', [-200, 0], {
    lineWidth: 4,
    threshold: 0.05,
    softness: 0.12,
    ink: [0.86, 0.95, 1, 1],
  });
  s.wire(drift, facets, 'picture');
  s.wire(facets, ribs, 'picture');
  // Turned by 45° and smaller by √2, its diagonals run from corner to corner of the first; mirrored, it has no end.
  const diagonals = s.add('transform', 'Diagonals', [0, 160], {
    turn: 45,
    scale: Math.SQRT1_2,
    outside: 'mirror',
  });
  s.wire(ribs, diagonals, 'picture');
  const both = s.add('blend', 'Both Grids', [200, 0], { mode: 'screen', amount: 0.55 });
  s.wire(ribs, both, 'picture');
  s.wire(diagonals, both, 'over');
  // Half a cell aside, the dots stand on the corners of the facets' neighbours.
  const pearls = s.add('lattice', 'Pearls', [0, 330], {
    form: 'dots',
    by: 'count',
    cells: [blocks, blocks],
    part: 0.16,
    softness: 0.06,
    ink: [1, 0.86, 0.6, 1],
  });
  const cells = s.add('lattice', 'Inner Boxes', [0, 500], {
    form: 'boxes',
    by: 'count',
    cells: [blocks, blocks],
    part: 0.62,
    lineWidth: 0.04,
    ink: [0.62, 0.86, 0.95, 1],
  });
  const few = s.add('key-out', 'A Few', [-200, 500], { level: 0.62, softness: 0.08 });
  s.wire(facets, few, 'picture');
  const chosen = s.add('masked-mix', 'Chosen Boxes', [200, 500], { channel: 'alpha' });
  s.wire(cells, chosen, 'light');
  s.wire(few, chosen, 'mask');
  const lit = s.add('masked-mix', 'Lit Pearls', [200, 330], { range: [0.35, 0.75] });
  s.wire(pearls, lit, 'light');
  s.wire(drift, lit, 'mask');
  const withDots = s.add('blend', 'With Pearls', [400, 0], { mode: 'add' });
  s.wire(both, withDots, 'picture');
  s.wire(lit, withDots, 'over');
  const withBoxes = s.add('blend', 'With Boxes', [600, 0], { mode: 'add', amount: 0.8 });
  s.wire(withDots, withBoxes, 'picture');
  s.wire(chosen, withBoxes, 'over');
  const panes = s.add('blend', 'Over Panes', [800, 0], { mode: 'add', amount: 0.4 });
  s.wire(withBoxes, panes, 'picture');
  s.wire(facets, panes, 'over');
  const breath = s.add('noise', 'Breath', [800, 200], {
    channels: 'three',
    period: 0.9,
    octaves: 2,
    rate: 0.16,
    seed: 11,
  });
  const thaw = s.add('displace', 'Thaw', [1000, 0], { push: 0.035, outside: 'mirror' });
  s.wire(panes, thaw, 'picture');
  s.wire(breath, thaw, 'map');
  const look = s.add('lut', 'First Frost', [1200, 0], { file: 'shipped:first-frost.cube', amount: 0.78 });
  s.wire(thaw, look, 'picture');
  // Larger than the screen before it is pulled, so that no corner of the room behind is seen.
  const wide = s.add('transform', 'Cover', [1400, 0], { scale: 1.04, outside: 'mirror' });
  s.wire(look, wide, 'picture');
  const window = s.add('corner-pin', 'Tilted Pane', [1600, 0], {
    lowerLeft: [-0.42, -0.34],
    lowerRight: [0.2, -0.12],
    upperRight: [0.1, 0.1],
    upperLeft: [-0.12, 0.22],
  });
  s.wire(wide, window, 'picture');
  const depth = s.add('gradient', 'Depth', [1600, 200], {
    length: 1.5,
    turn: 8,
    colours: [
      { at: 0, colour: [1, 1, 1, 1] },
      { at: 0.34, colour: [0, 0, 0, 1] },
      { at: 0.66, colour: [0, 0, 0, 1] },
      { at: 1, colour: [0.9, 0.9, 0.9, 1] },
    ],
  });
  const focus = s.add('blur', 'Focus', [1800, 0], { radius: 0.028 });
  s.wire(window, focus, 'picture');
  s.wire(depth, focus, 'radiusMap');
  const grain = s.add('grain', 'Grain', [1980, 120], { strength: 0.02 });
  s.wire(focus, grain, 'picture');
  s.wire(grain, s.out, 'picture');
  return s;
}
