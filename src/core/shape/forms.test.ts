import { describe, expect, test } from '@jest/globals';
import { anchored, type Anchor } from '../../nodes/shared/anchor';
import {
  arcThrough,
  curvesIn,
  curvesShape,
  evenCurve,
  lengthOf,
  loftShape,
  segmentShape,
  spiralShape,
} from './curves';
import { bendShape, gatherShape, pushShape, taperShape, twistShape } from './deform';
import { solidLetters } from './letters';
import { ballShape, boxShape, ringShape, sheetShape, tubeShape } from './make';
import { boundsOf, edgesOf, facesOf, middleOf, runsOf } from './measure';
import { orderOf, orderPoints } from '../../nodes/shared/point-order';
import { extrudeShape } from './extrude';
import { panelPivots, panelsShape } from './panels';
import { strandsShape } from './strands';
import { strutsShape } from './struts';
import { checkPoints, ShapeError, stackShape } from './repeat';
import { pointGrid, scatterPoints } from './scatter';
import { pointShape, type Shape } from './shape';
import { solidNames, solidShape, torusShape, type Solid } from './solids';

const at = (shape: Shape, i: number): number[] => [...shape.positions.subarray(3 * i, 3 * i + 3)];
const near = (a: ArrayLike<number>, b: readonly number[], digits = 5): void =>
  b.forEach((v, k) => expect(a[k]).toBeCloseTo(v, digits));
const square = [-0.5, -0.5, 0.5, -0.5, 0.5, 0.5, -0.5, 0.5];
const hole = [-0.2, -0.2, 0.2, -0.2, 0.2, 0.2, -0.2, 0.2];

/** Six times the volume inside the faces: above 0 if they all look outward. */
function volume(shape: Shape): number {
  let sum = 0;
  for (let t = 0; t < shape.triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => at(shape, shape.triangles[t + k]));
    sum +=
      a[0] * (b[1] * c[2] - b[2] * c[1]) +
      a[1] * (b[2] * c[0] - b[0] * c[2]) +
      a[2] * (b[0] * c[1] - b[1] * c[0]);
  }
  return sum / 6;
}

const solids: [string, Shape][] = [
  ['torus', torusShape(0.4, 0.1, 24, 12)],
  ['letters', solidLetters([square], 0.2, 0.02)],
  ['stack', stackShape(boxShape([0.2, 0.2, 0.2], 1), 3, [0, 0.3, 0], [0, 0.2, 0], [1, 1, 1])],
  ['struts', strutsShape(boxShape([1, 1, 1], 1), 'bars', 0.1, 4, 0)],
  ['spindles', strutsShape(boxShape([1, 1, 1], 1), 'spindles', 0.1, 4, 0)],
  ['extruded', extrudeShape(sheetShape(1, 1, 3, 3), 0.2, 'z', true)],
  [
    'panels',
    panelsShape(
      sheetShape(1, 1, 3, 3),
      facesOf(sheetShape(1, 1, 3, 3)),
      [0, 1, 2, 3],
      moves({ depth: [0.1] }),
      'across',
    ),
  ],
  ...Object.keys(solidNames).map((name): [string, Shape] => [name, solidShape(name as Solid, 0.5, 2, 0.5)]),
];

function moves(of: Partial<Record<'push' | 'size' | 'depth', number[]>> & { turn?: number[][] }) {
  const lane = (values: number[] | undefined, other: number): Float32Array =>
    Float32Array.from(values ?? [other]);
  return {
    push: lane(of.push, 0),
    size: lane(of.size, 1),
    depth: lane(of.depth, 0),
    turn: [0, 1, 2].map((k) => lane(of.turn?.[k], 0)),
  };
}

describe.each(solids)('%s', (_name, shape) => {
  test('is closed outward, with unit normals, indices within and a face for each triangle', () => {
    expect(volume(shape)).toBeGreaterThan(0);
    expect(shape.faceOf).toHaveLength(shape.triangles.length / 3);
    for (const index of [...shape.triangles, ...shape.rows, ...shape.columns])
      expect(index).toBeLessThan(shape.count);
    for (let i = 0; i < shape.count; i++)
      expect(Math.hypot(...shape.normals.subarray(3 * i, 3 * i + 3))).toBeCloseTo(1, 4);
  });
});

