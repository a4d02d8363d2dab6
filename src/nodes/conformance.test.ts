import { describe, expect, test } from '@jest/globals';
import { partsOf, rangeOf, type ControlSpec } from '../core/kind/controls';
import type { Kind } from '../core/kind/kind';
import { FormulaError, parseFormula } from '../core/formula/parse';
import { ballShape } from '../core/shape/make';
import { quietInputs } from '../core/run/inputs';
import { SceneRun } from '../core/run/scene-run';
import { makeScene } from '../core/show/create';
import { addNode, connect } from '../core/show/edit';
import type { ControlValue, Scene } from '../core/show/types';
import { momentAt } from '../core/time/clock';
import { catalogue } from './catalogue';
import { oneStep } from '../core/time/loop-steps';

const kinds = [...catalogue.values()].map((kind) => [kind.label, kind] as const);
const sources = {
  image: 'noise',
  signal: 'oscillator',
  shape: 'ball',
  prop: 'body',
  field: 'field-ball',
} as const;

/** Letters and models as they are once they have arrived. */
const resources = {
  letters: () => [[-0.5, -0.5, 0.5, -0.5, 0.5, 0.5, -0.5, 0.5]],
  model: () => ({
    parts: Array.from({ length: 16 }, () => ({ name: 'Part', shape: ballShape(1, 4, 6), picture: null })),
    pictures: [],
    notes: [],
  }),
};

/** The kind with something wired into every input, run for a few frames. */
function play(kind: Kind, controls: Record<string, ControlValue> = {}): { run: SceneRun; id: string } {
  const scene: Scene = makeScene(catalogue, 's1', 'Scene');
  const id = kind.output === 'image' && kind.isSceneOut ? 'n1' : addNode(scene, catalogue, kind.id, [0, 0]);
  Object.assign(scene.nodes[id].controls, controls);
  for (const [port, input] of Object.entries(kind.inputs)) {
    const source = addNode(scene, catalogue, sources[input.carries], [0, 0]);
    if (sources[input.carries] === 'body')
      connect(scene, catalogue, addNode(scene, catalogue, 'ball', [0, 0]), source, 'shape');
    connect(scene, catalogue, source, id, port);
  }
  const run = new SceneRun(catalogue, null, resources);
  run.update(scene, [id]);
  for (let frame = 0; frame < 12; frame++) {
    run.run({
      moment: momentAt(frame / 60, frame ? 1 / 60 : 0, 60, { bpm: 120, beatsPerBar: 4 }),
      live: quietInputs(),
      canvas: { width: 160, height: 90 },
      loop: oneStep,
    });
  }
  return { run, id };
}

function numbersGiven({ run, id }: { run: SceneRun; id: string }): number[] {
  const node = run.runs.get(id)!;
  if (node.given) return node.given.lanes.flatMap((lane) => [...lane.samples]);
  if (node.shape) return [...node.shape.positions, ...node.shape.normals, ...node.shape.uvs];
  return node.image ? [node.image.width, node.image.height] : [];
}

/** The low and high end of a control, at its hard limits where it has them. */
function ends(spec: ControlSpec): ControlValue[] {
  const parts = partsOf(spec).length;
  if (spec.type === 'choice') return Object.keys(spec.options);
  if (spec.type === 'toggle') return [true, false];
  if (parts === 0 || !('range' in spec)) return [];
  const [low, high] = rangeOf(spec);
  // Counts are kept small enough to run in a test; the hard limit is what the interface holds them to.
  const values = [spec.min ?? low - (high - low), Math.min(spec.max ?? high + (high - low), 2000), 0];
  return values.map((v) => (parts === 1 ? v : Array<number>(parts).fill(v)));
}

