import { beforeEach, describe, expect, test } from '@jest/globals';
import { Gpu } from '../gpu/gpu';
import type { OutputPicture, OutputSpec } from '../protocol/protocol';
import { wholePicture } from './mapping';
import { Outputs, type Draw, type StateOf } from './outputs';

/** A canvas that counts what it is given. */
class FakeCanvas {
  readonly bitmaps: unknown[] = [];
  constructor(private readonly has = true) {}
  getContext(): unknown {
    return this.has ? { transferFromImageBitmap: (bitmap: unknown) => this.bitmaps.push(bitmap) } : null;
  }
}

/** The parts of a Gpu that outputs use: a canvas with a size, and a viewport. */
class FakeGpu {
  resizes: string[] = [];
  viewport: number[] = [];
  canvas = { transferToImageBitmap: () => `${this.resizes.at(-1)} ${this.viewport.join(' ')}` };
  renderer = {
    setViewport: (...box: number[]) => void (this.viewport = box),
    readRenderTargetPixelsAsync: (
      _t: object,
      _x: number,
      _y: number,
      _w: number,
      _h: number,
      bytes: Uint8Array,
    ) => Promise.resolve(void bytes.fill(255)),
  };
  isLost = false;
  // The real one, by the parts that stand here.
  takeBytes = Gpu.prototype.takeBytes;
  acquire = (width: number, height: number) => ({ width, height });
  release = (): void => undefined;
  moveCanvas = (): void => undefined;
  resize(width: number, height: number): void {
    const size = `${width}x${height}`;
    if (this.resizes.at(-1) !== size) this.resizes.push(size);
  }
}

const spec = (change: Partial<OutputSpec> = {}): OutputSpec => ({
  source: { type: 'program' },
  width: 320,
  height: 180,
  mapping: wholePicture,
  use: 'desk',
  ...change,
});

