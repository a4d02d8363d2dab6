import { expect } from '@jest/globals';
import { idleInputs, type InputState } from '../src/core/inputs/inputs';
import { SceneRun } from '../src/core/run/scene-run';
import { makeScene } from '../src/core/show/create';
import { addNode, connect } from '../src/core/show/edit';
import type { ControlValue, SceneLoop } from '../src/core/document/types';
import { momentAt } from '../src/core/time/clock';
import { oneStep } from '../src/core/time/feedback-steps';
import { catalogue } from '../src/nodes/catalogue';

/** A row of nodes, each wired into the first input of the next; gives the samples of the last one, frame by frame. */
export class Bench {
  private readonly scene = makeScene(catalogue, 's1', 'Scene');
  private readonly run = new SceneRun(catalogue);
  private last = '';
  private frame = 0;
  live: InputState = idleInputs();

  constructor(readonly rate = 60) {}

  add(kind: string, controls: Record<string, ControlValue> = {}, port?: string): this {
    const id = addNode(this.scene, catalogue, kind, [0, 0]);
    Object.assign(this.scene.nodes[id].controls, controls);
    if (this.last)
      connect(this.scene, catalogue, this.last, id, port ?? Object.keys(catalogue.get(kind)!.inputs)[0]);
    this.last = id;
    return this;
  }

  beside(kind: string, controls: Record<string, ControlValue>, port: string): this {
    const id = addNode(this.scene, catalogue, kind, [0, 0]);
    Object.assign(this.scene.nodes[id].controls, controls);
    connect(this.scene, catalogue, id, this.last, port);
    return this;
  }

  play(frames = 1): number[][] {
    this.run.update(this.scene, [this.last]);
    for (let k = 0; k < frames; k++) {
      const t = this.frame / this.rate;
      this.run.run({
        moment: momentAt(
          t,
          this.frame ? 1 / this.rate : 0,
          this.rate,
          { bpm: 120, beatsPerBar: 4 },
          undefined,
          this.scene.loop,
        ),
        live: this.live,
        canvas: { width: 16, height: 9 },
        feedback: oneStep,
      });
      this.frame++;
    }
    expect([...this.run.faults().values()]).toEqual([]);
    return this.run.runs.get(this.last)!.signal.lanes.map((lane) => [...lane.samples]);
  }

  /** The frame that is played next. */
  goTo(frame: number): this {
    this.frame = frame;
    return this;
  }

  loop(length: number, unit: SceneLoop['unit'], lock = false): this {
    this.scene.loop = { length, unit, lock };
    return this;
  }

  /** What is wrong with the last node, after one frame. */
  fault(): string | undefined {
    expect(() => this.play()).toThrow();
    return this.run.faults().get(this.last);
  }

  key(down: boolean, presses: number): this {
    this.live = { ...this.live, keys: { Space: { down, presses } } };
    return this;
  }
}

/** To four places. */
export const rounded = (values: number[]): number[] => values.map((v) => Math.round(v * 1e4) / 1e4);
