import { bandAmplitudes, bandEdges, bandLevel } from '../../core/audio/bands';
import { Listener } from '../../core/audio/listener';
import { makeLoop } from '../../core/audio/loop';
import { parseFormula } from '../../core/formula/parse';
import { FormulaRunner } from '../../core/formula/run';
import { idleInputs } from '../../core/inputs/inputs';
import { SceneRun } from '../../core/run/scene-run';
import { makeScene } from '../../core/show/create';
import { addNode, connect } from '../../core/show/edit';
import type { ControlValue, Scene } from '../../core/document/types';
import { momentAt } from '../../core/time/clock';
import { oneStep } from '../../core/time/feedback-steps';
import { compare, plainOf, ratioOf, type Ratio } from './measure';
import { catalogue } from '../../nodes/catalogue';

const tempo = { bpm: 120, beatsPerBar: 4 };
const frameOf = (k: number) => ({
  moment: momentAt(k / 60, 1 / 60, 60, tempo),
  live: idleInputs(),
  canvas: { width: 640, height: 360 },
  feedback: oneStep,
});

/** A scene made of rows of nodes, each fed by the one before. */
class Patch {
  readonly scene: Scene = makeScene(catalogue, 's1', 'Bench');

  add(
    kind: string,
    controls: Record<string, ControlValue> = {},
    from: readonly string[] = [],
    port = 'in',
  ): string {
    const id = addNode(this.scene, catalogue, kind, [0, 0]);
    Object.assign(this.scene.nodes[id].controls, controls);
    for (const source of from) connect(this.scene, catalogue, source, id, port);
    return id;
  }

  run(roots: readonly string[]): SceneRun {
    const run = new SceneRun(catalogue);
    run.update(this.scene, roots);
    return run;
  }
}

/** Runs many nodes of many kinds first: an engine that only knows one would look quicker than it is on stage. */
function warmUp(): void {
  const patch = new Patch();
  const roots: string[] = [];
  for (let k = 0; k < 50; k++) {
    const shape = ['sine', 'triangle', 'ramp', 'fall', 'square'][k % 5];
    const wave = patch.add('oscillator', {
      shape,
      rate: k / 7,
      samples: 1 + k,
      unit: k % 2 ? 'beats' : 'hertz',
    });
    const drift = patch.add('drift', { samples: 1 + (k % 9) });
    roots.push(
      patch.add(['remap', 'steps', 'smooth', 'resample', 'rearrange'][k % 5], {}, [k % 2 ? wave : drift]),
    );
  }
  const run = patch.run(roots);
  for (let k = 0; k < 30; k++) run.run(frameOf(k));
}

function formula100k(): Ratio {
  const n = 100000;
  const out = new Float32Array(n);
  const names = (text: string) => (name: string) => text.includes(name);
  const runnerOf = (text: string): FormulaRunner =>
    new FormulaRunner(parseFormula(text, names(text)), (name) => name === 'u' || name === 'i');
  const valuesOf = (k: number) => ({ time: k / 60 });
  // Fifty others first: an engine that only knows one formula would look quicker than it is on stage.
  for (let k = 0; k < 50; k++) {
    const others = [
      `sin(u * ${k} + time)`,
      `floor(i / ${k + 1}) % 7`,
      `clamp(u * ${k}, 0, 1) ^ 2`,
      `u > 0.5 ? i : -time`,
    ];
    runnerOf(others[k % 4]).run(out, valuesOf(k));
  }
  const runner = runnerOf(
    'sin(u * tau * 3 + time) * 0.4 + abs(fract(i * 0.013 + time * 0.2) - 0.5) * cos(u * pi)',
  );
  const byHand = new Float32Array(n);
  let sink = 0;
  const formula = { frame: (k: number) => runner.run(out, valuesOf(k)), finish: () => void (sink += out[7]) };
  const loop = {
    frame: (k: number) => {
      const time = k / 60;
      for (let i = 0; i < n; i++) {
        const u = i / (n - 1);
        const run = i * 0.013 + time * 0.2;
        byHand[i] =
          Math.sin(u * 2 * Math.PI * 3 + time) * 0.4 +
          Math.abs(run - Math.floor(run) - 0.5) * Math.cos(u * Math.PI);
      }
    },
    finish: () => void (sink += byHand[7]),
  };
  const ratio = compare(formula, loop, 25, 6);
  sameNumbers(out, byHand, `the formula and the loop (${sink})`);
  return ratio;
}

function sameNumbers(a: Float32Array, b: Float32Array, what: string, within = 1e-5): void {
  for (let i = 0; i < b.length; i += 97) {
    if (!(Math.abs(a[i] - b[i]) <= within)) throw new Error(`${what} differ at ${i}: ${a[i]} and ${b[i]}.`);
  }
}

function oscillator100k(): Ratio {
  warmUp();
  const n = 100000;
  const patch = new Patch();
  const id = patch.add('oscillator', { samples: n, spread: 3, rate: 0.4, amplitude: 0.7, centre: 0.1 });
  const run = patch.run([id]);
  const byHand = new Float32Array(n);
  const loop = (k: number): void => {
    const turns = (k / 60) * 0.4;
    for (let i = 0; i < n; i++) byHand[i] = 0.1 + 0.7 * Math.sin(2 * Math.PI * (turns + (3 * i) / n));
  };
  const ratio = compare(
    { frame: (k) => run.run(frameOf(k)), finish: () => undefined },
    { frame: loop, finish: () => undefined },
    25,
    6,
  );
  run.run(frameOf(1000));
  loop(1000);
  sameNumbers(run.runs.get(id)!.signal.lanes[0].samples, byHand, 'The oscillator and the loop', 1e-4);
  return ratio;
}

