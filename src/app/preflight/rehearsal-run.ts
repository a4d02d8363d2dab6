import { create } from 'zustand';
import { idleControllers } from '../../core/inputs/inputs';
import {
  outcomeOf,
  rehearsedFaults,
  type RehearsedFault,
  type StageSample,
} from '../../core/preflight/rehearsal';
import type { Scene, Show } from '../../core/document/types';
import { rehearseFullStorage } from '../data/keeper';
import { showStore } from '../data/show-store';
import type { EngineClient } from '../engine/client';
import { seenPart, shownIn } from '../engine/output-box';
import { engineFor } from '../exports/job-queue';
import { preflightStore } from './preflight-run';

/** Height of the canvas that is rehearsed at: faults are the same at any size, and the stage must not pay for it. */
const rehearsedHeight = 180;
/** Milliseconds that a scene plays before a fault. */
const calmMs = 1000;
/** Milliseconds that are looked at from a fault on: at least, at most, and from when the picture moves again. */
const faultMs = { least: 1200, most: 15000, moving: 500 } as const;
/** Milliseconds after which a scene that does not move is taken for one that stands still by itself. */
const standsMs = 3000;
/** Milliseconds between two looks at the stage, and the pixels that are looked at. */
const sampleMs = 40;
const looked = { width: 32, height: 18 };
/** Seconds of each take. */
const takeSeconds = 0.5;
const blockedMs = 1000;

interface RehearsalState {
  running: { fault: RehearsedFault; done: number } | null;
  /** What the stage of the rehearsal is shown in; null: none is under way. */
  stage: HTMLElement | null;
}

/** How far a rehearsal is, and its stage. */
export const rehearsalStore = create<RehearsalState>()(() => ({ running: null, stage: null }));

const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** The show as it is rehearsed: small, and with no word to the network but to the receiver that is built in. */
function rehearsed(show: Show): Show {
  const { width, height } = show.canvas;
  const scale = Math.min(1, rehearsedHeight / height);
  return {
    ...show,
    canvas: {
      ...show.canvas,
      width: Math.max(16, Math.round(width * scale)),
      height: Math.max(16, Math.round(height * scale)),
    },
    wall: {
      ...show.wall,
      outputs: show.wall.outputs.flatMap((output) =>
        output.type === 'string' ? [{ ...output, send: { ...output.send, simulated: true } }] : [],
      ),
    },
  };
}

/** A stage in this page: canvases one behind the other, as a stage window has them. */
class RehearsalStage {
  readonly element = document.createElement('div');
  private readonly picture = new OffscreenCanvas(looked.width, looked.height).getContext('2d', {
    willReadFrequently: true,
  })!;
  samples: StageSample[] = [];
  private readonly timer = setInterval(() => this.look(), sampleMs);
  private readonly id: string;

  constructor(client: EngineClient, { width, height }: Show['canvas']) {
    const { element } = this;
    Object.assign(element.style, {
      position: 'absolute',
      inset: '0',
      overflow: 'hidden',
      background: '#000',
    });
    this.id = client.outputs.add({
      source: { type: 'program' },
      use: 'stage',
      box: () => element,
      size: () => ({ width, height }),
    });
  }

  private look(): void {
    const shown = shownIn(this.element);
    if (!shown || shown.canvas.width === 0) return;
    const { picture } = this;
    picture.drawImage(shown.canvas, ...seenPart(shown), 0, 0, looked.width, looked.height);
    const { data } = picture.getImageData(0, 0, looked.width, looked.height);
    let sum = 0;
    // FNV-1a over all colours.
    let print = 2166136261;
    for (let k = 0; k < data.length; k++) {
      if (k % 4 === 3) continue;
      sum += data[k];
      print = Math.imul(print ^ data[k], 16777619);
    }
    const mean = sum / (0.75 * data.length);
    this.samples.push({ at: performance.now(), mean, print });
  }

  /** Samples from a moment on. */
  since(moment: number): StageSample[] {
    const first = this.samples.findIndex(({ at }) => at >= moment);
    return first < 0 ? this.samples.slice(-1) : this.samples.slice(first);
  }

  end(client: EngineClient): void {
    clearInterval(this.timer);
    client.outputs.remove(this.id);
  }
}

/** Throws a fault in; gives what was said of it, or why it can't be thrown in. */
const throwers: Record<
  RehearsedFault,
  (client: EngineClient, show: Show, scene: Scene) => Promise<{ said?: string; skipped?: string }>
