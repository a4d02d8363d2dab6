import { describe, expect, test } from '@jest/globals';
import { makeScene } from '../../core/show/create';
import { addNode } from '../../core/show/edit';
import { catalogue } from '../../nodes/catalogue';
import { cutouts, facesOf, onWires, placedWires, placeWire, readColour } from './live-layout';

const scene = makeScene(catalogue, 's', 'S');
const [noise, wave, ball] = ['noise', 'oscillator', 'ball'].map((kind) =>
  addNode(scene, catalogue, kind, [0, 0]),
);
const view = { x: 0, y: 0, width: 1000, height: 600 };
const at = (id: string, x: number, y: number, z = 0) => ({ id, x, y, z });

describe('faces of cards', () => {
  test('lie inside of the border, those behind first; a signal has a lower one', () => {
    const faces = facesOf(scene, [at(wave, 300, 50, 1000), at(noise, 10, 20), at(ball, 500, 20)], view);
    expect(faces.map(({ node, shows, x, y, height }) => [node, shows, x, y, height])).toEqual([
      [noise, 'picture', 11, 21, 86],
      [ball, 'numbers', 501, 21, 86],
      [wave, 'numbers', 301, 51, 56],
    ]);
  });

  test('out of sight are left out, and so are nodes that are gone', () => {
    const faces = facesOf(
      scene,
      [at(noise, -200, 0), at(ball, 0, 700), at(wave, -100, -40), at('gone', 5, 5)],
      view,
    );
    expect(faces.map(({ node }) => node)).toEqual([wave]);
  });
});

test('a card is cut where the face of another lies over it, and only there', () => {
  const faces = facesOf(scene, [at(noise, 0, 0, 1), at(ball, 100, 50, 2), at(wave, 600, 0, 3)], view);
  const cuts = cutouts(faces);
  expect([...cuts.keys()]).toEqual([noise]);
  expect(cuts.get(noise)).toMatch(/^M -16 -16 .* M 101 51 h 152 v 86 h -152 z$/);
  expect(cutouts(facesOf(scene, [at(noise, 0, 0, 2), at(ball, 100, 50, 1)], view)).has(ball)).toBe(true);
});

test('wires say how they lie, until they are taken away', () => {
  let told = 0;
  const stop = onWires(() => told++);
  const remove = placeWire('w1', {
    node: noise,
    curve: [0, 0, 1, 0, 2, 0, 3, 0],
    dashed: false,
    lane: null,
    range: null,
  });
  expect(placedWires().map(({ node }) => node)).toEqual([noise]);
  remove();
  expect(placedWires()).toEqual([]);
  stop();
  placeWire('w2', { node: wave, curve: [], dashed: false, lane: 'x', range: [0, 1] })();
  expect(told).toBe(2);
});

test('colours are read as the theme writes them', () => {
  expect(readColour(' #ff8000')).toEqual([1, 128 / 255, 0]);
  expect(readColour('transparent')).toEqual([0.5, 0.5, 0.5]);
});