describe('solids', () => {
  test.each([
    ['tetrahedron', 4, 6],
    ['cube', 6, 12],
    ['octahedron', 8, 12],
    ['dodecahedron', 12, 30],
    ['icosahedron', 20, 30],
    ['cuboctahedron', 14, 24],
    ['rhombic', 12, 24],
    ['truncatedOctahedron', 14, 36],
    ['icosidodecahedron', 32, 60],
    ['truncatedIcosahedron', 32, 90],
  ] as const)('%s has its faces and edges', (name, faces, edges) => {
    const shape = solidShape(name, 0.5, 1, 0);
    expect(facesOf(shape)).toHaveLength(faces);
    expect(shape.rows).toHaveLength(2 * edges);
    expect(edgesOf(shape)).toHaveLength(edges);
    expect(
      Math.max(...Array.from({ length: shape.count }, (_, i) => Math.hypot(...at(shape, i)))),
    ).toBeCloseTo(0.5, 5);
  });

  test('round puts every point on the ball', () => {
    const shape = solidShape('icosahedron', 0.5, 3, 1);
    for (let i = 0; i < shape.count; i++) expect(Math.hypot(...at(shape, i))).toBeCloseTo(0.5, 5);
  });

  test('a torus keeps its tube everywhere', () => {
    const shape = torusShape(0.4, 0.1, 24, 12);
    for (let i = 0; i < shape.count; i++) {
      const [x, y, z] = at(shape, i);
      expect(Math.hypot(Math.hypot(x, z) - 0.4, y)).toBeCloseTo(0.1, 5);
    }
  });

  test('letters keep their holes and have a bevel', () => {
    const flat = solidLetters([square, hole], 0, 0);
    expect(flat.triangles.length / 3).toBe(8);
    const solid = solidLetters([square, hole], 0.2, 0);
    expect(volume(solid)).toBeCloseTo((1 - 0.16) * 0.2, 4);
    const cut = solidLetters([square], 0.2, 0.05);
    expect(volume(cut)).toBeLessThan(0.2);
    // A frustum each end of 0.05, from 1 x 1 to 0.9 x 0.9.
    expect(volume(cut)).toBeCloseTo(0.1 + 2 * (0.05 / 3) * (1 + 0.81 + 0.9), 4);
    near(boundsOf(cut)!.high, [0.5, 0.5, 0.1]);
  });
});

describe('curves', () => {
  test('an arc leads through its three places on one circle', () => {
    const shape = arcThrough([-0.5, 0, 0], [0, 0.5, 0], [0.5, 0, 0], 33, false);
    near(at(shape, 0), [-0.5, 0, 0]);
    near(at(shape, 16), [0, 0.5, 0]);
    near(at(shape, 32), [0.5, 0, 0]);
    for (let i = 0; i < 33; i++) expect(Math.hypot(...at(shape, i))).toBeCloseTo(0.5, 5);
    // The long way round, if the second place lies there; and a straight line where there is no circle.
    const long = arcThrough([0.5, 0, 0], [-0.5, 0, 0], [0, -0.5, 0], 31, false);
    near(at(long, 10), [0, 0.5, 0], 2);
    expect(lengthOf(curvesIn(long)[0])).toBeCloseTo(1.5 * Math.PI * 0.5, 2);
    const straight = arcThrough([-1, 0, 0], [0, 0, 0], [1, 0, 0], 5, false);
    near(at(straight, 1), [-0.5, 0, 0]);
    expect(runsOf(arcThrough([-0.5, 0, 0], [0, 0.5, 0], [0.5, 0, 0], 12, true).rows)[0].closed).toBe(true);
  });

  test('a spiral ends where it should, and seeds have the same room', () => {
    const line = spiralShape('even', 0, 0.5, 2, 0.4, 101);
    near(at(line, 0), [0, 0, -0.2]);
    near(at(line, 100), [0.5, 0, 0.2]);
    near(at(line, 50), [0.25, 0, 0]);
    const seeds = spiralShape('golden', 0, 0.5, 0, 0, 400);
    const inHalf = Array.from({ length: 400 }, (_, i) => Math.hypot(...at(seeds, i))).filter(
      (r) => r < 0.25,
    ).length;
    expect(inHalf).toBe(100);
  });

  test('resampling keeps ends and makes distances even', () => {
    const bent = pointShape(Float32Array.of(0, 0, 0, 1, 0, 0, 1, 3, 0), Uint32Array.of(0, 1, 1, 2));
    const even = curvesShape([evenCurve(curvesIn(bent)[0], 5)]);
    near(even.positions, [0, 0, 0, 1, 0, 0, 1, 1, 0, 1, 2, 0, 1, 3, 0]);
    const ring = curvesShape(curvesIn(ringShape(0.5, 0, 12, 0, 2 * Math.PI)).map((c) => evenCurve(c, 12)));
    near(at(ring, 3), [0, 0.5, 0]);
    expect(runsOf(ring.rows)[0].closed).toBe(true);
  });

  test('a loft goes through its curves, straight or rounded', () => {
    const rows = [0, 1, 2].map(
      (y) => curvesIn(segmentShape([-1, y, y === 1 ? 1 : 0], [1, y, y === 1 ? 1 : 0], 2))[0],
    );
    const straight = loftShape(rows, 3, 5, false, false)!;
    expect(straight.count).toBe(15);
    near(at(straight, 0), [-1, 0, 0]);
    near(at(straight, 3 * 1 + 1), [0, 0.5, 0.5]);
    near(at(straight, 14), [1, 2, 0]);
    const smooth = loftShape(rows, 3, 5, true, false)!;
    near(at(smooth, 3 * 2), [-1, 1, 1]);
    // Catmull-Rom between 0 and 1 with neighbours 0 and 0: 0.5 (0 + 1/2 + 3/4 ... ) worked out by hand as 0.5625.
    expect(at(smooth, 3 * 1)[2]).toBeCloseTo(0.5625, 5);
    const rings = [-0.3, 0.3].map((z) => {
      const ring = ringShape(0.4, 0, 24, 0, 2 * Math.PI);
      for (let i = 2; i < ring.positions.length; i += 3) ring.positions[i] = z;
      return curvesIn(ring)[0];
    });
    const tube = loftShape(rings, 24, 4, true, false)!;
    expect(tube.count).toBe(25 * 4);
    for (let i = 0; i < tube.count; i++) expect(Math.hypot(...at(tube, i).slice(0, 2))).toBeCloseTo(0.4, 4);
    expect(loftShape(rings.slice(0, 1), 24, 4, true, false)).toBeNull();
  });
});

