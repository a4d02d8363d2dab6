import { beforeEach, describe, expect, test } from '@jest/globals';
import { GpuClock } from './gpu-clock';

/** A context whose fences and timers are done when the test says so. */
class FakeGl {
  readonly SIGNALED = 1;
  readonly SYNC_STATUS = 2;
  readonly SYNC_GPU_COMMANDS_COMPLETE = 3;
  readonly QUERY_RESULT = 4;
  readonly QUERY_RESULT_AVAILABLE = 5;
  fences: { isDone: boolean }[] = [];
  queries: { ns: number | null; isOpen: boolean }[] = [];
  isDisjoint = false;
  deleted = 0;
  constructor(private readonly hasTimer = true) {}
  getExtension = (): object | null => (this.hasTimer ? { TIME_ELAPSED_EXT: 6, GPU_DISJOINT_EXT: 7 } : null);
  fenceSync(): object {
    const fence = { isDone: false };
    this.fences.push(fence);
    return fence;
  }
  getSyncParameter = (fence: { isDone: boolean }): number => (fence.isDone ? this.SIGNALED : 0);
  deleteSync(): void {
    this.deleted++;
  }
  flush(): void {
    // Nothing is kept back here.
  }
  createQuery(): object {
    const query = { ns: null, isOpen: false };
    this.queries.push(query);
    return query;
  }
  beginQuery(_target: number, query: { isOpen: boolean }): void {
    if (this.queries.some(({ isOpen }) => isOpen)) throw new Error('Two queries of one target are open.');
    query.isOpen = true;
  }
  endQuery(): void {
    for (const query of this.queries) query.isOpen = false;
  }
  getQueryParameter = (query: { ns: number | null }, what: number): unknown =>
    what === this.QUERY_RESULT ? query.ns : query.ns !== null;
  getParameter = (): boolean => this.isDisjoint;
  deleteQuery = (query: { ns: number | null; isOpen: boolean }): void =>
    void this.queries.splice(this.queries.indexOf(query), 1);
}

describe('the clock of the GPU', () => {
  let gl: FakeGl;
  let clock: GpuClock;
  const make = (hasTimer: boolean): void => {
    gl = new FakeGl(hasTimer);
    clock = new GpuClock(gl as unknown as WebGL2RenderingContext);
  };
  /** A frame that is noticed to be done after so long, of which so much was its own. */
  const frame = (start: number, latency: number, own: number): void => {
    clock.beginFrame(false);
    clock.endFrame();
    clock.mark(start);
    for (const fence of gl.fences) fence.isDone = true;
    for (const query of gl.queries) query.ns = own * 1e6;
    clock.poll(start + latency);
  };
  beforeEach(() => make(true));

  test('counts frames that are not done, and those of the last second', () => {
    for (let k = 0; k < 3; k++) clock.mark(1000 + k);
    expect(clock.behind).toBe(3);
    gl.fences[0].isDone = true;
    // The order is that in which they were given: the third cannot be done before the second.
    gl.fences[2].isDone = true;
    clock.poll(1100);
    expect(clock.behind).toBe(2);
    expect(clock.perSecond).toBe(1);
    expect(clock.lastDone).toBe(1100);
    clock.poll(2200);
    expect(clock.perSecond).toBe(0);
  });

  test('tells what a frame costs by itself from how long it took to be noticed', () => {
    for (let k = 0; k < 20; k++) frame(1000 * k, 300, 20);
    expect(clock.frameMs).toBeCloseTo(300);
    expect(clock.costMs).toBeCloseTo(20);
  });

  test('goes by how long frames took where the GPU can’t tell more', () => {
    make(false);
    for (let k = 0; k < 20; k++) frame(1000 * k, 40, 20);
    expect(clock.costMs).toBeCloseTo(40);
    expect(clock.canMeasure).toBe(false);
  });

  test('passes over answers that count for nothing', () => {
    frame(1000, 30, 10);
    gl.isDisjoint = true;
    frame(2000, 30, 900);
    gl.isDisjoint = false;
    frame(3000, 30, 0);
    expect(clock.costMs).toBeCloseTo(10);
  });

  test('one slow frame says little, quicker ones are believed sooner', () => {
    for (let k = 0; k < 10; k++) frame(1000 * k, 30, 10);
    frame(20000, 30, 110);
    expect(clock.costMs).toBeCloseTo(25);
    frame(21000, 30, 10);
    expect(clock.costMs).toBeCloseTo(19);
  });

  test('has one query of frames out at a time, and none while nodes are measured', () => {
    clock.beginFrame(true);
    expect(gl.queries).toHaveLength(0);
    clock.beginFrame(false);
    clock.endFrame();
    clock.beginFrame(false);
    clock.endFrame();
    expect(gl.queries).toHaveLength(1);
  });

  test('measures nodes one after the other and takes all answers together', () => {
    let drawn = 0;
    clock.measure('a', () => drawn++);
    clock.measure('b', () => drawn++);
    clock.measure('a', () => drawn++);
    expect(drawn).toBe(3);
    expect(clock.canMeasure).toBe(false);
    gl.queries[0].ns = 2e6;
    gl.queries[1].ns = 3e6;
    clock.poll(1);
    expect(clock.nodeMs).toEqual({});
    gl.queries[2].ns = 1e6;
    clock.poll(2);
    expect(clock.nodeMs).toEqual({ a: 3, b: 3 });
    expect(gl.queries).toHaveLength(0);
    clock.measure('b', () => drawn++);
    gl.queries[0].ns = 5e6;
    clock.poll(3);
    expect(clock.nodeMs).toEqual({ b: 3 * 0.6 + 5 * 0.4 });
    clock.forgetNodes();
    expect(clock.nodeMs).toEqual({});
  });
});
