import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { makeScene } from '../show/create';
import { addNode, connect, switchNode } from '../show/edit';
import { catalogue } from '../../nodes/catalogue';
import { originFinder, portLabel, portOf, portTakes, reaches, wiresInto } from './wiring';

const kind = (id: string) => catalogue.get(id)!;

describe('a port', () => {
  test('is an input, a control or a part of one', () => {
    expect(portOf(kind('blur'), 'picture')).toEqual({ type: 'input', name: 'picture' });
    expect(portOf(kind('blur'), 'radius')).toEqual({ type: 'control', control: 'radius', part: 0 });
    expect(portOf(kind('flat-shape'), 'size')).toEqual({ type: 'control', control: 'size', part: null });
    expect(portOf(kind('flat-shape'), 'size.y')).toEqual({ type: 'control', control: 'size', part: 1 });
  });

  test('is nothing where there is no such control, or where no number can drive it', () => {
    for (const port of ['nothing', 'radius.x', 'size.w', '', '.', '__proto__', 'constructor', 'toString'])
      expect(portOf(kind('blur'), port)).toBeNull();
    expect(portOf(kind('blur'), 'form')).toBeNull();
  });

  test('of any kind is found by the name that its parts are given', () => {
    for (const each of catalogue.values()) {
      for (const port of Object.keys(each.inputs)) expect(portOf(each, port)?.type).toBe('input');
      for (const control of Object.keys(each.controls)) {
        const found = portOf(each, control);
        if (found) expect(found).toMatchObject({ type: 'control', control });
      }
    }
  });

  test('is called by its input or control, and the part of it', () => {
    expect(portLabel(kind('blur'), 'picture')).toBe('Picture');
    expect(portLabel(kind('flat-shape'), 'size.y')).toMatch(/ y$|Height/);
    expect(portLabel(kind('blur'), 'gone')).toBe('gone');
  });

  test('takes what its input carries; controls take signals', () => {
    expect(portTakes(kind('blur'), 'picture')).toEqual(['image']);
    expect(portTakes(kind('blur'), 'radius')).toEqual(['signal']);
    expect(portTakes(kind('instances'), 'body')).toEqual(expect.arrayContaining(['prop', 'shape']));
    expect(portTakes(kind('blur'), 'gone')).toBeNull();
  });

  test('never throws, whatever it is called', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom(...catalogue.values()), (port, any) => {
        const found = portOf(any, port);
        if (found?.type === 'control') expect(Object.hasOwn(any.controls, found.control)).toBe(true);
        expect(portTakes(any, port) === null).toBe(found === null);
      }),
    );
  });
});

/** Noise, tone and blur in a row. */
function row() {
  const scene = makeScene(catalogue, 's', 'Row');
  const [noise, tone, blur] = ['noise', 'tone', 'blur'].map((id, k) => addNode(scene, catalogue, id, [k, 0]));
  const first = connect(scene, catalogue, noise, tone, 'picture');
  const second = connect(scene, catalogue, tone, blur, 'picture');
  return { scene, noise, tone, blur, first, second };
}

describe('wires', () => {
  test('are gathered by the node they enter', () => {
    const { scene, tone, blur, first, second } = row();
    const into = wiresInto(scene);
    expect(into.get(tone)!.map(({ id }) => id)).toEqual([first]);
    expect(into.get(blur)!.map(({ id }) => id)).toEqual([second]);
  });

  test('lead on from node to node, but not back along a return wire', () => {
    const { scene, noise, tone, blur } = row();
    expect(reaches(scene, noise, blur)).toBe(true);
    expect(reaches(scene, blur, noise)).toBe(false);
    expect(reaches(scene, tone, tone)).toBe(true);
    const blend = addNode(scene, catalogue, 'blend', [0, 0]);
    connect(scene, catalogue, blend, tone, 'picture');
    const back = connect(scene, catalogue, blur, blend, 'picture');
    expect(scene.wires[back].back).toBeTruthy();
    expect(reaches(scene, blur, blend)).toBe(false);
  });

  test('come from where nodes that are off are passed', () => {
    const { scene, noise, tone, second } = row();
    const originOf = (wire: string) =>
      originFinder(scene, catalogue, wiresInto(scene), (node) => !node.on)(scene.wires[wire]);
    expect(originOf(second)).toEqual({ node: tone, back: null });
    switchNode(scene, tone, false);
    expect(originOf(second)).toEqual({ node: noise, back: null });
    switchNode(scene, noise, false);
    // A node without an input has nothing to hand on.
    expect(originOf(second)).toBeNull();
  });

  test('around nodes that are all off come from nowhere, and are found in the end', () => {
    const { scene, tone, blur, second } = row();
    const back = connect(scene, catalogue, blur, tone, 'picture');
    for (const id of [tone, blur]) switchNode(scene, id, false);
    const originOf = originFinder(scene, catalogue, wiresInto(scene), (node) => !node.on);
    expect(originOf(scene.wires[second])).toBeNull();
    expect(originOf(scene.wires[back])).toBeNull();
  });
});