describe('deformers', () => {
  const stick = boxShape([0.2, 1, 0.2], 4);

  test('a twist turns the ends against each other by its angle', () => {
    const shape = twistShape(sheetShape(1, 1, 2, 3), 'y', Math.PI, [0, 0, 0]);
    // The ends are half of it away from the middle each.
    near(at(shape, 0), [0, -0.5, -0.5]);
    near(at(shape, 3), [0.5, 0, 0]);
    near(at(shape, 4), [0, 0.5, 0.5]);
  });

  test('a bend of half a turn makes half a circle and keeps its length', () => {
    const line = bendShape(segmentShape([0, -0.5, 0], [0, 0.5, 0], 65), 'y', 'x', Math.PI);
    expect(lengthOf(curvesIn(line)[0])).toBeCloseTo(1, 3);
    near(at(line, 32), [0, 0, 0]);
    const radius = 1 / Math.PI;
    near(at(line, 64), [radius, radius, 0]);
    near(at(line, 0), [radius, -radius, 0]);
  });

  test('a taper scales each end by its number', () => {
    const bounds = boundsOf(taperShape(stick, 'y', [1, 2], 0))!;
    near(bounds.high, [0.2, 0.5, 0.2]);
    const shape = taperShape(stick, 'y', [1, 0.5], 1);
    const middle = Array.from({ length: shape.count }, (_, i) => at(shape, i)).filter(
      ([, y]) => Math.abs(y) < 1e-6,
    );
    expect(Math.max(...middle.map(([x]) => x))).toBeCloseTo(0.1 * 1.75, 5);
  });

  test('a push by noise keeps to its axis, its strength and its seed', () => {
    const by = {
      strength: 0.2,
      octaves: 5,
      period: 0.3,
      along: 'z',
      roughness: 0.5,
      at: 0,
      seed: 1,
    } as const;
    const sheet = sheetShape(1, 1, 20, 20);
    const pushed = pushShape(sheet, by);
    for (let i = 0; i < sheet.count; i++) {
      near(at(pushed, i).slice(0, 2), at(sheet, i).slice(0, 2));
      expect(Math.abs(at(pushed, i)[2])).toBeLessThanOrEqual(0.24);
    }
    expect(pushShape(sheet, by).positions).toEqual(pushed.positions);
    expect(pushShape(sheet, { ...by, seed: 2 }).positions).not.toEqual(pushed.positions);
    expect(pushShape(sheet, { ...by, strength: 0 }).positions).toEqual(sheet.positions);
    const ball = pushShape(ballShape(0.5, 8, 12), { ...by, along: 'normal' });
    expect(ball.normals.every(Number.isFinite)).toBe(true);
  });

  test('gathering goes to the place, to the nearest points, or away', () => {
    const points = pointShape(Float32Array.of(0.4, 0, 0, 3, 0, 0));
    near(gatherShape(points, [0, 0, 0], null, 1, 1, 0).positions, [0, 0, 0, 3, 0, 0]);
    near(gatherShape(points, [0, 0, 0], null, -0.5, 1, 0).positions, [0.6, 0, 0, 3, 0, 0]);
    const goals = pointShape(Float32Array.of(0.5, 0.1, 0, -1, 0, 0));
    near(gatherShape(points, [0, 0, 0], goals, 1, 1, 0).positions, [0.5, 0.1, 0, 3, 0, 0]);
  });
});

