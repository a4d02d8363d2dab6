import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { Desk, smallShow } from './desk';

jest.setTimeout(180000);
let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk?.close());

describe('Pollen Drift’s first layer, by hand from an empty scene', () => {
  test('pixels of a noise become copies that move', async () => {
    await desk.openShow(smallShow('By Hand'));
    await desk.add('noise', 'Noise');
    await desk.select('Size', 'Its own');
    await desk.type('Width in pixels', '64');
    await desk.type('Height in pixels', '4');
    await desk.select('Channels', 'Three');
    await desk.add('copies', 'Instances');
    await desk.add('photograph', 'Shot');
    await desk.tidy();
    await desk.wire('Noise', 'Instances', 'pixels');
    await desk.wire('Instances', 'Shot', 'props');
    await desk.wire('Shot', 'Scene Out', 'picture');
    await desk.until(
      'three wires',
      () => desk.wires(),
      (n) => n === 3,
    );

    await desk.choose('Instances');
    await desk.select('Pixels are', 'A row each');
    await desk.type('Size value', '0.12');
    await desk.select('Faces', 'The camera');
    await desk.until(
      '64 copies',
      () => desk.caption('Instances'),
      (t) => t === '64 copies',
    );
    const first = await desk.until(
      'copies in the monitor',
      () => desk.picture(),
      (p) => p.lit > 0.004,
    );
    await desk.until(
      'copies that move',
      () => desk.picture(),
      (p) => p.png !== first.png && p.lit > 0.004,
    );
  });

  test('a signal wired to a control is fitted, and its samples drive copies', async () => {
    await desk.press(Key.ESCAPE);
    await desk.add('dice', 'Scatter');
    await desk.tidy();
    await desk.wireControl('Scatter', 'Instances', 'size');
    await desk.choose('Instances');
    await desk.click('[aria-label="Source of Size"]');
    const to = await desk.find('[data-sources="size"] [aria-label="To high"]');
    expect(await desk.textOf(to)).toBe('0.2');
    await desk.until(
      'the live value',
      () => desk.text('[data-part="size"] [data-testid="live-value"]'),
      (t) => /·64$/.test(t.replace(/\s/g, '')),
    );
    await desk.find('[data-part="size"] [data-testid="bead"]');
    const before = await desk.picture();
    await desk.type('To high', '0.9');
    await desk.until(
      'larger copies',
      () => desk.picture(),
      (p) => p.lit > before.lit * 1.5,
    );
  });

  test('everything can be undone and redone', async () => {
    const wires = await desk.wires();
    await desk.choose('Scatter');
    await desk.press(Key.DELETE);
    await desk.until(
      'one wire less',
      () => desk.wires(),
      (n) => n === wires - 1,
    );
    await desk.chord(Key.CONTROL, 'z');
    await desk.until(
      'the wire again',
      () => desk.wires(),
      (n) => n === wires,
    );
    await desk.chord(Key.CONTROL, 'y');
    await desk.until(
      'gone again',
      () => desk.wires(),
      (n) => n === wires - 1,
    );
    await desk.chord(Key.CONTROL, 'z');
    await desk.until(
      'back',
      () => desk.wires(),
      (n) => n === wires,
    );
  });

  test('copies keep their wires', async () => {
    const wires = await desk.wires();
    await desk.choose('Instances');
    await desk.chord(Key.CONTROL, 'c');
    await desk.chord(Key.CONTROL, 'v');
    await desk.find('[data-node="Instances 2"]');
    // The noise and the scatter come in; what leaves the original is not copied.
    await desk.until(
      'its two wires',
      () => desk.wires(),
      (n) => n === wires + 2,
    );
  });

  test('a node switched off hands its picture on, and comes back', async () => {
    await desk.choose('Shot');
    await desk.click('[aria-label="Switch the node off"]');
    await desk.until(
      'a dark monitor',
      () => desk.picture(),
      (p) => p.lit < 0.001,
    );
    await desk.click('[aria-label="Switch the node off"]');
    await desk.until(
      'the picture again',
      () => desk.picture(),
      (p) => p.lit > 0.004,
    );
  });

  test('a card dropped on a wire stands between; pulling a wire into the open asks what fits', async () => {
    await desk.press(Key.ESCAPE);
    await desk.add('brightness contrast', 'Levels');
    await desk.tidy();
    const wires = await desk.wires();
    const spot = await desk.driver.executeScript<{ x: number; y: number }>(`
      const shot = document.querySelector('[data-node="Shot"]').getBoundingClientRect();
      const out = document.querySelector('[data-node="Scene Out"]').getBoundingClientRect();
      for (const group of document.querySelectorAll('[data-wire]')) {
        const path = group.querySelector('path');
        const box = path.getScreenCTM();
        const start = path.getPointAtLength(0).matrixTransform(box);
        const end = path.getPointAtLength(path.getTotalLength()).matrixTransform(box);
        if (Math.abs(start.x - shot.right) < 12 && Math.abs(end.x - out.left) < 12) {
          const middle = path.getPointAtLength(path.getTotalLength() / 2).matrixTransform(box);
          return { x: Math.round(middle.x), y: Math.round(middle.y) };
        }
      }`);
    const card = await desk.find('[data-node="Levels"] .truncate');
    await desk.driver
      .actions({ async: true })
      .move({ origin: card })
      .press()
      .move({ x: spot.x, y: spot.y - 6, duration: 150 })
      .move({ ...spot, duration: 80 })
      .release()
      .perform();
    await desk.until(
      'a wire more',
      () => desk.wires(),
      (n) => n === wires + 1,
    );
    await desk.tidy();
    const out = await desk.find(desk.port('Levels', 'out'));
    await desk.driver
      .actions({ async: true })
      .move({ origin: out })
      .press()
      .move({ origin: out, x: 20, y: -30, duration: 80 })
      .move({ origin: out, x: 30, y: -60, duration: 80 })
      .release()
      .perform();
    const labels = await desk.until(
      'what fits',
      async () =>
        Promise.all((await desk.driver.findElements(By.css('[cmdk-item]'))).map((e) => desk.textOf(e))),
      (list) => list.length > 0,
    );
    expect(labels.some((l) => l.startsWith('Blur'))).toBe(true);
    expect(labels.some((l) => l.startsWith('Ball'))).toBe(false);
    await desk.press(Key.ESCAPE);
  });
});

