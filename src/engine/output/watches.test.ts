import { beforeEach, describe, expect, test } from '@jest/globals';
import type { WebGLRenderTarget } from 'three';
import type { Gpu } from '../gpu/gpu';
import type { ScenePlayer } from '../playback/scene-player';
import { DarkWatch } from './dark-watch';
import { FeedbackWatch } from './feedback-watch';
import type { Presenter } from './presenter';

/** A GPU of which pictures are read: each reading waits until the test lets it go on. */
class FakeGpu {
  fill: (pixels: Uint8Array | Uint8ClampedArray) => void = () => undefined;
  passes = 0;
  fails = false;
  private pending: (() => void)[] = [];
  empty = {};
  renderer = {
    readRenderTargetPixelsAsync: async (
      _target: unknown,
      _x: number,
      _y: number,
      _w: number,
      _h: number,
      pixels: Uint8Array,
    ): Promise<void> => {
      await new Promise<void>((resolve) => this.pending.push(resolve));
      if (this.fails) throw new Error('The context was lost.');
      this.fill(pixels);
    },
  };
  acquire = (width: number, height: number): WebGLRenderTarget =>
    ({ width, height, viewport: { set: () => undefined } }) as unknown as WebGLRenderTarget;
  material = () => ({});
  pass = (): void => void this.passes++;

  get waiting(): number {
    return this.pending.length;
  }

  /** Lets what was asked for arrive. */
  async arrive(): Promise<void> {
    for (const resolve of this.pending.splice(0)) resolve();
    for (let k = 0; k < 5; k++) await Promise.resolve();
  }
}

let fake: FakeGpu;
let gpu: Gpu;
beforeEach(() => {
  fake = new FakeGpu();
  gpu = fake as unknown as Gpu;
});

describe('the watch for darkness', () => {
  let told: [string, boolean][];
  let watch: DarkWatch;
  let drawn: number;
  const lit = { isDrawn: true, look: {} } as ScenePlayer;

  beforeEach(() => {
    told = [];
    drawn = 0;
    const presenter = { draw: () => drawn++ } as unknown as Presenter;
    watch = new DarkWatch(gpu, presenter, (scene, dark) => told.push([scene, dark]));
  });

  const look = async (now: number, brightness: number, scene = 's'): Promise<void> => {
    fake.fill = (pixels) => pixels.fill(brightness);
    watch.turn(now, scene, lit, true);
    await fake.arrive();
  };

  test('says so only when a picture is dark twice in a row, and when it is lit again', async () => {
    await look(1000, 0);
    await look(2000, 200);
    await look(3000, 1);
    expect(told).toEqual([['s', false]]);
    await look(4000, 1);
    expect(told.at(-1)).toEqual(['s', true]);
    await look(5000, 0);
    await look(6000, 90);
    expect(told).toEqual([
      ['s', false],
      ['s', true],
      ['s', false],
    ]);
  });

  test('starts over with another scene, whatever the last one was', async () => {
    await look(1000, 0);
    await look(2000, 0);
    await look(3000, 0, 'other');
    expect(told).toEqual([
      ['s', false],
      ['s', true],
      ['other', false],
    ]);
    await look(4000, 0, 'other');
    expect(told.at(-1)).toEqual(['other', true]);
  });

  test('looks rarely, more so while the GPU is busy, and never twice at once', async () => {
    for (let now = 1000; now < 8000; now += 100) {
      watch.turn(now, 's', lit, true);
      await fake.arrive();
    }
    expect(drawn).toBe(10);
    drawn = 0;
    for (let now = 10000; now < 17000; now += 100) {
      watch.turn(now, 's', lit, false);
      await fake.arrive();
    }
    expect(drawn).toBe(4);
    drawn = 0;
    for (let now = 20000; now < 27000; now += 100) watch.turn(now, 's', lit, true);
    expect(drawn).toBe(1);
  });

  test('waits for a picture, and outlives a lost context', async () => {
    watch.turn(1000, 's', { isDrawn: false } as ScenePlayer, true);
    expect(drawn).toBe(0);
    fake.fails = true;
    await look(2000, 0);
    fake.fails = false;
    await look(3000, 0);
    await look(4000, 0);
    expect(told.at(-1)).toEqual(['s', true]);
  });

  test('forgets an answer that belongs to the scene before', async () => {
    await look(1000, 0);
    fake.fill = (pixels) => pixels.fill(0);
    watch.turn(2000, 's', lit, true);
    watch.turn(2001, 'other', lit, true);
    await fake.arrive();
    expect(told.filter(([, dark]) => dark)).toEqual([]);
  });
});

describe('the watch for feedback', () => {
  const playerWith = (...wires: string[]): ScenePlayer =>
    ({
      run: {
        plan: {
          returns: wires.map((id) => ({ id, from: { node: 'n' }, back: { limit: 4 } })),
          nodes: new Map([['n', { kind: { output: 'image' } }]]),
        },
      },
      renderer: { textureOf: () => ({}) },
    }) as unknown as ScenePlayer;
  /** Red: share of the limit; green: whether a number is none. */
  const pixels =
    (red: number, green = 0, share = 1) =>
    (out: Uint8Array | Uint8ClampedArray): void => {
      for (let k = 0; k < out.length; k += 4) {
        const counts = k / out.length < share;
        out[k] = counts ? red : 0;
        out[k + 1] = counts ? green : 0;
      }
    };

  test('says what blows out and what is broken, and that it is fine again', async () => {
    const watch = new FeedbackWatch(gpu);
    const player = playerWith('w');
    const look = async (now: number, fill: FakeGpu['fill']): Promise<string | undefined> => {
      fake.fill = fill;
      watch.turn(now, player, true);
      await fake.arrive();
      return watch.notes(player).w;
    };
    expect(await look(1000, pixels(60))).toBeUndefined();
    expect(await look(2000, pixels(250))).toMatch(/Blows out/);
    expect(await look(3000, pixels(250, 0, 0.005))).toBeUndefined();
    expect(await look(4000, pixels(0, 255, 0.1))).toMatch(/no numbers/);
    expect(await look(5000, pixels(0))).toBeUndefined();
  });

  test('takes wires in turn, and speaks of those of the scene only', async () => {
    const watch = new FeedbackWatch(gpu);
    const player = playerWith('a', 'b');
    fake.fill = pixels(255);
    for (const now of [1000, 2000]) {
      watch.turn(now, player, true);
      await fake.arrive();
    }
    expect(Object.keys(watch.notes(player))).toEqual(['a', 'b']);
    expect(watch.notes(playerWith('c'))).toEqual({});
    expect(fake.passes).toBe(2);
  });

  test('does nothing where nothing is fed back', () => {
    new FeedbackWatch(gpu).turn(1000, playerWith(), true);
    expect(fake.passes).toBe(0);
  });
});