describe('made of others', () => {
  test('a stack goes on from the last, in its own frame', () => {
    const dot = pointShape(Float32Array.of(1, 0, 0));
    const stack = stackShape(dot, 4, [1, 0, 0], [0, 0, Math.PI / 2], [1, 1, 1]);
    // Each step goes one to the right of where the frame looks, then turns a quarter: back home after four.
    near(stack.positions, [1, 0, 0, 1, 1, 0, 0, 1, 0, 0, 0, 0]);
    const halves = stackShape(dot, 3, [0, 1, 0], [0, 0, 0], [0.5, 0.5, 0.5]);
    near(halves.positions, [1, 0, 0, 0.5, 1, 0, 0.25, 1.5, 0]);
    expect(() => stackShape(sheetShape(1, 1, 1024, 1024), 5, [0, 0, 0], [0, 0, 0], [1, 1, 1])).toThrow(
      ShapeError,
    );
    expect(() => checkPoints(5_000_000)).toThrow(/at most 4,194,304/);
  });

  test('strands are rows, columns or edges', () => {
    const sheet = sheetShape(1, 1, 4, 3);
    expect(runsOf(strandsShape(sheet, 'rows', 0).rows)).toHaveLength(3);
    expect(runsOf(strandsShape(sheet, 'columns', 0).rows)).toHaveLength(4);
    expect(strandsShape(sheet, 'rows', 2).count).toBe(3 * 10);
    expect(strandsShape(boxShape([1, 1, 1], 1), 'edges', 0).rows).toHaveLength(24);
  });

  test('struts have an edge each, diamonds tile the surface in another way', () => {
    const box = boxShape([1, 1, 1], 1);
    expect(facesOf(strutsShape(box, 'bars', 0.1, 4, 0))).toHaveLength(12 * 6);
    const diamonds = strutsShape(box, 'diamonds', 0, 4, 0);
    expect(facesOf(diamonds)).toHaveLength(12);
    // The rhombic dodecahedron's flat cousin: corners and face middles of the cube.
    near(boundsOf(diamonds)!.high, [0.5, 0.5, 0.5]);
    expect(volume(diamonds)).toBeGreaterThan(0);
  });

  test('panels move along their normals, turn about their pivots and keep their part of the picture', () => {
    const sheet = sheetShape(1, 1, 3, 3);
    near(
      panelPivots(sheet, facesOf(sheet)).positions,
      [-0.25, -0.25, 0, 0.25, -0.25, 0, -0.25, 0.25, 0, 0.25, 0.25, 0],
    );
    const pushed = panelsShape(
      sheet,
      facesOf(sheet),
      [0, 1, 2, 3],
      moves({ push: [0, 0.1, 0.2, 0.3], size: [0.5] }),
      'across',
    );
    near(at(pushed, 4), [0.125, -0.375, 0.1]);
    near(pushed.uvs.subarray(8, 10), [0.5, 0]);
    near(panelsShape(sheet, facesOf(sheet), [0], moves({}), 'each').uvs, [0, 0, 1, 0, 1, 1, 0, 1]);
    const turned = panelsShape(
      sheet,
      facesOf(sheet),
      [3],
      moves({ turn: [[0], [0], [Math.PI / 2]] }),
      'across',
    );
    near(middleOf(turned), [0.25, 0.25, 0]);
    near(at(turned, 0), [0.5, 0, 0]);
    // Another order gives the same entry to another face.
    near(
      at(panelsShape(sheet, facesOf(sheet), [3, 2, 1, 0], moves({ push: [0.5, 0, 0, 0] }), 'across'), 0),
      [0, 0, 0.5],
    );
    // A hexagon is one piece, not a fan of wedges.
    expect(facesOf(tubeShape([0.5, 0.5], 1, 6, true, true))).toHaveLength(8);
  });

  test('extruding closes a sheet and makes bands of lines', () => {
    near(boundsOf(extrudeShape(sheetShape(1, 1, 2, 2), 0.4, 'normal', false))!.high, [0.5, 0.5, 0.4]);
    expect(volume(extrudeShape(sheetShape(1, 1, 3, 3), 0.2, 'z', true))).toBeCloseTo(0.2, 5);
    const band = extrudeShape(segmentShape([0, 0, 0], [1, 0, 0], 3), 0.2, 'y', true);
    expect(facesOf(band)).toHaveLength(2);
    near(boundsOf(band)!.low, [0, -0.1, 0]);
  });
});