> = {
  page: () => {
    const until = performance.now() + blockedMs;
    while (performance.now() < until);
    return Promise.resolve({});
  },
  device: (client) => {
    client.set({ type: 'controllers', controllers: idleControllers() });
    client.send({ type: 'sound-stream', rate: 48000, port: null });
    return Promise.resolve({ said: 'Inputs say which device is gone.' });
  },
  file: (client, show) => {
    const [file] = Object.entries(show.files);
    if (!file) return Promise.resolve({ skipped: 'The show has no files of its own.' });
    client.giveFile(file[0], file[1].name, new Blob(['no picture, no sound'], { type: file[1].type }));
    return Promise.resolve({ said: 'The node that uses it says so.' });
  },
  storage: async () => {
    const isSafe = await rehearseFullStorage(blockedMs);
    return {
      said: isSafe
        ? 'Said once; edits are kept beside it.'
        : 'Said once; edits are only in this window until it is exported.',
    };
  },
  server: (client, show) => {
    if (!show.wall.outputs.some(({ type }) => type === 'string'))
      return Promise.resolve({ skipped: 'Nothing of the show goes over the server.' });
    client.inject('server-away');
    return Promise.resolve({ said: 'The connection comes back by itself.' });
  },
  context: (client) => {
    client.inject('context-loss');
    return Promise.resolve({ said: 'The graphics card was lost. The last picture stays until it is back.' });
  },
  hang: (client) => {
    client.inject('hang');
    return Promise.resolve({ said: 'The engine stopped and is being started again.' });
  },
  crash: (client) => {
    client.inject('crash');
    return Promise.resolve({ said: 'The engine stopped and is being started again.' });
  },
};

let runs = 0;
let end: (() => void) | null = null;

/** Ends a rehearsal; what it came to so far stays. */
export function stopRehearsal(): void {
  runs++;
  end?.();
  end = null;
  rehearsalStore.setState({ running: null, stage: null });
}

/** Waits until the stage shows something that moves, or for so many milliseconds. */
async function seen(
  stage: RehearsalStage,
  from: number,
  longestMs: number,
  isCurrent: () => boolean,
): Promise<void> {
  const until = performance.now() + longestMs;
  while (isCurrent() && performance.now() < until) {
    const samples = stage.since(from);
    if (new Set(samples.map(({ print }) => print)).size > 2) return;
    await wait(100);
  }
}

/** Runs an evening in a minute, in an engine of its own, with faults thrown in, and looks what the stage shows. */
export async function startRehearsal(): Promise<void> {
  stopRehearsal();
  const run = runs;
  const isCurrent = (): boolean => run === runs;
  const show = rehearsed(showStore.getState().show);
  const faults = Object.keys(rehearsedFaults) as RehearsedFault[];
  rehearsalStore.setState({ running: { fault: faults[0], done: 0 } });
  preflightStore.setState({ rehearsal: [] });
  const client = await engineFor(show);
  const stage = new RehearsalStage(client, show.canvas);
  const ended = (): void => {
    stage.end(client);
    client.close();
  };
  if (!isCurrent()) {
    ended();
    return;
  }
  end = ended;
  rehearsalStore.setState({ stage: stage.element });
  // The scenes of the evening in their order, round and round.
  const evening = show.cues.flatMap(({ scene }) => show.scenes.filter(({ id }) => id === scene));
  const scenes = evening.length ? evening : show.scenes;
  for (const [k, fault] of faults.entries()) {
    rehearsalStore.setState({ running: { fault, done: k / faults.length } });
    const scene = scenes[k % scenes.length];
    const taken = performance.now();
    client.perform({ type: 'take', scene: scene.id, seconds: takeSeconds });
    await wait(1000 * takeSeconds);
    await seen(stage, taken + 1000 * takeSeconds, standsMs, isCurrent);
    const calm = performance.now();
    await wait(calmMs);
    if (!isCurrent()) return;
    const before = stage.since(calm);
    const thrown = performance.now();
    const { said = '', skipped } = await throwers[fault](client, show, scene);
    if (skipped === undefined) {
      await wait(faultMs.least);
      const hasMoved = new Set(before.map(({ print }) => print)).size > 2;
      await seen(stage, performance.now(), hasMoved ? faultMs.most : standsMs, isCurrent);
      await wait(faultMs.moving);
    }
    if (!isCurrent()) return;
    // While the page itself was blocked it saw nothing: what the engine painted meanwhile is what counts.
    const after =
      fault === 'page'
        ? stage.since(thrown + blockedMs)
        : [before[before.length - 1], ...stage.since(thrown)];
    const outcome = outcomeOf(fault, scene.name, before, after, said);
    preflightStore.setState(({ rehearsal }) => ({
      rehearsal: [...rehearsal, skipped === undefined ? outcome : { ...outcome, skipped }],
    }));
    stage.samples = [];
  }
  stopRehearsal();
}
