import { describe, expect, test } from '@jest/globals';
import { buildPlan } from '../../core/patch/plan';
import { plainValue } from '../../core/run/node-run';
import { makeScene } from '../../core/show/create';
import { addNode, connect } from '../../core/show/edit';
import type { ControlValue } from '../../core/document/types';
import type { ImageKind } from '../../core/kind/kind';
import { catalogue } from '../../nodes/catalogue';
import { assemble, codeOf, readableCode, PartError, type Part } from './assemble';

/** A chain of kinds, each wired into the next; gives the part of the last and how to reach the others. */
function chain(...kinds: [string, Record<string, ControlValue>][]) {
  const scene = makeScene(catalogue, 's', 'S');
  const ids = kinds.map(([kind, controls]) => {
    const id = addNode(scene, catalogue, kind, [0, 0]);
    Object.assign(scene.nodes[id].controls, controls);
    return id;
  });
  for (let k = 1; k < ids.length; k++) connect(scene, catalogue, ids[k - 1], ids[k], 'picture');
  const plan = buildPlan(scene, catalogue, [ids[ids.length - 1]]);
  const part = (id: string): Part => {
    const { kind, inputs } = plan.nodes.get(id)!;
    return {
      id,
      kind: kind as ImageKind,
      inputs,
      codeOf: (control) => {
        const spec = kind.controls[control];
        const value = plainValue(spec, scene.nodes[id].controls[control]);
        return codeOf(spec, spec.type === 'toggle' ? Boolean((value as number[])[0]) : value, false);
      },
    };
  };
  return { ids, last: part(ids[ids.length - 1]), part };
}

describe('what stands in the code of a shader', () => {
  test('a chain of steps at one place becomes one shader without textures, each named', () => {
    const { ids, last, part } = chain(['noise', {}], ['levels', {}], ['gradient-map', {}], ['tone', {}]);
    const assembled = assemble(last, (source) => part(source.node));
    const { fragment, textures, members } = assembled;
    expect(textures).toEqual([]);
    expect(members).toEqual(ids);
    for (const title of ['// 3: Noise\n', '// 2: Levels\n', '// 0: Tone\n'])
      expect(fragment).toContain(title);
    expect(fragment.match(/void main/g)).toHaveLength(1);
    const names = new Map(ids.map((id, k) => [id, `Step  ${k}`]));
    const read = readableCode(assembled, (id) => names.get(id)!);
    for (const title of ['// Step 0 (Noise)\n', '// Step 3 (Tone)\n']) expect(read).toContain(title);
  });

  test('ids and names stand in no code: any id that a show may use compiles, and renaming changes nothing', () => {
    const { ids, last, part } = chain(['noise', {}], ['levels', {}]);
    const home = assemble(last, (source) => part(source.node)).fragment;
    const odd = (p: Part): Part => ({
      ...p,
      id: p.id === ids[0] ? 'my-fill' : 'main',
      inputs: Object.fromEntries(
        Object.entries(p.inputs).map(([k, list]) => [k, list.map((s) => ({ ...s, node: 'my-fill' }))]),
      ),
    });
    expect(assemble(odd(last), () => odd(part(ids[0]))).fragment).toBe(home);
  });

  test('what is not joined is read as a texture', () => {
    const { ids, last } = chain(['noise', {}], ['levels', {}]);
    const { textures, members } = assemble(last, () => null);
    expect(textures).toHaveLength(1);
    expect(textures[0].source).toMatchObject({ node: ids[0] });
    expect(members).toEqual([ids[1]]);
  });

  test('numbers, colours and moved stops never change it; options, formulas and the count of stops do', () => {
    const text = (controls: Record<string, ControlValue>): string =>
      assemble(chain(['gradient', controls]).last, () => null).fragment;
    const stops = (...at: number[]): ControlValue =>
      at.map((place) => ({ at: place, colour: [place, 0, 1, 1] as [number, number, number, number] }));
    const home = text({ colours: stops(0, 0.3, 1) });
    expect(text({ colours: stops(0, 0.9, 1), turn: 77, length: 2, phase: 0.1 })).toBe(home);
    expect(text({ colours: stops(0, 1) })).not.toBe(home);
    expect(text({ colours: stops(0, 0.3, 1), form: 'radial' })).not.toBe(home);
  });

  test('a formula that cannot be read blames its own node, wherever it was joined into', () => {
    const { ids, last, part } = chain(['noise', {}], ['levels', { curve: 'v * (2' }], ['tone', {}]);
    let thrown: unknown;
    try {
      assemble(last, (source) => part(source.node));
    } catch (error) {
      thrown = error;
    }
    expect(thrown).toBeInstanceOf(PartError);
    expect((thrown as PartError).node).toBe(ids[1]);
    expect((thrown as PartError).message).toMatch(/^Curve: .*at \d+\)/);
  });
});