describe('feedback by drawing a wire back', () => {
  test('brightness settles at input / (1 - keep)', async () => {
    const show = smallShow('Feedback');
    // Five steps of feedback a frame: more than a frame takes that is only played, and each counts where frames are stepped.
    show.canvas.fps = 12;
    await desk.openShow(show);
    await desk.add('solid', 'Fill');
    await desk.click('[aria-label="Parts of Colour"]');
    for (const part of ['red', 'green', 'blue']) await desk.type(`${part} value`, '0.25');
    await desk.add('crossfade', 'Blend');
    await desk.select('Mode', 'Add');
    await desk.tidy();
    await desk.wire('Fill', 'Blend', 'over');
    await desk.wire('Blend', 'Scene Out', 'picture');
    await desk.wire('Blend', 'Blend', 'picture');
    await desk.chooseReturn();
    await desk.type('Keep value', '0.5');
    await desk.pause();
    await desk.click('[data-testid="return-panel"] button.tool');
    await desk.choose('Blend');
    // What is steady stays so with further steps, and a loop that had to begin again gets there.
    const settled = await desk.until(
      'the steady brightness',
      async () => {
        for (let k = 0; k < 6; k++) await desk.click('[aria-label="Step a frame"]');
        return desk.benchPixel();
      },
      ([red]) => Math.abs(red - 0.5) < 0.01,
    );
    expect(settled[1]).toBeCloseTo(settled[0], 2);
    await desk.play();
  });
});

describe('keys and envelopes', () => {
  test('a key fires an envelope that is seen in a control', async () => {
    await desk.openShow(smallShow('Hit'));
    await desk.add('radial', 'Gradient');
    await desk.add('adsr', 'Envelope');
    await desk.type('Decay value', '1.5');
    await desk.add('keyboard', 'Keys');
    await desk.click('[data-part="key"] button');
    await desk.press('k');
    await desk.tidy();
    await desk.wire('Keys', 'Envelope', 'trigger');
    await desk.wireControl('Envelope', 'Gradient', 'phase');
    await desk.choose('Gradient');
    const live = (): Promise<number> =>
      desk.text('[data-part="phase"] [data-testid="live-value"]').then(Number);
    await desk.until('rest', live, (v) => v === 0);
    await desk.press('k');
    await desk.until('the hit', live, (v) => v > 0.4);
    await desk.until('rest again', live, (v) => v === 0);
  });
});

describe('motions', () => {
  const bead = async (part: string): Promise<string> =>
    (await (await desk.find(`[data-part="${part}"] [data-testid="bead"]`)).getAttribute('style')) ?? '';
  const order = (): Promise<string[]> =>
    desk.driver.executeScript(
      `return [...document.querySelectorAll('[data-motion]')].map((row) => row.dataset.motion)`,
    );

  test('Swing and Wander move a control around its base, which stays where the hand set it', async () => {
    await desk.openShow(smallShow('Motions'));
    await desk.add('flat', 'Flat Shape');
    await desk.tidy();
    await desk.wire('Flat Shape', 'Scene Out', 'picture');
    await desk.until(
      'the wire',
      () => desk.wires(),
      (n) => n === 1,
    );
    await desk.choose('Flat Shape');
    await desk.type('Place x value', '0.1');
    await desk.click('[aria-label="Source of Place x"]');
    await desk.click('[aria-label="Add Swing"]');
    await desk.click('[aria-label="Add Wander"]');
    await desk.type('Swing rate', '3');
    const first = await bead('place.x');
    await desk.until(
      'the bead to move',
      () => bead('place.x'),
      (style) => style !== first,
    );
    expect(await desk.text('[aria-label="Place x value"]')).toBe('0.1');
    expect(await order()).toEqual(['swing', 'wander']);
    await desk.click('[aria-label="Move Wander up"]');
    await desk.until('the other order', order, (types) => types.join() === 'wander,swing');
    await desk.click('[aria-label="Remove Swing"]');
    await desk.click('[aria-label="Remove Wander"]');
    await desk.until('no motion', order, (types) => types.length === 0);
  });

  test('a Hit waits for a key, and comes back', async () => {
    await desk.add('keyboard', 'Keys');
    await desk.choose('Flat Shape');
    await desk.click('[aria-label="Source of Size x"]');
    await desk.click('[aria-label="Add Hit"]');
    await desk.type('Hit amount', '1');
    await desk.type('Hit decay', '3');
    await desk.select('Hit trigger', 'Keys');
    const rest = await desk.until(
      'the shape',
      () => desk.picture(),
      (p) => p.lit > 0.02,
    );
    await desk.chooseNothing();
    await desk.press(Key.SPACE);
    await desk.until(
      'a larger shape',
      () => desk.picture(),
      (p) => p.lit > rest.lit * 1.3,
    );
    await desk.until(
      'the shape as it was',
      () => desk.picture(),
      (p) => p.lit < rest.lit * 1.1,
    );
  });
});
