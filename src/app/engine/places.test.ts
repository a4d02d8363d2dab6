import { expect, test } from '@jest/globals';
import {
  byPlaces,
  costAt,
  idAtPlace,
  layoutInEngine,
  requestInEngine,
  sourceInEngine,
  watchInEngine,
} from './places';

test('what is watched in a module is told with the way there, and a scene is left as it is', () => {
  expect(watchInEngine({ scene: 's1/n5', cards: ['n1', 'n2'], bench: null, inspected: 'n2' })).toEqual({
    scene: 's1',
    cards: ['n5/n1', 'n5/n2'],
    bench: null,
    inspected: 'n5/n2',
  });
  const plain = { scene: 's1', cards: ['n1'], bench: 'n1', inspected: null };
  expect(watchInEngine(plain)).toEqual(plain);
  expect(sourceInEngine({ type: 'scene', scene: 's1/n5/n2', without: 'n3' })).toEqual({
    type: 'scene',
    scene: 's1',
    without: 'n5/n2/n3',
  });
  expect(sourceInEngine({ type: 'program' })).toEqual({ type: 'program' });
  expect(requestInEngine({ type: 'shader', scene: 's1/n5', node: 'n1' })).toMatchObject({ node: 'n5/n1' });
  const layout = { scene: 's1/n5', faces: [{ node: 'n1' }], wires: [{ node: 'n2' }] } as never;
  expect(layoutInEngine(layout)).toMatchObject({
    scene: 's1',
    faces: [{ node: 'n5/n1' }],
    wires: [{ node: 'n5/n2' }],
  });
});

test('what is said of nodes comes back to their places, and module nodes say what is said inside', () => {
  expect(byPlaces('s1', { n1: 'plain', 'n5/n2/n3': 'deep' })).toEqual({
    s1: { n1: 'plain', n5: 'deep' },
    's1/n5': { n2: 'deep' },
    's1/n5/n2': { n3: 'deep' },
  });
  expect(idAtPlace('s1/n5', 'n5/n2')).toBe('n2');
  expect(idAtPlace('s1/n5', 'n5/n2/n3')).toBeNull();
  expect(idAtPlace('s1', 'n5/n2')).toBeNull();
  const ms = { n5: 0.5, 'n5/n2': 1, 'n5/n2/n3': 2, n50: 4 };
  expect([costAt('s1', 'n5', ms), costAt('s1/n5', 'n2', ms), costAt('s1', 'n7', ms)]).toEqual([
    3.5,
    3,
    undefined,
  ]);
});