describe('points', () => {
  test('a grid is centred, counts up row by row, and staggers', () => {
    const grid = pointGrid([3, 2, 2], [0.1, 0.2, 0.4], false);
    near(at(grid, 0), [-0.1, -0.1, -0.2]);
    near(at(grid, 11), [0.1, 0.1, 0.2]);
    near(middleOf(pointGrid([3, 4, 1], [1, 1, 1], true)), [0, 0, 0]);
    const comb = pointGrid([2, 2, 1], [1, 1, 1], true);
    expect(at(comb, 2)[0] - at(comb, 0)[0]).toBeCloseTo(0.5, 5);
    expect(pointGrid([50, 50, 1], [0.1, 0.1, 0.1], false).count).toBe(2500);
  });

  test('scattered points stay inside, repeat with their seed, and keep apart if asked', () => {
    const ball = scatterPoints('ball', [1, 1, 1], null, 500, false, 3);
    for (let i = 0; i < 500; i++) expect(Math.hypot(...at(ball, i))).toBeLessThanOrEqual(0.5);
    expect(scatterPoints('ball', [1, 1, 1], null, 500, false, 3).positions).toEqual(ball.positions);
    const closest = (shape: Shape): number => {
      let least = Infinity;
      for (let i = 0; i < shape.count; i++)
        for (let j = 0; j < i; j++)
          least = Math.min(least, Math.hypot(...at(shape, i).map((v, k) => v - at(shape, j)[k])));
      return least;
    };
    const loose = scatterPoints('disc', [1, 1, 1], null, 200, false, 1);
    const even = scatterPoints('disc', [1, 1, 1], null, 200, true, 1);
    expect(even.count).toBe(200);
    expect(closest(even)).toBeGreaterThan(5 * closest(loose));
    const on = scatterPoints('surface', [1, 1, 1], boxShape([1, 1, 1], 1), 300, false, 1);
    for (let i = 0; i < 300; i++) expect(Math.max(...at(on, i).map(Math.abs))).toBeCloseTo(0.5, 5);
    expect(
      scatterPoints('surface', [1, 1, 1], segmentShape([0, 0, 0], [1, 0, 0], 2), 10, false, 1).count,
    ).toBe(0);
  });

  test('orders renumber the points and leave lines and faces where they are', () => {
    const grid = pointGrid([3, 3, 1], [1, 1, 1], false);
    expect(orderOf(grid, 'spiral', [0, 0, 0], 1).slice(0, 3)).toEqual([4, 5, 8]);
    expect(orderOf(grid, 'distance', [-1, -1, 0], 1)[0]).toBe(0);
    expect(orderOf(grid, 'x', [0, 0, 0], 1)).toEqual([0, 3, 6, 1, 4, 7, 2, 5, 8]);
    expect([...orderOf(grid, 'random', [0, 0, 0], 4)].sort((a, b) => a - b)).toEqual([
      0, 1, 2, 3, 4, 5, 6, 7, 8,
    ]);
    const sheet = sheetShape(1, 1, 3, 3);
    const ordered = orderPoints(sheet, orderOf(sheet, 'reverse', [0, 0, 0], 1));
    near(at(ordered, 0), at(sheet, 8));
    for (let k = 0; k < sheet.triangles.length; k++)
      near(at(ordered, ordered.triangles[k]), at(sheet, sheet.triangles[k]));
  });

  test.each(['left', 'right', 'bottom', 'top', 'back', 'front'] as Anchor[])(
    'the anchor %s lies at 0',
    (side) => {
      const bounds = boundsOf(anchored(boxShape([1, 2, 3], 1), side))!;
      const axis = { left: 0, right: 0, bottom: 1, top: 1, back: 2, front: 2 }[side as 'left'];
      const end = ['left', 'bottom', 'back'].includes(side) ? bounds.low : bounds.high;
      expect(end[axis]).toBeCloseTo(0, 6);
      near(middleOf(anchored(boxShape([1, 2, 3], 1), 'middle')), [0, 0, 0]);
    },
  );
});
