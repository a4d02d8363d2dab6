import { beforeEach, describe, expect, test } from '@jest/globals';
import { idleInputs } from '../../core/inputs/inputs';
import { SceneRun } from '../../core/run/scene-run';
import { makeScene } from '../../core/show/create';
import { addNode, connect, setFormula } from '../../core/show/edit';
import type { ControlValue, Scene } from '../../core/document/types';
import { momentAt } from '../../core/time/clock';
import { oneStep } from '../../core/time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import { benchData, glanceNodes, glanceParts } from './glance';

let scene: Scene;
beforeEach(() => {
  scene = makeScene(catalogue, 's1', 'Glance');
});

function add(
  kind: string,
  controls: Record<string, ControlValue> = {},
  wires: Record<string, string> = {},
): string {
  const id = addNode(scene, catalogue, kind, [0, 0]);
  Object.assign(scene.nodes[id].controls, controls);
  for (const [port, from] of Object.entries(wires)) connect(scene, catalogue, from, id, port);
  return id;
}

/** The scene after one frame, with all of these worked out. */
function ran(...roots: string[]): SceneRun {
  const run = new SceneRun(catalogue);
  run.update(scene, roots);
  run.run({
    moment: momentAt(0, 0, 60, { bpm: 120, beatsPerBar: 4 }),
    live: idleInputs(),
    canvas: { width: 160, height: 90 },
    feedback: oneStep,
  });
  return run;
}

describe('what cards show', () => {
  test('the first sample of each lane, and a few samples of the first', () => {
    const values = add('values', { list: [3, 1, 2] });
    const many = add('scatter', { samples: 5000 });
    const [few, thinned] = glanceNodes(ran(values, many), [values, many]);
    expect(few).toMatchObject({ kind: 'signal', values: [3], count: 3 });
    expect([...few.samples]).toEqual([3, 1, 2]);
    expect(thinned.count).toBe(5000);
    expect(thinned.samples).toHaveLength(64);
  });

  test('points of a shape, spread over all of them when there are many', () => {
    const sheet = add('sheet', { columns: 100, rows: 100, size: [1, 1] });
    const [glance] = glanceNodes(ran(sheet), [sheet]);
    expect(glance).toMatchObject({ kind: 'shape', count: 10000 });
    expect(glance.samples).toHaveLength(3 * 160);
    const heights = glance.samples.filter((_, k) => k % 3 === 1);
    expect(Math.max(...heights) - Math.min(...heights)).toBeGreaterThan(0.9);
  });

  test('places of copies that lanes put there; of those that an image places only the GPU knows', () => {
    const body = add('body', {}, { shape: add('ball') });
    const across = add('values', { list: [-0.5, 0, 0.5] });
    const copies = add('instances', { count: 3 }, { body });
    delete scene.wires[connect(scene, catalogue, across, copies, 'place.x')].fit;
    const byImage = add('instances', { count: 9 }, { body, pixels: add('noise') });
    const [glance, unknown] = glanceNodes(ran(copies, byImage), [copies, byImage]);
    expect(glance).toMatchObject({ kind: 'prop', count: 3 });
    expect([...glance.samples].filter((_, k) => k % 3 === 0)).toEqual([-0.5, 0, 0.5]);
    expect(unknown.count).toBe(9);
    expect(unknown.samples).toHaveLength(0);
  });

  test('a few words where there is nothing to draw; nothing for pictures, which come by themselves', () => {
    const camera = add('camera', { by: 'place', place: [0, 0.5, 2] });
    const light = add('light', { form: 'spot', strength: 1.5 });
    const noise = add('noise');
    const glances = glanceNodes(ran(camera, light, noise), [camera, light, noise, 'gone']);
    expect(glances.map(({ caption }) => caption)).toEqual(['from 0.00  0.50  2.00', 'spot 1.50']);
  });
});

test('live values of controls that are driven, with the range they move in', () => {
  const ball = add('ball');
  setFormula(scene, ball, 'size', '0.25 * 2');
  const parts = glanceParts(ran(ball), ball);
  expect(parts).toEqual([expect.objectContaining({ part: 'size', value: 0.5, samples: 1 })]);
  expect(parts[0].high).toBeGreaterThan(parts[0].low);
  expect(glanceParts(ran(ball), 'gone')).toEqual([]);
});

describe('what the bench shows', () => {
  test('the size of a picture, lanes with their samples, points with their lines', () => {
    const [noise, wave, ring] = [add('noise'), add('oscillator', { samples: 5 }), add('ring')];
    const run = ran(noise, wave, ring);
    expect(benchData(run, noise)!.size).toEqual([160, 90]);
    const lanes = benchData(run, wave)!;
    expect(lanes.lanes.map(({ samples }) => samples.length)).toEqual([5]);
    expect(lanes.count).toBe(5);
    const points = benchData(run, ring)!;
    expect(points.positions).toHaveLength(3 * points.count);
    expect(points.lines!.length).toBeGreaterThan(0);
    for (const index of points.lines!) expect(index).toBeLessThan(points.count);
  });

  test('a body shows its shape, a field and what is gone nothing', () => {
    const ball = add('ball');
    const body = add('body', {}, { shape: ball });
    const field = add('field-ball');
    const run = ran(body, field);
    expect(benchData(run, body)!.count).toBe(run.runs.get(ball)!.shape!.count);
    expect(benchData(run, field)).toBeNull();
    expect(benchData(run, 'gone')).toBeNull();
  });

  test('a sheet of a million points shows some of them, and no lines', () => {
    const sheet = add('sheet', { columns: 400, rows: 400 });
    const data = benchData(ran(sheet), sheet)!;
    expect(data.count).toBe(160000);
    expect(data.positions!.length).toBe(3 * 20000);
    expect(data.lines).toBeNull();
  });
});
