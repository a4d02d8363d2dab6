import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Sketch } from '../demo/sketch';
import type { ReturnSettings } from '../src/core/document/types';
import { Probe } from './probe';

jest.setTimeout(400000);
let probe: Probe;
beforeAll(async () => {
  probe = await Probe.open();
});
afterAll(() => probe?.close());

/** A picture that is added to itself again and again. */
function adding(input: number, settings: Partial<ReturnSettings>) {
  const s = new Sketch('s1', 'Loop', [600, 0]);
  const fill = s.add('fill', 'Input', [0, 0], { colour: [input, input, input, 1] });
  const sum = s.add('blend', 'Sum', [200, 0], { mode: 'add' }, { precision: '32' });
  s.wire(fill, sum, 'over');
  const wire = s.wire(sum, sum, 'picture');
  s.back(wire, { guard: 'off', ...settings });
  s.wire(sum, s.out, 'picture');
  return { s, fill, sum, wire };
}

describe('what is kept', () => {
  test.each([30, 60, 144])(
    'at %i frames a second a steady input settles at the same brightness',
    async (fps) => {
      const { s, sum } = adding(0.02, { keep: 0.9 });
      const seen = await probe.ask({
        scene: s.scene,
        node: sum,
        fps,
        frames: Math.round(fps * 2),
        width: 16,
        height: 9,
      });
      // input / (1 - keep)
      expect(seen.at(0.5, 0.5)[0]).toBeCloseTo(0.2, 3);
    },
  );

  test.each([
    ['the wire at 32 bits', { precision: '32' as const }, 'auto' as const],
    ['all on auto', {}, 'auto' as const],
    ['the wire at 32 bits, the node at 16 by hand', { precision: '32' as const }, '16' as const],
  ])('a long memory settles where it should: %s', async (_name, settings, precision) => {
    const { s, sum } = adding(0.008, { keep: 0.99, ...settings });
    s.scene.nodes[sum].precision = precision;
    const seen = await probe.ask({ scene: s.scene, node: sum, fps: 60, frames: 900, width: 16, height: 9 });
    expect(seen.at(0.5, 0.5)[0]).toBeCloseTo(0.8 * (1 - 0.99 ** 900), 3);
  });

  test.each([30, 60, 144])('at %i frames a second half is gone after 13.5 steps', async (fps) => {
    const { s, fill, sum } = adding(1, { keep: 0.95 });
    // A flash of one step, then nothing: 0.95 to the power of the steps that passed.
    const dark = { frame: 1, node: fill, control: 'colour', value: [0, 0, 0, 0] };
    const seconds = 0.225;
    const frames = 1 + Math.round(fps * seconds);
    const seen = await probe.ask({
      scene: s.scene,
      node: sum,
      fps,
      frames,
      later: [dark],
      width: 16,
      height: 9,
    });
    const steps = Math.round(((frames - 1) / fps) * 60);
    expect(seen.at(0.5, 0.5)[0]).toBeCloseTo(0.95 ** steps, 2);
  });

  test.each([30, 60, 144])('at %i frames a second what is pushed has gone the same way', async (fps) => {
    const s = new Sketch('s1', 'Push', [600, 0]);
    const dot = s.add('flat-shape', 'Dot', [0, 0], {
      size: [0.1, 0.1],
      place: [-0.6, 0],
      fill: [1, 1, 1, 1],
    });
    const carry = s.add('transform', 'Carry', [200, 200], { move: [0.01, 0] });
    const lay = s.add('blend', 'Lay', [200, 0], { mode: 'lighten' }, { precision: '32' });
    s.wire(dot, lay, 'over');
    s.wire(carry, lay, 'picture');
    const wire = s.wire(lay, carry, 'picture');
    s.back(wire, { keep: 1, guard: 'off' });
    s.wire(lay, s.out, 'picture');
    const seen = await probe.ask({ scene: s.scene, node: lay, fps, frames: fps + 1 });
    const aspect = 160 / 90;
    // Sixty steps of a hundredth: the trail reaches from -0.6 to 0.
    expect(seen.at(0.5 - 0.04 / aspect, 0.5)[0]).toBeGreaterThan(0.5);
    expect(seen.at(0.5 + 0.1 / aspect, 0.5)[0]).toBeLessThan(0.02);
  });

  test.each(['smooth', 'crisp'] as const)(
    'read %s and not moved, a picture stays what it was',
    async (reading) => {
      const s = new Sketch('s1', 'Still', [600, 0]);
      const noise = s.add(
        'noise',
        'Home',
        [0, 0],
        { form: 'random', rate: 0, channels: 'three' },
        { precision: '32' },
      );
      const hold = s.add('transform', 'Hold', [200, 0], {}, { precision: '8' });
      const wire = s.wire(hold, hold, 'picture');
      s.back(wire, { keep: 1, guard: 'off', startsFrom: noise, reading });
      s.wire(hold, s.out, 'picture');
      const first = await probe.ask({ scene: s.scene, node: hold, frames: 1 });
      const late = await probe.ask({ scene: s.scene, node: hold, frames: 300 });
      expect(first.mean(0)).toBeGreaterThan(0.3);
      expect(late.apartFrom(first)).toBeLessThan(0.5 / 255);
    },
  );
});

