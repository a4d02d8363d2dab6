import { beforeEach, describe, expect, test } from '@jest/globals';
import { Gpu } from '../gpu/gpu';
import type { OutputSource, StandIn } from '../protocol/protocol';
import { StandIns } from './stand-ins';

/** The parts of a Gpu that stand-ins use; a reading is done when the test says so. */
class FakeGpu {
  isLost = false;
  // The real one, by the parts that stand here.
  takeBytes = Gpu.prototype.takeBytes;
  held = 0;
  moved: number[][] = [];
  readings: { done(): void; nothing(): void; fail(): void }[] = [];
  acquire(width: number, height: number): object {
    this.held++;
    return { width, height };
  }
  release(): void {
    this.held--;
  }
  moveCanvas(width: number, height: number, target: { width: number; height: number }): void {
    this.moved.push([width, height, target.width, target.height]);
  }
  renderer = {
    readRenderTargetPixelsAsync: (
      _t: object,
      _x: number,
      _y: number,
      _w: number,
      _h: number,
      into: Uint8Array,
    ) =>
      new Promise<void>((resolve, reject) => {
        const mark = this.readings.length + 1;
        this.readings.push({
          done: () => (into.fill(mark), resolve()),
          nothing: () => resolve(),
          fail: () => reject(new Error('lost')),
        });
      }),
  };
}

const settle = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

describe('stand-ins', () => {
  let fake: FakeGpu;
  let ins: StandIns;
  let drawn: string[];
  let given: Record<string, StandIn>;
  beforeEach(() => {
    fake = new FakeGpu();
    given = {};
    ins = new StandIns((id, picture) => (given[id] = picture));
    drawn = [];
  });
  const output = (id: string, state: string, type: OutputSource['type'] = 'program', width = 1920) => ({
    ...{ id, state, width, height: (width * 9) / 16, painted: true },
    source: { type } as OutputSource,
  });
  type One = ReturnType<typeof output>;
  const turn = (now: number, outputs: One[], has = true): void =>
    ins.turn(now, fake as unknown as Gpu, outputs, ({ id }) => (drawn.push(id), has));
  const done = async (): Promise<void> => {
    fake.readings.at(-1)!.done();
    await settle();
  };

  test('are small pictures of what outputs show, once a second each, and only when that has changed', async () => {
    turn(0, [output('a', '1')]);
    expect(ins.has('a')).toBe(false);
    await done();
    expect(ins.has('a')).toBe(true);
    expect(given.a).toMatchObject({ width: 640, height: 360 });
    expect(fake.moved).toEqual([[1920, 1080, 640, 360]]);
    turn(999, [output('a', '2')]);
    turn(5000, [output('a', '1')]);
    expect(drawn).toEqual(['a']);
    turn(5000, [output('a', '2')]);
    await done();
    expect(given.a.rgba[0]).toBe(2);
    expect(fake.held).toBe(0);
  });

  test('are taken in turn: of the one that has waited longest, one at a time', async () => {
    const both = (state: string): One[] => [output('a', state), output('b', state, 'screen', 320)];
    turn(0, both('1'));
    turn(10, both('2'));
    expect(drawn).toEqual(['a']);
    await done();
    turn(20, both('3'));
    await done();
    expect(given.b).toMatchObject({ width: 640, height: 360 });
    turn(2000, both('4'));
    await done();
    turn(2010, both('5'));
    await done();
    expect(drawn).toEqual(['a', 'b', 'a', 'b']);
  });

  test('of small pictures of nodes there are none, nor of what has no picture yet', () => {
    turn(0, [output('n', '1', 'node'), output('t', '1', 'tile'), { ...output('a', '1'), painted: false }]);
    expect(drawn).toEqual([]);
    turn(0, [output('a', '1')], false);
    expect(fake.moved).toEqual([]);
  });

  test('the one before stays where the graphics card is lost while the next is read, and another card gives the next', async () => {
    turn(0, [output('a', '1')]);
    await done();
    turn(1000, [output('a', '2')]);
    fake.isLost = true;
    const lost = fake;
    fake = new FakeGpu();
    turn(2000, [output('a', '3')]);
    lost.readings.at(-1)!.fail();
    await settle();
    expect([given.a.rgba[0], ins.has('a')]).toEqual([1, true]);
    expect(lost.held).toBe(1);
    await done();
    turn(3000, [output('a', '4')]);
    await done();
    expect(given.a.rgba[0]).toBe(2);
    // One that is lost in the middle of it gives nothing, and does not say so.
    turn(4000, [output('a', '5')]);
    fake.readings.at(-1)!.nothing();
    await settle();
    expect(given.a.rgba[0]).toBe(2);
    ins.forget('a');
    expect(ins.has('a')).toBe(false);
  });
});