/** 300 nodes of 64 samples: 60 each of five kinds, and the same sums written down in one loop. */
function signals300(): Ratio {
  warmUp();
  const patch = new Patch();
  const ends: string[] = [];
  const rates = Array.from({ length: 60 }, (_, k) => 0.1 + k * 0.013);
  for (const rate of rates) {
    const wave = patch.add('oscillator', { samples: 64, spread: 1, rate });
    const fitted = patch.add('remap', { from: [-1, 1], to: [0, 1] }, [wave]);
    const stepped = patch.add('steps', { step: 0.05 }, [fitted]);
    const soft = patch.add('smooth', { rise: 0.1, fall: 0.4 }, [stepped]);
    ends.push(patch.add('combine', { how: 'multiply' }, [soft, fitted]));
  }
  const run = patch.run(ends);
  const soft = rates.map(() => new Float32Array(64));
  const byHand = rates.map(() => new Float32Array(64));
  let isFirst = true;
  const loop = (k: number): void => {
    const [up, down] = [1 - Math.exp(-3 / 60 / 0.1), 1 - Math.exp(-3 / 60 / 0.4)];
    rates.forEach((rate, row) => {
      const [state, out] = [soft[row], byHand[row]];
      for (let i = 0; i < 64; i++) {
        const fitted = (Math.sin(2 * Math.PI * ((k / 60) * rate + i / 64)) + 1) / 2;
        const stepped = Math.round(fitted / 0.05) * 0.05;
        state[i] = isFirst ? stepped : state[i] + (stepped - state[i]) * (stepped > state[i] ? up : down);
        out[i] = state[i] * fitted;
      }
    });
    isFirst = false;
  };
  const frames = 60;
  const ours: number[] = [];
  const theirs: number[] = [];
  for (let round = 0; round < 31; round++) {
    const start = performance.now();
    for (let k = 0; k < frames; k++) run.run(frameOf(round * frames + k));
    const middle = performance.now();
    for (let k = 0; k < frames; k++) loop(round * frames + k);
    if (round === 0) continue;
    ours.push((middle - start) / frames);
    theirs.push((performance.now() - middle) / frames);
  }
  ends.forEach((id, row) =>
    sameNumbers(run.runs.get(id)!.signal.lanes[0].samples, byHand[row], `Row ${row} and the loop`, 1e-3),
  );
  return ratioOf(ours, theirs);
}

/** A chain of five pure nodes asked for 240 moments, and the same chain run once with 240 samples. */
function timeSpread240(): Ratio {
  warmUp();
  const chain = (patch: Patch, samples: number): string => {
    const wave = patch.add('oscillator', { samples, rate: 0.3 });
    const drift = patch.add('drift', { samples, speed: 0.4 });
    const sum = patch.add('combine', {}, [wave, drift]);
    const fitted = patch.add('remap', { from: [-2, 2], to: [0, 1] }, [sum]);
    return patch.add('steps', { step: 0.01 }, [fitted]);
  };
  const one = new Patch();
  const spread = one.add('time-spread', { samples: 240, cycle: 10 }, [chain(one, 1)]);
  const many = new Patch();
  const plain = chain(many, 240);
  const runs = [one.run([spread]), many.run([plain])];
  const side = (run: SceneRun) => ({
    frame(k: number) {
      for (let j = 0; j < 20; j++) run.run(frameOf(k * 20 + j));
    },
    finish: () => undefined,
  });
  return compare(side(runs[0]), side(runs[1]), 25, 3);
}

/** Share of a core that 100 bands, 60 times a second, take of one second of sound. */
function audioCore(): Ratio {
  const rate = 48000;
  const sound = makeLoop(rate);
  const listener = new Listener(rate);
  const edges = bandEdges(100, 40, 12000);
  const amplitudes = new Float32Array(100);
  const levels = new Float32Array(100);
  const shape = { tilt: 3, floor: -54, gains: [0, 0, 0] as const };
  const shares: number[] = [];
  for (let second = 0; second < 24; second++) {
    const start = performance.now();
    for (let k = 0; k < 60; k++) {
      const from = ((second * 60 + k) * 800) % (sound.length - 800);
      listener.push(sound.subarray(from, from + 800));
      bandAmplitudes(listener.state.power, rate, edges, amplitudes);
      for (let b = 0; b < 100; b++)
        levels[b] = bandLevel(amplitudes[b], Math.sqrt(edges[b] * edges[b + 1]), shape);
    }
    // The first seconds are spent on getting quick.
    if (second > 3) shares.push((performance.now() - start) / 1000);
  }
  return plainOf(shares);
}

/** What the processor works out by itself. */
export const numberCases: Readonly<Record<string, () => Ratio>> = {
  formula100k,
  oscillator100k,
  signals300,
  timeSpread240,
  audioCore,
};
