import { describe, expect, test } from '@jest/globals';
import type { FieldKind } from '../../core/kind/kind';
import { buildPlan } from '../../core/patch/plan';
import { plainValue } from '../../core/run/node-run';
import { makeScene } from '../../core/show/create';
import { addNode, connect } from '../../core/show/edit';
import type { ControlValue, Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { codeOf, PartError, type Assembled } from '../shader/assemble';
import { assembleFields, type FieldShotForm } from './field-assemble';
import { mostFields, type FieldPart } from './field-writer';

const form: FieldShotForm = {
  lit: true,
  contact: true,
  fog: true,
  soft: false,
  lights: [
    { form: 'sun', shadow: true },
    { form: 'ambient', shadow: false },
  ],
};
const fieldKinds = [...catalogue.values()].filter((kind): kind is FieldKind => kind.output === 'field');

/** Fields in the making, rendered by a shot with these numbers of vectors handed on by varyings. */
class Fields {
  readonly scene: Scene = makeScene(catalogue, 's', 'S');

  add(kind: string, controls: Record<string, ControlValue> = {}, ...inputs: string[]): string {
    const id = addNode(this.scene, catalogue, kind, [0, 0]);
    Object.assign(this.scene.nodes[id].controls, controls);
    const [port] = Object.entries(catalogue.get(kind)!.inputs).find(
      ([, spec]) => spec.carries === 'field',
    ) ?? [''];
    for (const input of inputs) connect(this.scene, catalogue, input, id, port);
    return id;
  }

  shot(fields: string[], capacity: number, how: Partial<FieldShotForm> = {}): Assembled {
    const plan = buildPlan(this.scene, catalogue, fields);
    const partOf = (id: string): FieldPart | null => {
      const planned = plan.nodes.get(id);
      if (planned?.kind.output !== 'field') return null;
      return {
        id,
        kind: planned.kind as FieldKind,
        inputs: planned.inputs,
        codeOf: (control) => {
          const spec = planned.kind.controls[control];
          const value = plainValue(spec, this.scene.nodes[id].controls[control]);
          return codeOf(spec, spec.type === 'toggle' ? Boolean((value as number[])[0]) : value, false);
        },
      };
    };
    return assembleFields(fields, partOf, { ...form, ...how }, '', capacity);
  }
}

/** All varyings and copies that a fragment shader reads. */
const readIn = (text: string, word: string): Set<string> =>
  new Set(
    [...text.slice(text.indexOf('joinHits')).matchAll(new RegExp(`\\b(${word}\\d+)\\b`, 'g'))].map(
      ([, name]) => name,
    ),
  );

describe('shaders of fields', () => {
  test.each(fieldKinds.map((kind) => [kind.label, kind] as const))(
    '%s is written out in full, with every number it needs',
    (_label, kind) => {
      const fields = new Fields();
      const takes = Object.values(kind.inputs).some(({ carries }) => carries === 'field');
      const id = fields.add(kind.id, {}, ...(takes ? [fields.add('field-ball')] : []));
      for (const capacity of [0, 3, 28]) {
        const { fragment, vertex, numbers, members } = fields.shot([id], capacity);
        expect(fragment).not.toMatch(/\$|@|undefined/);
        expect(members).toContain(id);
        for (const { uniform } of numbers) {
          expect(fragment).toContain(` ${uniform}`);
          expect(vertex).toContain(` ${uniform}`);
        }
        for (const corner of readIn(fragment, 'corner')) {
          expect(fragment).toContain(`flat in vec4 ${corner};`);
          expect(vertex).toContain(`flat out vec4 ${corner};`);
          expect(vertex).toContain(`${corner} = vec4(`);
        }
        for (const copy of readIn(fragment, 'copied')) expect(fragment).toMatch(new RegExp(`\\w+ ${copy};`));
        expect((vertex!.match(/flat out/g) ?? []).length).toBeLessThanOrEqual(capacity);
      }
    },
  );

  test('what is asked for at every step has the capacity, how surfaces look has what is left', () => {
    const fields = new Fields();
    const balls = Array.from({ length: 8 }, () => fields.add('field-ball'));
    const { vertex } = fields.shot([fields.add('field-blend', {}, ...balls)], 8, { fog: false });
    const given = vertex!.slice(vertex!.indexOf('void main'));
    expect(given).toContain('march.x');
    expect(given.match(/_radius/g)).toHaveLength(8);
    expect(given).not.toContain('_colour');
    expect(fields.shot([balls[0]], 28).vertex).toContain('_colour');
  });

  test('a field that two others use is written once', () => {
    const fields = new Fields();
    const ball = fields.add('field-ball');
    const places = [1, 2].map((x) => fields.add('field-place', { move: [x, 0, 0] }, ball));
    const { fragment, members } = fields.shot([fields.add('field-blend', {}, ...places)], 0);
    expect(members.filter((id) => id === ball)).toHaveLength(1);
    expect(fragment.match(/\/\/ Field Ball\n/g)).toHaveLength(1);
  });

  test('numbers never stand in it, whether they switch something does', () => {
    const text = (controls: Record<string, ControlValue>): string => {
      const fields = new Fields();
      return fields.shot([fields.add('field-place', controls, fields.add('field-ball'))], 9).fragment;
    };
    expect(text({ move: [0.1, 0, 0] })).toBe(text({ move: [5, 3, 1] }));
    expect(text({ move: [0.1, 0, 0] })).not.toBe(text({ move: [0, 0, 0] }));
  });

  test('what is switched off is not in it', () => {
    const fields = new Fields();
    const { fragment } = fields.shot([fields.add('field-ball')], 0, {
      lit: false,
      contact: false,
      fog: false,
    });
    expect(fragment).not.toMatch(/lightUp|closeness|shadowOf|vec3 fog = /);
  });

  test('without fields nothing is met', () => {
    expect(new Fields().shot([], 9).fragment).toContain('float map(vec3 p) { return 1e5; }');
    const fields = new Fields();
    const empty = fields.shot([fields.add('field-blend')], 9).fragment;
    expect(empty).toContain('return 1e5;');
  });

  test('more fields than go through a compiler are refused, and the node is named', () => {
    const fields = new Fields();
    const balls = Array.from({ length: mostFields + 3 }, () => fields.add('field-ball'));
    let thrown: unknown;
    try {
      fields.shot(balls, 0);
    } catch (error) {
      thrown = error;
    }
    expect(thrown).toBeInstanceOf(PartError);
    expect((thrown as PartError).node).toBe(balls[mostFields]);
    expect((thrown as PartError).message).toContain(String(mostFields));
  });
});
