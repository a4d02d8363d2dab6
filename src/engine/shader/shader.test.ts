import { describe, expect, test } from '@jest/globals';
import { Texture, type IUniform } from 'three';
import { idleInputs } from '../../core/inputs/inputs';
import { SceneRun } from '../../core/run/scene-run';
import { makeScene } from '../../core/show/create';
import { addNode } from '../../core/show/edit';
import type { ControlValue } from '../../core/document/types';
import { momentAt } from '../../core/time/clock';
import { oneStep } from '../../core/time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import type { NumberRead } from './assemble';
import { fillShader, type Shader } from './shader';

/** What the uniforms of a shader hold that reads these controls of a gradient. */
function filled(
  controls: Record<string, ControlValue>,
  numbers: Omit<NumberRead, 'node'>[],
): Record<string, IUniform> {
  const scene = makeScene(catalogue, 's', 'S');
  const node = addNode(scene, catalogue, 'gradient', [0, 0]);
  Object.assign(scene.nodes[node].controls, controls);
  const run = new SceneRun(catalogue);
  run.update(scene, [node]);
  const frame = {
    moment: momentAt(0, 0, 60, { bpm: 120, beatsPerBar: 4 }),
    live: idleInputs(),
    canvas: { width: 200, height: 100 },
    feedback: oneStep,
  };
  run.run(frame);
  const uniforms: Record<string, IUniform> = { aspect: { value: 0 }, pixel: { value: [0, 0] } };
  const all = numbers.map((number) => ({ ...number, node }));
  for (const { uniform } of all)
    for (const end of ['', '_colours', '_rise']) uniforms[uniform + end] = { value: new Float32Array(0) };
  uniforms.t = { value: null };
  uniforms.s = { value: [0, 0] };
  const texture = new Texture({ width: 40, height: 30 } as never);
  const source = { pass: 'before' };
  const shader = {
    uniforms,
    assembled: {
      fragment: '',
      members: [node],
      numbers: all,
      textures: [{ sampler: 't', source, back: null, size: 's' }],
    },
  } as unknown as Shader;
  fillShader(shader, { run, frame, width: 200, height: 100, textureFor: () => ({ texture }) });
  return uniforms;
}

const spec = (control: string): NumberRead['spec'] => catalogue.get('gradient')!.controls[control];
const stop = (at: number, red: number): { at: number; colour: [number, number, number, number] } => ({
  at,
  colour: [red, 0, 0, 1],
});
const gradient = { uniform: 'g', control: 'colours', spec: spec('colours') };
const colours = (...stops: ReturnType<typeof stop>[]): Record<string, ControlValue> => ({ colours: stops });

describe('numbers of shaders', () => {
  test('the shape of the picture and of what it reads', () => {
    const uniforms = filled({}, []);
    expect(uniforms.aspect.value).toBe(2);
    expect(uniforms.pixel.value).toEqual([1 / 200, 1 / 100]);
    expect(uniforms.s.value).toEqual([40, 30]);
  });

  test('controls as they stand, and what a kind derives of them', () => {
    const uniforms = filled({ phase: 0.25, turn: 90, length: 2 }, [
      { uniform: 'p', control: 'phase', spec: spec('phase') },
      { uniform: 'along', control: 'along', spec: null },
    ]);
    expect(uniforms.p.value).toBe(0.25);
    const along = [...(uniforms.along.value as number[])];
    expect(Math.hypot(...along)).toBeCloseTo(0.5, 6);
    expect(along[0]).toBeCloseTo(0, 6);
  });

  test('stops go in the order of their places, each with the line that leads to the next', () => {
    const { g_colours, g_rise } = filled(colours(stop(1, 0.3), stop(0, 0.1), stop(0.5, 0.2)), [gradient]);
    const reds = [...(g_colours.value as Float32Array)].filter((_, k) => k % 4 === 0);
    reds.forEach((v, k) => expect(v).toBeCloseTo([0.1, 0.2, 0.3][k], 6));
    const rise = [...(g_rise.value as Float32Array)];
    // 0 at the one stop, 1 at the next.
    expect(rise[0] * 0 + rise[1]).toBeCloseTo(0, 6);
    expect(rise[0] * 0.5 + rise[1]).toBeCloseTo(1, 6);
    expect(rise[2] * 0.5 + rise[3]).toBeCloseTo(0, 6);
    expect(rise[2] * 1 + rise[3]).toBeCloseTo(1, 6);
  });

  test('two stops at one place are a hard edge, one stop is a colour alone', () => {
    const { g_rise } = filled(colours(stop(0.5, 0), stop(0.5, 1)), [gradient]);
    const [factor, summand] = [...(g_rise.value as Float32Array)];
    expect(factor * 0.499 + summand).toBeLessThan(0);
    expect(factor * 0.5 + summand).toBeCloseTo(1, 1);
    const one = filled(colours(stop(0.3, 0.7)), [gradient]);
    expect((one.g_colours.value as Float32Array).length).toBe(4);
    expect((one.g_rise.value as Float32Array).every(Number.isFinite)).toBe(true);
  });
});
