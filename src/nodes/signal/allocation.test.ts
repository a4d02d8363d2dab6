import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { idleInputs } from '../../core/inputs/inputs';
import { revisionOf } from '../../core/run/revision';
import { SceneRun } from '../../core/run/scene-run';
import { makeScene } from '../../core/show/create';
import { addNode, connect, setFormula, setMotions } from '../../core/show/edit';
import { freshMotion } from '../../core/document/motions';
import { momentAt } from '../../core/time/clock';
import { oneStep } from '../../core/time/feedback-steps';
import { catalogue } from '../catalogue';

/** Every way to make a block of numbers. */
const blocks = [
  'ArrayBuffer', 'Float32Array', 'Float64Array', 'Int8Array', 'Int16Array', 'Int32Array', 'Uint8Array', 'Uint16Array',
  'Uint32Array', 'Uint8ClampedArray',
] as const; // prettier-ignore
type Globals = Record<(typeof blocks)[number], new (...args: unknown[]) => object>;
const globals = globalThis as unknown as Globals;
const plain = { ...Object.fromEntries(blocks.map((name) => [name, globals[name]])) } as Globals;
const made: string[] = [];
beforeAll(() => {
  for (const name of blocks)
    globals[name] = new Proxy(plain[name], {
      construct(target, args, newTarget) {
        made.push(name);
        return Reflect.construct(target, args, newTarget) as object;
      },
    });
});
afterAll(() => void Object.assign(globals, plain));

/** What kinds get at their first input; the others are fed by a row of waves. */
const alone = [
  'oscillator',
  'drift',
  'number-line',
  'beat-clock',
  'keyframes',
  'counter',
  'audio-bands',
  'midi',
];
const fed = [
  'remap', 'steps', 'smooth', 'combine', 'join-lanes', 'accumulate', 'gate', 'crossing', 'resample', 'rearrange',
  'pick-lanes', 'between', 'shape-by-curve', 'hold-value', 'lane-delay', 'time-spread', 'envelope', 'formula',
]; // prettier-ignore

test.each([...alone, ...fed])('%s makes no new block of numbers while it plays', (kind) => {
  const scene = makeScene(catalogue, 's1', 'Scene');
  const id = addNode(scene, catalogue, kind, [0, 0]);
  if (fed.includes(kind)) {
    for (const port of Object.keys(catalogue.get(kind)!.inputs)) {
      const wave = addNode(scene, catalogue, 'oscillator', [0, 0]);
      Object.assign(scene.nodes[wave].controls, { samples: 16, spread: 1 });
      connect(scene, catalogue, wave, id, port);
    }
  }
  // Driven controls too: by a wire, a formula and a motion.
  const target = addNode(scene, catalogue, 'oscillator', [0, 0]);
  connect(scene, catalogue, id, target, 'phase');
  setFormula(scene, target, 'centre', 'sin(time) + u');
  setMotions(scene, target, 'amplitude', [freshMotion('swing', [0, 1], 1), freshMotion('wander', [0, 1], 1)]);
  const run = new SceneRun(catalogue);
  run.update(scene, [target]);
  const play = (from: number, to: number): void => {
    for (let frame = from; frame < to; frame++)
      run.run({
        moment: momentAt(frame / 60, 1 / 60, 60, { bpm: 120, beatsPerBar: 4 }),
        live: idleInputs(),
        canvas: { width: 16, height: 9 },
        feedback: oneStep,
      });
  };
  // Delays fill their memory first: four seconds are longer than any of them at its home values.
  play(0, 300);
  const before = made.length;
  const amplitude = run.runs.get(target)!.controls.amplitude as unknown as Float32Array;
  const revision = revisionOf(amplitude);
  play(300, 360);
  // The buffer stays, and who keeps a copy of it sees that it was written.
  expect(run.runs.get(target)!.controls.amplitude).toBe(amplitude);
  expect(revisionOf(amplitude)).toBeGreaterThan(revision);
  expect([...run.faults().values()]).toEqual([]);
  expect(made.slice(before)).toEqual([]);
});
