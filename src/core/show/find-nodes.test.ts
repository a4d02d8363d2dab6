import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { Show } from '../document/types';
import { makeScene, makeShow } from './create';
import { addNode } from './edit';
import { findNodes } from './find-nodes';

function twoScenes(): Show {
  const show = makeShow(catalogue, 'Two');
  const [one, two] = ['One', 'Two'].map((name, k) => makeScene(catalogue, `s${k}`, name));
  for (const scene of [one, two]) {
    const noise = scene.nodes[addNode(scene, catalogue, 'noise', [0, 0])];
    noise.name = `Mist ${scene.name}`;
    noise.formulas = { 'place.x': 'sin(time * 0.3)' };
    const text = scene.nodes[addNode(scene, catalogue, 'text', [0, 0])];
    Object.assign(text.controls, { text: 'Queen of the hive', font: 'serif', size: 0.37 });
  }
  show.scenes = [one, two];
  return show;
}

const show = twoScenes();
const names = (text: string, here = 's0'): string[] =>
  findNodes(show, catalogue, text, here).map(
    ({ scene, node }) => show.scenes.find(({ id }) => id === scene)!.nodes[node].name,
  );

describe('finding nodes of a show', () => {
  test('goes by name, those of the open scene first', () => {
    expect(names('mist')).toEqual(['Mist One', 'Mist Two']);
    expect(names('mist', 's1')).toEqual(['Mist Two', 'Mist One']);
  });

  test('goes by kind', () => expect(names('NOISE')).toEqual(['Mist One', 'Mist Two']));

  test('goes by formula, and says where', () => {
    expect(findNodes(show, catalogue, 'time *', 's0')[0].detail).toBe('Place x = sin(time * 0.3)');
  });

  test('goes by what is written, chosen or set', () => {
    expect(findNodes(show, catalogue, 'queen', 's0')[0].detail).toBe('Text: Queen of the hive');
    expect(findNodes(show, catalogue, 'fraunces', 's0')[0].detail).toBe('Font: Fraunces');
    expect(findNodes(show, catalogue, '0.37', 's0')[0].detail).toBe('Size: 0.37');
  });

  test('finds nothing for nothing, and for what is nowhere', () => {
    expect(names('  ')).toEqual([]);
    expect(names('zebra')).toEqual([]);
  });
});
