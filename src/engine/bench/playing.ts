import { DeskRun, type DeskValues } from '../../core/desk/desk-run';
import { SceneRun } from '../../core/run/scene-run';
import { makeShow } from '../../core/show/create';
import { addNode, connect } from '../../core/show/edit';
import { putOnDesk } from '../../core/show/edit-desk';
import { idleInputs } from '../../core/inputs/inputs';
import type { Show } from '../../core/document/types';
import { momentAt } from '../../core/time/clock';
import { FeedbackClock, oneStep } from '../../core/time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import { presented } from '../output/presented';
import { Presenter } from '../output/presenter';
import { ProgramBus } from '../playback/program-bus';
import { ScenePlayers } from '../playback/scene-players';
import { noFiles } from './scenes';
import { median, plainOf, ratioOf, type Ratio } from './measure';

const tempo = { bpm: 120, beatsPerBar: 4 };
const rounds = 15;
const framesOfRound = 60;

/** A show whose one scene has so many controls on the desk, and all of them in sight of Scene Out. */
function showWith(controls: number): { show: Show; ids: string[]; roots: string[] } {
  const show = makeShow(catalogue, 'Desk');
  const [scene] = show.scenes;
  const roots: string[] = [];
  const ids: string[] = [];
  while (ids.length < controls) {
    const wave = addNode(scene, catalogue, 'oscillator', [0, 0]);
    const step = addNode(scene, catalogue, 'remap', [0, 0]);
    connect(scene, catalogue, wave, step, 'in');
    roots.push(step);
    for (const part of ['rate', 'phase'])
      ids.push(putOnDesk(show, catalogue, { scene: 's1', node: wave, part }));
  }
  return { show, ids, roots };
}

const frameOf = (k: number) => ({
  moment: momentAt(k / 60, 1 / 60, 60, tempo),
  live: idleInputs(),
  canvas: { width: 640, height: 360 },
  feedback: oneStep,
});

/** Milliseconds of the worker that 200 desk controls cost a frame while 64 of them move: the desk, and what it gives to the nodes. */
function deskControls(): Ratio {
  const { show, ids, roots } = showWith(200);
  const desk = new DeskRun(catalogue);
  desk.open(show);
  const run = new SceneRun(catalogue);
  run.update(show.scenes[0], roots);
  let frame = 0;
  const round = (): number => {
    let ms = 0;
    for (let k = 0; k < framesOfRound; k++) {
      frame++;
      const start = performance.now();
      for (let c = 0; c < 64; c++)
        desk.set(ids[(frame + 3 * c) % ids.length], [0.5 + 0.4 * Math.sin(frame / 9 + c)], frame / 60);
      desk.advance(frameOf(frame).moment, frame / 60);
      run.standIn(desk.given('s1').values);
      ms += performance.now() - start;
      run.run(frameOf(frame));
    }
    return ms / framesOfRound;
  };
  round();
  return plainOf(Array.from({ length: rounds }, round));
}

/** Milliseconds of a morph of 500 values between four states of the desk. */
function morph(): Ratio {
  const { show, ids } = showWith(500);
  const desk = new DeskRun(catalogue);
  desk.open(show);
  const states: DeskValues[] = Array.from({ length: 4 }, (_, s) =>
    Object.fromEntries(ids.map((id, k) => [id, [(k * (s + 1)) / ids.length]])),
  );
  let frame = 0;
  const round = (): number => {
    const start = performance.now();
    for (let k = 0; k < framesOfRound; k++) {
      const x = 0.5 + 0.4 * Math.sin(++frame / 7);
      desk.mix(states, [0.5 * (1 - x), 0.5 * x, 0.5 * (1 - x), 0.5 * x], frame / 60);
    }
    return (performance.now() - start) / framesOfRound;
  };
  round();
  return plainOf(Array.from({ length: rounds }, round));
}

const takeSize = { width: 240, height: 135 };
const takes = 40;

/**
 * The worst frame around a take / the slower scene’s own frame, over 40 takes among the scenes of a show, every second of them a cut; and
 * how many shaders were handed to the compiler meanwhile, which is none where a scene was ready.
 */
export function takeRatio(gpu: Gpu, show: Show): Ratio & { compiled: number } {
  const players = new ScenePlayers(catalogue, noFiles(), { given: () => ({ version: 0, values: [] }) });
  const bus = new ProgramBus();
  bus.isReady = (scene) => players.isComplete(scene);
  const presenter = new Presenter(gpu);
  const steps = new FeedbackClock();
  const live = idleInputs();
  const pixel = new Uint8Array(4);
  const target = gpu.acquire(takeSize.width, takeSize.height, '8');
  let k = 0;
  const frame = (ready: readonly string[]): number => {
    const start = performance.now();
    bus.advance(1 / 60);
    const { program, incoming } = bus.state;
    const scenes = new Map([program, incoming].flatMap((id) => (id ? [[id, []] as [string, string[]]] : [])));
    const moment = momentAt(k / 60, k ? 1 / 60 : 0, 60, tempo);
    const feedback = steps.next(moment.dt, 1);
    players.play(
      gpu,
      show,
      { moment, live, canvas: takeSize, feedback },
      { scenes, sources: [], ready, isEasy: false },
      () => undefined,
    );
    const seen = presented({ type: 'program' }, bus.state, {
      ofScene: (id) => players.playing.get(id)?.look,
      of: () => undefined,
      nothing: plainLook(gpu.empty),
    });
    const now = { ...seen, level: 1, transition: { of: show.transition, aspect: 16 / 9 } };
    presenter.draw(now, takeSize, undefined, target);
    gpu.renderer.readRenderTargetPixels(target, 0, 0, 1, 1, pixel);
    k++;
    return performance.now() - start;
  };
  const own = new Map<string, number>();
  const ids = show.scenes.map(({ id }) => id);
  bus.open(ids[0], ids);
  const settle = (id: string): void => {
    for (let n = 0; n < 600 && !players.isComplete(id); n++) frame([id]);
  };
  const costs: [number[], number[]] = [[], []];
  let compiled = 0;
  settle(ids[0]);
  for (let t = 0; t < takes; t++) {
    const [from, to] = [ids[t % ids.length], ids[(t + 1) % ids.length]];
    settle(from);
    if (!own.has(from)) own.set(from, median(Array.from({ length: 7 }, () => frame([]))));
    settle(to);
    const before = gpu.compiles;
    bus.take(to, t % 2 ? 0 : 6 / 60);
    let worst = 0;
    for (let n = 0; n < 9; n++) worst = Math.max(worst, frame([to]));
    compiled += gpu.compiles - before;
    if (!own.has(to)) own.set(to, median(Array.from({ length: 7 }, () => frame([]))));
    costs[0].push(worst);
    costs[1].push(Math.max(own.get(from)!, own.get(to)!));
  }
  gpu.release(target);
  players.clear();
  return { ...ratioOf(...costs), compiled };
}

/** Figures of what is played by hand. */
export const playingCases: Readonly<Record<string, () => Ratio>> = { deskControls, morph };