describe('outputs', () => {
  let told: [string, readonly [number, number]][];
  let given: string[];
  let handed: OutputPicture[][];
  let outputs: Outputs;
  let fake: FakeGpu;
  let gpu: Gpu;
  const add = (id: string, change: Partial<OutputSpec> = {}): FakeCanvas => {
    const canvas = new FakeCanvas();
    outputs.add(id, spec(change), canvas as unknown as OffscreenCanvas);
    return canvas;
  };

  let states = 0;
  /** Paints what changes with every frame, unless it is said otherwise. */
  const paint = (
    on: Gpu,
    use: OutputSpec['use'],
    frozen: boolean,
    draw: Draw,
    stateOf: StateOf = () => String(states++),
    isWhole = true,
  ): void =>
    outputs.paint(
      on,
      use,
      () => frozen,
      draw,
      stateOf,
      () => isWhole,
    );

  beforeEach(() => {
    told = [];
    given = [];
    handed = [];
    outputs = new Outputs(
      (id, share) => told.push([id, share]),
      (id) => given.push(id),
      (pictures) => handed.push(pictures),
    );
    fake = new FakeGpu();
    gpu = fake as unknown as Gpu;
  });

  test('that show what they showed are not painted again, until that changes or one comes anew', () => {
    const canvas = add('still');
    let drawn = 0;
    const draw = (): boolean => ++drawn > 1;
    for (let k = 0; k < 4; k++) paint(gpu, 'desk', false, draw, () => 'same');
    // At first there was nothing to draw yet, which is tried again.
    expect([drawn, canvas.bitmaps.length]).toEqual([2, 1]);
    paint(gpu, 'desk', false, draw, () => 'other');
    expect(canvas.bitmaps).toHaveLength(2);
    const late = add('late');
    paint(gpu, 'desk', false, draw, () => 'other');
    expect([canvas.bitmaps.length, late.bitmaps.length]).toEqual([2, 1]);
  });

  test('without a canvas give the page their pictures, all at once, and none until it has taken the last ones', () => {
    outputs.add('large', spec({ width: 640, height: 360 }), null);
    outputs.add('small', spec(), null);
    let state = 'a';
    const turn = (): void => {
      paint(
        gpu,
        'desk',
        false,
        () => true,
        () => state,
      );
      outputs.handOver();
    };
    turn();
    expect(handed.map((all) => all.map(({ id, share }) => [id, ...share]))).toEqual([
      [
        ['large', 1, 1],
        ['small', 0.5, 0.5],
      ],
    ]);
    // What it has is not given again, and nothing is not given at all.
    outputs.isWaiting = false;
    turn();
    expect(handed).toHaveLength(1);
    state = 'b';
    turn();
    state = 'c';
    turn();
    expect(handed).toHaveLength(2);
    // What came meanwhile is owed, though it stands still by now.
    outputs.isWaiting = false;
    turn();
    expect(handed).toHaveLength(3);
    expect([told, outputs.stageFrames]).toEqual([[], 0]);
  });

  test('that could not be drawn when they changed are painted once they can be, though they stand still by then', () => {
    const canvas = add('late');
    const can = (): boolean => true;
    paint(gpu, 'desk', false, can, () => 'still');
    paint(
      gpu,
      'desk',
      false,
      () => false,
      () => 'frame 7',
    );
    paint(gpu, 'desk', false, can, () => 'still');
    paint(gpu, 'desk', false, can, () => 'still');
    expect(canvas.bitmaps).toHaveLength(2);
  });

  test('of one source are painted each, in the corner of a canvas that holds the largest', () => {
    const small = add('small');
    const large = add('large', { width: 1280, height: 720, use: 'stage' });
    paint(gpu, 'desk', false, () => true);
    paint(gpu, 'stage', false, () => true);
    expect(small.bitmaps).toEqual(['1280x720 0 0 320 180']);
    expect(large.bitmaps).toEqual(['1280x720 0 0 1280 720']);
    expect(told).toEqual([
      ['small', [0.25, 0.25]],
      ['large', [1, 1]],
    ]);
    expect([...outputs.sources()]).toEqual([{ type: 'program' }, { type: 'program' }]);
  });

  test('never change the size of the canvas in steady play', () => {
    add('a', { width: 400, height: 100 });
    add('b', { width: 100, height: 300 });
    add('c', { width: 640, height: 360, use: 'stage' });
    for (let k = 0; k < 5; k++)
      for (const use of ['desk', 'stage'] as const) paint(gpu, use, false, () => true);
    expect(fake.resizes).toEqual(['640x360']);
    outputs.remove('c');
    for (let k = 0; k < 5; k++) paint(gpu, 'desk', false, () => true);
    expect(fake.resizes).toEqual(['640x360', '400x300']);
  });

  test('are told of once, and again only when they lie otherwise in their bitmap', () => {
    add('a');
    for (let k = 0; k < 3; k++) paint(gpu, 'desk', false, () => true);
    expect(told).toEqual([['a', [1, 1]]]);
    add('b', { width: 640 });
    for (let k = 0; k < 3; k++) paint(gpu, 'desk', false, () => true);
    expect(told.slice(1)).toEqual([
      ['a', [0.5, 1]],
      ['b', [1, 1]],
    ]);
    outputs.change('a', { width: 640 });
    paint(gpu, 'desk', false, () => true);
    expect(told.at(-1)).toEqual(['a', [1, 1]]);
  });

  test('without a picture keep what they show and are not told of', () => {
    const canvas = add('a');
    paint(gpu, 'desk', false, () => false);
    expect(canvas.bitmaps).toEqual([]);
    expect(told).toEqual([]);
  });

  test('that are frozen keep their picture; one that has none yet gets one', () => {
    const old = add('old', { use: 'stage' });
    paint(gpu, 'stage', false, () => true);
    const fresh = add('fresh', { use: 'stage' });
    for (let k = 0; k < 3; k++) paint(gpu, 'stage', true, () => true);
    expect(old.bitmaps).toHaveLength(1);
    expect(fresh.bitmaps).toHaveLength(1);
  });

  test('count pictures on stage only, and know whether there is a stage', () => {
    add('desk');
    expect(outputs.hasStage).toBe(false);
    add('stage', { use: 'stage' });
    expect(outputs.hasStage).toBe(true);
    for (const use of ['desk', 'stage'] as const) paint(gpu, use, false, () => true);
    expect(outputs.stageFrames).toBe(1);
    outputs.remove('stage');
    expect(outputs.hasStage).toBe(false);
  });

  test('can be given another source, and another size, while they play', () => {
    add('a');
    const seen: OutputSpec[] = [];
    outputs.change('a', { source: { type: 'next' }, width: 200 });
    paint(gpu, 'desk', false, (output) => seen.push({ ...output }) > 0);
    expect(seen[0]).toMatchObject({ source: { type: 'next' }, width: 200, height: 180 });
  });

  test('whose canvas is lost are not painted until they have another, and still count', () => {
    const old = add('a', { use: 'stage' });
    paint(gpu, 'stage', false, () => true);
    expect(outputs.lose(() => false)).toEqual([{ id: 'a', dark: false }]);
    paint(gpu, 'stage', false, () => true);
    expect([old.bitmaps.length, outputs.hasStage]).toEqual([1, true]);
    const fresh = add('a', { use: 'stage' });
    paint(gpu, 'stage', false, () => true);
    expect(fresh.bitmaps).toHaveLength(1);
    expect(told).toHaveLength(2);
  });

  test('that are frozen when their canvas is lost keep what stands in for them; what is dark is said to be', async () => {
    for (const use of ['stage', 'desk'] as const) add(use, { use });
    for (const use of ['stage', 'desk'] as const) paint(gpu, use, false, () => true);
    for (let k = 0; k < 2; k++) {
      outputs.keepStandIn(
        k,
        gpu,
        () => false,
        () => true,
      );
      await new Promise((resolve) => setImmediate(resolve));
    }
    const lost = outputs.lose((use) => use === 'desk');
    expect(given.sort()).toEqual(['desk', 'stage']);
    expect(lost).toEqual([
      { id: 'stage', dark: false },
      { id: 'desk', dark: true },
    ]);
    const fresh = add('stage', { use: 'stage' });
    paint(gpu, 'stage', true, () => true);
    expect(fresh.bitmaps).toEqual([]);
    told = [];
    // A part of the picture is no better than what stands in for all of it.
    paint(gpu, 'stage', false, () => true, undefined, false);
    expect(fresh.bitmaps).toEqual([]);
    paint(gpu, 'stage', false, () => true);
    expect(fresh.bitmaps).toHaveLength(1);
    // The stand-in goes.
    expect(told).toEqual([['stage', [1, 1]]]);
  });

  test('on a canvas that cannot show bitmaps are left out; changing one that is gone does nothing', () => {
    outputs.add('a', spec(), new FakeCanvas(false) as unknown as OffscreenCanvas);
    outputs.change('gone', { width: 5 });
    expect([...outputs.sources()]).toEqual([]);
    expect(outputs.size).toEqual({ width: 1, height: 1 });
  });
});
