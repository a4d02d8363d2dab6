import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
  const show = smallShow('Bench Test');
  const s = new Sketch('s1', 'Only', [600, 0]);
  const fill = s.add('fill', 'Ground', [0, 0], { colour: [0.2, 0.4, 0.6, 1] });
  const disc = s.add('flat-shape', 'Sun', [0, 150], { form: 'disc', size: [0.5, 0.5], fill: [1, 1, 1, 1] });
  const blend = s.add('blend', 'Both', [200, 50]);
  s.wire(fill, blend, 'picture');
  s.wire(disc, blend, 'over');
  s.wire(blend, s.out, 'picture');
  s.add('oscillator', 'Wave', [0, 320], { rate: 1 });
  s.add('number-line', 'Line', [200, 320], { samples: 5, from: 0, to: 8 });
  s.add('ball', 'Globe', [400, 320], { form: 'even', points: 50 });
  show.scenes = [s.scene];
  await desk.openShow(show);
});
afterAll(() => desk?.close());

const rows = (): Promise<string[]> =>
  desk.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('[data-testid="table"] tbody tr')].map((r) => r.innerText.replace(/\\s+/g, ' ').trim())`,
  );

describe('the bench', () => {
  test('shows the scene while nothing is chosen, and reads its pixels', async () => {
    const [red, green, blue] = await desk.until(
      'a white middle',
      () => desk.benchPixel(),
      ([r]) => r > 0.99,
    );
    expect([red, green, blue].every((v) => v > 0.99)).toBe(true);
    await desk.choose('Ground');
    const ground = await desk.until(
      'the ground',
      () => desk.benchPixel(),
      ([r]) => r < 0.3,
    );
    expect(ground[1]).toBeCloseTo(0.4, 2);
    expect(ground[3]).toBe(1);
    expect(await desk.text('[data-testid="pixel"]')).toContain('pixels');
  });

  test('shows lanes as a plot and a table', async () => {
    await desk.choose('Line');
    await desk.find('[data-testid="plot"] canvas');
    await desk.until('five samples', rows, (list) => list.length === 5);
    expect(await rows()).toEqual(['0 0', '1 2', '2 4', '3 6', '4 8']);
    await desk.choose('Wave');
    const first = await desk.until('one sample', rows, (list) => list.length === 1);
    await desk.until('it to move', rows, (list) => list[0] !== first[0]);
  });

  test('shows points in space and as a table', async () => {
    await desk.choose('Globe');
    await desk.until('fifty points', rows, (list) => list.length === 50);
    expect((await rows())[0].split(' ')).toHaveLength(4);
  });
});

describe('the monitor and the transport', () => {
  test('Alt over a card shows the scene without it', async () => {
    await desk.chooseNothing();
    const whole = await desk.picture();
    const card = await desk.find('[data-node="Sun"]');
    const keys = desk.driver.actions({ async: true });
    await keys.move({ origin: card }).keyDown(Key.ALT).perform();
    expect(await desk.text('[data-testid="without"]')).toBe('without Sun');
    const less = await desk.until(
      'the picture without it',
      () => desk.picture(),
      (p) => p.mean < whole.mean * 0.95,
    );
    expect(less.blue).toBeCloseTo(153, -1);
    await desk.driver.actions({ async: true }).keyUp(Key.ALT).perform();
    await desk.until(
      'the whole picture',
      () => desk.picture(),
      (p) => Math.abs(p.mean - whole.mean) < 2,
    );
  });

  test('pause, step, back to start, and a tempo by hand', async () => {
    const seconds = (): Promise<number> => desk.text('[data-testid="time"]').then(parseFloat);
    await desk.until('time to go on', seconds, (t) => t > 0.5);
    await desk.pause();
    const held = await seconds();
    await desk.click('[aria-label="Back to start"]');
    await desk.until('the start', seconds, (t) => t === 0);
    expect(held).toBeGreaterThan(0);
    for (let k = 0; k < 12; k++) await desk.click('[aria-label="Step a frame"]');
    await desk.until('twelve frames of the show', seconds, (t) => t === 0.4);
    const tempo = await desk.find('[role="spinbutton"][aria-label="Tempo"]');
    await tempo.sendKeys(Key.ENTER);
    await (
      await desk.find('input[aria-label="Tempo"]')
    ).sendKeys(Key.chord(Key.CONTROL, 'a'), '98', Key.ENTER);
    await desk.until(
      'the tempo',
      () => desk.text('[role="spinbutton"][aria-label="Tempo"]'),
      (t) => t === '98',
    );
    await desk.play();
    await desk.until('time to go on', seconds, (t) => t > 0.4);
  });
});
