import { beforeEach, describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { defaultReturn } from '../document/return-settings';
import type { Scene } from '../document/types';
import { makeScene } from '../show/create';
import { addNode, connect, setControl, setFormula } from '../show/edit';
import { connectedTo, linksOf } from './links';

let scene: Scene;
const add = (kind: string): string => addNode(scene, catalogue, kind, [0, 0]);
beforeEach(() => void (scene = makeScene(catalogue, 's1', 'Links')));

describe('uses of nodes without a wire', () => {
  test('a formula of a control, a formula node, a motion that waits, a return wire', () => {
    const [wave, noise, formula, hit, blend] = [
      add('oscillator'),
      add('noise'),
      add('formula'),
      add('noise'),
      add('blend'),
    ];
    setFormula(scene, noise, 'period', 'oscillator * oscillator');
    setControl(scene, formula, 'formula', 'value = oscillator + 1');
    scene.nodes[hit].motions = {
      period: [{ type: 'hit', on: true, amount: 1, trigger: wave, attack: 0.1, decay: 0.1 }],
    };
    const wire = connect(scene, catalogue, noise, blend, 'picture');
    scene.wires[wire].back = { ...defaultReturn(), clearWhen: formula, startsFrom: null };
    expect(linksOf(scene, catalogue)).toEqual([
      { from: wave, to: noise, by: 'formula' },
      { from: wave, to: formula, by: 'formula' },
      { from: wave, to: hit, by: 'trigger' },
      { from: formula, to: blend, by: 'return' },
    ]);
  });
  test('a name that nobody has, its own, or a function is none', () => {
    const noise = add('noise');
    setFormula(scene, noise, 'period', 'nobody + noise + sin(time)');
    expect(linksOf(scene, catalogue)).toEqual([]);
  });
});

describe('what a node hangs together with', () => {
  test('what it is made of and what is made of it, but not what else that feeds', () => {
    const [source, a, b, other] = [add('noise'), add('levels'), add('levels'), add('levels')];
    connect(scene, catalogue, source, a, 'picture');
    connect(scene, catalogue, a, b, 'picture');
    connect(scene, catalogue, source, other, 'picture');
    expect(connectedTo(scene, [], [a])).toEqual(new Set([a, source, b]));
    expect(connectedTo(scene, [], [source])).toEqual(new Set([source, a, b, other]));
    expect(connectedTo(scene, [], [])).toEqual(new Set());
  });
  test('links count, and circles end', () => {
    const [a, b] = [add('levels'), add('levels')];
    connect(scene, catalogue, a, b, 'picture');
    connect(scene, catalogue, b, a, 'picture');
    const wave = add('oscillator');
    expect(connectedTo(scene, [{ from: wave, to: a, by: 'formula' }], [b])).toEqual(new Set([a, b, wave]));
  });
});