describe.each(kinds)('%s', (_label, kind) => {
  test('says what it is for, in full sentences', () => {
    expect(kind.id).toMatch(/^[a-z][a-z0-9-]*$/);
    expect(kind.summary).toMatch(/\.$/);
    expect(kind.words.length).toBeGreaterThanOrEqual(2);
    for (const spec of [...Object.values(kind.inputs), ...Object.values(kind.controls)]) {
      expect(spec.label.length).toBeGreaterThan(0);
      expect(spec.help).toMatch(/[.)]$/);
    }
    for (const port of Object.keys(kind.inputs)) expect(Object.keys(kind.controls)).not.toContain(port);
  });

  test('defaults lie within range and limits', () => {
    for (const [name, spec] of Object.entries(kind.controls)) {
      if (!('range' in spec)) continue;
      const values: readonly number[] = Array.isArray(spec.default)
        ? (spec.default as readonly number[])
        : [Number(spec.default)];
      for (const value of values) {
        expect([name, value >= (spec.min ?? -Infinity) && value <= (spec.max ?? Infinity)]).toEqual([
          name,
          true,
        ]);
      }
      expect(spec.range[0]).toBeLessThan(spec.range[1]);
    }
  });

  test('choices begin with one of their options', () => {
    for (const spec of Object.values(kind.controls)) {
      if (spec.type === 'choice') expect(Object.keys(spec.options)).toContain(spec.default);
    }
  });

  test('gives finite results by default, the same every time', () => {
    const first = play(kind);
    const values = numbersGiven(first);
    expect(first.run.faults().get(first.id)).toBeUndefined();
    expect(values.every(Number.isFinite)).toBe(true);
    if (kind.output !== 'prop' && kind.output !== 'field') expect(values.length).toBeGreaterThan(0);
    expect(numbersGiven(play(kind))).toEqual(values);
  });

  test('stands the ends of every control', () => {
    for (const [name, spec] of Object.entries(kind.controls)) {
      for (const value of ends(spec)) {
        // A part that a model does not have is a fault, and said so.
        if (kind.id === 'model' && name === 'part' && Number(value) > 16) continue;
        const played = play(kind, { [name]: value });
        expect([name, value, played.run.faults().get(played.id)]).toEqual([name, value, undefined]);
        expect([name, value, numbersGiven(played).every(Number.isFinite)]).toEqual([name, value, true]);
      }
    }
  });

  if (kind.output === 'signal') {
    test('keeps to its natural range', () => {
      const { run, id } = play(kind);
      const [low, high] = kind.naturalRange(run.runs.get(id)!.controls as never);
      expect(low).toBeLessThan(high);
      if (Object.keys(kind.inputs).length === 0)
        for (const v of numbersGiven({ run, id })) expect(v).toBeGreaterThanOrEqual(low - 1e-4);
    });
  }

  if (kind.output === 'image' && (kind.paint.type === 'shader' || kind.paint.type === 'passes')) {
    const { paint } = kind;
    test('its shader asks only for controls and inputs it has', () => {
      const bodies = paint.type === 'shader' ? [paint.body] : paint.passes.map((pass) => pass.body);
      const passNames = paint.type === 'passes' ? paint.passes.map((pass) => pass.name) : [];
      const sheets = paint.sheets ?? {};
      for (const body of bodies) {
        for (const [, name] of body.matchAll(/\$([A-Za-z]\w*)/g))
          expect([...Object.keys(kind.controls), ...Object.keys(paint.derived ?? {})]).toContain(name);
        for (const [, name] of body.matchAll(/@([A-Za-z]\w*)/g))
          expect([...Object.keys(kind.inputs), ...Object.keys(sheets), ...passNames, 'previous']).toContain(
            name,
          );
        expect(body).toContain('return');
      }
      const used = bodies.join('\n');
      // Where a control is used outside of the shader's text: numbers derived from it, sheets made from it, variants.
      const code = paint.type === 'shader' ? (paint.code ?? '') : '';
      const sheetWords = Object.values(sheets).flatMap((sheet) => Object.values(sheet).map(String));
      const derivedFrom = [paint.derive, kind.vary, kind.sizeFrom, code, ...sheetWords]
        .map(String)
        .join('\n');
      const scales = paint.type === 'passes' ? paint.passes.map((p) => p.scale?.toString() ?? '').join() : '';
      for (const name of Object.keys(kind.controls)) {
        if (name === 'amount' && paint.type === 'shader' && paint.wet) continue;
        expect([
          name,
          used.includes(`$${name}`) || derivedFrom.includes(name) || scales.includes(name),
        ]).toEqual([name, true]);
      }
    });
    test('its formula controls can be read', () => {
      for (const spec of Object.values(kind.controls)) {
        if (spec.type !== 'formula') continue;
        expect(() => parseFormula(spec.default, (n) => spec.variables.includes(n))).not.toThrow();
        expect(() => parseFormula('nothing_of_that_name', (n) => spec.variables.includes(n))).toThrow(
          FormulaError,
        );
      }
    });
  }
});

test('no two kinds share a label', () => {
  expect(new Set(kinds.map(([label]) => label)).size).toBe(kinds.length);
});
