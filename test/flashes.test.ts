import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import type { FlashProbeAnswer, FlashProbeRequest } from '../src/engine/probe/flash-probe';
import { Probe } from './probe';

jest.setTimeout(60000);
let probe: Probe;
beforeAll(async () => {
  probe = await Probe.open();
});
afterAll(() => probe?.close());

const black = [0, 0, 0] as const;
const white = [1, 1, 1] as const;
const grey = (v: number) => [v, v, v] as const;

/** Ten flashes a second over the whole picture, unless something else is said. */
const play = (more: Partial<FlashProbeRequest>): Promise<FlashProbeAnswer> =>
  probe.flashes({
    ground: grey(0.2),
    box: [0, 0, 1, 1],
    colours: [black, white],
    stays: [0.05, 0.05],
    seconds: 1.6,
    fps: 60,
    limits: true,
    ...more,
  });

describe('the flash meter on the GPU', () => {
  test('counts what is shown, general and red', async () => {
    expect(await play({ limits: false, seconds: 1.1 })).toMatchObject({ general: 20, red: 0, fails: true });
    const red = { limits: false, seconds: 1.1, stays: [0.1, 0.1], colours: [black, [0.6, 0, 0]] } as const;
    expect(await play(red)).toMatchObject({ general: 0, red: 10, fails: true });
  });
});

describe('the limiter', () => {
  test.each<[string, Partial<FlashProbeRequest>]>([
    ['over the whole picture', {}],
    ['every other frame', { stays: [1 / 60, 1 / 60] }],
    ['barely more than three a second', { stays: [0.15, 0.15], seconds: 2.5 }],
    ['short and bright', { stays: [0.1, 0.025] }],
    ['in a quarter of a field of view', { box: [0.3, 0.3, 0.19, 0.19] }],
    ['between greys', { colours: [grey(0.3), grey(0.6)] }],
    ['in a dim saturated red', { colours: [black, [0.6, 0, 0]], stays: [0.1, 0.1] }],
    ['between red and blue', { colours: [[1, 0, 0], [0, 0, 1]], stays: [0.1, 0.1] }], // prettier-ignore
    ['at thirty frames a second', { fps: 30, stays: [1 / 15, 1 / 15] }],
  ])('holds flashes within three a second: %s', async (_, more) => {
    const { fails, held } = await play(more);
    expect(fails).toBe(false);
    expect(held).toBeGreaterThan(0.9);
  });

  test('what it holds settles between both lights, and what does not flash stays as it is', async () => {
    const { middle, corner } = await play({ box: [0.3, 0.3, 0.4, 0.4], seconds: 2.5 });
    for (const value of middle) expect(Math.abs(value - 128)).toBeLessThan(30);
    expect(corner).toEqual([51, 51, 51]);
  });

  test.each<[string, Partial<FlashProbeRequest>]>([
    ['fewer than three flashes a second', { stays: [0.2, 0.2] }],
    ['small ones', { box: [0.4, 0.4, 0.07, 0.07] }],
    ['changes that are too weak', { colours: [grey(0.3), grey(0.4)] }],
    ['a single cut', { stays: [0.8, 0.8] }],
  ])('leaves alone what is allowed: %s', async (_, more) => {
    const { held, middle } = await play(more);
    expect(held).toBe(0);
    expect([0, 255, 77, 76, 102]).toContain(middle[0]);
  });

  test('lets go once the flashes are over', async () => {
    // One burst of half a second, then light.
    const { held, heldAtEnd, middle } = await play({ burst: 0.6, seconds: 4 });
    expect(held).toBeGreaterThan(0.9);
    expect(heldAtEnd).toBeLessThan(0.05);
    expect(middle[0]).toBeLessThan(10);
  });
});