describe('a loop that is kept apart', () => {
  test('has a size and a precision of its own', async () => {
    const s = new Sketch('s1', 'Small', [600, 0]);
    const home = s.add('coordinate-map', 'Home', [0, 0]);
    const hold = s.add('transform', 'Hold', [200, 0], {}, { precision: '32' });
    const wire = s.wire(hold, hold, 'picture');
    s.back(wire, { keep: 1, guard: 'off', startsFrom: home, size: [4, 2], precision: '8', reading: 'crisp' });
    s.wire(hold, s.out, 'picture');
    const seen = await probe.ask({ scene: s.scene, node: hold, frames: 4 });
    const values = new Set(
      Array.from({ length: 160 }, (_, x) => Math.round(seen.at((x + 0.5) / 160, 0.3)[0] * 255)),
    );
    expect(values.size).toBeLessThanOrEqual(4);
  });

  test('comes home where the mask is dark, softly, and nowhere else', async () => {
    const { s, sum, wire } = adding(0.1, { keep: 1 });
    const home = s.add('fill', 'Home', [0, 300], { colour: [0.5, 0, 0, 1] });
    const left = s.add('flat-shape', 'Mask', [0, 400], {
      form: 'box',
      size: [4, 4],
      place: [-2, 0],
      fill: [0.9, 0.9, 0.9, 1],
    });
    const right = s.add('fill', 'Ground', [0, 500], { colour: [1, 1, 1, 1] });
    const mask = s.add('blend', 'Both', [200, 400]);
    s.wire(right, mask, 'picture');
    s.wire(left, mask, 'over');
    s.back(wire, { startsFrom: home, clearWhere: mask });
    const seen = await probe.ask({ scene: s.scene, node: sum, frames: 200 });
    // Left: v = 0.9 v + 0.1 home + 0.1, which settles at home + 1. Right: nothing is lost.
    expect(seen.at(0.2, 0.5)[0]).toBeCloseTo(0.5 + 1, 1);
    expect(seen.at(0.2, 0.5)[1]).toBeCloseTo(1, 1);
    expect(seen.at(0.8, 0.5)[0]).toBeCloseTo(0.5 + 20, 0);
  });

  test('tapped before its step, a loop that was sent home stands exactly at home', async () => {
    const s = new Sketch('s1', 'Tap', [800, 0]);
    const home = s.add('coordinate-map', 'Home', [0, 0], {}, { precision: '32' });
    const push = s.add(
      'transform',
      'Push',
      [200, 0],
      { move: [0.1, 0], outside: 'mirror' },
      { precision: '32' },
    );
    const show = s.add('levels', 'Show', [400, 0], {}, { precision: '32' });
    const black = s.add('fill', 'Dark', [0, 300], { colour: [0, 0, 0, 1] });
    const wire = s.wire(push, push, 'picture');
    s.back(wire, { keep: 1, guard: 'off', startsFrom: home, clearWhere: black, tap: 'before' });
    s.wire(push, show, 'picture');
    s.wire(show, s.out, 'picture');
    const seen = await probe.ask({ scene: s.scene, node: show, frames: 12 });
    expect(seen.at(0.25, 0.75)[0]).toBeCloseTo(0.2531, 2);
    s.scene.wires[wire].back!.tap = 'after';
    const after = await probe.ask({ scene: s.scene, node: show, frames: 12 });
    expect(after.at(0.25, 0.75)[0]).toBeLessThan(0.21);
  });

  test('the guard holds it under its limit, apart or not', async () => {
    for (const precision of ['auto', '32'] as const) {
      const { s, sum } = adding(0.5, { keep: 1, guard: 'soft', limit: 2, precision });
      const seen = await probe.ask({ scene: s.scene, node: sum, frames: 200, width: 16, height: 9 });
      expect(seen.at(0.5, 0.5)[0]).toBeLessThan(2.5);
      expect(seen.at(0.5, 0.5)[0]).toBeGreaterThan(1.5);
    }
  });
});
