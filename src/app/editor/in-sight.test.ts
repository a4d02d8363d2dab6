import { beforeEach, describe, expect, test } from '@jest/globals';
import { makeScene } from '../../core/show/create';
import { addNode, connect } from '../../core/show/edit';
import { catalogue } from '../../nodes/catalogue';
import { cardsIn, cardsInSight, seeCards } from './in-sight';

describe('cards in sight', () => {
  const scene = makeScene(catalogue, 's', 'Sight');
  for (const id of Object.keys(scene.nodes)) delete scene.nodes[id];
  const near = addNode(scene, catalogue, 'noise', [0, 0]);
  const far = addNode(scene, catalogue, 'noise', [2000, 0]);
  const below = addNode(scene, catalogue, 'noise', [0, 900]);
  const view = { x: 0, y: 0, width: 800, height: 500 };

  beforeEach(() => seeCards(null));

  test('are those of which any part lies in the view', () => {
    expect(cardsIn(scene, view)).toEqual([near]);
    expect(cardsIn(scene, { ...view, x: 150 })).toEqual([near]);
    expect(cardsIn(scene, { ...view, x: 160 })).toEqual([]);
    expect(cardsIn(scene, { ...view, y: 410 })).toEqual([below]);
    expect(cardsIn(scene, { x: -100, y: -100, width: 3000, height: 2000 })).toEqual([near, far, below]);
  });

  test('count signals wired into them, whose wires show values, but not pictures', () => {
    const wired = structuredClone(scene);
    const swing = addNode(wired, catalogue, 'oscillator', [0, 3000]);
    connect(wired, catalogue, swing, near, 'period');
    expect(cardsIn(wired, view)).toEqual([near, swing]);
    const levels = addNode(wired, catalogue, 'levels', [200, 100]);
    connect(wired, catalogue, far, levels, 'picture');
    expect(cardsIn(wired, view)).toEqual([near, levels, swing]);
  });

  test('are told of only when they change', () => {
    let told = 0;
    const stop = cardsInSight.subscribe(() => told++);
    seeCards([near]);
    seeCards([near]);
    expect(told).toBe(1);
    seeCards([near, far]);
    seeCards(null);
    seeCards(null);
    expect(told).toBe(3);
    stop();
  });
});
